import { chromium } from 'playwright';
const b = await chromium.launch({
	executablePath: '/usr/bin/chromium',
	args: [
		'--headless',
		'--no-sandbox',
		'--disable-gpu',
		'--disable-quic',
		'--no-first-run',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync'
	]
});
const base = 'http://127.0.0.1:4899';
const [, , mode = 'desk', dark = ''] = process.argv;
const ctx = await b.newContext({
	viewport: mode === 'phone' ? { width: 390, height: 844 } : { width: 1280, height: 800 },
	colorScheme: dark ? 'dark' : 'light',
	locale: 'en-GB'
});
const page = await ctx.newPage();
page.on('console', (m) => {
	if (m.type() === 'error') console.log('console', m.text());
});
page.on('pageerror', (e) => console.log('pageerror', e.message));
await page.goto(base + '/yard');
await page.waitForLoadState('networkidle');
const id = process.env.TREE;
await page.goto(`${base}/trees/${id}/recovery/pictures`);
await page.getByText(/Laid over each other|Too little|Only one part/).waitFor({ timeout: 60000 });
await page.screenshot({ path: `/tmp/s/p-${mode}${dark}-1.png` });
await page.getByRole('link', { name: 'Measure between the two' }).click();
await page.getByText(/Touch round the crown/).waitFor({ timeout: 60000 });
const t = Date.now();
await page.getByRole('button', { name: 'Outline the crown' }).click();
await page.getByText(/of the loop is leaf/).waitFor({ timeout: 60000 });
console.log('outline+leaves ms', Date.now() - t);
await page.screenshot({ path: `/tmp/s/p-${mode}${dark}-2.png`, fullPage: mode === 'phone' });
await page
	.getByRole('radio', { name: /a length/ })
	.click()
	.catch(() => page.getByText('a length: shoot or wound').click());
await page.waitForTimeout(800);
await page.screenshot({ path: `/tmp/s/p-${mode}${dark}-3.png`, fullPage: mode === 'phone' });
await b.close();
