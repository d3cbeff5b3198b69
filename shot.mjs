import { chromium } from '@playwright/test';
const b = await chromium.launch({ executablePath:'/usr/bin/chromium', args:['--headless','--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync']});
const base = process.env.BASE ?? 'http://127.0.0.1:4899';
const [w,h] = (process.env.SIZE ?? '1280x800').split('x').map(Number);
const p = await b.newPage({ viewport:{width:w,height:h}, colorScheme: process.env.DARK ? 'dark':'light' });
p.on('pageerror', e => console.log('ERR', e.message));
await p.goto(base+'/trees');
const links = await p.$$eval('a[href^="/trees/"]', as => as.map(a => [a.getAttribute('href'), a.textContent.trim().slice(0,60)]));
if (process.argv[2]==='list') { for (const l of links) console.log(l.join(' ')); }
else for (const [i,arg] of process.argv.slice(2).entries()) {
  let path = arg.replace(/[A-Z]-\d\d/, (m)=> (links.find(l=>l[1].includes(m))??['/nope'])[0]);
  await p.goto(base+path, { waitUntil:'networkidle' });
  await p.screenshot({ path:`/tmp/s/shot${i}.png`, fullPage: !!process.env.FULL });
  if (process.env.TEXT) console.log(await p.evaluate(()=>document.querySelector('main')?.innerText ?? document.body.innerText));
}
await b.close();
