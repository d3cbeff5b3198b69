import {
	DEMO,
	expect,
	expectAccessible,
	labelsUnseen,
	open,
	strayOnPaper,
	stageViews,
	test,
	told,
	treeId,
	type Page
} from './helpers';

// Each of them stands alone; together they take the longest.
test.describe.configure({ mode: 'parallel' });

const pages = [
	'/',
	'/trees',
	'/trees/new',
	'/trees/labels',
	'/trees/read',
	'/yard',
	'/yard/settings',
	'/yard/stock',
	'/yard/weather',
	'/yard/devices',
	'/yard/outcomes',
	'/practice',
	'/yard/review',
	'/yard/damaged',
	'/yard/people',
	'/yard/backups',
	'/along',
	'/key',
	'/calendar',
	'/round',
	'/reference/kinds',
	'/reference/components',
	'/reference/values',
	'/reference/cautions',
	'/reference/glossary',
	'/reference/card',
	'/reference/formats',
	'/reference/look'
];

const hornbeam = async (): Promise<string> => `/trees/${await treeId('H-03')}/`;
/** Opens a view of the yard, or of the tree. */
async function show(page: Page, tree: string, view: string): Promise<void> {
	await open(page, DEMO + (view.startsWith('/') ? view : tree + view));
	await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
}
/** The views in parts that take about a minute each. */
const parts = {
	'the yard': pages.slice(0, 12),
	reference: pages.slice(12),
	'a tree until its roots are planned': stageViews.slice(0, 10),
	'a tree from replanting on': stageViews.slice(10)
};

for (const [part, views] of Object.entries(parts))
	test(`axe finds nothing grave on any main view, light and dark, and none is wider than a phone: ${part}`, async ({
		page
	}) => {
		test.setTimeout(180_000);
		const tree = await hornbeam();
		const inLight = async (): Promise<void> => {
			await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
			await page.setViewportSize({ width: 1280, height: 800 });
			await expectAccessible(page);
			expect(await labelsUnseen(page)).toEqual([]);
		};
		const inTheDark = async (): Promise<void> => {
			// Of the dark theme only its colours are new.
			await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' });
			await expectAccessible(page, 'colours');
		};
		const onAPhone = async (): Promise<void> => {
			await page.setViewportSize({ width: 390, height: 844 });
			await expect
				.poll(() =>
					page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
				)
				.toBeLessThanOrEqual(0);
			expect(await strayOnPaper(page)).toEqual([]);
		};
		for (const [at, view] of views.entries())
			await test.step(view, async () => {
				await show(page, tree, view);
				// One after the other begins as the one before ended: each is laid out anew as seldom as can be.
				const looks = [inLight, inTheDark, onAPhone];
				for (const look of at % 2 === 0 ? looks : looks.reverse()) await look();
			});
	});

/** Where the work is done: read in the system's own colours, and at twice the size. */
const working = [
	'/',
	'/trees',
	'/yard',
	'examine',
	'examine/measure',
	'roots',
	'roots/bench',
	'replant',
	'replant/mix',
	'aftercare',
	'recovery'
];
test('axe finds nothing grave in forced colours, nor at 200 %, where nothing is wider than the window', async ({
	page
}) => {
	test.setTimeout(180_000);
	const tree = await hornbeam();
	const inForcedColours = async (): Promise<void> => {
		await page.emulateMedia({ forcedColors: 'active' });
		await page.setViewportSize({ width: 1280, height: 800 });
		await expectAccessible(page, 'colours');
	};
	const atTwiceTheSize = async (): Promise<void> => {
		// At 200 % a window of 1280 by 800 shows what one of half of it does.
		await page.emulateMedia({ forcedColors: 'none' });
		await page.setViewportSize({ width: 640, height: 400 });
		await expectAccessible(page, 'all but colours');
		expect(
			await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
		).toBeLessThanOrEqual(0);
	};
	for (const [at, view] of working.entries())
		await test.step(view, async () => {
			await show(page, tree, view);
			const looks = [inForcedColours, atTwiceTheSize];
			for (const look of at % 2 === 0 ? looks : looks.reverse()) await look();
		});
});

test('on a phone the ledger opens from the foot, and the head of a tree is one line until it is touched', async ({
	page
}) => {
	await page.setViewportSize({ width: 390, height: 844 });
	await open(page, `${DEMO}${await hornbeam()}roots`);
	const tabs = await page.getByRole('navigation', { name: 'Stages' }).boundingBox();
	expect((tabs?.y ?? 844) + (tabs?.height ?? 0)).toBeLessThan(160);
	await expect(page.getByRole('link', { name: 'How it stands', exact: true })).toBeHidden();
	await page.getByRole('button', { name: 'More about this tree' }).click();
	await expect(page.getByRole('link', { name: 'How it stands', exact: true })).toBeVisible();
	await expect(page.getByRole('img', { name: /Line of care/ })).toBeVisible();
	await page.getByRole('button', { name: 'Open: Ledger' }).click();
	await expect(
		page.getByRole('dialog', { name: 'Ledger' }).getByText('Anchorage left, by 120° window')
	).toBeVisible();
	await expectAccessible(page);
});

test('everything is found by keyboard: palette, stages, shortcuts', async ({ page }) => {
	await open(page, `${DEMO}/`);
	await page.keyboard.press('/');
	await page.getByRole('combobox', { name: 'Find' }).fill('camellia');
	await expect(page.getByRole('option', { name: /C-07 Camellia with the sour pot/ })).toBeVisible();
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'Camellia with the sour pot' })).toBeVisible();
	await page.keyboard.press('3');
	await expect(page).toHaveURL(/\/roots$/);
	await page.keyboard.press('Control+k');
	await expect(page.getByRole('option', { name: /Aftercare/ })).toBeVisible();
	await expectAccessible(page);
	await page.keyboard.press('Escape');
	// Keys are those of the page again once it is closed.
	await expect(page.getByRole('dialog', { name: 'Find' })).toBeHidden();
	await page.keyboard.press('?');
	await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toContainText('cut the chosen root now');
});

test('a word of the trade opens what it means, from advice and in the glossary', async ({ page }) => {
	await open(page, `${DEMO}/trees/${await treeId('C-07')}/aftercare`);
	const word = page.getByRole('button', { name: 'rot: what is it?' }).first();
	await word.focus();
	await page.keyboard.press('Enter');
	await expect(page.getByText('Roots that die brown and soft')).toBeVisible();
	await expectAccessible(page);
	await page.keyboard.press('Escape');
	await expect(page.getByText('Roots that die brown and soft')).toBeHidden();
	await expect(word).toBeFocused();
	await open(page, `${DEMO}/reference/glossary`);
	await page.getByLabel('Find a word').fill('throttles');
	await expect(page.getByRole('term')).toHaveText([/girdling root/i]);
	await page.getByLabel('Find a word').fill('zzz');
	await expect(page.getByText('No word here says “zzz”.')).toBeVisible();
});

test('the line of care zooms by keyboard', async ({ page }) => {
	await open(page, `${DEMO}/trees/${await treeId('H-03')}/recovery`);
	const line = page.getByRole('img', { name: /Line of care/ });
	const year = line.getByText('2026', { exact: true });
	const before = await year.boundingBox();
	await line.focus();
	await page.keyboard.press('+');
	await expect.poll(async () => (await year.boundingBox())?.x).not.toBe(before?.x);
	await page.keyboard.press('0');
	await expect.poll(async () => (await year.boundingBox())?.x).toBe(before?.x);
});

test('the units, dates and look are the person’s own', async ({ page }) => {
	await open(page, `${DEMO}/yard/settings`);
	await page.getByRole('radio', { name: /Imperial/ }).click();
	await page.getByLabel('Dates and numbers').selectOption({ label: 'April 18, 2026, 1,234.5' });
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await expect(told(page, 'Kept.')).toBeVisible();
	await page.getByRole('radio', { name: 'Dark', exact: true }).click();
	await open(page, `${DEMO}/trees/${await treeId('H-03')}/replant`);
	await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
	// Shown fit to be read, and kept as it was measured.
	const [width, sent] = [
		page.getByLabel('Width of the ball'),
		page.locator('input[type=hidden][name="planting.ballDiameterMm"]')
	];
	await expect(width).toHaveValue('14.96');
	await expect(sent).toHaveValue('380');
	await width.fill('1,250');
	await expect(page.getByText('“1,250” can be read two ways: write 1250 or 1.250.')).toBeVisible();
	await expect(sent).toHaveValue('1,250');
	await width.fill(`1' 3"`);
	await expect(sent).toHaveValue('381');
	await width.fill('14.96');
	// Sentences too speak in the person's units, wherever they stand.
	for (const path of ['', 'replant', 'aftercare', 'recovery', 'roots', 'recovery/report']) {
		await open(page, `${DEMO}/trees/${await treeId('H-03')}/${path}`);
		// Grain sizes of a mix (3–6 mm) are its name.
		await expect(page.locator('main')).not.toContainText(/(?<![–\d.])\d+(\.\d+)?\s(mm|cm|kg|°C|m\/s)(?!\w)/);
	}
	await open(page, `${DEMO}/yard/settings`);
	await page.getByRole('radio', { name: /Metric/ }).click();
	await page.getByLabel('Dates and numbers').selectOption({ label: '18 April 2026, 1,234.5' });
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await expect(page.getByText('Now: 18 April 2026; 104 mm')).toBeVisible();
});

test('a working value is shown with its mark, changed, felt in the ledger, and given back', async ({
	page
}) => {
	await open(page, `${DEMO}/reference/values`);
	const label = 'Deciduous broadleaf, dormant, gentle: living absorbing share removed in one session';
	await expect(page.getByText('published source: BS 5837:2012').first()).toBeVisible();
	await page.getByRole('button', { name: `Change: ${label}` }).click();
	await page.getByRole('textbox', { name: /Your own number/ }).fill('2');
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await expect(told(page, /must be a number from 0 to 0.9/)).toBeVisible();
	await page.getByRole('textbox', { name: /Your own number/ }).fill('1,250');
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await expect(told(page, /can be read two ways: write 1250 or 1\.250/)).toBeVisible();
	await page.getByRole('textbox', { name: /Your own number/ }).fill('0.2');
	await page.getByRole('button', { name: 'Keep', exact: true }).click();
	await expect(page.getByText('yours; shipped 0.25')).toBeVisible();
	await open(page, `${DEMO}/trees/${await treeId('H-03')}/roots`);
	await expect(page.getByRole('complementary', { name: 'Ledger' })).toContainText('Allowance 15 %');
	await open(page, `${DEMO}/reference/values`);
	await page.getByRole('button', { name: `Back to shipped: ${label}` }).click();
	await expect(told(page, 'Back to the shipped number.')).toBeVisible();
});

test('a page that is not there speaks in the app’s own voice', async ({ page }) => {
	for (const path of ['/nowhere', '/trees/no-such-tree/roots']) {
		const response = await page.goto(DEMO + path);
		expect(response?.status()).toBe(404);
		await expect(page.getByRole('heading', { level: 1 })).toContainText(/There is no such (page|tree) here/);
		await expect(page.getByRole('link', { name: 'To Today', exact: true })).toBeVisible();
	}
});
