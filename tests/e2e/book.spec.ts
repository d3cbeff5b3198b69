import { DEMO, expect, expectAccessible, open, takeIn, test, told, treeId, type Page } from './helpers';

const ready = (page: Page) => page.waitForLoadState('networkidle');

test('what is written into the field book counts on every page, and is corrected in its place', async ({
	page
}) => {
	const id = await treeId('W-03');
	await open(page, `${DEMO}/trees/${id}/stands`);
	await expect(page.getByText('Living roots, of what it had').locator('xpath=..')).toContainText('not known');
	await page.getByRole('link', { name: 'field book' }).click();
	await expect(page.getByText('Nothing is written down yet.')).toBeVisible();
	await expectAccessible(page);
	await page.getByLabel('What').selectOption({ label: 'Bound ball scored' });
	await page.getByLabel('On', { exact: true }).fill('yesterday');
	await page.getByLabel('Where').selectOption({ label: 'the sides' });
	await page.getByRole('textbox', { name: 'Cuts round the side' }).fill('6');
	await page.getByRole('textbox', { name: 'Depth of the cuts' }).fill('20');
	await page.getByRole('button', { name: 'Write it down' }).click();
	await expect(
		page.getByText('Bound ball scored: the sides, cuts round the side 6, depth of the cuts 20 mm.')
	).toBeVisible();
	await expect(page.getByText('17 Apr', { exact: true }).first()).toBeVisible();
	await page.getByRole('link', { name: 'How it stands' }).click();
	const living = page.getByText('Living roots, of what it had').locator('xpath=..');
	await expect(living).toContainText('worked out');
	await expect(living).toContainText('%');
	await page.getByRole('link', { name: 'field book' }).click();
	await page.getByRole('button', { name: /^Correct: Bound ball scored/ }).click();
	await page.getByRole('textbox', { name: 'Cuts round the side' }).fill('3');
	await page.getByRole('button', { name: 'Keep the correction' }).click();
	await expect(
		page.getByText('Bound ball scored: the sides, cuts round the side 3, depth of the cuts 20 mm.')
	).toBeVisible();
	await expect(page.getByText('Corrected since.')).toBeVisible();
});

test('a saw at the stem stops until a word of why stands beside it', async ({ page }) => {
	await open(page, `${DEMO}/trees/${await treeId('W-03')}/book?kind=stem-sawn`);
	await expect(page.getByText('How high its bark lives was not found yet')).toBeVisible();
	await page.getByLabel('Cut face', { exact: true }).selectOption({ label: 'left open' });
	await page.getByLabel('Height of the cut').fill('400');
	await page.getByLabel('Living shoots it has left').fill('1');
	await expect(page.getByText('It has one living shoot or none left')).toBeVisible();
	await page.getByRole('button', { name: 'Write it down' }).click();
	await expect(
		page.getByRole('alert').filter({ hasText: 'must say why all the same' }).first()
	).toBeVisible();
	await page.getByLabel('Why all the same').fill('The storm had split it');
	await page.getByRole('button', { name: 'Write it down' }).click();
	await expect(
		page.getByText(/Stem or trunk sawn: left open, height of the cut 400\smm.*The storm had split it/)
	).toBeVisible();
	await page.getByRole('link', { name: 'How it stands' }).click();
	await expect(page.getByText('Height', { exact: true }).locator('xpath=..')).toContainText('field book');
});

test('trees in one pot are watered together, whoever it is written down for', async ({ page }) => {
	const [one, other] = [await treeId('B-05'), await treeId('G-11')];
	await open(page, `${DEMO}/trees/${other}/aftercare`);
	await expect(page.getByText('One pot with')).toContainText('B-05 Bougainvillea from the arcade');
	await page.getByRole('link', { name: /^B-05/ }).click();
	await expect(page.getByText('One pot with')).toContainText('G-11 Lemon after the cold night');
	await page.getByRole('button', { name: 'Watered or weighed' }).click();
	await page.getByLabel('Poured').fill('9.5');
	await page.getByRole('button', { name: 'Keep it' }).click();
	await expect(page.getByRole('list', { name: 'Last waterings' })).toContainText('9.5 L');
	await page.getByRole('link', { name: /^G-11/ }).click();
	await ready(page);
	await expect(page.getByRole('list', { name: 'Last waterings' })).toContainText(
		'9.5 L, written down for B-05'
	);
	expect(one).not.toBe(other);
});

test('what was typed is there after a side page and after a reload, until it is kept', async ({ page }) => {
	await open(page, `${DEMO}/trees/new`);
	await page.getByLabel('Tag').fill('Z-77');
	await page.getByLabel('Name', { exact: true }).fill('Larch from the quarry lip');
	await page.getByLabel('Trunk above the flare').fill('45');
	const chosen = (group: string) =>
		page.getByRole('radiogroup', { name: group }).getByRole('radio', { checked: true });
	for (const [group, answer] of [
		['How it stands', 'in the ground'],
		['Vigour today', 'weak']
	] as const)
		await page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: answer }).click();
	await page.getByRole('link', { name: 'Yard', exact: true }).first().click();
	await page.waitForURL(/\/yard/);
	await page.goBack();
	await page.waitForURL(/\/trees\/new/);
	await ready(page);
	await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Larch from the quarry lip');
	await page.reload();
	await ready(page);
	await expect(page.getByLabel('Tag')).toHaveValue('Z-77');
	await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Larch from the quarry lip');
	await expect(page.getByLabel('Trunk above the flare')).toHaveValue('45');
	// What was chosen comes back as that, and what was not stays open.
	await expect(chosen('How it stands')).toHaveText('in the ground');
	await expect(chosen('Vigour today')).toHaveText('weak');
	await expect(chosen('Permission to lift or work on it')).toHaveCount(0);
	await expect(page.getByText('What you had typed here is back.')).toBeVisible();
});

test('what was lost of a kind stands on the first page of the next one', async ({ page }) => {
	await takeIn(page, { tag: 'D-09', name: 'Second birch', kind: 'Birch (Betula)', trunk: '40' });
	await page.getByRole('link', { name: 'Examine' }).click();
	const lost = page.getByRole('complementary', { name: 'Earlier losses of its kind' });
	await expect(lost).toContainText('This is number 2 of its kind here (Birch): 1 lost.');
	await expect(lost).toContainText('D-02 Birch lifted in leaf');
});

test('the letter asks the owner root by root, and says what was cut and what is held over', async ({
	page
}) => {
	const id = await treeId('L-01');
	await open(page, `${DEMO}/trees/${id}/recovery/letter`);
	const letter = page.getByRole('article', { name: 'Letter to the owner' });
	await expect(letter).toContainText('Roots we ask you about');
	await expect(letter.getByText(/^1\. The root towards .* Yes ☐ {2}No ☐$/)).toBeVisible();
	await expect(letter).toContainText('What was cut, and why');
	await expect(letter).toContainText('What is held over');
	for (const paragraph of await letter.getByRole('paragraph').allTextContents())
		expect(paragraph).not.toMatch(/\.\.|\?\.|undefined|null/);
});

test('the same is written down for like trees once, and taken back together', async ({ page }) => {
	for (const tag of ['Y-1', 'Y-2']) {
		await takeIn(page, { tag, name: `Beech ${tag}`, kind: 'Beech (Fagus)', trunk: '40' });
	}
	await open(page, `${DEMO}/trees/${await treeId('Y-1')}/book?kind=nests-seen`);
	await page.getByText(/^The same for others like it/).click();
	await page
		.getByRole('group', { name: 'Write the same down for' })
		.getByRole('checkbox', { name: /Y-2/ })
		.check();
	await page.getByRole('button', { name: 'Write it down' }).click();
	await expect(told(page, 'Written down for 2 trees.')).toBeVisible();
	const other = `${DEMO}/trees/${await treeId('Y-2')}/book`;
	await page.goto(other);
	const book = page.getByRole('region', { name: 'Field book' }).getByRole('listitem');
	await expect(book.filter({ hasText: /[Nn]est/ })).toBeVisible();
	await expectAccessible(page);
});
