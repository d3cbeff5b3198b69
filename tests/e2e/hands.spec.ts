import { DEMO, expect, expectAccessible, open, takeIn, test, treeId, type Page } from './helpers';

/* A phone in wet hands or gloves. */

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

const LEAST_PX = 48;
/** What can be touched and is smaller than a fingertip in a glove. Words in a sentence reach beyond themselves. */
const tooSmall = (page: Page): Promise<string[]> =>
	page.evaluate(
		(least) =>
			[
				...document.querySelectorAll<HTMLElement>(
					'button:not(.in-text), select, summary, nav a, input:not([type=checkbox], [type=radio], [type=hidden], [type=range])'
				)
			]
				.filter(
					(one) =>
						one.checkVisibility({ visibilityProperty: true }) && !one.closest('[aria-hidden=true], .sr-only')
				)
				.filter((one) => {
					const { width, height } = one.getBoundingClientRect();
					return width > 1 && height > 1 && height < least - 0.5;
				})
				.map(
					(one) =>
						`${one.tagName} ${(one.ariaLabel ?? one.textContent).trim().slice(0, 30)} ${one.getBoundingClientRect().height}`
				),
		LEAST_PX
	);
const dirty = async (page: Page): Promise<void> => {
	await open(page, `${DEMO}/yard/settings`);
	await page
		.getByRole('radiogroup', { name: 'Hands, on this device' })
		.getByRole('radio', { name: 'Wet or in gloves' })
		.click();
};
const press = async (page: Page, keys: readonly string[]): Promise<void> => {
	const pad = page.getByRole('group', { name: 'Digits' });
	for (const key of keys) await pad.getByRole('button', { name: key, exact: true }).click();
};

test('finds everything to touch a fingertip wide, in glare too, on the pages of the work', async ({
	page
}) => {
	test.setTimeout(120_000);
	await dirty(page);
	await page
		.getByRole('radiogroup', { name: 'Look, in this browser' })
		.getByRole('radio', { name: /^Glare/ })
		.click();
	await expectAccessible(page);
	const id = await treeId('C-07');
	for (const where of [
		'/',
		'/trees',
		'/round',
		`/trees/${id}/examine`,
		`/trees/${id}/roots`,
		`/trees/${id}/roots/bench`,
		`/trees/${id}/replant/lift`,
		`/trees/${id}/aftercare`,
		`/trees/${id}/recovery`
	]) {
		await open(page, DEMO + where);
		await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
		expect(await tooSmall(page), where).toEqual([]);
		// Nothing stands beside the column, and nothing pushes it wider than the phone.
		expect(await page.evaluate(() => document.documentElement.scrollWidth), where).toBeLessThanOrEqual(390);
	}
	await open(page, `${DEMO}/`);
	await expectAccessible(page, 'colours');
});

test('types numbers on the pad, with the unit, the last and that of the tree before', async ({ page }) => {
	test.setTimeout(120_000);
	await dirty(page);
	const sheet = page.getByRole('dialog', { name: 'Watered or weighed' });
	const pad = page.getByRole('group', { name: 'Number pad' });
	const water = async (tag: string): Promise<void> => {
		await open(page, `${DEMO}/trees/${await treeId(tag)}/aftercare`);
		await page.getByRole('button', { name: 'Watered or weighed' }).click();
		await sheet.getByLabel('Poured').click();
	};
	await water('C-07');
	await expect(pad).toBeVisible();
	await press(page, ['1', '.', '7', 'Take the last sign back', '5']);
	await expect(pad.getByRole('status')).toHaveText('1.5');
	await expect(pad.getByText('L', { exact: true })).toBeVisible();
	await expect(sheet.getByLabel('Poured')).toHaveValue('1.5');
	await expectAccessible(page);
	await pad.getByRole('button', { name: 'Close the pad' }).click();
	await expect(pad).toBeHidden();
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(sheet).toBeHidden();

	// Nothing is filled in by itself: it is one touch away.
	await water('C-07');
	await expect(sheet.getByLabel('Poured')).toHaveValue('');
	await pad.getByRole('button', { name: 'Last: 1.5 L' }).click();
	await expect(sheet.getByLabel('Poured')).toHaveValue('1.5');
	await expect(pad.getByRole('button', { name: /^Tree before/ })).toHaveCount(0);
	await water('H-03');
	await pad.getByRole('button', { name: 'Tree before: 1.5 L' }).click();
	await expect(sheet.getByLabel('Poured')).toHaveValue('1.5');
	// On to the next number of the same form.
	await pad.getByRole('button', { name: 'Next' }).click();
	await expect(sheet.getByLabel('Ran out and caught')).toBeFocused();

	await open(page, `${DEMO}/yard/settings`);
	await page
		.getByRole('radiogroup', { name: 'Hands, on this device' })
		.getByRole('radio', { name: 'Clean' })
		.click();
	await water('H-03');
	await expect(pad).toHaveCount(0);
});

/** Time to make up one's mind before a unit of work, s [Card, Moran and Newell 1980, keystroke-level model: M]. */
const MIND_S = 1.35;
/** Time for one touch with a gloved finger, s: ours, on the side of slow. */
const TOUCH_S = 0.7;

test('maps twenty roots in three minutes, counted in touches', async ({ page }) => {
	test.setTimeout(120_000);
	await takeIn(page, { tag: 'K-20', name: 'Hornbeam of twenty roots', trunk: '120' });
	await dirty(page);
	await open(page, `${DEMO}/trees/${await treeId('K-20')}/roots`);
	await page.evaluate(() => {
		const counted = window as unknown as { touches: number };
		counted.touches = 0;
		addEventListener('pointerdown', () => counted.touches++, { capture: true });
		addEventListener('keydown', () => counted.touches++, { capture: true });
	});
	await page.getByRole('button', { name: 'Large keys' }).click();
	const clock = page.getByRole('group', { name: 'Clock position' });
	const thickness = page.getByRole('group', { name: 'Thickness in mm' });
	let half = false;
	for (let at = 0; at < 20; at++) {
		const hour = 1 + Math.floor((at * 12) / 20);
		const mm = String(6 + ((at * 7) % 40));
		await clock.getByRole('button', { name: String(hour), exact: true }).click();
		const wanted = at % 3 === 2;
		if (wanted !== half) await clock.getByRole('button', { name: /^and a half/ }).click();
		half = wanted;
		for (const digit of mm) await thickness.getByRole('button', { name: digit, exact: true }).click();
		// One in five is dead, one in five crosses another.
		if (at % 5 === 1) await page.getByRole('button', { name: 'dead', exact: true }).click();
		if (at % 5 === 3) await page.getByRole('button', { name: 'crosses another root' }).click();
		await page
			.getByRole('button', { name: new RegExp(`^Add root at ${hour}:${half ? '30' : '00'}, ${mm}\\s`) })
			.click();
	}
	await expect(page.getByText(/^20 mapped/)).toBeVisible();
	await expect(page.getByText(/^kept$/)).toBeVisible();
	const touches = await page.evaluate(() => (window as unknown as { touches: number }).touches);
	const seconds = Math.round(20 * MIND_S + touches * TOUCH_S);
	test.info().annotations.push({ type: 'twenty roots', description: `${touches} touches, ${seconds} s` });
	expect(touches).toBeLessThanOrEqual(130);
	expect(seconds).toBeLessThanOrEqual(180);
});
