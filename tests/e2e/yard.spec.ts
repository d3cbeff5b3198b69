import { DEMO, expect, expectAccessible, open, pick, takeIn, test, told, treeId } from './helpers';

/** What the yard's people do beside the main path, in the real interface on the demo yard. */

test('a place is added beside another, changed, removed when empty, and brought back', async ({ page }) => {
	await open(page, `${DEMO}/yard`);
	await page.getByRole('button', { name: 'Place', exact: true }).click();
	const sheet = page.getByRole('dialog', { name: 'A new place' });
	await expect(sheet.getByLabel('Latitude')).toHaveValue('52.4');
	await sheet.getByLabel('Name', { exact: true }).fill('North wall');
	await sheet.getByLabel('Latitude').fill('91');
	await sheet.getByRole('button', { name: 'Add the place' }).click();
	await expect(sheet.getByText('Latitude must be a number from -66 to 66 °.', { exact: true })).toBeVisible();
	await expect(sheet.getByLabel('Name', { exact: true })).toHaveValue('North wall');
	await expect(sheet.getByLabel('Latitude')).toBeFocused();
	// Set by a town, by where the machine is, or by hand, each said to be what it is.
	await pick(sheet.getByLabel('Town nearby'), 'Denver, United States');
	await expect(sheet.getByLabel('Latitude')).toHaveValue('39.74');
	await expect(sheet.getByLabel('Height above the sea')).toHaveValue(/^16\d\d$/);
	await expect(sheet.getByText(/^Position and height of Denver, United States/)).toBeVisible();
	await page.context().grantPermissions(['geolocation']);
	await page.context().setGeolocation({ latitude: 48.25, longitude: 16.3 });
	await sheet.getByRole('button', { name: 'Where I am' }).click();
	await expect(
		sheet.getByText(/^Position of this machine; height of .*, Austria, the nearest town/)
	).toBeVisible();
	await expect(sheet.getByLabel('Longitude')).toHaveValue('16.3');
	await sheet.getByLabel('Latitude').fill('52.4');
	await expect(sheet.getByText(/^Position of this machine/)).toHaveCount(0);
	await sheet.getByRole('button', { name: 'Add the place' }).click();
	await expect(page.getByRole('heading', { name: 'North wall' })).toBeVisible();

	await page.getByRole('button', { name: 'Change North wall' }).click();
	await page.getByRole('dialog').getByLabel('Shelter').selectOption({ label: 'shade' });
	await page.getByRole('dialog').getByRole('button', { name: 'Keep the changes' }).click();
	const row = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'North wall' }) });
	await expect(row.getByText('shade, 52.4°')).toBeVisible();

	await page.getByRole('button', { name: 'Remove North wall' }).click();
	await expect(row).toHaveCount(0);
	await told(page, 'Removed.').getByRole('button', { name: 'Undo' }).click();
	await expect(row).toBeVisible();
	await expect(page.getByRole('button', { name: 'Remove Cold frame' })).toHaveCount(0);
});

test('a kind of one’s own is added and taken in with; a shipped one is changed', async ({ page }) => {
	await open(page, `${DEMO}/reference/kinds`);
	await page.getByRole('button', { name: 'Kind', exact: true }).click();
	const sheet = page.getByRole('dialog', { name: 'A kind of your own' });
	await sheet.getByLabel('Genus').fill('Nothofagus');
	await sheet.getByLabel('What you call it').fill('Southern beech');
	await sheet.getByLabel('Coldest night in a pot').fill('-9');
	await sheet.getByRole('button', { name: 'Add the kind' }).click();
	await expect(page.getByRole('row').filter({ hasText: 'Southern beech' })).toContainText('yours');

	await page.getByRole('button', { name: 'Change Alder' }).click();
	await page.getByRole('dialog', { name: 'Alder' }).getByLabel('Coldest night in a pot').fill('-17');
	await page.getByRole('dialog', { name: 'Alder' }).getByRole('button', { name: 'Keep the changes' }).click();
	await expect(page.getByRole('row').filter({ hasText: 'Alder' })).toContainText('-17 °C');

	await open(page, `${DEMO}/trees/new`);
	const kind = page.getByLabel('Kind, or only its group', { exact: true });
	await pick(kind, 'Southern beech (Nothofagus)');
	await expect(page.getByText('Southern beech: deciduous broadleaf; stands about -9 °C')).toBeVisible();
	// By what people in the trade call it, and by what comes near.
	for (const [typed, offered] of [
		['Chinese elm', /^Elm/],
		['hornbeem', /^Hornbeam/]
	] as const) {
		await kind.fill(typed);
		await expect(page.getByRole('option', { name: offered })).toBeVisible();
	}
	await pick(kind, 'Conifer, kind not known');
	await expect(page.getByText('Kind not known: treat its sap as irritant')).toBeVisible();
	await page.getByRole('radio', { name: 'not yet given' }).click();
	await expect(page.getByText(/Permission in writing, protected species/)).toBeVisible();
});

test('a lot is taken in, potted for all, and counted', async ({ page }) => {
	const lot = {
		tag: 'LOT-12',
		name: 'Twelve privets',
		kind: 'Privet (Ligustrum)',
		trunk: '14',
		place: 'East bench'
	};
	await takeIn(page, lot, {
		more: async () => {
			await page.getByLabel('How many').fill('12');
		}
	});
	await expect(page.getByText(/East bench, lot of 12/)).toBeVisible();
	await page.keyboard.press('4');
	const ready = page.getByRole('complementary', { name: 'What to have ready' });
	await expect(ready.getByText('of mix for 12 pots')).toBeVisible();
	const [one, all] = await Promise.all(
		[1, 2].map(async (column) =>
			parseFloat(
				(await ready
					.getByRole('row', { name: /main mix/ })
					.getByRole('cell')
					.nth(column - 1)
					.textContent()) ?? ''
			)
		)
	);
	expect(Math.abs((all ?? 0) - 12 * (one ?? 0))).toBeLessThan(1);
	await page.keyboard.press('6');
	await page.getByLabel('Dead so far, of 12').fill('13');
	await page.getByRole('button', { name: 'Keep this look' }).click();
	await expect(page.getByText(/must not be more than the 12 of the lot/).first()).toBeVisible();
	await page.getByLabel('Dead so far, of 12').fill('1');
	await page.getByRole('button', { name: 'Keep this look' }).click();
	await expect(page.getByText('11 of 12')).toBeVisible();
});

test('two tabs cannot silently overwrite each other', async ({ context }) => {
	const address = `${DEMO}/trees/${await treeId('Q-02')}/take-in`;
	const [first, second] = [await context.newPage(), await context.newPage()];
	await open(first, address);
	await open(second, address);
	await first.getByLabel('Name', { exact: true }).fill('Apple, first tab');
	await first.getByRole('button', { name: 'Keep the changes' }).click();
	await expect(first.getByRole('heading', { name: 'Apple, first tab' })).toBeVisible();
	await second.getByLabel('Name', { exact: true }).fill('Apple, second tab');
	await second.getByRole('button', { name: 'Keep the changes' }).click();
	await expect(second.getByText('This tree was changed elsewhere in the meantime.').first()).toBeVisible();
	await expect(second.getByLabel('Name', { exact: true })).toHaveValue('Apple, second tab');
	// Both stand side by side: what was kept elsewhere can be taken, and what was typed can be kept over it.
	await expect(second.getByText('Stands there by now: Apple, first tab')).toBeVisible();
	await expect(second.getByText(/^Stands there by now/)).toHaveCount(1);
	await second.getByRole('button', { name: 'Take that' }).click();
	await expect(second.getByLabel('Name', { exact: true })).toHaveValue('Apple, first tab');
	await second.getByLabel('Name', { exact: true }).fill('Apple, both tabs');
	await second.getByRole('button', { name: 'Keep the changes' }).click();
	await expect(second.getByRole('heading', { name: 'Apple, both tabs' })).toBeVisible();
});

test('nothing typed is lost when there is no answer, when it is too much, or when something breaks', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('Q-02')}/take-in`);
	const name = page.getByLabel('Name', { exact: true });
	const note = page.getByRole('textbox', { name: 'Notes' });
	await page.locator('summary').filter({ hasText: 'More' }).click();
	await name.fill('Apple by the lane');
	await note.fill('Bark split on the south side.');
	const keep = page.getByRole('button', { name: 'Keep the changes' });
	for (const [answer, said] of [
		['abort', 'Not saved yet. No answer from Bruntle.'],
		[413, 'Not saved yet. That was too much at once.'],
		[500, 'Not saved yet. Something went wrong here.']
	] as const) {
		await page.route('**/take-in?/**', (route) =>
			route.request().method() !== 'POST'
				? route.fallback()
				: answer === 'abort'
					? route.abort('connectionrefused')
					: route.fulfill({
							status: answer,
							contentType: 'application/json',
							body: JSON.stringify({
								type: 'error',
								status: answer,
								error: {
									message: answer === 413 ? 'That was too much at once.' : 'Something went wrong here.',
									advice: 'Nothing was saved.'
								}
							})
						})
		);
		await keep.click();
		await expect(told(page, said)).toBeVisible();
		await expect(name).toHaveValue('Apple by the lane');
		await expect(note).toHaveValue('Bark split on the south side.');
		await page.unrouteAll();
	}
	await told(page, 'Something went wrong here.').getByRole('button', { name: 'Send again' }).click();
	await expect(page.getByRole('heading', { name: 'Apple by the lane' })).toBeVisible();
});

test('roots drawn in two tabs: neither is written over, and either can stand', async ({ context }) => {
	const address = `${DEMO}/trees/${await treeId('H-03')}/roots`;
	const [first, second] = [await context.newPage(), await context.newPage()];
	await open(first, address);
	await open(second, address);
	const add = async (page: typeof first, root: string): Promise<void> => {
		await page.getByLabel('Quick entry').fill(root);
		await page.keyboard.press('Enter');
	};
	await add(first, '4 22');
	await expect(first.getByRole('status').filter({ hasText: /^kept$/ })).toBeVisible();
	await add(second, '8 31');
	await add(second, '9 12');
	const clash = second.getByRole('alert').filter({ hasText: 'changed elsewhere meanwhile' });
	await expect(clash).toContainText(/There: \d+ roots?,/);
	await expect(clash).toContainText(/Here: \d+ roots?,/);
	// Opened again it is still to be chosen, and what was drawn is still there.
	await second.reload();
	await expect(clash).toBeVisible();
	await second.getByRole('button', { name: 'Take what stands there' }).click();
	await expect(clash).toHaveCount(0);
	await second.getByRole('button', { name: 'Undo' }).first().click();
	await expect(second.getByRole('status').filter({ hasText: /^kept$/ })).toBeVisible();
	await second.reload();
	await expect(second.getByRole('table', { name: 'Roots mapped' }).getByText('8:00')).toBeVisible();
});

test('roots by large keys, changed in the sheet, hung on a parent, and taken off the map', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('P-09')}/roots`);
	await page.getByRole('button', { name: 'Large keys' }).click();
	const clock = page.getByRole('group', { name: 'Clock position' });
	await clock.getByRole('button', { name: '9', exact: true }).click();
	await clock.getByRole('button', { name: 'and a half, 9:30' }).click();
	const pad = page.getByRole('group', { name: 'Thickness in mm' });
	for (const digit of ['1', '7', '5']) await pad.getByRole('button', { name: digit, exact: true }).click();
	await pad.getByRole('button', { name: 'Take the last sign back' }).click();
	await pad.getByRole('button', { name: 'Take the last sign back' }).click();
	await pad.getByRole('button', { name: '5', exact: true }).click();
	await page.getByRole('button', { name: 'crosses another root' }).click();
	await page.getByLabel('Note, if any').fill('over the big one');
	await page.getByRole('button', { name: /Add root at 9:30, 15\smm/ }).click();
	await clock.getByRole('button', { name: '3', exact: true }).click();
	await expect(page.getByRole('button', { name: /Add root at 3:30/ })).toBeDisabled();
	await page.getByRole('button', { name: /As the last, 15\smm/ }).click();
	await page.getByRole('button', { name: /Add root at 3:30, 15\smm/ }).click();
	const list = page.getByRole('table', { name: 'Roots mapped' });
	await expect(list.getByRole('row').filter({ hasText: '9:30' })).toContainText('crosses another root');

	await page.getByRole('button', { name: 'Change this root' }).click();
	const sheet = page.getByRole('dialog', { name: 'Root at 3:30' });
	await sheet.getByLabel('Thickness').fill('500');
	await sheet.getByRole('button', { name: 'Keep' }).click();
	await expect(
		sheet.getByText('Thickness must not be thicker than the trunk (48 mm).', { exact: true })
	).toBeVisible();
	await expect(sheet.getByLabel('Thickness')).toBeFocused();
	await sheet.getByLabel('Thickness').fill('3/8"');
	await sheet.getByLabel('rotten').check();
	await sheet.getByRole('button', { name: 'Keep' }).click();
	await expect(sheet.getByText('Condition must be dead where it is rotten')).toBeVisible();
	await sheet.getByLabel('Condition').selectOption('dead');
	await sheet.getByLabel('Leaves').selectOption({ label: 'the root at 9:30, 15 mm' });
	await sheet.getByLabel('How far along it').fill('25');
	await sheet.getByRole('button', { name: 'Keep' }).click();
	await expect(list.getByRole('row').filter({ hasText: '3:30' })).toContainText('rotten');
	await expect(list.getByLabel('Thickness of the root at 3:30')).toHaveValue('9.53');
	await expect(page.getByText(/^kept$/)).toBeVisible();

	// What hangs on a root goes with it, and comes back with one step.
	await list.getByRole('button', { name: '9:30' }).click();
	await page.keyboard.press('Delete');
	await expect(page.getByText('0 mapped')).toBeVisible();
	await page.getByRole('button', { name: 'Undo on the map' }).click();
	await expect(page.getByText('2 mapped')).toBeVisible();
	await expect(page.getByText(/^kept$/)).toBeVisible();
});

test('a case is closed as dead only with its lesson, and opened again', async ({ page }) => {
	await open(page, `${DEMO}/trees/${await treeId('W-03')}/recovery`);
	await page.getByRole('button', { name: 'Close the case' }).click();
	const sheet = page.getByRole('dialog', { name: 'Close the case' });
	await sheet.getByRole('radio', { name: 'Dead' }).click();
	await sheet.getByRole('button', { name: 'Close it' }).click();
	await expect(
		sheet.getByText(/must say what was learned, so that the next tree profits/).first()
	).toBeVisible();
	await sheet.getByLabel(/What was learned/).fill('Opened in flower.');
	await sheet.getByLabel(/Of what/).selectOption({ label: 'worked out of season' });
	await sheet.getByLabel(/What would have shown it earlier/).fill('The date.');
	await sheet.getByRole('button', { name: 'Close it' }).click();
	await expect(page.getByRole('complementary', { name: 'Dead' })).toContainText('Opened in flower.');
	await expect(page.getByText('Cause: worked out of season')).toBeVisible();
	await page.getByRole('button', { name: 'Open the case again' }).click();
	await expect(page.getByRole('complementary', { name: 'Is it re-established?' })).toBeVisible();
});

test('water and air in the pot: two mixes by depth, a coarse layer that does not drain, a mix found from what is at hand', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('J-02')}/replant`);
	await expect(page.getByText(/Drained, it holds/)).toBeVisible();
	await page.getByRole('link', { name: 'By depth, and other mixes' }).click();
	const a = page.getByRole('region', { name: 'Mix A' });
	const b = page.getByRole('region', { name: 'Mix B' });
	const air = (mix: typeof a) => mix.getByRole('button', { name: /^Air space of mix/ });
	await expect(air(a)).toHaveText(/^4\d\.\d\s%$/);
	const before = await air(b).textContent();
	await page.getByRole('slider', { name: 'Depth of the fill' }).fill('80');
	await expect(air(b)).not.toHaveText(before ?? '');
	// Shallower is wetter.
	expect(Number.parseFloat((await air(b).textContent()) ?? '')).toBeLessThan(Number.parseFloat(before ?? ''));
	await page.getByRole('slider', { name: 'Coarse layer' }).fill('30');
	await expect(page.getByText(/They do not drain the mix/)).toBeVisible();
	await a.getByLabel('Add to mix A', { exact: true }).fill('compost');
	await page.getByRole('option', { name: 'compost', exact: true }).click();
	await expect(a.getByLabel('Parts of compost in mix A')).toHaveValue('1');
	await a.getByLabel('Parts of compost in mix A').fill('9');
	await expect(a.getByText(/below what is wanted/)).toBeVisible();
	await a.getByLabel('Parts of pumice 4–8 mm in mix A').fill('0');
	await a.getByLabel('Parts of compost in mix A').fill('0');
	await expect(a.getByText('Give at least one part more than nothing.')).toBeVisible();
	await page.getByRole('button', { name: 'Find a mix' }).click();
	const found = page.getByRole('list', { name: 'Mixes found' }).getByRole('listitem');
	await expect(found).toHaveCount(3);
	await expect(found.first()).toContainText('as wanted');
	await found.first().getByRole('button', { name: 'Take mix 1 as mix B' }).click();
	await expect(b.getByText(/what is wanted/)).toBeHidden();
	await expectAccessible(page);
});

test('lifting: ball by either school, its weight and who carries it, whether today is the day, the list in working order', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('Q-02')}/replant`);
	await page.getByRole('link', { name: 'Lift: ball, weight, when' }).click();
	await expect(page.getByRole('region', { name: 'Today' })).toContainText('window');
	const ball = page.getByRole('button', { name: 'Ball to dig' });
	const field = await ball.textContent();
	await page.getByRole('radio', { name: /nursery table/ }).click();
	await expect(ball).not.toHaveText(field ?? '');
	const mass = page.getByRole('button', { name: 'Mass of the ball' });
	const kg = async () => Number.parseFloat(((await mass.textContent()) ?? '').replace(',', ''));
	const before = await kg();
	const dig = page.getByRole('slider', { name: 'Dig it' });
	await dig.fill(await dig.getAttribute('min').then((text) => text ?? ''));
	await expect.poll(kg).toBeLessThan(before);
	const person = page.getByRole('button', { name: 'What one person may lift' });
	const straight = await person.textContent();
	await page.getByRole('slider', { name: 'Twisted by' }).fill('90');
	await expect(person).not.toHaveText(straight ?? '');
	await page.getByRole('checkbox', { name: 'Permission in writing' }).check();
	await expectAccessible(page);
});

test('labels are printed true to size, of the trees that are looked for', async ({ page }) => {
	await open(page, `${DEMO}/trees`);
	await page.getByRole('link', { name: 'Labels', exact: true }).click();
	const labels = page.getByRole('list', { name: 'Labels' }).getByRole('listitem');
	await expect.poll(() => labels.count()).toBeGreaterThan(5);
	const all = await labels.count();
	await page.getByLabel('Narrow down').fill('hornbeam');
	await expect.poll(() => labels.count()).toBeLessThan(all);
	const label = labels.filter({ hasText: 'H-03' });
	await expect(label).toContainText(/Hornbeam/);
	// 70 × 37 mm at 96 dots to the inch.
	const card = await label.boundingBox();
	expect(card?.width).toBeCloseTo((70 / 25.4) * 96, 0);
	expect(card?.height).toBeCloseTo((37 / 25.4) * 96, 0);
	await expect(label.getByRole('img', { name: 'QR code that opens H-03' })).toBeVisible();
	await expect(
		page.getByText(
			/^Scanned, a label would open its tree at http:\/\/127\.0\.0\.1:\d+, which this computer alone can do/
		)
	).toBeVisible();
	await page.getByLabel('On', { exact: true }).selectOption('strip');
	await expect.poll(async () => (await label.boundingBox())?.width).toBeCloseTo((125 / 25.4) * 96, 0);
	await page.getByLabel('Narrow down').fill('no such tree');
	await expect(page.getByRole('button', { name: 'Print 0 labels' })).toBeDisabled();
});

test('a day is chosen from its month by mouse and by keys, and stays in the draft', async ({ page }) => {
	await open(page, `${DEMO}/trees/new`);
	await page.getByText('More: day, batch').click();
	const field = page.getByLabel('Taken in on');
	const calendar = page.getByRole('button', { name: 'Open the calendar' });
	await calendar.click();
	await page.getByRole('button', { name: /11 April/ }).click();
	await expect(field).toHaveValue('11 Apr 2026');
	await expect(calendar).toBeFocused();
	await calendar.press('Enter');
	await expect(page.getByRole('button', { name: /11 April/ })).toBeFocused();
	await page.keyboard.press('ArrowRight');
	await page.keyboard.press('Enter');
	await expect(field).toHaveValue('12 Apr 2026');
	// A kind begun by typing and taken from the list is kept as it was taken.
	const kind = page.getByLabel('Kind, or only its group', { exact: true });
	await kind.fill('alde');
	await page.getByRole('option', { name: 'Alder (Alnus)', exact: true }).click();
	await page.reload();
	await told(page, 'What you had typed here is back.');
	await page.getByText('More: day, batch').click();
	await expect(page.getByLabel('Taken in on')).toHaveValue('12 Apr 2026');
	await expect(kind).toHaveValue('Alder (Alnus)');
	await expect(page.getByText('Alder: deciduous broadleaf')).toBeVisible();
	await expect(page.getByRole('listbox')).toHaveCount(0);
	// One begun and not chosen falls back, and comes back as what it fell back to.
	await kind.fill('horn');
	await kind.press('Tab');
	await expect(kind).toHaveValue('Alder (Alnus)');
	await page.reload();
	await expect(page.getByText('Alder: deciduous broadleaf')).toBeVisible();
	await expect(kind).toHaveValue('Alder (Alnus)');
});

test('trees out of a spreadsheet: looked at, columns chosen, what is wrong is said, the rest taken in and taken back', async ({
	page
}) => {
	await open(page, `${DEMO}/trees`);
	await page.getByRole('link', { name: 'From a spreadsheet' }).click();
	await page.getByLabel('CSV file').setInputFiles({
		name: 'trees.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from(
			'Tag;Called;Species;Diameter\nW-1;Beech one;Fagus sylvatica;4,5 cm\nW-2;Beech two;Beech;\nQ-02;Beech three;Beech;40'
		)
	});
	await page.getByRole('button', { name: 'Look at it' }).click();
	await expect(page.getByRole('heading', { name: 'Not found: Name' })).toBeVisible();
	await page.getByLabel('Name', { exact: true }).selectOption({ label: 'Called' });
	await page.getByLabel('Place').first().selectOption({ label: 'Cold frame' });
	for (const [group, answer] of [
		['How it stands', 'potted'],
		['Permission to lift or work on it', 'my own tree'],
		['Vigour today', 'fair'],
		['Reserves', 'long in a pot, or old and collected']
	] as const)
		await page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: answer }).click();
	await page.getByRole('button', { name: 'Look again' }).click();
	await expect(page.getByRole('heading', { name: '1 tree can be taken in, 2 rows cannot' })).toBeVisible();
	const row = (tag: string) => page.getByRole('row').filter({ hasText: tag });
	await expect(row('W-2')).toContainText('Trunk above the flare must be given.');
	await expect(row('Q-02')).toContainText('is on a tree of this yard already');
	await expect(row('W-1')).toContainText('Goes in');
	await expectAccessible(page);
	await page.getByRole('button', { name: 'Take this tree in' }).click();
	await expect(told(page, 'One tree taken in. 2 of its rows could not be read and were left.')).toBeVisible();
	await expect(page.getByRole('link', { name: /Beech one/ }).first()).toBeVisible();
	await told(page, 'One tree taken in.').getByRole('button', { name: 'Undo' }).click();
	await expect(told(page, 'Taken back.')).toBeVisible();
	await expect(page.getByRole('link', { name: /Beech one/ })).toHaveCount(0);
});
