import {
	expect,
	expectAccessible,
	open,
	OWN,
	pick,
	strayOnPaper,
	takeIn,
	test,
	told,
	treeId,
	type Page
} from './helpers';

/** One new tree from taking in to re-established, in the real interface, on an empty database. */
test.describe.configure({ mode: 'serial' });

const stage = (page: Page, name: string) =>
	page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();

async function look(page: Page, on: string, fill: () => Promise<void>): Promise<void> {
	// Only what matters now is asked; the rest is there when it is wanted.
	await page.getByRole('button', { name: /^Look at more/ }).click();
	await fill();
	await page.getByLabel('Looked on').fill(on);
	await page.getByRole('button', { name: 'Keep this look' }).click();
	await expect(page.getByText('The look is kept.').last()).toBeVisible();
	await expect(page.getByLabel('Looked on')).toHaveValue('18 Apr 2026');
}

test('an empty yard helps to begin: the first place', async ({ page }) => {
	await open(page, `${OWN}/`);
	await expect(page.getByRole('heading', { name: 'Which tree needs you?' })).toBeVisible();
	// An empty list is printed as what it says, without the shell.
	for (const list of ['/calendar', '/trees', '/yard/stock', '/']) {
		await open(page, OWN + list);
		await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
		expect(await strayOnPaper(page), list).toEqual([]);
	}
	await page.getByRole('link', { name: 'First place' }).click();
	await page.getByLabel('Name', { exact: true }).fill('Mill bench');
	await page.getByLabel('Latitude').fill('52,4');
	await page.getByRole('button', { name: 'Add the place' }).click();
	await expect(page.getByRole('heading', { name: 'Mill bench' })).toBeVisible();
	await expect(page.getByText('hardy kinds grow')).toBeVisible();
	await expect(page.getByRole('link', { name: 'Take in the first tree' })).toBeVisible();
});

test('take in: a healthy twin, then the tree that needs help', async ({ page }) => {
	const longAgo = async (): Promise<void> => {
		await page.getByText('More: day, batch').click();
		await page.getByLabel('Taken in on').fill('2024-11-10');
	};
	await takeIn(
		page,
		{ tag: 'R-1', name: 'Hornbeam, never dug', trunk: '100' },
		{ server: OWN, more: longAgo }
	);
	await stage(page, 'Recovery');
	await look(page, '2025-09-01', async () => {
		await page.getByLabel('This season’s shoots').fill('300');
	});

	await takeIn(
		page,
		{
			tag: 'H-9',
			name: 'Hornbeam from the ford',
			trunk: '100',
			situation: 'just lifted',
			reserves: 'field-grown',
			permission: 'given in writing'
		},
		{
			server: OWN,
			more: async () => {
				await longAgo();
				await pick(page.getByLabel('A healthy tree to compare with'), 'R-1 Hornbeam, never dug');
			}
		}
	);
	await expect(page).toHaveURL(/\/examine$/);
});

test('examine: the ranking follows each sign at once, and the look is kept', async ({ page }) => {
	await open(page, `${OWN}/trees/${await treeId('H-9', OWN)}/examine`);
	const causes = page.getByRole('complementary', { name: 'What it may be' });
	await page.getByRole('radiogroup', { name: 'Examination' }).waitFor();
	await page.getByRole('button', { name: /^Foot of the trunk/ }).click();
	await page
		.getByRole('group', { name: 'Root across the trunk' })
		.getByRole('radio', { name: 'A third to a half' })
		.click();
	await expect(causes.getByRole('listitem').first()).toContainText(/Girdling roots.* (8|9)\d\s%/);
	await page.getByRole('group', { name: 'No flare' }).getByRole('radio', { name: 'None seen' }).click();
	await page
		.getByRole('group', { name: 'Sour or sulphur smell' })
		.getByRole('radio', { name: 'None', exact: true })
		.click();
	await expect(causes.getByRole('button', { name: /Buried collar/ })).toBeVisible();
	await expect(causes.getByText(/Root across the trunk.*speaks strongly for it/)).toBeVisible();
	await page.getByLabel('Looked on').fill('2024-11-12');
	await page.getByRole('button', { name: 'Keep this look, 3 signs' }).click();
	await expect(told(page, 'The look is kept.')).toBeVisible();
	await expect(page.getByRole('heading', { name: 'Found on 12 November 2024' })).toBeVisible();
});

test('roots: quick entry by keyboard, three linked views, treatment by key, stages and the record of what was cut', async ({
	page
}) => {
	await open(page, `${OWN}/trees/${await treeId('H-9', OWN)}/roots`);
	await page.keyboard.press('a');
	const quick = page.getByLabel('Quick entry of a root');
	await expect(quick).toBeFocused();
	for (const line of [
		'6 32 anchor keep',
		'8:30 30 anchor',
		'11 33 anchor',
		'1:30 31 anchor',
		'3:45 30 anchor',
		'7 14 sec girdling d6',
		'4:30 9 circling',
		'10 8 rotten'
	]) {
		await quick.fill(line);
		await quick.press('Enter');
		await expect(quick).toHaveValue('');
	}
	await expect(page.getByText('8 mapped, 0 to trace')).toBeVisible();
	await quick.fill('13 9');
	await expect(page.getByText('is no place: give a clock position 1 to 12')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Add', exact: true })).toBeDisabled();
	await quick.fill('');

	await page.getByRole('button', { name: 'Repeat the last root' }).click();
	await expect(quick).toHaveValue('10 8 rotten');
	await quick.fill('');
	await quick.press('Escape');
	await expect(page.getByText(/^kept$/)).toBeVisible();

	// Choosing in the list chooses everywhere.
	const list = page.getByRole('table', { name: 'Roots mapped' });
	await list.getByRole('button', { name: '4:30', exact: true }).click();
	await expect(page.getByText(/4:30, 9\smm.*carries/)).toBeVisible();
	await page.keyboard.press('x');
	await expect(list.getByRole('row').filter({ hasText: '4:30' })).toContainText('cut now');
	await page.keyboard.press('t');
	await expect(list.getByRole('row').filter({ hasText: '4:30' })).toContainText('trace further');
	await page.keyboard.press('Control+z');
	await expect(list.getByRole('row').filter({ hasText: '4:30' })).toContainText('cut now');

	const ledger = page.getByRole('complementary', { name: 'Ledger' });
	await ledger.getByRole('button', { name: 'Propose stages' }).click();
	const ways = page.getByRole('dialog', { name: 'Ways to stage the work' });
	await expect(ways.getByRole('button', { name: 'Take bold' })).toBeVisible({ timeout: 30_000 });
	await expect(ways.getByText('proven best')).toHaveCount(3);
	await ways.getByRole('button', { name: 'Line by line' }).nth(1).click();
	const lines = ways.getByRole('region', { name: 'Line by line, usual' });
	await expect(lines.getByRole('listitem').filter({ hasText: '10:00' })).toContainText(
		'as soon as there is work'
	);
	await expect(lines.getByRole('listitem').filter({ hasText: '4:30' })).toContainText(
		'you want it in this stage'
	);
	await expectAccessible(page);
	await ways.getByRole('button', { name: 'Take usual' }).click();
	await expect(ways).toBeHidden();
	await expect(list.getByRole('row').filter({ hasText: '10:00' })).toContainText('cut now');
	await expect(list.getByRole('row').filter({ hasText: '7:00' })).toContainText(
		/girdles \d+\s% of the trunk/
	);
	await ledger.getByRole('button', { name: /Allowance for one session: show the workings/ }).click();
	await expect(page.getByRole('heading', { name: 'Allowance for one session' })).toBeVisible();
	await page.keyboard.press('Escape');

	await expect(page.getByText(/^kept$/)).toBeVisible();
	await ledger.getByRole('button', { name: 'Record the cuts' }).click();
	const sheet = page.getByRole('dialog', { name: /what was cut/ });
	await sheet.getByLabel('Done on').fill('2024-11-20');
	await sheet.getByRole('button', { name: 'Keep the record' }).click();
	await expect(told(page, 'The cuts are in the record.')).toBeVisible();
	await expect(list.getByRole('row').filter({ hasText: '10:00' })).toContainText('cut, done');

	await page.reload();
	await expect(list.getByRole('row').filter({ hasText: '10:00' })).toContainText('cut, done');
	await expect(page.getByRole('img', { name: /Line of care.*20 Nov 2024: \d+\s% cut/ })).toBeVisible();
});

test('roots: a step without an answer from the server comes back after a reload', async ({ page }) => {
	await open(page, `${OWN}/trees/${await treeId('R-1', OWN)}/roots`);
	await page.route('**/roots', (route) =>
		route.request().method() === 'PUT' ? route.abort() : route.fallback()
	);
	await page.getByLabel('Quick entry of a root').fill('9 12');
	await page.getByRole('button', { name: 'Add', exact: true }).click();
	await expect(page.getByText('no answer; kept in this browser')).toBeVisible();
	await page.unroute('**/roots');
	await page.reload();
	await expect(page.getByText('1 mapped')).toBeVisible();
	await expect(page.getByText(/^kept$/)).toBeVisible();
});

test('replant: size rule, litres by layer, written down', async ({ page }) => {
	await open(page, `${OWN}/trees/${await treeId('H-9', OWN)}/replant`);
	await page.getByLabel('Width of the ball').fill('300');
	await page.getByLabel('Depth of the ball').fill('150');
	await expect(page.getByText(/rot was found: the pot follows/).first()).toBeVisible();
	await page.getByRole('radio', { name: 'round' }).click();
	await page.getByLabel('Diameter at the rim').fill('300');
	await page.getByLabel('Diameter at the floor').fill('240');
	await page.getByLabel('Depth', { exact: true }).fill('250');
	const amounts = page.getByRole('complementary', { name: 'What to have ready' });
	await amounts.getByRole('button', { name: /Mix to have ready: show the workings/ }).click();
	// The published frustum: 300/240 × 250 mm is 14.37 L.
	await expect(page.getByText('14.4 L')).toBeVisible();
	await page.keyboard.press('Escape');
	await page.getByLabel('Width of the ball').fill('340');
	await expect(amounts.getByText(/goes through the wall by 2\d\smm at/)).toBeVisible();
	await expect(amounts.getByText(/It does not go in/)).toBeVisible();
	await page.getByLabel('Width of the ball').fill('270');
	await page.getByLabel('On', { exact: true }).fill('2024-11-20');
	await page.getByRole('button', { name: 'Write it down as planted' }).click();
	await expect(told(page, 'Written down as planted.')).toBeVisible();
});

test('aftercare: made from the work and the schools; done, skipped with a reason, undone; Today lists it', async ({
	page
}) => {
	await open(page, `${OWN}/trees/${await treeId('H-9', OWN)}/aftercare`);
	const make = page.getByRole('complementary', { name: /Aftercare of the work on 20 November 2024/ });
	await make.getByRole('radio', { name: 'At once' }).click();
	// Its first water had its days long ago: it is told, and not made.
	await make.getByText(/had their days before today/).click();
	await expect(make.getByText('Water the whole surface slowly')).toBeVisible();
	await make.getByRole('button', { name: /Make these \d+ tasks/ }).click();
	await expect(make.getByText('Nothing of it is left to plan.')).toBeVisible();
	await page.getByRole('button', { name: 'Add a task' }).click();
	const own = page.getByRole('dialog', { name: 'Add a task' });
	await own
		.getByLabel('What', { exact: true })
		.fill('Water the whole surface slowly until a tenth runs through');
	await own.getByLabel('Kind of work').selectOption({ label: 'water' });
	await own.getByRole('button', { name: 'Add it' }).click();
	await expect(told(page, 'Added.')).toBeVisible();

	await open(page, `${OWN}/`);
	await page
		.getByRole('button', { name: 'Done: Water the whole surface slowly until a tenth runs through, H-9' })
		.click();
	// Done, it asks what was poured, and files it as that watering.
	const result = page.getByRole('dialog', { name: /^Done: Water the whole surface/ });
	await result.getByLabel('Poured').fill('1,5');
	await result.getByRole('button', { name: 'Keep it' }).click();
	await expect(told(page, 'Done, and kept.')).toBeVisible();
	await told(page, 'Done, and kept.').getByRole('button', { name: 'Undo' }).click();
	await expect(told(page, 'Taken back.')).toBeVisible();
	await expect(page.getByRole('button', { name: /Done: Water the whole surface slowly/ })).toBeVisible();
	await page.getByRole('button', { name: /Skip: Water the whole surface slowly/ }).click();
	await page.getByRole('dialog').getByLabel('Reason').fill('It had rained all night');
	await page.getByRole('dialog').getByRole('button', { name: 'Skip it' }).click();
	await expect(page.getByRole('button', { name: /Done: Water the whole surface slowly/ })).toHaveCount(0);

	await open(page, `${OWN}/trees/${await treeId('H-9', OWN)}/aftercare`);
	// What asks for a look or a weight is answered there; here all of it is left, with the reason.
	const leave = page.getByRole('button', { name: /^Skip: / });
	for (let left = await leave.count(); left > 0; left--) {
		await expect(leave).toHaveCount(left);
		await leave.first().click();
		const sheet = page.getByRole('dialog');
		await sheet.getByRole('button', { name: 'Done in another way' }).click();
		const ends = sheet.getByLabel(/Do not bring it up again/);
		// What comes up again would stand there once more: it is ended.
		if (await ends.isVisible()) await ends.check();
		await sheet.getByRole('button', { name: 'Skip it' }).click();
	}
	await expect(page.getByText('Nothing is planned.')).toBeVisible();
	await page.getByText('Closed').click();
	await expect(page.getByText('skipped: It had rained all night')).toBeVisible();
});

test('recovery: looks, the criteria one by one, and the case closed as re-established', async ({ page }) => {
	await open(page, `${OWN}/trees/${await treeId('H-9', OWN)}/recovery`);
	const verdict = page.getByRole('complementary', { name: 'Is it re-established?' });
	await expect(verdict.getByText('Not yet: 2 of 7 met.')).toBeVisible();
	await look(page, '2025-06-01', async () => {
		await page.getByLabel('Alive up to').fill('1800');
		await page.getByRole('radiogroup', { name: 'Buds' }).getByRole('radio', { name: 'open' }).click();
	});
	await look(page, '2025-09-20', async () => {
		await page.getByLabel('This season’s shoots').fill('260');
		await page.getByLabel('Alive up to').fill('1795');
		await page
			.getByRole('radiogroup', { name: 'Crown in leaf' })
			.getByRole('radio', { name: '90 %' })
			.click();
	});
	await expect(verdict.getByText('260 mm against 300 mm of the reference: 87 %, wanted 80 %.')).toBeVisible();
	await look(page, '2026-04-12', async () => {
		await page.getByLabel('Alive up to').fill('1795');
		await page.getByRole('radiogroup', { name: 'Stands' }).getByRole('radio', { name: 'firm' }).click();
		await page
			.getByRole('radiogroup', { name: 'Roots at the edge' })
			.getByRole('radio', { name: 'yes' })
			.click();
	});
	await expect(verdict.getByText('Yes, by every criterion.')).toBeVisible();
	await expect(
		page.getByRole('img', { name: /^(Leaf cover|Shoots|Dieback limit): \d readings?/ })
	).toBeVisible();

	await verdict.getByRole('button', { name: 'Close the case' }).click();
	const sheet = page.getByRole('dialog', { name: 'Close the case' });
	await sheet.getByLabel(/What was learned/).fill('The girdler came off in time.');
	await sheet.getByRole('button', { name: 'Close it' }).click();
	await expect(page.getByRole('complementary', { name: 'Re-established' })).toContainText(
		'The girdler came off in time.'
	);
	await page.reload();
	await expect(page.getByText('Re-established after 17 months.')).toBeVisible();
	await stage(page, 'Take in');
	await expect(page.getByText('Re-established: case closed')).toBeVisible();
});
