import {
	DEMO,
	ended,
	expect,
	expectAccessible,
	open,
	startServer,
	takeIn,
	test,
	told,
	treeId,
	type Page
} from './helpers';

/** What is done or seen on one page counts on every other: each of these seams once came apart. */

const stage = (page: Page, name: string) =>
	page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();
const fact = (page: Page, label: string) =>
	page.getByRole('term').filter({ hasText: label }).locator('xpath=following-sibling::dd[1]');
async function stands(page: Page): Promise<void> {
	await page.getByRole('link', { name: 'How it stands', exact: true }).click();
	await expect(page.getByRole('heading', { name: 'How it stands' })).toBeVisible();
}

test('a lift with torn roots costs roots: on its sheet, in Recovery, on Today, and its ball is the one ball', async ({
	page
}) => {
	const id = await takeIn(page, {
		tag: 'S-1',
		name: 'Hornbeam from the bank',
		situation: 'in the ground',
		permission: 'given in writing'
	});
	await stands(page);
	await expect(fact(page, 'Living roots, of what it had')).toHaveText('not known');
	await expect(fact(page, 'Ball, width')).toHaveText('not known');
	await expectAccessible(page);

	await open(page, `${DEMO}/trees/${id}/replant/lift`);
	await page.getByLabel('Planned for').fill('18 Apr 2026');
	await page.getByRole('button', { name: 'Keep plan and ticks' }).click();
	await expect(told(page, 'Plan and ticks are kept.')).toBeVisible();
	await expect(page.getByText(/Lift it, as planned for/)).toBeVisible();
	await page.getByRole('link', { name: 'Today', exact: true }).click();
	const onToday = page.getByRole('listitem').filter({ hasText: 'S-1' });
	await expect(onToday.filter({ hasText: 'Lift it, as planned' })).toBeVisible();
	await open(page, `${DEMO}/trees/${id}/replant/lift`);
	await page.getByRole('button', { name: 'It is out of the ground: write the log' }).click();
	// What the plan suggests is nobody’s measure, and what nobody noted stays empty.
	await expect(page.getByText('A guess, measured by nobody.')).toHaveCount(2);
	await expect(page.getByLabel('Minutes out of the ground')).toHaveValue('');
	await page.getByLabel('Ball as lifted, width').fill('430');
	await page.getByLabel('Ball as lifted, depth').fill('28 cm');
	await expect(page.getByText('A guess, measured by nobody.')).toHaveCount(0);
	await page.getByRole('radio', { name: 'wrapped', exact: true }).click();
	for (const at of ['2', '6', '10']) {
		await page.getByLabel('Clock, north 12').fill(at);
		await page.getByLabel('Thick', { exact: true }).fill('20');
		await page.getByLabel('How', { exact: true }).selectOption({ label: 'torn, to be cut clean' });
		await page.getByRole('button', { name: 'Add', exact: true }).click();
	}
	await expect(page.getByText(/of its absorbing roots came along[\s\S]*by its ball/)).toBeVisible();
	await page.getByRole('button', { name: 'Keep the log' }).click();
	await expect(told(page, 'The log of the lift is kept.')).toBeVisible();

	// Without a reload: every page knows.
	await stands(page);
	await expect(fact(page, 'Living roots, of what it had')).toContainText('worked out, the lift, by its ball');
	await expect(fact(page, 'Ball, width')).toContainText('430 mm');
	await expect(fact(page, 'Ball, depth')).toContainText('280 mm');
	await expect(fact(page, 'It is')).toContainText('wrapped');
	await stage(page, 'Recovery');
	await expect(page.getByText(/since it was lifted/)).toBeVisible();
	await expect(page.getByText(/Set it or heel it in first/)).toBeVisible();
	await stage(page, 'Replant');
	await expect(page.getByLabel('Width of the ball')).toHaveValue('430');
	await expect(page.getByText('Ball as lifted, 18 Apr.')).toBeVisible();
	await stage(page, 'Aftercare');
	await expect(page.getByText(/9\d\s% of the living root/).first()).toBeVisible();
	// What follows is offered once it is set; what the lift left is on the list.
	await expect(page.getByText(/aftercare is offered once it is set/)).toBeVisible();
	await expect(page.getByRole('button', { name: /^Make these/ })).toHaveCount(0);
	for (const left of ['Fill the hole and make it safe', 'Cut the torn and chopped ends clean'])
		await expect(page.getByRole('listitem').filter({ hasText: left })).toBeVisible();
	await page
		.getByRole('listitem')
		.filter({ hasText: 'Cut the torn and chopped ends clean' })
		.getByRole('button', { name: 'Done' })
		.click();
	await stage(page, 'Replant');
	await page.getByRole('link', { name: 'Lift: ball, weight, when' }).click();
	await expect(page.getByText(/the hole is not filled yet/)).toBeVisible();
	await expect(page.getByText(/20\smm at 2:00 torn, cut clean on 18 Apr/)).toBeVisible();
	await page.getByRole('link', { name: 'Today', exact: true }).click();
	await expect(page.getByRole('listitem').filter({ hasText: 'S-1' }).first()).toContainText(
		'Out of the ground: set it or heel it in'
	);
});

test('what was told before the work is ticked at the hole; a decision stands in the head until it is done', async ({
	page
}) => {
	const id = await takeIn(page, {
		tag: 'S-7',
		name: 'Hornbeam by the gate',
		situation: 'in the ground',
		permission: 'given in writing'
	});
	await open(page, `${DEMO}/trees/${id}/examine/before`);
	const says = (group: RegExp, word: string) =>
		page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: word, exact: true }).click();
	await says(/Protected/, 'No');
	await says(/Gas, power/, 'Yes');
	await page.getByRole('radio', { name: 'Go', exact: true }).click();
	await page.getByRole('button', { name: 'Keep the decision' }).click();
	await expect(page.getByText(/Lift it, as decided on/)).toBeVisible();
	await stage(page, 'Replant');
	await page.getByRole('link', { name: 'Lift: ball, weight, when' }).click();
	await expect(page.getByRole('checkbox', { name: /Permission in writing/ })).toBeChecked();
	await expect(page.getByRole('checkbox', { name: /Gas, power, water/ })).toBeChecked();
	await expect(page.getByText('told on 18 April 2026')).toHaveCount(2);
	await expect(page.getByRole('checkbox', { name: /second-choice tree/ })).not.toBeChecked();
});

test('a day that turned counts without a reload', async ({ page }, info) => {
	const database = info.outputPath('days.db');
	const port = 4860 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
	const server = `http://127.0.0.1:${port}`;
	await page.clock.install();
	let running = await startServer(database, port);
	try {
		await open(page, `${server}/yard`);
		await page.getByLabel('Name', { exact: true }).fill('Bench');
		await page.getByLabel('Latitude').fill('52');
		await page.getByRole('button', { name: 'Add the place' }).click();
		await expect(page.getByText('Today is 18 April 2026.')).toBeVisible();
		const gone = ended(running);
		running.kill();
		await gone;
		running = await startServer(database, port, { BRUNTLE_NOW: '2026-05-02T09:00:00Z' });
		await page.getByRole('link', { name: 'Trees', exact: true }).click();
		await expect(page.getByRole('heading', { name: 'Trees', level: 1 })).toBeVisible();
		await page.getByRole('link', { name: 'Yard', exact: true }).click();
		await expect(page.getByText('Today is 2 May 2026.')).toBeVisible();
		// A page that lay open, and that somebody comes back to, without any step.
		const goneAgain = ended(running);
		running.kill();
		await goneAgain;
		running = await startServer(database, port, { BRUNTLE_NOW: '2026-05-09T09:00:00Z' });
		await page.clock.fastForward('11:00');
		await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
		await expect(page.getByText('Today is 9 May 2026.')).toBeVisible();
	} finally {
		running.kill();
	}
});

test('a change of stage is never a loss: Roots come back as they were left, and take further steps', async ({
	page
}) => {
	const id = await takeIn(page, {
		tag: 'S-2',
		name: 'Hornbeam from the yard',
		situation: 'potted',
		permission: 'given in writing'
	});
	await open(page, `${DEMO}/trees/${id}/roots`);
	const quick = page.getByLabel('Quick entry of a root');
	const enter = async (line: string): Promise<void> => {
		await quick.fill(line);
		await quick.press('Enter');
		await expect(quick).toHaveValue('');
	};
	await enter('6 20 anchor');
	await expect(page.getByText(/^kept$/)).toBeVisible();
	// Left while the last step is still on its way.
	await enter('9 18 anchor');
	await stage(page, 'Replant');
	await expect(
		page
			.getByRole('heading', { name: 'The ball, as it goes in' })
			.or(page.getByText('The ball, as it goes in'))
	).toBeVisible();
	await stage(page, 'Roots');
	await expect(page.getByText('2 mapped, 0 to trace')).toBeVisible();
	await enter('12 17 anchor');
	await expect(page.getByText(/^kept$/)).toBeVisible();
	await stage(page, 'Aftercare');
	await expect(page.getByRole('heading', { name: /^To do/ })).toBeVisible();
	await page.goBack();
	await expect(page.getByText('3 mapped, 0 to trace')).toBeVisible();
	await enter('3 16 anchor');
	await expect(page.getByText(/^kept$/)).toBeVisible();
	await expect(page.getByText('changed elsewhere')).toHaveCount(0);
	// Another window shows it too.
	const other = await page.context().newPage();
	await open(other, `${DEMO}/trees/${id}/roots`);
	await expect(other.getByText('4 mapped, 0 to trace')).toBeVisible();
	await other.close();
});

test('quick entry reads inches and fractions where the person does, and a unit in either system', async ({
	page
}) => {
	const id = await treeId('S-2');
	await open(page, `${DEMO}/yard/settings`);
	await page.getByRole('radio', { name: /inches|imperial/i }).click();
	await page.getByRole('button', { name: /^Keep/ }).first().click();
	await expect(page.locator('[data-sonner-toast]').first()).toBeVisible();
	await open(page, `${DEMO}/trees/${id}/roots`);
	const quick = page.getByLabel('Quick entry of a root');
	await quick.fill('7 1/2 sec; rises');
	await expect(page.getByText(/7:00 o’clock, 0.5\sin, secondary, rises out of the soil/)).toBeVisible();
	await quick.fill('7 12mm sec');
	await expect(page.getByText(/7:00 o’clock, 0.47\sin, secondary/)).toBeVisible();
	await quick.fill('7 9 sec');
	await expect(page.getByText(/is thicker than the trunk/)).toBeVisible();
	await quick.fill('');
	await open(page, `${DEMO}/yard/settings`);
	await page.getByRole('radio', { name: /metric|millimet/i }).click();
	await page.getByRole('button', { name: /^Keep/ }).first().click();
	await expect(page.locator('[data-sonner-toast]').first()).toBeVisible();
});

test('what an arborist has to see stands on every page and first on Today, until someone writes what they said', async ({
	page
}) => {
	const id = await treeId('Q-02');
	await open(page, `${DEMO}/`);
	await expect(
		page.getByRole('listitem').filter({ hasText: 'A qualified arborist has to see it' }).first()
	).toContainText('Q-02');
	for (const name of ['roots', 'replant', 'recovery', 'aftercare']) {
		await open(page, `${DEMO}/trees/${id}/${name}`);
		await expect(
			page.getByRole('region', { name: 'To be seen by others' }).getByText(/Fungus brackets/)
		).toBeVisible();
	}
	const row = page.getByRole('listitem').filter({ hasText: 'A qualified arborist has to see it' }).first();
	await row.getByRole('button', { name: /^Done/ }).click();
	const sheet = page.getByRole('dialog', { name: /^Done: A qualified arborist/ });
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(sheet.getByText(/must say who looked at it/).first()).toBeVisible();
	await sheet
		.getByLabel('Who looked at it, when, and what they said')
		.fill('Rae Dunmore, today: decay in one buttress, weight to come off the north limb');
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(told(page, 'Done.')).toBeVisible();
	await expect(page.getByRole('region', { name: 'To be seen by others' })).toHaveCount(0);
	await open(page, `${DEMO}/trees/${id}/recovery/letter`);
	await expect(page.getByText(/weight to come off the north limb/)).toBeVisible();
	await expect(page.getByText(/was not tried/)).toHaveCount(0);
});

test('a mature tree in the ground is not offered to be lifted, and what nobody looked for is not "none"', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('L-01')}/examine/before`);
	await expect(page.getByRole('radio', { name: 'treat it where it stands' })).toBeChecked();
	await open(page, `${DEMO}/trees/${await treeId('S-2')}/examine/before`);
	await expect(page.getByRole('radio', { name: 'not looked for' })).toBeChecked();
});

test('water nobody wrote down is not known; poured stays empty; a watering closes the task that asked for it', async ({
	page
}) => {
	const id = await treeId('S-2');
	await open(page, `${DEMO}/trees/${id}/aftercare`);
	await expect(page.getByText('Not known: lift it or feel it now')).toBeVisible();
	await expect(page.getByText('Its pot and mix are assumed from what is known of it')).toBeVisible();
	await page.getByRole('button', { name: 'Add a task' }).click();
	const adding = page.getByRole('dialog', { name: 'Add a task' });
	await adding.getByLabel('What', { exact: true }).fill('Water it by hand');
	await adding.getByLabel('Kind of work').selectOption({ label: 'water' });
	await adding.getByRole('button', { name: 'Add it' }).click();
	await expect(page.getByText('Water it by hand').first()).toBeVisible();

	await page.getByRole('button', { name: 'Watered or weighed' }).click();
	const sheet = page.getByRole('dialog', { name: 'Watered or weighed' });
	await expect(sheet.getByLabel('Poured')).toHaveValue('');
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(told(page, 'Kept.')).toBeVisible();
	await expect(page.getByText('Not known: lift it or feel it now')).toHaveCount(0);
	await expect(page.getByText('Water it now')).toHaveCount(0);
	await expect(page.getByRole('button', { name: 'Done: Water it by hand' })).toHaveCount(0);
	await page.getByRole('button', { name: /^Take out the watering/ }).click();
	await expect(page.getByText('Not known: lift it or feel it now')).toBeVisible();
});

test('two looks of one day: the later kept is the later; firmness found in Examine is known to the sheet', async ({
	page
}) => {
	const id = await treeId('S-2');
	for (const [answer, shown] of [
		['Moves at the base', 'moves at the base'],
		['Rocks a little', 'rocks a little']
	] as const) {
		await open(page, `${DEMO}/trees/${id}/examine`);
		await page
			.getByRole('radiogroup', { name: 'Examination' })
			.getByRole('radio', { name: /new look/i })
			.click();
		await page.getByRole('button', { name: /^Foot of the trunk/ }).click();
		await page
			.getByRole('group', { name: 'Leans, or rocks in its soil' })
			.getByRole('radio', { name: answer })
			.click();
		await page.getByRole('button', { name: /^Keep this look/ }).click();
		await expect(told(page, 'The look is kept.')).toBeVisible();
		await stands(page);
		await expect(fact(page, 'At its base')).toContainText(shown);
	}
	await expect(fact(page, 'At its base')).toContainText('But moves at the base by the examination');
	await page.getByRole('link', { name: 'Today', exact: true }).click();
	await expect(page.getByText('It rocks a little: hold it firm').first()).toBeVisible();
});

test('what the root map shows stands at the last look and in the next one', async ({ page }) => {
	const id = await takeIn(page, { tag: 'S-8', name: 'Hornbeam with a root across' });
	await open(page, `${DEMO}/trees/${id}/examine`);
	await page.getByRole('button', { name: /^Foot of the trunk/ }).click();
	await page
		.getByRole('group', { name: 'Leans, or rocks in its soil' })
		.getByRole('radio', { name: 'Firm' })
		.click();
	await page.getByRole('button', { name: /^Keep this look/ }).click();
	await expect(told(page, 'The look is kept.')).toBeVisible();
	await expect(page.getByText('what this look does not say')).toHaveCount(0);
	await stage(page, 'Roots');
	const quick = page.getByLabel('Quick entry of a root');
	await quick.fill('6:30 9 sec girdling');
	await quick.press('Enter');
	await expect(page.getByText('1 mapped')).toBeVisible();
	await expect(page.getByText('kept', { exact: true }).first()).toBeVisible();
	await stage(page, 'Examine');
	await expect(
		page.getByText(/does not say: root across the trunk, under a third of the trunk \(root map/)
	).toBeVisible();
	await page.getByRole('button', { name: 'Look anew, with that' }).click();
	await expect(page.getByText(/Found: under a third of the trunk, root map/)).toBeVisible();
	await expectAccessible(page);
	await page.getByRole('button', { name: /^Keep this look, 1 sign/ }).click();
	await expect(told(page, 'The look is kept.')).toBeVisible();
	await expect(page.getByText('measured: the root map')).toBeVisible();
	await expect(page.getByText('what this look does not say')).toHaveCount(0);
});

test('where days ahead stand against root work, the lift does not say that today will do', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('T-05')}/replant/lift`);
	await expect(page.getByText('Do not begin root work today.')).toBeVisible();
	// It is out already: the plan of another lift is asked for.
	await page.getByRole('button', { name: 'Plan another lift' }).click();
	const today = page.getByRole('region', { name: 'Today' });
	await expect(today).toContainText('In its window, but not today');
	await expect(today).not.toContainText('Today will do');
});

test('who goes on before the answer to a form is there arrives where they went', async ({ page }) => {
	const tree = await treeId('H-03');
	await open(page, `${DEMO}/trees/${tree}/recovery`);
	await page
		.getByRole('radiogroup', { name: 'Buds' })
		.getByRole('radio', { name: 'open', exact: true })
		.click();
	// The next page is slower than the answer: it comes only once the look was answered and the page could have been read anew.
	const answered = page.waitForResponse((response) => response.request().method() === 'POST');
	await page.route(/\/aftercare\/__data\.json/, async (route) => {
		await answered;
		await page.evaluate(
			() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
		);
		await route.continue();
	});
	await page.getByRole('button', { name: 'Keep this look' }).click();
	await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Aftercare' }).click();
	await expect(page).toHaveURL(/\/aftercare$/);
	await expect(page.getByRole('heading', { name: 'Water', exact: true }).first()).toBeVisible();
	await expect(told(page, /The look is kept/)).toBeVisible();
});
