// Takes the pictures of docs/screenshots from the demo. Give the address of a running demo: node scripts/screenshots.js http://127.0.0.1:4747
import { chromium } from '@playwright/test';
import { launchOptions } from './chromium.js';

const base = process.argv[2] ?? 'http://127.0.0.1:4747';
/** @type {[name: string, path: string, options?: { tag?: string, phone?: boolean, dark?: boolean, press?: string, choose?: string, fill?: [string, string], follow?: string | RegExp, touches?: [asked: string, x: number, y: number][], press2?: string, until?: string }][]} */
const shots = [
	['today', '/'],
	['outcomes', '/yard/outcomes'],
	['stands', '/stands', { tag: 'C-07' }],
	['weather', '/yard/weather'],
	['examine', '/examine', { tag: 'C-07' }],
	['measure', '/examine/measure?tool=scratch-tap', { tag: 'G-11' }],
	['roots', '/roots', { tag: 'H-03' }],
	['plan', '/roots', { tag: 'L-01', press: 'Propose stages', until: 'Take bold' }],
	[
		'bench',
		'/roots/bench',
		{
			tag: 'T-05',
			fill: ['Why it is cut all the same', 'Rot; it stands under cover tonight.'],
			press: 'Begin all the same'
		}
	],
	['book', '/book', { tag: 'C-07', dark: true }],
	['replant', '/replant', { tag: 'T-05' }],
	['ground', '/replant/ground', { tag: 'L-01' }],
	['aftercare', '/aftercare', { tag: 'B-05' }],
	['recovery', '/recovery', { tag: 'H-03', until: 'So decided' }],
	[
		'picture-roots',
		'/roots',
		{
			tag: 'P-09',
			press: 'Roots from a picture',
			follow: /^roots, 12 Apr/,
			touches: [
				['Touch the middle of the trunk', 800 / 1600, 600 / 1200],
				['Touch a place towards the front', 1061 / 1600, 708 / 1200]
			],
			until: 'Take all'
		}
	],
	[
		'then-and-now',
		'/recovery/pictures',
		{ tag: 'E-04', follow: 'Measure between the two', press2: 'Outline the crown', until: 'Write down' }
	],
	['rehearse', '/rehearse', { tag: 'A-01', until: 'Set another plan beside' }],
	['practice', '/practice', { follow: /^The heavy pot/, until: 'The same tree once more' }],
	['phone-today', '/', { phone: true, dark: true }]
];

const { trees } = await (await fetch(`${base}/api/v1/trees`)).json();
const browser = await chromium.launch(launchOptions);
for (const [
	name,
	path,
	{ tag, phone, dark, press, choose, fill, follow, touches, press2, until } = {}
] of shots) {
	const page = await browser.newPage({
		viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
		colorScheme: dark ? 'dark' : 'light',
		reducedMotion: 'reduce'
	});
	const tree = trees.find((/** @type {{ tag: string }} */ candidate) => candidate.tag === tag);
	await page.goto(base + (tree ? `/trees/${tree.id}${path}` : path), { waitUntil: 'networkidle' });
	if (choose) await page.getByRole('radio', { name: choose }).click();
	if (fill) await page.getByLabel(fill[0]).fill(fill[1]);
	if (press) await page.getByRole('button', { name: press }).first().click();
	if (follow) await page.getByRole('link', { name: follow }).first().click();
	for (const [asked, x, y] of touches ?? []) {
		await page.getByText(asked).waitFor();
		const image = page.locator('main img').first();
		const box = await image.boundingBox();
		if (box) await image.click({ position: { x: x * box.width, y: y * box.height }, force: true });
	}
	if (press2) await page.getByRole('button', { name: press2 }).first().click();
	if (until) await page.getByRole('button', { name: until }).first().waitFor();
	await page.screenshot({ path: `docs/screenshots/${name}.png` });
	await page.close();
}
await browser.close();
