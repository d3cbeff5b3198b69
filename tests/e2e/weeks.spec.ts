import { cp } from 'node:fs/promises';
import path from 'node:path';
import { ended, expect, open, startServer, takeIn, test, told, treeId, type Page } from './helpers';

/** One job over weeks, the clock moved on without a reload: what was done and seen counts, and nothing is said before it was seen. */

const stage = async (page: Page, name: string): Promise<void> => {
	await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();
	await expect(page).toHaveURL(new RegExp(`/${name.toLowerCase()}$`));
};

test('rot is cut and dried out: shelter in its order, its first water, its buds, and nothing said before it was seen', async ({
	page
}, info) => {
	test.setTimeout(180_000);
	// The folder of the demo, so that its clock can be moved on its own.
	const folder = info.outputPath('weeks');
	await cp(path.join(process.env.BRUNTLE_E2E_DATA ?? '', 'demo'), folder, { recursive: true });
	const port = 4880 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
	const server = `http://127.0.0.1:${port}`;
	const clock = (day: string) =>
		startServer(path.join(folder, 'demo.db'), port, { BRUNTLE_NOW: `${day}T09:00:00Z` });
	let running = await clock('2026-04-18');
	const moveOn = async (day: string): Promise<void> => {
		const gone = ended(running);
		running.kill();
		await gone;
		running = await clock(day);
	};
	const toAftercare = async (): Promise<void> => {
		await page.getByRole('link', { name: 'Trees', exact: true }).click();
		await page
			.getByRole('link', { name: /Juniper from the cellar sale/ })
			.first()
			.click();
		await stage(page, 'Aftercare');
	};
	try {
		const tree = {
			tag: 'J-40',
			name: 'Juniper from the cellar sale',
			kind: 'Juniper (Juniperus)',
			trunk: '38'
		};
		await takeIn(page, { ...tree, vigour: 'weak' }, { server });

		const sign = (name: string, answer: string) =>
			page.getByRole('group', { name }).getByRole('radio', { name: answer, exact: true }).click();
		await page.getByRole('radiogroup', { name: 'Examination' }).waitFor();
		await sign('Wilts while the soil is wet', 'Seen');
		await sign('Sour or sulphur smell from the root zone', 'Strong');
		await page.getByRole('button', { name: /^Roots\s*11 signs/ }).click();
		await sign('Roots dark and soft, bark slips', 'Seen');
		await page.getByRole('button', { name: /^Keep this look/ }).click();
		await expect(page.getByText(/Root rot is likely \(\d+\s%\): act now/)).toBeVisible();

		await stage(page, 'Roots');
		const quick = page.getByLabel('Quick entry of a root');
		for (const line of [
			'6 6 anchor',
			'9 5 anchor',
			'12 6 anchor',
			'3 5 anchor',
			'7 6 sec',
			'10 6 sec',
			'2 6 sec',
			'11 6 sec',
			'1 4 rotten',
			'4 4 rotten'
		]) {
			await quick.fill(line);
			await quick.press('Enter');
			await expect(quick).toHaveValue('');
		}
		await quick.fill('5 2 fine');
		await quick.press('Enter');
		await expect(page.getByText('11 mapped, 0 to trace')).toBeVisible();
		await quick.press('Escape');
		const list = page.getByRole('table', { name: 'Roots mapped' });
		for (const place of ['1:00', '4:00', '5:00']) {
			await list.getByRole('button', { name: place, exact: true }).click();
			await page
				.getByRole('group', { name: `What to do with the root at ${place}` })
				.getByRole('button', { name: 'Cut now' })
				.click();
		}
		await expect(page.getByText(/^kept$/)).toBeVisible();
		await page
			.getByRole('complementary', { name: 'Ledger' })
			.getByRole('button', { name: 'Record the cuts' })
			.click();
		const cuts = page.getByRole('dialog', { name: /what was cut/ });
		await cuts.getByRole('button', { name: 'Keep the record' }).click();
		await expect(told(page, 'The cuts are in the record.')).toBeVisible();

		await stage(page, 'Replant');
		await page.getByLabel('Width of the ball', { exact: true }).fill('150');
		await page.getByLabel('Depth of the ball', { exact: true }).fill('90');
		await page.getByRole('radio', { name: /^same or smaller/ }).click();
		await expect(page.getByRole('radio', { name: 'after a dry rest' })).toBeChecked();
		await page.getByRole('button', { name: 'Write it down as planted' }).click();
		await expect(told(page, 'Written down as planted.')).toBeVisible();

		// The day of the work: what led to it is not how it does since.
		await stage(page, 'Recovery');
		await expect(page.getByText('Look closer. Take the first look: nothing was seen yet.')).toBeVisible();
		await expect(page.getByText('It wilts')).toHaveCount(0);
		await expect(page.getByText('Nobody has looked since the work.')).toBeVisible();
		await stage(page, 'Aftercare');
		const water = page.getByRole('region', { name: 'Water' });
		await expect(water).toContainText('In its dry rest: first water from 22 Apr');
		await expect(page.getByRole('radio', { name: 'Dry first' })).toBeChecked();
		await page.getByRole('button', { name: /^Make these \d+ tasks/ }).click();
		await expect(told(page, 'The aftercare is planned.')).toBeVisible();
		// Shade goes on before it comes off, and comes off by what is seen.
		const waiting = page.getByRole('list', { name: 'Waiting for the tree' });
		await expect(waiting).toContainText('Take half the shade off');
		await expect(waiting).toContainText('Take the rest of shade and misting off');
		await page
			.getByRole('button', { name: 'Done: Stand it bright and airy, out of wind and noon sun' })
			.click();
		await expect(told(page, 'Done.')).toBeVisible();
		await stage(page, 'Examine');
		await expect(page.getByText('acted on 18 Apr').first()).toBeVisible();

		// After the rest.
		await moveOn('2026-04-24');
		await page.getByRole('link', { name: 'Today', exact: true }).click();
		const items = page.getByRole('listitem').filter({ hasText: 'J-40' });
		await expect(items.filter({ hasText: 'First water after the dry rest' })).toBeVisible();
		await expect(items.filter({ hasText: 'is not known' })).toHaveCount(0);
		await page.getByRole('button', { name: 'Done: First water after the dry rest, J-40' }).click();
		const poured = page.getByRole('dialog', { name: /^Done: First water/ });
		await poured.getByLabel('Poured').fill('0.6');
		await poured.getByRole('button', { name: 'Keep it' }).click();
		await expect(told(page, 'Done, and kept.')).toBeVisible();
		await expect(items.filter({ hasText: 'First water' })).toHaveCount(0);
		// How fast it drinks is asked some days after that; a weight written down with a watering answers it.
		await moveOn('2026-04-28');
		await page.getByRole('link', { name: 'Trees', exact: true }).click();
		await page.getByRole('link', { name: 'Today', exact: true }).click();
		await page.getByRole('button', { name: /^Show more/ }).click();
		await expect(items.filter({ hasText: 'Weigh it' })).toBeVisible();
		await items.filter({ hasText: 'Weigh it' }).getByRole('link').first().click();
		await page.getByRole('button', { name: 'Watered or weighed' }).click();
		const weighed = page.getByRole('dialog', { name: 'Watered or weighed' });
		await weighed.getByLabel(/^Weight after, when nothing/).fill('2.9');
		await weighed.getByRole('button', { name: 'Keep it' }).click();
		await expect(told(page, 'Kept.')).toBeVisible();
		await expect(page.getByRole('button', { name: /^Done: Weigh it/ })).toHaveCount(0);

		// Buds seen in a look close what asked for them, and half the shade may come off; the rest waits on.
		await moveOn('2026-05-20');
		await toAftercare();
		await expect(page.getByRole('button', { name: 'Skip: Do buds move?' })).toBeVisible();
		await stage(page, 'Recovery');
		await page
			.getByRole('radiogroup', { name: 'Buds' })
			.getByRole('radio', { name: 'swelling', exact: true })
			.click();
		await page.getByRole('button', { name: 'Keep this look' }).click();
		await expect(told(page, /The look is kept/)).toBeVisible();
		await stage(page, 'Aftercare');
		await expect(page.getByRole('button', { name: 'Skip: Do buds move?' })).toHaveCount(0);
		await expect(page.getByRole('button', { name: 'Done: Take half the shade off' })).toBeVisible();
		await expect(waiting).toContainText('Take the rest of shade and misting off');
		await expect(page.getByText(/80\s% in leaf/)).toHaveCount(0);

		// Work whose look nobody took leads to the look; that it is done is a word of its own.
		await page.getByRole('button', { name: 'Done: Take half the shade off' }).click();
		await expect(told(page, 'Done.')).toBeVisible();
		await moveOn('2026-09-10');
		await toAftercare();
		await expect(page.getByText('Look first: does it drink, and are its leaves firm?')).toBeVisible();
		await expect(page.getByRole('link', { name: /^Take the look: Take the rest of shade/ })).toBeVisible();
		await expect(
			page.getByRole('button', { name: /^Done all the same: Take the rest of shade/ })
		).toBeVisible();
		await expect(page.getByRole('button', { name: /^Done: Take the rest of shade/ })).toHaveCount(0);
		await page.setViewportSize({ width: 390, height: 844 });
		await expect
			.poll(() => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth))
			.toBeLessThanOrEqual(0);

		// Work whose days are long over is asked about, with the day on which it was done.
		const over = page.getByRole('listitem').filter({ hasText: 'Done or missed? Smell' });
		await over.getByRole('button', { name: /^Done: / }).click();
		const done = page.getByRole('dialog', { name: /^Done: / });
		await expect(done.getByLabel('Done on')).toHaveValue('');
		await done.getByRole('radio', { name: 'None' }).click();
		await done.getByRole('button', { name: 'Keep it' }).click();
		await expect(done.getByText(/must be a date from/)).toBeVisible();
		await done.getByLabel('Done on').fill('2 May 2026');
		await done.getByRole('button', { name: 'Keep it' }).click();
		await expect(told(page, 'Done, and kept.')).toBeVisible();
		await expect(over).toHaveCount(0);
		// What asks for nothing else asks for its day too.
		const shared = page.getByRole('listitem').filter({ hasText: 'Done or missed? Check the trees' });
		await shared.getByRole('button', { name: /^Done: / }).click();
		await expect(done).toContainText('say on which day it was done');
		await done.getByLabel('Done on').fill('3 May 2026');
		await done.getByRole('button', { name: 'Keep it' }).click();
		await expect(shared).toHaveCount(0);
		// By key: what was told last may lie over it for as long as a mouse rests there.
		await page.locator('summary', { hasText: 'Closed' }).first().press('Enter');
		await expect(page.getByRole('listitem').filter({ hasText: '2 May' }).first()).toBeVisible();
	} finally {
		running.kill();
	}
});

test('a page that lay open in sight overnight knows the day again at the first touch', async ({
	page
}, info) => {
	const folder = info.outputPath('overnight');
	await cp(path.join(process.env.BRUNTLE_E2E_DATA ?? '', 'demo'), folder, { recursive: true });
	const port = 4880 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
	const server = `http://127.0.0.1:${port}`;
	const clock = (day: string) =>
		startServer(path.join(folder, 'demo.db'), port, { BRUNTLE_NOW: `${day}T09:00:00Z` });
	let running = await clock('2026-04-18');
	try {
		await page.clock.install();
		await open(page, `${server}/trees/${await treeId('P-09', server)}/recovery`);
		const day = page.getByLabel('Looked on');
		await page.getByRole('radiogroup', { name: 'Stands' }).getByRole('radio', { name: 'firm' }).click();
		await expect(day).toHaveValue('18 Apr 2026');
		const gone = ended(running);
		running.kill();
		await gone;
		running = await clock('2026-04-19');
		await page.clock.fastForward('09:00');
		await page.keyboard.press('Shift');
		await expect(day).toHaveValue('18 Apr 2026');
		await page.clock.fastForward('08:00:00');
		await page.keyboard.press('Shift');
		await expect(day).toHaveValue('19 Apr 2026');
		// What was answered the evening before stands.
		await expect(
			page.getByRole('radiogroup', { name: 'Stands' }).getByRole('radio', { name: 'firm' })
		).toBeChecked();
	} finally {
		running.kill();
	}
});
