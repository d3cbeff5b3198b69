import { DEMO, expect, expectAccessible, open, pick, test, told, treeId, type Page } from './helpers';

const causes = (page: Page) => page.getByRole('complementary', { name: 'What it may be' });
const examine = async (page: Page, tag: string, part = ''): Promise<void> =>
	open(page, `${DEMO}/trees/${await treeId(tag)}/examine${part}`);
const newLook = (page: Page) => page.getByRole('radio', { name: /^New look/ }).click();

test('a first look of eight signs on a phone: one touch each, the ranking follows, what changed is said', async ({
	page
}) => {
	await page.setViewportSize({ width: 390, height: 844 });
	await examine(page, 'W-03');
	await newLook(page);
	const rows = page.getByRole('region', { name: 'First look' }).getByRole('group');
	await expect(rows).toHaveCount(8);
	const strip = page.getByRole('button', { name: /Open: What it may be/ });
	await expect(strip).toContainText('record a sign to start');
	for (let i = 0; i < 8; i++) await rows.nth(i).getByRole('radio').first().click();
	await expect(strip).toContainText('%');
	await page.getByRole('button', { name: 'Last sign back' }).click();
	await rows.nth(7).getByRole('radio').last().click();
	await strip.click();
	const sheet = page.getByRole('dialog', { name: 'What it may be' });
	await expect(sheet).toContainText('From 8 signs');
	await sheet.getByRole('button', { name: 'All 28' }).click();
	await expect(sheet.locator('ol > li')).toHaveCount(28);
	await page.keyboard.press('Escape');
	await page.getByRole('button', { name: 'Keep this look, 8 signs' }).click();
	await expect(told(page, 'The look is kept.')).toBeVisible();
	await expect(page.getByRole('heading', { name: 'Found on 18 April 2026' })).toBeVisible();
	await expect(page.getByText('Against the look of 14 Feb.')).toBeVisible();
	await expect(page.getByRole('listitem').filter({ hasText: 'Roots out of the holes' })).toContainText(
		'as before'
	);
	await expect(page.getByRole('listitem').filter({ hasText: 'Water runs straight through' })).toContainText(
		'not looked for again'
	);
});

test('the next check says what each answer means, takes the answer, and moves on', async ({ page }) => {
	await examine(page, 'B-05');
	await newLook(page);
	const next = page.getByRole('region', { name: 'Next check' });
	const question = next.locator('p').first();
	const first = await question.textContent();
	await expect(next.getByRole('button', { name: /%/ }).first()).toBeVisible();
	await next.getByRole('button', { name: /%/ }).first().click();
	await expect(question).not.toHaveText(first ?? '');
	await expect(causes(page)).toContainText('From 1 sign');
	const second = await question.textContent();
	await next.getByRole('button', { name: 'Not now' }).click();
	await expect(question).not.toHaveText(second ?? '');
	await next.getByRole('button', { name: /Worth of this check/ }).click();
	await expect(page.getByText('Expected drop, over causes that would change what is done')).toBeVisible();
});

test('what decides a likely cause is asked on the kept look, and its answer begins a look of today from that', async ({
	page
}) => {
	await page.setViewportSize({ width: 390, height: 844 });
	await examine(page, 'Q-02');
	const asked = page.getByRole('region', { name: 'What decides it' });
	await expect(asked).toContainText(/likely \(\d+ %\); this decides it:/);
	const label = (await asked.getByRole('group').getAttribute('aria-labelledby')) ?? '';
	const sign = (await page.locator(`[id="${label}"]`).textContent()) ?? '';
	await asked.getByRole('radio', { name: 'Seen' }).click();
	await expect(page.getByRole('radio', { name: /^New look, \d+ set/ })).toBeChecked();
	await expect(page.getByRole('button', { name: /^Keep this look, \d+ signs/ })).toBeInViewport({ ratio: 1 });
	await expect(
		page.getByRole('group', { name: sign }).first().getByRole('radio', { name: 'Seen' })
	).toBeChecked();
	await expect(asked).toHaveCount(0);
});

test('what is measured joins the look that was begun, and nothing that was set is lost on the way', async ({
	page
}) => {
	await examine(page, 'H-03');
	await newLook(page);
	await page.getByRole('button', { name: /^Roots/ }).click();
	await page
		.getByRole('group', { name: 'Roots dark and soft' })
		.getByRole('radio', { name: 'Seen', exact: true })
		.click();
	await page
		.getByRole('listitem')
		.filter({ hasText: /^Share of roots/ })
		.getByRole('link', { name: 'Measure it' })
		.click();
	await expect(page).toHaveURL(/tool=root-sample/);
	const said = page.getByRole('complementary', { name: 'What it says' });
	await page.getByRole('button', { name: /^Dead/ }).click();
	await expect(page.getByText(/Sample more: about \d+ further roots/)).toBeVisible();
	await expect(said).toContainText('No sign is decided by it yet.');
	for (let i = 0; i < 20; i++) await page.getByRole('button', { name: /^Dead/ }).click();
	await expect(page.getByText(/^Enough: over a third dead/)).toBeVisible();
	await expect(said).toContainText('over a third');
	await page.getByRole('button', { name: 'Keep this measurement' }).click();
	await expect(told(page, 'The measurement is kept.')).toBeVisible();
	await expect(said.getByRole('listitem').filter({ hasText: 'Root sample' })).toContainText(
		'0 % of 21 roots alive'
	);
	await page.getByRole('link', { name: 'Look', exact: true }).click();
	await expect(page.getByRole('radio', { name: 'New look, 1 set' })).toBeChecked();
	await expect(page.getByText('Found: over a third, 18 Apr')).toBeVisible();
	await page.getByRole('button', { name: 'Keep this look, 2 signs' }).click();
	await expect(page.getByText('measured: root sample')).toBeVisible();
	await page.getByRole('button', { name: 'Put' }).click();
	await expect(told(page, /to be checked, on Today|on Today already/)).toBeVisible();
});

test('a number of one’s own is tried, kept, seen at work, and given back', async ({ page }) => {
	await examine(page, 'A-01');
	const panel = causes(page);
	const rot = panel.getByRole('button', { name: /^Stem or crown rot/ });
	if ((await rot.getAttribute('aria-expanded')) !== 'true') await rot.click();
	await panel
		.getByRole('button', { name: /^Stem or base spongy/ })
		.first()
		.click();
	const sheet = page.getByRole('dialog', { name: 'Stem or base spongy' });
	await sheet.getByRole('textbox').nth(1).fill('2');
	await expect(sheet.getByText('0 to 0.99')).toBeVisible();
	await expect(sheet.getByRole('button', { name: /^Keep/ })).toBeDisabled();
	await sheet.getByRole('textbox').nth(1).fill('0.05');
	await expect(sheet.getByText('It would change here')).toBeVisible();
	await expect(sheet.getByRole('status')).toContainText('→');
	await expectAccessible(page);
	await sheet.getByRole('button', { name: 'Keep my number' }).click();
	await expect(panel.getByText('1 of your own numbers count here')).toBeVisible();
	await panel
		.getByRole('button', { name: /^Stem or base spongy/ })
		.first()
		.click();
	await sheet.getByRole('button', { name: 'Back to the shipped numbers' }).click();
	await expect(panel.getByText(/of your own numbers count here/)).toBeHidden();
});

test('what can hardly both be true is pointed out and still counted', async ({ page }) => {
	await examine(page, 'J-02');
	await newLook(page);
	await page.getByRole('searchbox', { name: 'Find a sign' }).fill('wilts while');
	for (const name of ['Wilts while the soil is wet', 'Wilts while the soil is dry'])
		await page.getByRole('group', { name }).getByRole('radio', { name: 'Seen', exact: true }).click();
	await expect(causes(page).getByText(/exclude each other on one day/)).toBeVisible();
	await expect(causes(page)).toContainText('From 2 signs');
});

test('a collar that was begun and not kept is there again, as far as it went, until it is kept', async ({
	page
}) => {
	await examine(page, 'B-05', '/measure?tool=collar');
	const choose = (group: string, answer: string) =>
		page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: answer, exact: true });
	await expect(page.getByText('What you had read here is back.')).toBeHidden();
	await choose('Soil, turf or mulch is heaped against the bark', 'Yes').click();
	await page.getByLabel('Soil or mulch above the flare').fill('40');
	await page.getByRole('button', { name: 'Add', exact: true }).click();
	await expect(choose('Roots lie across the trunk', 'Some')).toBeChecked();
	// What the flare is like was not said yet: nothing is judged, and nothing is lost on a side page.
	await expect(page.getByRole('button', { name: 'Keep this measurement' })).toBeDisabled();
	await examine(page, 'B-05');
	await examine(page, 'B-05', '/measure?tool=collar');
	await expect(page.getByText('What you had read here is back.')).toBeVisible();
	await expect(choose('Soil, turf or mulch is heaped against the bark', 'Yes')).toBeChecked();
	await expect(choose('Roots lie across the trunk', 'Some')).toBeChecked();
	await expect(page.getByLabel('Soil or mulch above the flare')).toHaveValue('40');
	await choose('The flare is seen', 'All round').click();
	const says = page.getByRole('complementary', { name: 'What it says' });
	await expect(says).toContainText('Flare all round');
	// Nobody said whether roots come from the trunk above it: nothing is said of them.
	await expect(says).not.toContainText('Roots from the trunk above the flare');
	await page.getByRole('button', { name: 'Begin anew' }).click();
	await expect(choose('Roots lie across the trunk', 'Some')).not.toBeChecked();
	await expect(page.getByLabel('Soil or mulch above the flare')).toHaveValue('');
	await expect(page.getByText('What you had read here is back.')).toBeHidden();
});

test('soil: a file with faults, a file that cannot be meant, a simulated probe; kept, drawn, taken out, brought back', async ({
	page
}) => {
	await examine(page, 'Q-02', '/soil?tool=penetrometer');
	await page.getByRole('radio', { name: 'From a CSV file' }).click();
	const send = (text: string) =>
		page.getByLabel('CSV with depth and resistance').setInputFiles({
			name: 'probe.csv',
			mimeType: 'text/csv',
			buffer: Buffer.from(text)
		});
	await send('depth_mm;resistance_kpa\n50;stone\n100;2400\n150;3400\n');
	await expect(page.getByText('2 rows read.')).toBeVisible();
	await page.getByText('1 rows left out').click();
	await expect(page.getByText('Line 2: the resistance “stone” is no number.')).toBeVisible();
	await send('colour,taste\nbrown,good\n');
	await expect(page.getByText(/The first line must name the columns/)).toBeVisible();
	await expect(page.getByRole('button', { name: 'Keep this measurement' })).toBeDisabled();
	await page.getByRole('radio', { name: 'From a simulated probe' }).click();
	await page.getByRole('button', { name: 'Probe it' }).click();
	await expect(page.getByRole('img', { name: /Resistance by depth: .*hardly any root grows/ })).toBeVisible();
	await page.getByRole('button', { name: 'Keep this measurement' }).click();
	await expect(told(page, 'The measurement is kept.')).toBeVisible();
	await expect(page.getByText('Simulated probe, not a real soil.')).toBeVisible();
	await page.getByRole('button', { name: /^Take out: Penetrometer/ }).click();
	await expect(told(page, 'The measurement is taken out.')).toBeVisible();
	await expect(page.getByRole('img', { name: /Resistance by depth/ })).toBeHidden();
	await page.getByRole('button', { name: 'Undo' }).first().click();
	await expect(page.getByRole('img', { name: /Resistance by depth/ })).toBeVisible();
});

test('every tool can be read by keyboard and is judged as it is read', async ({ page }) => {
	test.setTimeout(180_000);
	const said = page.getByRole('complementary', { name: 'What it says' });
	const tool = async (name: string): Promise<void> => {
		await page.getByRole('navigation', { name: 'Tools' }).getByRole('button', { name }).click();
		await expect(page.getByRole('heading', { name, exact: true })).toBeVisible();
	};
	await examine(page, 'P-09', '/measure');
	await tool('Weigh');
	await page.getByLabel('Last watered through').fill('2026-04-14');
	await page.getByLabel('Full').first().fill('8,4');
	await page.getByLabel('Now').first().fill('7.4');
	await page.getByLabel('Dry (optional)').fill('6.4');
	await expect(said).toContainText('50 % of the way to dry, 4 days after water');
	await tool('Outflow');
	await page.getByLabel('Poured').fill('1');
	await page.getByLabel('Ran out').fill('2');
	await expect(page.getByText('More ran out than was poured')).toBeVisible();
	await page.getByLabel('Ran out').fill('0.7');
	await expect(said).toContainText('70 % of 1 L ran out');
	await tool('Drain time');
	await page.getByLabel('Or the minutes it took').fill('25');
	await expect(said).toContainText('Water stood 25 min');
	await tool('Squeeze test');
	await page.getByRole('radio', { name: 'Stays a lump', exact: true }).click();
	await expect(said).toContainText('Stays a lump');
	await tool('Scratch and tap');
	for (const [height, found] of [
		['200', 'Alive'],
		['900', 'Dead'],
		['500', 'Alive']
	]) {
		await page.getByRole('radio', { name: new RegExp(`^${found}`) }).click();
		await page.getByLabel('Height', { exact: true }).fill(height ?? '');
		await page.getByRole('button', { name: 'Add', exact: true }).click();
	}
	await expect(said).toContainText(/Alive up to \d+\smm/);
	await expectAccessible(page);
	await tool('Collar');
	await page.getByRole('radio', { name: 'None', exact: true }).click();
	await page.getByRole('button', { name: 'Add', exact: true }).click();
	await expect(said).toContainText('25 % of the trunk lain across');
	await expectAccessible(page);
	await tool('Slide test');
	await page.getByRole('radio', { name: 'Comes with a knife round the wall' }).click();
	await page.getByLabel('I saw the wall of the ball').check();
	await page.getByRole('slider').fill('80');
	await expect(said).toContainText('circling roots on 80 % of the wall');
	await expectAccessible(page);
	await examine(page, 'L-01', '/soil');
	await tool('Texture by feel');
	await page.getByRole('radio', { name: 'Yes' }).click();
	await page.getByLabel('Length of the ribbon').fill('60');
	await page.getByRole('radio', { name: 'Neither' }).click();
	await expect(said).toContainText('Clay, holds');
	await tool('Soil cores');
	await page.getByLabel('Fresh, g').fill('150');
	await page.getByLabel('Dry, g').fill('180');
	await expect(page.getByText(/must not weigh less fresh than dry/).first()).toBeVisible();
	await page.getByLabel('Fresh, g').fill('205');
	await expect(said).toContainText('1.8 Mg/m³ at 50 mm: restricts roots');
	await tool('Infiltration ring');
	await page.getByLabel('Sunk in all').fill('10');
	await page.getByLabel('Sunk in all').press('Enter');
	await page.getByLabel('Sunk in all').fill('9');
	await expect(page.getByText(/no water comes back/)).toBeVisible();
	await expect(said).toContainText('120 mm/h, moderately rapid');
	await expectAccessible(page);
});

test('before the work: stopped without permission, a range that moves, kept, asked again on Today', async ({
	page
}) => {
	await open(page, `${DEMO}/`);
	// It is none of the most pressing.
	await page.getByRole('button', { name: /^Show more/ }).click();
	await expect(
		page.getByRole('listitem').filter({ hasText: 'W-03' }).filter({ hasText: 'Look again before the work' })
	).toBeVisible();
	await examine(page, 'W-03', '/before');
	await expect(page.getByText(/“Nurse it first” was decided 21 days ago/)).toBeVisible();
	const follows = page.getByRole('complementary', { name: 'What follows' });
	await page.getByRole('radio', { name: 'not yet given' }).click();
	await expect(follows).toContainText('Worth it, with these first');
	await expect(follows).toContainText('First: Permission, in writing.');
	// Nobody has decided yet.
	await expect(page.getByRole('button', { name: 'Keep the decision' })).toBeDisabled();
	await page.getByRole('radio', { name: 'my own tree' }).click();
	await page.getByRole('radio', { name: 'lift it', exact: true }).click();
	await page.getByLabel('Ball across').fill('900');
	await page.getByLabel('Ball deep').fill('600');
	await expect(follows).toContainText(/About \d+\skg:\s+a machine/);
	// What nobody has answered holds the go.
	await page.getByRole('radio', { name: 'none seen' }).click();
	await expect(follows).toContainText(/Find out first: whether/);
	const protectedSite = page.getByRole('radiogroup', { name: 'Protected species or site' });
	await expect(protectedSite).toBeVisible();
	// In its pot no site forbids what is done to it.
	await page.getByRole('radio', { name: 'treat it where it stands' }).click();
	await expect(protectedSite).toBeHidden();
	await expect(follows).not.toContainText('Find out first: whether');
	await follows.getByRole('button', { name: /It lives, done today/ }).click();
	await expect(page.getByText('Treated where it stands')).toBeVisible();
	await page.keyboard.press('Escape');
	await page.getByRole('radio', { name: 'Go', exact: true }).click();
	await pick(page.getByLabel('If not this one, then'), 'P-09 Pine that stays wet');
	await page.getByLabel('Cuttings or divisions first').fill('5');
	await page.getByRole('button', { name: 'Keep the decision' }).click();
	await expect(told(page, 'The decision is kept.')).toBeVisible();
	await expect(page.getByRole('listitem').filter({ hasText: '18 Apr' })).toContainText(
		'5 cuttings first. Else P-09'
	);
	await open(page, `${DEMO}/`);
	await expect(page.getByText('Look again before the work')).toBeHidden();
});

test('changed together is said before it is kept; one by one is planned; a twin is named', async ({
	page
}) => {
	await examine(page, 'T-05', '/changes');
	const day = page.getByRole('group', { name: 'Changed that day' });
	await day.getByRole('button', { name: 'light' }).click();
	await expect(page.getByText('Changed together.')).toBeHidden();
	await day.getByRole('button', { name: 'feeding' }).click();
	await expect(page.getByRole('status').filter({ hasText: 'Changed together.' })).toContainText(
		'effects of light, feeding could not be told apart'
	);
	await page.getByRole('button', { name: 'Keep the change' }).click();
	await expect(told(page, 'The change is kept.')).toBeVisible();
	await expect(page.getByText('Together: light, feeding; effects cannot be told apart.')).toBeVisible();
	const apart = page.getByRole('complementary', { name: 'To tell effects apart' });
	const wanted = apart.getByRole('group', { name: 'You want to change' });
	await wanted.getByRole('button', { name: 'pot' }).click();
	await expect(apart.getByRole('button', { name: 'Plan them one by one' })).toBeDisabled();
	await wanted.getByRole('button', { name: 'watering' }).click();
	await expect(apart.getByRole('listitem').filter({ hasText: 'pot' })).toContainText(
		'9 May, watch until 30 May'
	);
	await apart.getByRole('button', { name: 'Plan 2 one by one' }).click();
	await expect(told(page, '2 changes are planned')).toBeVisible();
	await apart.getByRole('button', { name: 'Name it' }).click();
	await expect(apart.getByText(/must be chosen/).first()).toBeVisible();
	// What was begun and not chosen falls back; one that is not offered is found by typing.
	const twin = apart.getByLabel('Same kind, same place tells most');
	for (const answered of ['before', 'after', 'before', 'after']) {
		const asked = page.waitForRequest(/find=zzz/);
		let letGo = (): void => undefined;
		const held = new Promise<void>((resolve) => (letGo = resolve));
		await page.route(/find=zzz/, async (route) => {
			await held;
			await route.continue();
		});
		await twin.fill('zzz');
		const request = await asked;
		const told = async () => {
			letGo();
			await request.response();
		};
		if (answered === 'before') await told();
		await twin.press('Tab');
		await expect(twin).toHaveValue('');
		if (answered === 'after') await told();
		await expect(twin).toHaveValue('');
		await page.unroute(/find=zzz/);
	}
	await pick(twin, 'H-00 Hornbeam, never dug');
	await apart.getByRole('button', { name: 'Name it' }).click();
	await expect(apart.getByText('Change nothing about it while you watch.')).toBeVisible();
});

test('the finding sheet says it all on one page, and only the sheet is printed', async ({ page }) => {
	await examine(page, 'Q-02');
	await page.getByRole('link', { name: 'Finding sheet' }).click();
	const sheet = page.getByRole('article', { name: 'Finding sheet' });
	await expect(sheet).toContainText('Fungus brackets or toadstools at the base');
	await expect(sheet).toContainText('Qualified arborist, within a week.');
	await page.emulateMedia({ media: 'print' });
	await expect(page.getByRole('navigation', { name: 'Stages' })).toBeHidden();
	await expect(page.getByRole('button', { name: 'Print this page' })).toBeHidden();
	await expect(sheet).toBeVisible();
	const pdf = await page.pdf({ preferCSSPageSize: true });
	expect(pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1);
});
