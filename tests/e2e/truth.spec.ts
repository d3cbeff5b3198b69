import { DEMO, expect, expectAccessible, open, takeIn, test, told, treeId, type Page } from './helpers';

/** Seams between pages, each seen in the real interface. */

const stage = (page: Page, name: string) =>
	page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();

test('what a look says to act on now is the first word on every page, and nothing contradicts it', async ({
	page
}) => {
	const id = await treeId('P-09');
	await open(page, `${DEMO}/`);
	const item = page.getByRole('listitem').filter({ hasText: 'P-09' });
	await expect(item.first()).toContainText('is likely: act now');
	// Reckoned dry it is felt first; no one touch pours on a pot that is to be watered less.
	await expect(item.filter({ hasText: 'Feel it a finger deep before any water' })).toBeVisible();
	await expect(item.getByRole('button', { name: /^Watered/ })).toHaveCount(0);
	await open(page, `${DEMO}/trees/${id}/aftercare`);
	await expect(page.getByText(/is likely \(\d+\s%\): act now/)).toBeVisible();
	await expect(page.getByText('Feel it a finger deep before any water')).toBeVisible();
	await expect(page.getByText('Water it now')).toHaveCount(0);
	await expect(page.getByRole('radio', { name: 'Dry first' })).toBeChecked();
	await stage(page, 'Replant');
	await expect(page.getByRole('radio', { name: 'after a dry rest' })).toBeChecked();
});

test('sizes nobody measured look so; what was typed survives the way to the mix; one dry-down before planting and after', async ({
	page
}) => {
	const id = await takeIn(page, {
		tag: 'V-1',
		name: 'Hornbeam to be potted',
		permission: 'given in writing'
	});
	await open(page, `${DEMO}/trees/${id}/replant`);
	const width = page.getByLabel('Width of the ball', { exact: true });
	await expect(page.getByText('A guess, measured by nobody.').first()).toBeVisible();
	await width.fill('220');
	await page.getByLabel('Depth of the ball', { exact: true }).fill('130');
	await page.getByTitle('Width of the crown').click();
	await expectAccessible(page);
	// A school of size fills the sizes.
	await page.getByRole('radio', { name: /^same or smaller/ }).click();
	await expect(page.getByLabel('Diameter at the rim', { exact: true })).toHaveValue('250');
	await expect(page.getByText('A guess, measured by nobody.')).toHaveCount(0);
	await page.getByLabel('Left under the rim for water').fill('25');
	await page.getByRole('link', { name: /Change its parts, test it/ }).click();
	await page
		.getByLabel('Parts of pumice 3–6 mm in mix A')
		.or(page.getByLabel(/^Parts of .* in mix A/).first())
		.first()
		.fill('4');
	await page.getByRole('button', { name: 'Plant in mix A' }).click();
	await expect(width).toHaveValue('220');
	await expect(page.getByLabel('Left under the rim for water')).toHaveValue('25');
	const told1 = await page.getByText(/days? from drained to the next water/).textContent();
	const days = /about ([\d.]+ days?) from drained/.exec(told1 ?? '')?.[1];
	expect(days).toBeDefined();
	await page.getByRole('radio', { name: 'at once' }).click();
	await page.getByRole('button', { name: 'Write it down as planted' }).click();
	await expect(told(page, 'Written down as planted.')).toBeVisible();
	await stage(page, 'Aftercare');
	await expect(
		page.getByText(`From full to its next water takes about ${days ?? ''} without rain.`)
	).toBeVisible();
	// What was measured is a fact now, what was confirmed too.
	await page.getByRole('link', { name: 'How it stands', exact: true }).click();
	await expect(
		page.getByRole('term').filter({ hasText: 'Ball, width' }).locator('xpath=following-sibling::dd[1]')
	).toContainText('220 mm');
});

test('a root is cut where the hand says; the bench stops for a reason, and both stand in the record', async ({
	page
}) => {
	const id = await takeIn(page, {
		tag: 'V-2',
		name: 'Hornbeam for the bench',
		permission: 'given in writing'
	});
	await open(page, `${DEMO}/trees/${id}/roots`);
	const quick = page.getByLabel('Quick entry of a root');
	const enter = async (line: string): Promise<void> => {
		await quick.fill(line);
		await quick.press('Enter');
		await expect(quick).toHaveValue('');
	};
	for (const line of ['6 20 anchor', '9 18 anchor', '12 19 anchor', '3 12 sec l160']) await enter(line);
	await page
		.getByRole('table', { name: 'Roots mapped' })
		.getByRole('button', { name: '3:00', exact: true })
		.click();
	const bar = page.getByRole('group', { name: 'What to do with the root at 3:00' });
	await bar.getByRole('button', { name: 'Cut now' }).click();
	const whole = Number(/costs ([\d.]+)\s%/.exec((await bar.textContent()) ?? '')?.[1]);
	const at = bar.getByLabel(/^Cut it how far out/);
	await at.fill('60');
	await at.press('Enter');
	await expect(bar).not.toContainText(`costs ${whole} %`);
	const beyond = Number(/costs ([\d.]+)\s%/.exec((await bar.textContent()) ?? '')?.[1]);
	expect(beyond).toBeGreaterThan(0);
	expect(beyond).toBeLessThan(whole);
	// An anchor on top of it: a hold that goes, and over what may go.
	await page
		.getByRole('table', { name: 'Roots mapped' })
		.getByRole('button', { name: '6:00', exact: true })
		.click();
	await page
		.getByRole('group', { name: 'What to do with the root at 6:00' })
		.getByRole('button', { name: 'Cut now' })
		.click();
	await expect(page.getByText(/^kept$/)).toBeVisible();
	await open(page, `${DEMO}/trees/${id}/roots/card`);
	await expect(page.getByText(/60\smm out/).first()).toBeVisible();
	// Nobody said how deep: the card says nothing of it.
	await expect(page.getByText(/20\smm deep/)).toHaveCount(0);
	await open(page, `${DEMO}/trees/${id}/roots/bench`);
	await expect(page.getByText('Stop here first')).toBeVisible();
	await expect(page.getByText(/It takes a hold: An anchor/).first()).toBeVisible();
	const begin = page.getByRole('button', { name: 'Begin all the same' });
	await expect(begin).toBeDisabled();
	await page.getByLabel('Why it is cut all the same').fill('It is tied down already.');
	await begin.click();
	// The cut close by, and every answer in sight, on a desk and on a phone.
	const answers = ['Done', 'Differently', 'Not now'].map((name) =>
		page.getByRole('button', { name, exact: true })
	);
	const closeUp = (words: RegExp) => page.getByRole('group', { name: words });
	await expect(closeUp(/^The cut close by: the root at 6:00, cut at its base/)).toBeVisible();
	for (const [width, height, foot] of [
		[1280, 800, 0],
		[390, 844, 52]
	] as const) {
		await page.setViewportSize({ width, height });
		for (const answer of answers)
			await expect
				.poll(async () => {
					const box = await answer.boundingBox();
					return box ? box.y + box.height + foot : Infinity;
				})
				.toBeLessThanOrEqual(height);
	}
	await expectAccessible(page);
	await page.setViewportSize({ width: 1280, height: 800 });
	await page.getByRole('button', { name: 'Done', exact: true }).click();
	await expect(closeUp(/^The cut close by: the root at 3:00, cut 60\smm from its start/)).toBeVisible();
	await page.getByRole('button', { name: 'Done', exact: true }).click();
	await page.getByRole('button', { name: 'Keep the record' }).click();
	await expect(told(page, 'The cuts are in the record.')).toBeVisible();
	await expect(page.getByText('Against what stood against it: It is tied down already.')).toBeVisible();
	await expect(page.getByRole('region', { name: 'What was cut' })).toContainText(/3:00, 12\smm\s*60\smm out/);
});

test('a look and a watering are corrected in their place; a weight far off is asked for again', async ({
	page
}) => {
	const id = await takeIn(page, {
		tag: 'V-3',
		name: 'Hornbeam written down wrongly',
		permission: 'given in writing'
	});
	await open(page, `${DEMO}/trees/${id}/examine`);
	await page
		.getByRole('region', { name: 'First look' })
		.getByRole('listitem')
		.first()
		.getByRole('radio')
		.first()
		.click();
	await page.getByRole('button', { name: /^Keep this look/ }).click();
	await expect(told(page, 'The look is kept.')).toBeVisible();
	await page.getByRole('button', { name: 'Correct this look' }).click();
	await page.getByLabel('What else').fill('It was the tub next to it.');
	await page.getByRole('button', { name: /^Keep the correction/ }).click();
	await expect(told(page, 'The look is corrected.')).toBeVisible();
	await expect(page.getByText('Corrected since it was kept.')).toBeVisible();
	await expect(page.getByText('It was the tub next to it.')).toBeVisible();

	await stage(page, 'Aftercare');
	const write = async (fields: Record<string, string>): Promise<void> => {
		for (const [label, text] of Object.entries(fields)) await page.getByLabel(label).fill(text);
		await page.getByRole('button', { name: 'Keep it' }).click();
	};
	await page.getByRole('button', { name: 'Watered or weighed' }).click();
	await write({ 'Weight after, when nothing drips': '3.1' });
	await expect(told(page, 'Kept.')).toBeVisible();
	await page.getByRole('button', { name: /^Change the watering of/ }).click();
	await write({ 'Weight after, when nothing drips': '1500' });
	// The one that is changed is not what it is held against.
	await expect(told(page, 'Changed.')).toBeVisible();
	await page.getByRole('button', { name: /^Change the watering of/ }).click();
	await write({ 'Weight after, when nothing drips': '3.1' });
	await expect(page.getByText('→ 3.1 kg')).toBeVisible();
	await page.getByRole('button', { name: 'Watered or weighed' }).click();
	await write({ 'Weight before': '1500' });
	await expect(page.getByText(/far from the 3.1\skg that it weighed on/).first()).toBeVisible();
});

test('hands that are missing make a tree worth no less; a decision is made by a person, on the advice they saw', async ({
	page
}) => {
	const id = await takeIn(page, {
		tag: 'V-4',
		name: 'Hornbeam too heavy for two',
		permission: 'given in writing'
	});
	await open(page, `${DEMO}/trees/${id}/examine/before`);
	await page.getByRole('radio', { name: 'lift it' }).click();
	await page.getByRole('radio', { name: 'strong' }).click();
	for (const [group, answer] of [
		['Protected species or site', 'No'],
		['Gas, power, water, telecoms located', 'Yes']
	] as const)
		await page
			.getByRole('radiogroup', { name: group })
			.getByRole('radio', { name: answer, exact: true })
			.click();
	await page.getByLabel('Ball across').fill('900');
	await page.getByLabel('Ball deep').fill('600');
	const keep = page.getByRole('button', { name: 'Keep the decision' });
	await expect(keep).toBeDisabled();
	await page
		.getByRole('radiogroup', { name: 'You decide' })
		.getByRole('radio', { name: 'Go', exact: true })
		.click();
	await expect(keep).toBeEnabled();
	// Another advice is not what it was decided on.
	const follows = page.getByRole('complementary', { name: 'What follows' });
	await expect(follows).toContainText('Worth it, with these first');
	await page.getByRole('radio', { name: 'on leaf or twig' }).click();
	await page.getByRole('radio', { name: 'at the root' }).click();
	await expect(follows).toContainText('Leave it where it is');
	await expect(page.getByText(/The advice is another now/)).toBeVisible();
	await expect(keep).toBeDisabled();
});
