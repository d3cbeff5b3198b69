import { DEMO, expect, expectAccessible, open, pick, test, told, treeId } from './helpers';

test('what the yard has at hand is written down, changed, and taken out with an undo', async ({ page }) => {
	await open(page, `${DEMO}/yard`);
	await page.getByRole('link', { name: 'Stock' }).click();
	await expect(page.getByRole('heading', { level: 1, name: 'Stock' })).toBeVisible();
	await page.getByRole('button', { name: 'Pot', exact: true }).click();
	const sheet = page.getByRole('dialog', { name: 'A pot' });
	await sheet.getByLabel('Name').fill('Larch trough');
	await sheet.getByLabel('Shape').selectOption({ label: 'rectangular, tapered' });
	await sheet.getByLabel('Length at the rim, inside').fill('500');
	await sheet.getByLabel('Width at the rim').fill('300');
	await sheet.getByLabel('Length at the floor').fill('460');
	await sheet.getByLabel('Width at the floor').fill('260');
	await sheet.getByLabel('Depth, inside').fill('180');
	// Prismoid: 180/6 × (0.46·0.26 + 4·0.48·0.28 + 0.5·0.3) m² = 24.2 L
	await expect(sheet.getByText(/Holds 24\.2\sL to the rim/)).toBeVisible();
	await sheet.getByLabel('Filled to a height of').fill('100');
	await expect(sheet.getByText(/filled to 100\smm/)).toBeVisible();
	await sheet.getByRole('button', { name: 'Add the pot' }).click();
	await expect(told(page, 'The stock is kept.')).toBeVisible();
	await expect(page.getByRole('listitem').filter({ hasText: 'Larch trough' })).toContainText('24.2 L');
	await page.getByRole('button', { name: 'Material', exact: true }).click();
	const material = page.getByRole('dialog', { name: 'Material' });
	await pick(material.getByLabel('What', { exact: true }), 'zeolite 2–5 mm');
	await material.getByLabel('A pack or bag holds').fill('0');
	await material.getByRole('button', { name: 'Add to the stock' }).click();
	await expect(material.getByText(/must be a number from 0.01 to 20000 of its unit/)).toBeVisible();
	await material.getByLabel('A pack or bag holds').fill('12');
	await material.getByRole('button', { name: 'Add to the stock' }).click();
	const zeolite = page.getByRole('listitem').filter({ hasText: 'zeolite' });
	await expect(zeolite).toContainText('12 L');
	await page.getByRole('button', { name: 'Remove zeolite 2–5 mm' }).click();
	await expect(zeolite).toHaveCount(0);
	await told(page, 'Taken out of the stock.').getByRole('button', { name: 'Undo' }).click();
	await expect(zeolite).toHaveCount(1);
});

test('a planting is planned from the pots at hand, kept, and its kit list says what to open and what is missing', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('C-07')}/replant`);
	const pots = page.getByRole('list', { name: 'Pots at hand' }).getByRole('listitem');
	await expect(pots.first()).toContainText(/days to dry|shave/);
	await page.getByLabel('Width of the ball').fill('2000');
	await expect(page.getByText('No pot at hand takes it.')).toBeVisible();
	await page.getByLabel('Width of the ball').fill('240');
	await page.getByLabel('Depth of the ball').fill('140');
	await expect(pots.first()).toContainText(/dries/);
	await pots.first().getByRole('button', { name: /^Take/ }).click();
	await expect(pots.first().getByRole('button')).toHaveText('Taken');
	const ready = page.getByRole('complementary', { name: 'What to have ready' });
	await expect(ready.getByText(/It goes in:/)).toBeVisible();
	await expect(ready.getByText(/days from drained to the next water|nothing draws/)).toBeVisible();

	// Old mix after rot is refused until a reason stands there.
	await page.getByLabel('Where it was before').selectOption({ label: 'reused, after rot' });
	await page.getByRole('button', { name: 'Keep as a plan' }).click();
	await expect(page.getByText(/must say why old mix goes in after all/).first()).toBeVisible();
	await page.getByLabel('Where it was before').selectOption({ label: 'new' });

	await page.getByRole('radio', { name: 'flare at or above the surface, on a mound' }).click();
	await expect(ready.getByRole('row', { name: /mound/ })).not.toContainText('0 L');
	await page.getByRole('radio', { name: 'stones on the ball' }).click();
	await expect(page.getByText(/it rocks over the edge of its ball|not taken/)).toBeVisible();
	await page.getByLabel('Stones come off on').fill('');
	await page.getByRole('button', { name: 'Keep as a plan' }).click();
	await expect(page.getByText(/must say when ties or stones come off/).first()).toBeVisible();
	await page.getByLabel('Stones come off on').fill('2026-09-15');
	await page.getByLabel('Note: what else was used').fill('Wetted twice before.');
	await page.getByRole('button', { name: 'Keep as a plan' }).click();
	await expect(told(page, 'The plan is kept.')).toBeVisible();
	await page.reload();
	await expect(page.getByLabel('Note: what else was used')).toHaveValue('Wetted twice before.');

	await page.getByRole('link', { name: 'Kit list' }).click();
	await expect(page.getByRole('heading', { name: /Kit list: C-07/ })).toBeVisible();
	const materials = page.getByRole('list', { name: 'Materials' }).getByRole('listitem');
	await expect(materials.first()).toContainText(
		/open \d pack|what is open reaches|none at hand|will not reach/
	);
	await expect(page.getByText(/What is used is worth/)).toBeVisible();
	await expectAccessible(page);
});

test('wires are laid over structural roots; planted from the stock, the ties stand on the list and the stock is less', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('T-05')}/replant`);
	const wires = page.getByRole('list', { name: 'Wires' }).getByRole('listitem');
	await expect(wires).toHaveCount(3);
	await page.getByRole('radiogroup', { name: 'At most so many wires' }).getByText('2').click();
	await expect(wires).toHaveCount(2);
	await expect(page.getByText(/tied down, pot and all tip from/)).toBeVisible();
	await page.getByRole('button', { name: 'Write it down as planted' }).click();
	await expect(page.getByText('must not be after today').first()).toBeVisible();
	await page.getByLabel('On', { exact: true }).fill('2026-04-18');
	await page.getByRole('button', { name: 'Write it down as planted' }).click();
	await expect(told(page, 'Written down as planted')).toBeVisible();
	await page.getByRole('link', { name: /^Aftercare/ }).click();
	await expect(page.getByText('Ties: loosen or take them off', { exact: true })).toBeVisible();
	await expect(
		page.getByRole('listitem').filter({ hasText: 'Water the whole surface slowly' }).first()
	).toBeVisible();
	await open(page, `${DEMO}/yard/stock`);
	await expect(page.getByRole('listitem').filter({ hasText: 'Ash box, large' })).toContainText('1 at hand');
});

test('a mix is tested at the bench, found by least cost, kept as one of our own, and stands in the list of mixes', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('J-02')}/replant/mix`);
	await page.getByRole('radio', { name: 'cheapest' }).click();
	await page.getByRole('button', { name: 'Find a mix' }).click();
	await expect(page.getByRole('list', { name: 'Mixes found' }).getByRole('listitem').first()).toContainText(
		/a litre|cost not known/
	);
	const test_ = page.getByRole('region', { name: 'Test mix A at the bench' });
	await test_.getByLabel('Volume of the mix').fill('10');
	await test_.getByLabel('Poured in').fill('12');
	await test_.getByLabel('Ran out').fill('2');
	await expect(test_.getByRole('alert')).toContainText('must not be more than the mix itself');
	await test_.getByLabel('Poured in').fill('7');
	await expect(test_.getByText(/Air 20\s%, water 50\s%, pores 70\s%/)).toBeVisible();
	await test_.getByRole('button', { name: 'Use it instead of the grain sizes' }).click();
	await expect(page.getByText('its numbers are those of the test')).toBeVisible();
	const keep = page.getByRole('region', { name: 'Keep mix A as one of our own' });
	await keep.getByLabel('Name').fill('Ridge mix, tested');
	await keep.getByRole('button', { name: 'Keep the mix' }).click();
	await expect(told(page, 'The mix is kept.')).toBeVisible();
	await page.getByRole('link', { name: 'Back to Replant' }).click();
	await page.getByLabel('Mix', { exact: true }).selectOption({ label: 'Ridge mix, tested' });
	await expect(page.getByText(/; measured 18 April 2026/)).toBeVisible();
});

test('a lift keeps its ticks, says what stops it, and its log makes the tree just lifted', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('Q-02')}/replant/lift`);
	const way = page.getByRole('list', { name: 'The way to the vehicle, judged' });
	await expect(way).toContainText(/does not take a ball/);
	await page.getByLabel(/^Narrowest gate/).fill('1600');
	await expect(way).toContainText('It goes through every gate.');
	await page.getByRole('checkbox', { name: /Spare hands, sling or barrow/ }).check();
	await page.getByRole('button', { name: 'Keep plan and ticks' }).click();
	await expect(told(page, 'Plan and ticks are kept.')).toBeVisible();
	await page.reload();
	await expect(page.getByRole('checkbox', { name: /Spare hands, sling or barrow/ })).toBeChecked();
	await page.getByRole('button', { name: 'It is out of the ground: write the log' }).click();
	await page.getByLabel('Minutes out of the ground').fill('45');
	await page.getByLabel('Clock, north 12').fill('2');
	await page.getByLabel('Thick', { exact: true }).fill('34');
	await page.getByRole('button', { name: 'Add', exact: true }).click();
	await expect(page.getByRole('list', { name: 'Roots cut at the lift' })).toContainText('34 mm, sawn');
	// A flat battery at the hole: the log stands open again as it was left, with its roots.
	await open(page, page.url());
	await expect(told(page, 'What you had typed here is back.')).toBeVisible();
	await expect(page.getByLabel('Minutes out of the ground')).toHaveValue('45');
	await expect(page.getByRole('list', { name: 'Roots cut at the lift' })).toContainText('34 mm, sawn');
	await page.getByRole('button', { name: 'Keep the log' }).click();
	await expect(told(page, 'The log of the lift is kept.')).toBeVisible();
	await expect(page.getByText('45 minutes out of the ground')).toBeVisible();
	await expect(page.getByText(/Apple, just lifted/)).toBeVisible();
	await told(page, 'The log of the lift is kept.').getByRole('button', { name: 'Undo' }).click();
	await expect(page.getByText(/Apple, in the ground/)).toBeVisible();
	// What was written wrong is put right in its place, and what was right stays.
	await page.getByRole('button', { name: 'It is out of the ground: write the log' }).click();
	await page.getByLabel('Minutes out of the ground').fill('450');
	await page.getByLabel('What else was seen').fill('White mycelium on two roots.');
	await page.getByRole('button', { name: 'Keep the log' }).click();
	await expect(page.getByText('450 minutes out of the ground')).toBeVisible();
	await page.getByRole('button', { name: 'Correct the log of 18 April 2026' }).click();
	const log = page.getByRole('form', { name: 'The log of 18 April 2026, corrected' });
	await expect(log.getByLabel('What else was seen')).toHaveValue('White mycelium on two roots.');
	await log.getByLabel('Minutes out of the ground').fill('45');
	await log.getByRole('button', { name: 'Keep the correction' }).click();
	await expect(told(page, 'The log of the lift is corrected.')).toBeVisible();
	await expect(page.getByText('; 45 minutes out of the ground')).toBeVisible();
	await expect(page.getByText('White mycelium on two roots.')).toBeVisible();
	await expect(log).toBeHidden();
});

test('works in the ground: drawn to scale, clear of structural roots, with amounts; a place beyond the limits stops', async ({
	page
}) => {
	// Replant of a tree in the ground is the work in its ground; a pot is planned where one is asked for.
	await open(page, `${DEMO}/trees/${await treeId('L-01')}/roots`);
	await page.getByRole('link', { name: /^Replant/ }).click();
	await expect(page.getByRole('heading', { name: 'In the ground' })).toBeVisible();
	await page.getByRole('link', { name: 'A pot for it, planned ahead' }).click();
	await expect(page.getByText('It stands in the ground. Lift it first')).toBeVisible();
	await page.getByRole('link', { name: 'In the ground: hole, collar, soil' }).click();
	await expect(page.getByRole('img', { name: /Works from above: 9 trenches, mulch to/ })).toBeVisible();
	await expect(page.getByText(/aim under 2\sMPa/)).toBeVisible();
	await page.getByRole('radio', { name: 'vertical holes' }).click();
	await expect(page.getByRole('img', { name: /Works from above: \d+ holes/ })).toBeVisible();
	await page.getByRole('checkbox', { name: 'Acidify' }).check();
	await expect(page.getByLabel('pH found')).toHaveValue('');
	await page.getByRole('button', { name: 'Keep the changed plan' }).click();
	await expect(page.getByText(/pH found is not known: measure it/).first()).toBeVisible();
	await page.getByLabel('pH found').fill('4');
	await page.getByRole('button', { name: 'Keep the changed plan' }).click();
	await expect(page.getByText(/must be below the pH that was found/).first()).toBeVisible();
	await page.getByLabel('pH found').fill('6.5');
	await expect(page.getByText('Split over time')).toBeVisible();
	await page.getByRole('button', { name: 'Keep the changed plan' }).click();
	await expect(told(page, 'The plan is kept.')).toBeVisible();

	// Without any work there is nothing to keep, and what is ticked comes back from a side page.
	const own = await treeId('B-05');
	await open(page, `${DEMO}/trees/${own}/replant/ground`);
	await page.getByRole('button', { name: 'Keep the plan' }).click();
	await expect(
		page.getByText('What is to be done must name at least one piece of work.').first()
	).toBeVisible();
	await page.getByRole('checkbox', { name: 'Mulch ring' }).check();
	await open(page, `${DEMO}/trees/${own}/roots`);
	await open(page, `${DEMO}/trees/${own}/replant/ground`);
	await expect(page.getByRole('checkbox', { name: 'Mulch ring' })).toBeChecked();
	// So does what was typed behind a button, once that is pressed again.
	await page.getByRole('button', { name: 'It is done' }).click();
	await page.getByLabel('Done on').fill('14 Apr 2026');
	await page.getByLabel('Done on').press('Tab');
	await open(page, `${DEMO}/trees/${own}/replant/ground`);
	await page.getByRole('button', { name: 'It is done' }).click();
	await expect(page.getByLabel('Done on')).toHaveValue('14 Apr 2026');
	await page.getByRole('button', { name: 'Not yet' }).click();
	await page.getByRole('checkbox', { name: 'Mulch ring' }).uncheck();
	await page.getByRole('checkbox', { name: 'Plant it in the ground' }).check();
	await page.getByLabel('It is to stand at').selectOption({ label: 'Garden at Quarry End' });
	const site = page.getByRole('list', { name: 'The place against its limits' });
	await expect(site).toContainText('Stop.');
	await page.getByLabel('A test hole empties in, minutes').fill('2000');
	await expect(site).toContainText(/roots drown/);
	await expectAccessible(page);
});
