import { chromium } from '@playwright/test';
const [,, out, width, height, scheme, ...steps] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless','--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync'] });
const p = await b.newPage({ viewport: { width: +width, height: +height }, colorScheme: scheme });
p.on('pageerror', e => console.log('ERR', e.message));
const base = 'http://127.0.0.1:4899';
for (const s of steps) {
  const [k, ...r] = s.split('::');
  if (k === 'go') { await p.goto(base + r[0]); await p.waitForLoadState('networkidle'); }
  else if (k === 'tree') { await p.goto(base + '/trees'); await p.getByRole('link', { name: r[0] }).first().click(); await p.waitForURL(/trees\/[^/]+\//); const id = p.url().split('/')[4]; await p.goto(base + '/trees/' + id + '/' + r[1]); await p.waitForLoadState('networkidle'); }
  else if (k === 'click') await p.getByRole(r[0], { name: r[1] }).first().click();
  else if (k === 'fill') await p.getByLabel(r[0], {exact: r[2]==='x'}).first().fill(r[1]);
  else if (k === 'select') await p.getByLabel(r[0]).first().selectOption({ label: r[1] });
  else if (k === 'scroll') await p.evaluate(y => window.scrollTo(0, y), +r[0]);
  else if (k === 'wait') await p.waitForTimeout(+r[0]);
  else if (k === 'reload') { await p.reload(); await p.waitForLoadState('networkidle'); }
  else if (k === 'text') console.log((await p.locator(r[0]).innerText()).slice(0, 6000));
}
await p.screenshot({ path: out });
await b.close();
