import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { DEMO, expectAccessible, open, told, treeId } from './helpers';

test('at the bench: one cut at a time, through a reload, differently with rot found, not now with a reason; the record holds it', async ({
	page
}) => {
	const id = await treeId('T-05');
	await open(page, `${DEMO}/trees/${id}/roots`);
	await page.getByRole('link', { name: 'To the bench' }).click();
	await expect(page.getByRole('heading', { name: 'T-05 at the bench, stage I' })).toBeVisible();
	await expect(page.getByRole('status').first()).toContainText('0 of 3');
	await expect(page.getByText('5:10')).toBeVisible();
	await expectAccessible(page);
	await page.getByRole('button', { name: 'Done', exact: true }).click();
	await expect(page.getByRole('status').first()).toContainText('1 of 3');
	await page.reload();
	await expect(page.getByRole('status').first()).toContainText('1 of 3');
	await expect(page.getByText('7:15')).toBeVisible();
	await page.getByRole('button', { name: 'Not now' }).click();
	await expect(page.getByRole('button', { name: 'Leave it' })).toBeDisabled();
	await page.getByLabel('Why not now').fill('holds the moss');
	await page.getByRole('button', { name: 'Leave it' }).click();
	await page.getByRole('button', { name: 'Differently' }).click();
	await page.getByLabel('Cut at, from its start').fill('20');
	await page.getByLabel('What was different').fill('dark core');
	await page.getByLabel('Rot goes deeper').check();
	await page.getByRole('button', { name: 'Cut so' }).click();
	await expect(page.getByRole('heading', { name: 'Through' })).toBeVisible();
	await expect(page.getByText('2 cut, 1 left, against 3 planned')).toBeVisible();
	await expect(page.getByText('What you found is on the map.')).toBeVisible();
	await page.getByRole('button', { name: 'sulphur or cinnamon powder' }).click();
	await expect(
		page.getByText('Evidence: sulphur or cinnamon powder weak. Doses are on the label.')
	).toBeVisible();
	await page.getByRole('button', { name: 'Keep the record', exact: true }).click();
	await expect(told(page, 'The cuts are in the record.')).toBeVisible();
	await expect(page).toHaveURL(/\/roots$/);
	const row = (at: string) => page.getByRole('table').getByRole('row').filter({ hasText: at });
	await expect(row('5:10')).toContainText('cut, done');
	await expect(row('3:30')).toContainText('rotten from 20 mm');
	await row('3:30').getByRole('button').first().click();
	await expect(
		page.getByText('sulphur or cinnamon powder: Rot went deeper than thought. dark core')
	).toBeVisible();
	await page.getByRole('link', { name: 'Cut card' }).click();
	const card = page.getByRole('article', { name: 'Cut card' });
	await expect(card.getByRole('listitem').filter({ hasText: '7:15' })).toContainText('holds the moss');
	await expectAccessible(page);
	await page.emulateMedia({ media: 'print' });
	await expect(page.getByRole('navigation', { name: 'Stages' })).toBeHidden();
	await expect(card).toBeVisible();
});

/** What a button hands over as a file. */
async function fileOf(page: Page, button: string): Promise<Buffer> {
	const waiting = page.waitForEvent('download');
	await page.getByRole('button', { name: button }).click();
	return readFile(await (await waiting).path());
}

test('the map goes out as CSV, SVG and PNG, and comes in again; a file with faults takes nothing', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('J-02')}/roots`);
	const mapped = page.getByText(/^\d+ mapped/);
	const before = Number.parseInt((await mapped.textContent()) ?? '', 10);
	await page.getByRole('button', { name: 'Files of this map' }).click();
	const sheet = page.getByRole('dialog', { name: 'Files of this map' });
	const csv = (await fileOf(page, 'Roots as CSV')).toString('utf8');
	expect(csv.trim().split(/\r?\n/)).toHaveLength(before + 1);
	const svg = (await fileOf(page, 'Drawing as SVG')).toString('utf8');
	expect(svg).toMatch(/^<svg[^>]*xmlns="http:\/\/www.w3.org\/2000\/svg"/);
	expect(svg).toMatch(/fill="rgb\(\d+, \d+, \d+\)"/);
	expect(svg).not.toContain('class=');
	const png = await fileOf(page, 'Drawing as PNG');
	expect(png.subarray(1, 4).toString()).toBe('PNG');
	expect(png.readUInt32BE(16)).toBeGreaterThanOrEqual(1999);
	const bring = (text: string) =>
		sheet
			.getByLabel('Roots from a CSV file')
			.setInputFiles({ name: 'roots.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
	await bring('clock,diameter_mm\n6,thick\n');
	await expect(sheet.getByText('Line 2: diameter_mm “thick” is no number.')).toBeVisible();
	await expect(sheet.getByRole('button', { name: 'Put them on the map' })).toBeHidden();
	await bring('clock;diameter_mm\n6,5;8,5\n7;9\n');
	await expect(sheet.getByText('2 roots read.')).toBeVisible();
	await expectAccessible(page);
	await sheet.getByRole('button', { name: 'Put them on the map' }).click();
	await expect(mapped).toContainText(`${before + 2} mapped`);
	await expect(page.getByText(/^kept$/)).toBeVisible();
	await page.getByRole('button', { name: 'Undo on the map' }).click();
	await expect(mapped).toContainText(`${before} mapped`);
	await expect(page.getByText(/^kept$/)).toBeVisible();
});

test('a root is drawn as it lies: its points dragged, added, moved by keys, a side root put on, each step undone', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('B-05')}/roots`);
	const quick = page.getByLabel('Quick entry of a root');
	await quick.fill('12 14');
	await quick.press('Enter');
	await expect(quick).toHaveValue('');
	const points = page.getByRole('button', { name: /^Point \d of \d of the root/ });
	await expect(points).toHaveCount(3);
	const tip = points.last();
	const from = await tip.boundingBox();
	if (!from) throw new Error('no handle');
	await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
	await page.mouse.down();
	await page.mouse.move(from.x + 60, from.y + 40, { steps: 6 });
	await page.mouse.up();
	await expect.poll(async () => Math.round((await tip.boundingBox())?.x ?? 0)).toBeGreaterThan(from.x + 40);
	await tip.focus();
	const before = await tip.boundingBox();
	await page.keyboard.press('Shift+ArrowLeft');
	await expect.poll(async () => (await tip.boundingBox())?.x ?? 0).toBeLessThan((before?.x ?? 0) - 3);
	await page.keyboard.press('Delete');
	await expect(points).toHaveCount(2);
	await page.keyboard.press('Control+z');
	await expect(points).toHaveCount(3);
	const mapped = page.getByText(/^\d+ mapped/);
	const count = Number.parseInt((await mapped.textContent()) ?? '', 10);
	await page.getByRole('button', { name: 'Side root' }).click();
	await expect(mapped).toContainText(`${count + 1} mapped`);
	await expect(page.getByText(/^kept$/)).toBeVisible();
	// The first of the list: then no row stands half under its head.
	await page.getByRole('table').getByRole('row').nth(1).getByRole('button').click();
	await expect(points.first()).toBeVisible();
	await expectAccessible(page);
});
