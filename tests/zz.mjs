import { chromium } from '@playwright/test';
import { launchOptions } from '../scripts/chromium.js';
import { execSync } from 'node:child_process';
const base='http://127.0.0.1:4899';
const browser = await chromium.launch(launchOptions);
const context = await browser.newContext({viewport:{width:1280,height:800}});
const page = await context.newPage();
page.on('console', m => console.log('PAGE', m.type(), m.text()));
await page.goto(base+'/along'); await page.waitForSelector('html[data-answers]');
await page.getByRole('button',{name:'Take the yard along'}).click();
await page.getByText('The whole yard is with you').waitFor({timeout:30000}).catch(e=>console.log(String(e)));
execSync('fuser -s -k 4899/tcp 2>/dev/null || true',{stdio:'ignore'});
await new Promise(r=>setTimeout(r,4500));
for (const p of ['/','/','/trees','/trees','/yard/damaged','/yard','/calendar']) {
let t=Date.now();
const r = await page.goto(base+p); const b=Date.now()-t; await page.waitForSelector('html[data-answers]',{timeout:20000});
console.log(p, r.status(), b, Date.now()-t, await page.title());
if (p==='/yard/damaged') console.log(await page.locator('main').innerText());
}
// data requests
const links = await page.evaluate(async () => { const out=[]; for (const p of ['/','/trees','/yard']) { const t=performance.now(); const r = await fetch((p==='/'?'':p)+'/__data.json'); await r.text(); out.push([p, r.status, Math.round(performance.now()-t)]); } return out; });
console.log(JSON.stringify(links));
await browser.close();
