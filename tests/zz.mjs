import { chromium } from '@playwright/test';
import { launchOptions } from '../scripts/chromium.js';
const b = await chromium.launch(launchOptions);
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
const go=async(u)=>{await p.goto('http://127.0.0.1:4899'+u);await p.waitForSelector('html[data-answers]');};
for (const u of ['/','/trees','/yard','/calendar','/round']) { await go(u); console.log(u, await p.locator('h1').innerText()); }
await go('/yard/damaged'); await p.screenshot({ path: '/tmp/s/a.png' });
await p.locator('li').filter({hasText:'H-03'}).getByRole('button',{name:'Mend it'}).click(); await p.waitForTimeout(1200); await p.screenshot({ path: '/tmp/s/b.png' });
await go('/trees'); await p.locator('text=twin').first().waitFor(); console.log(JSON.stringify(await p.locator('text=twin').first().innerText()));
const href=await p.locator('a[href*="/trees/"]').first().getAttribute('href'); const id=href.split('/')[2];
const q = await b.newPage({ viewport: { width: 1280, height: 800 } });
const at=`http://127.0.0.1:4899/trees/${id}/take-in`;
await p.goto(at); await q.goto(at); await p.waitForSelector('html[data-answers]'); await q.waitForSelector('html[data-answers]');
await q.getByLabel('Name',{exact:true}).fill('Changed in the other'); await q.getByLabel('Trunk above the flare').fill('77'); await q.getByRole('button',{name:'Keep the changes'}).click(); await q.waitForTimeout(1500);
await p.getByLabel('Name',{exact:true}).fill('Changed here'); await p.getByRole('radio',{name:'weak'}).click(); await p.getByRole('button',{name:'Keep the changes'}).click(); await p.waitForTimeout(1500); await p.screenshot({ path: '/tmp/s/c.png', fullPage: true });
await b.close();
