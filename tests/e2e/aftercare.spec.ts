import { DEMO, expect, expectAccessible, open, test, told, treeId } from './helpers';

test('water: the next one as a date with a band, root function from weighings, a watering written down and taken back', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('B-05')}/aftercare`);
	const water = page.getByRole('region', { name: 'Water', exact: true });
	await expect(water.getByText(/Next water about|Water it now|No water needed/)).toBeVisible();
	await expect(water.getByText(/a filter over \d+ pairs of weighings/)).toBeVisible();
	await expect(water.getByRole('img', { name: /Root function since/ })).toBeVisible();
	const list = water.getByRole('list', { name: 'Last waterings' }).getByRole('listitem');
	await expect(list.first()).toContainText('→');
	await water.getByRole('button', { name: 'Watered or weighed' }).click();
	const sheet = page.getByRole('dialog', { name: 'Watered or weighed' });
	await sheet.getByLabel('Weight before').fill('44');
	await sheet.getByLabel('Weight after, when nothing drips').fill('43');
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(sheet.getByText(/must not be less than before the water/).first()).toBeVisible();
	await sheet.getByLabel('Weight after, when nothing drips').fill('50.4');
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(told(page, 'Kept.')).toBeVisible();
	await expect(list.first()).toContainText('44 kg → 50.4 kg');
	await expect(water.getByText(/Next water about|No water needed/)).toBeVisible();
	await told(page, 'Kept.').getByRole('button', { name: 'Undo' }).click();
	await expect(list.first()).not.toContainText('50.4 kg');
	await expectAccessible(page);
});

test('what a finger feels corrects the water; a tree in the ground has a balance of its own', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('C-07')}/aftercare`);
	const water = page.getByRole('region', { name: 'Water', exact: true });
	await water.getByRole('button', { name: 'Felt or probed' }).click();
	const sheet = page.getByRole('dialog', { name: 'Felt or probed' });
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(sheet.getByText(/must be felt, or a probe read\.$/)).toBeVisible();
	await sheet.getByRole('radio', { name: /^Drying/ }).click();
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(told(page, 'its water is corrected by it')).toBeVisible();
	await expect(water.getByText('corrected by how it felt')).toBeVisible();
	await expect(water.getByRole('img', { name: /Dryness of the pot/ })).toBeVisible();
	await told(page, 'its water is corrected by it').getByRole('button', { name: 'Undo' }).click();
	await expect(water.getByText('corrected by how it felt')).toHaveCount(0);
	await open(page, `${DEMO}/trees/${await treeId('L-01')}/aftercare`);
	const ground = page.getByRole('region', { name: 'Water in the ground' });
	await expect(ground.getByRole('img', { name: /Dryness of the root zone/ })).toBeVisible();
	await ground.getByRole('button', { name: 'Watered' }).click();
	await page.getByRole('dialog', { name: 'Watered' }).getByLabel('Poured').fill('400');
	await page.getByRole('dialog', { name: 'Watered' }).getByRole('button', { name: 'Keep it' }).click();
	await expect(ground.getByRole('list', { name: 'Last waterings' })).toContainText('400 L');
	await told(page, 'Kept.').getByRole('button', { name: 'Undo' }).click();
	await expect(ground.getByText(/^Felt on/)).toHaveCount(0);
	await ground.getByRole('button', { name: 'Felt or probed' }).click();
	await expect(sheet.getByText(/a hole a hand deep/)).toBeVisible();
	await sheet.getByRole('radio', { name: /^Dry:/ }).click();
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(ground.getByText(/^Felt on 18 Apr: \d+\s%/)).toBeVisible();
	await expectAccessible(page);
	await told(page, 'its water is corrected by it').getByRole('button', { name: 'Undo' }).click();
	await expect(ground.getByText(/^Felt on/)).toHaveCount(0);
	// What only a pot gives is not asked of it.
	await open(page, `${DEMO}/trees/${await treeId('L-01')}/examine/measure`);
	const tools = page.getByRole('navigation', { name: 'Tools' });
	await expect(tools.getByRole('button', { name: 'Feel or probe' })).toBeVisible();
	await expect(tools.getByRole('button', { name: /^(Weigh|Outflow|Drain time|Slide test)/ })).toHaveCount(0);
});

test('a stage whose day went by is said not to be done, and never to be still to come', async ({ page }) => {
	await open(page, `${DEMO}/trees/${await treeId('H-03')}/aftercare`);
	await expect(page.getByText('the next stage was planned for 7 Nov 2025 and is not done')).toBeVisible();
	await expect(page.getByText('the next stage falls on')).toHaveCount(0);
});

test('several at once: ticked, done together, taken back together; skipped for good', async ({ page }) => {
	await open(page, `${DEMO}/`);
	// All of it is in sight, so that nothing moves up in place of what is done.
	const more = page.getByRole('button', { name: /^Show more/ });
	await more.click();
	await expect(more).toHaveCount(0);
	await page.getByRole('button', { name: 'Several at once' }).click();
	const boxes = page.getByRole('checkbox', { name: /^Choose / });
	const before = await boxes.count();
	// The two that share a pot are watered as one.
	const apart = page.getByRole('checkbox', { name: /^Choose (?!.*(Bougainvillea|Lemon|B-05|G-11))/ });
	await apart.nth(0).check();
	await apart.nth(1).check();
	await page.getByRole('button', { name: 'Done: 2 chosen' }).click();
	await expect(told(page, 'Done: 2.')).toBeVisible();
	await page.getByRole('button', { name: 'Several at once' }).click();
	await expect(boxes).toHaveCount(before - 2);
	await told(page, 'Done: 2.').getByRole('button', { name: 'Undo' }).click();
	await expect(boxes).toHaveCount(before);
	await open(page, `${DEMO}/trees/${await treeId('J-02')}/aftercare`);
	await page.getByRole('button', { name: /^Skip: Turn it a quarter/ }).click();
	const sheet = page.getByRole('dialog', { name: /^Skip: Turn it/ });
	await sheet.getByRole('button', { name: 'Done in another way' }).click();
	await sheet.getByLabel(/Do not bring it up again/).check();
	await sheet.getByRole('button', { name: 'Skip it' }).click();
	await expect(page.getByRole('button', { name: /^Skip: Turn it a quarter/ })).toHaveCount(0);
});

test('work waits for the tree: held with what it waits for, and can be done all the same', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('C-07')}/aftercare`);
	const waiting = page.getByRole('list', { name: 'Waiting for the tree' });
	await expect(waiting).toContainText(/waits until/);
	const before = await waiting.getByRole('listitem').count();
	await waiting
		.getByRole('button', { name: /^Done all the same/ })
		.first()
		.click();
	await expect(told(page, 'Done.')).toBeVisible();
	await expect(waiting.getByRole('listitem')).toHaveCount(before - 1);
});

test('weather: by place, gaps said openly, a typed day, a file, a forecast; wrong ones are refused', async ({
	page
}) => {
	await open(page, `${DEMO}/yard/weather`);
	await expect(page.getByRole('img', { name: /Lows and highs of \d+ days/ })).toBeVisible();
	await page.getByText(/Days that nobody measured/).click();
	await expect(page.getByRole('list', { name: 'How gaps were filled' })).toContainText(
		/climate of the place/
	);
	await page.getByLabel('Low', { exact: true }).fill('12');
	await page.getByLabel('High', { exact: true }).fill('4');
	await page.getByRole('button', { name: 'Keep the day' }).click();
	await expect(page.getByText(/must not be below the minimum/).first()).toBeVisible();
	await page.getByLabel('High', { exact: true }).fill('19');
	await page.getByRole('button', { name: 'Keep the day' }).click();
	await expect(told(page, 'Kept')).toBeVisible();
	await page.getByLabel('CSV file').setInputFiles({
		name: 'station.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from('day,low\n1,2')
	});
	await page.getByRole('button', { name: 'Read it' }).click();
	await expect(page.getByRole('alert').first()).toContainText('must name the columns');
	await page.getByLabel('CSV file').setInputFiles({
		name: 'station.csv',
		mimeType: 'text/csv',
		buffer: Buffer.from('date,min_c,max_c\n2026-03-10,1,9\n2026-03-11,2,10')
	});
	await page.getByRole('button', { name: 'Read it' }).click();
	await expect(told(page, /2 days kept/)).toBeVisible();
	await page.getByLabel('Service').selectOption({ label: 'a service that answers in JSON' });
	await page.getByLabel('Its address').fill('not an address');
	await page.getByRole('button', { name: 'Use and fetch it' }).click();
	await expect(page.getByRole('alert').first()).toContainText('must be off, simulated, or an address');
	// The shipped simulator speaks like a real service.
	await page.getByLabel('Its address').fill(`${DEMO}/api/v1/simulated/forecast`);
	await page.getByRole('button', { name: 'Use and fetch it' }).click();
	await expect(told(page, '10 days of forecast kept.')).toBeVisible();
	await expectAccessible(page);
});

test('a device is added, posts with its token, and its last reading is seen; without it nothing is taken', async ({
	page,
	request
}) => {
	await open(page, `${DEMO}/yard/devices`);
	await page.getByLabel('Name').fill('Scale under the lemon');
	await page.getByLabel('Belongs to').selectOption({ label: 'G-11 Lemon after the cold night' });
	await page.getByRole('button', { name: 'Add it and show its token' }).click();
	const token =
		(await page.getByRole('status').filter({ hasText: 'told once' }).locator('code').textContent()) ?? '';
	expect(token.length).toBeGreaterThan(20);
	const post = (authorization: string, data: unknown) =>
		request.post(`${DEMO}/api/v1/readings`, { headers: { authorization }, data });
	expect((await post('Bearer wrong-token-of-nobody', {})).status()).toBe(401);
	const bad = await post(`Bearer ${token}`, [{ at: '2026-04-18T07:00:00Z', weightKg: 'heavy' }]);
	expect(bad.status()).toBe(422);
	expect(JSON.stringify(await bad.json())).toContain('weightKg');
	const reading = [{ at: '2026-04-18T07:00:00Z', weightKg: 8.25, battery: 0.15 }];
	expect(await (await post(`Bearer ${token}`, reading)).json()).toMatchObject({ kept: 1 });
	expect(await (await post(`Bearer ${token}`, reading)).json()).toMatchObject({ kept: 0, known: 1 });
	await page.reload();
	await expect(page.getByRole('listitem').filter({ hasText: 'Scale under the lemon' })).toContainText(
		'8.25 kg'
	);
	await expectAccessible(page);
});

test('month and season, a feed that can be revoked, and the round on paper', async ({ page, request }) => {
	await open(page, `${DEMO}/calendar`);
	await expect(page.getByRole('heading', { level: 1, name: 'Apr 2026' })).toBeVisible();
	await page.getByRole('link', { name: 'Next month' }).click();
	await expect(page.getByRole('heading', { level: 1, name: 'May 2026' })).toBeVisible();
	await page.getByRole('button', { name: 'Make an address' }).click();
	const address =
		(await page.getByRole('region', { name: 'In your own calendar' }).locator('code').textContent()) ?? '';
	const feed = await request.get(address);
	expect(feed.headers()['content-type']).toContain('text/calendar');
	expect(await feed.text()).toContain('BEGIN:VEVENT');
	expect((await request.get(address.replace('.ics', 'x.ics'))).status()).toBe(404);
	await page.getByRole('button', { name: 'Revoke it' }).click();
	await expect(told(page, 'The address is revoked.')).toBeVisible();
	expect((await request.get(address)).status()).toBe(404);
	await open(page, `${DEMO}/round`);
	await expect(page.getByRole('heading', { level: 1, name: 'Round, 18 April 2026' })).toBeVisible();
	await expect(page.getByRole('columnheader', { name: 'before' }).first()).toBeVisible();
	await open(page, `${DEMO}/`);
	await page.getByLabel('Minutes I have today').fill('45');
	await expect(page.getByText(/: the first \d+ of what is now and due/)).toBeVisible();
});
