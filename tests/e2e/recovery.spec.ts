import { readFile } from 'node:fs/promises';
import { CROWN_MM, demoCrown } from '../crown-scene';
import sharp from 'sharp';
import { card, cardSvg } from '../../src/lib/core/examine/pictures/card';
import { DEMO, expect, expectAccessible, open, test, told, treeId } from './helpers';

test('the forecast: a probability with its range, what moved it, and a decision kept or overruled with a reason', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('H-03')}/recovery`);
	const forecast = page.getByRole('region', { name: 'Is it coming back?' });
	await expect(forecast.getByRole('img', { name: /Forecast of root function/ })).toBeVisible();
	await forecast.getByText('What moved it').click();
	await expect(
		forecast.getByRole('list', { name: 'What moved it' }).getByRole('listitem').first()
	).toContainText(/for it|against it/);
	const decide = page.getByRole('region', { name: 'Now to decide' });
	await decide
		.getByRole('button', { name: /^Decide otherwise than/ })
		.first()
		.click();
	const sheet = page.getByRole('dialog', { name: 'Decide otherwise' });
	await sheet.getByRole('button', { name: 'Keep the decision' }).click();
	await expect(sheet.getByText(/must say why, since it was advised otherwise/).first()).toBeVisible();
	await sheet.getByLabel('Reason').fill('The weather is against it.');
	await sheet.getByRole('button', { name: 'Keep the decision' }).click();
	// What was advised is not among the ways to decide otherwise.
	await expect(decide.getByText(/Decided today: look closer\. The weather is against it\./)).toBeVisible();
	await told(page, 'The decision is kept.').getByRole('button', { name: 'Undo' }).click();
	await expect(decide.getByText(/Decided today/)).toHaveCount(0);
	await decide
		.getByRole('button', { name: /^So decided/ })
		.first()
		.click();
	await expect(decide.getByText(/Decided today/)).toBeVisible();
	await expectAccessible(page);
});

test('a look asks what matters; several shoots give their mean, and the forecast answers at once', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('G-11')}/recovery`);
	const form = page.locator('form').filter({ hasText: 'A look' });
	expect(await form.getByRole('radiogroup').count()).toBeLessThanOrEqual(7);
	await page.getByRole('button', { name: /^Look at more/ }).click();
	await page.getByLabel('This season’s shoots').fill('80 90 100');
	await expect(page.getByText('90 mm on average, ± 10 mm')).toBeVisible();
	await page.getByRole('radiogroup', { name: 'Leaves' }).getByRole('radio', { name: 'wilted' }).click();
	await page.getByRole('button', { name: 'Keep this look' }).click();
	await expect(told(page, 'The look is kept.')).toBeVisible();
	await expect(page.getByText('90 mm on average')).toBeHidden();
	await expect(page.getByRole('region', { name: 'Now to decide' })).toContainText(/It wilts/);
	await told(page, 'The look is kept.').getByRole('button', { name: 'Undo' }).click();
	await expect(page.getByRole('region', { name: 'Now to decide' })).not.toContainText(/It wilts/);
});

test('a reading that nature does not give wants a reason; looking closer names its check', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('G-11')}/recovery`);
	await page.getByRole('button', { name: /^Look at more/ }).click();
	await page.getByLabel('Alive up to').fill('1400');
	await page.getByLabel('This season’s shoots').fill('40 forty');
	await page.getByRole('button', { name: 'Keep this look' }).click();
	await expect(page.getByText(/must be a number/).first()).toBeVisible();
	await page.getByLabel('This season’s shoots').fill('');
	await page.getByRole('button', { name: 'Keep this look' }).click();
	await expect(
		page.getByText(/must say why: [\d,]+\smm on \d+ \w+ 2026, now 1,400\smm/).first()
	).toBeVisible();
	await page.getByLabel('What else').fill('the new leader is counted in');
	await page.getByRole('button', { name: 'Keep this look' }).click();
	await expect(told(page, 'The look is kept.')).toBeVisible();
	await told(page, 'The look is kept.').getByRole('button', { name: 'Undo' }).click();
	await expect(told(page, 'Taken back.')).toBeVisible();
	await open(page, `${DEMO}/trees/${await treeId('P-09')}/recovery`);
	await expect(page.getByRole('region', { name: 'Now to decide' })).toContainText(
		/Now tells most, in \d+ min: .*→ \d+\s%/
	);
});

test('what others have to see is asked for by a day as people write it', async ({ page }) => {
	await open(page, `${DEMO}/trees/${await treeId('Q-02')}/recovery`);
	const decide = page.getByRole('region', { name: 'Now to decide' });
	await expect(decide).toContainText(
		/By \d+ \w+( 2026)?; nothing is decided before they said what they found/
	);
	await expect(decide).not.toContainText(/\d{4}-\d{2}-\d{2}/);
});

test('of a closed case nothing more is asked, and what is done after is refused', async ({ page }) => {
	await open(page, `${DEMO}/trees/${await treeId('D-02')}/aftercare`);
	await expect(page.getByRole('note')).toContainText('Dead since 2 November 2024: this case is closed');
	await expect(page.getByRole('button', { name: 'Watered or weighed' })).toHaveCount(0);
	await expect(page.getByRole('button', { name: /^Done/ })).toHaveCount(0);
	await expectAccessible(page);
	const answer = await page.request.post(`${DEMO}/trees/${await treeId('D-02')}/recovery?/look`, {
		form: { observedOn: '2026-04-18', buds: 'open' },
		headers: { accept: 'application/json', origin: DEMO }
	});
	expect(await answer.text()).toMatch(/closed on 2024-11-02: dead.*Open it again in Recovery/);
});

test('cuttings are taken, tracked, never more than there were, and one becomes a tree with its parent', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('C-07')}/recovery/backups`);
	await page.getByRole('button', { name: /^Some have roots/ }).click();
	let sheet = page.getByRole('dialog', { name: /How many have roots/ });
	await sheet.getByLabel('How many').fill('40');
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(sheet.getByText(/must not make more than the 12 that were taken/).first()).toBeVisible();
	await sheet.getByLabel('How many').fill('5');
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(page.getByText('7 to root, 5 rooted')).toBeVisible();
	await page.getByRole('button', { name: /^Pot on as a tree/ }).click();
	sheet = page.getByRole('dialog', { name: 'Pot on as a tree of the yard' });
	await sheet.getByLabel('Tag').fill('C-08');
	await sheet.getByRole('button', { name: 'Take it in' }).click();
	await expect(page.getByText('7 to root, 4 rooted, 1 potted')).toBeVisible();
	await page.getByRole('link', { name: 'Camellia with the sour pot, struck' }).click();
	await expect(page.getByRole('heading', { name: 'Camellia with the sour pot, struck' })).toBeVisible();
	await open(page, `${DEMO}/trees/${await treeId('C-08')}/recovery/backups`);
	await expect(page.getByText(/This one was struck from/)).toContainText('C-07');
	await expectAccessible(page);
});

test('a shoot is measured in a picture by the card beside it, and stands in a look of that day', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('G-11')}/recovery/pictures`);
	// A card 400 px wide, seen from straight above, and a shoot of 700 px: 150 mm.
	const drawn = await sharp(
		Buffer.from(
			'<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1200"><rect width="1600" height="1200" fill="#857"/><rect x="200" y="300" width="400" height="252.2" fill="#fff"/><path d="M900 200v700" stroke="#4a4" stroke-width="20"/></svg>'
		)
	)
		.png()
		.toBuffer();
	await page.getByLabel('File').setInputFiles({ name: 'shoot.png', mimeType: 'image/png', buffer: drawn });
	await page.getByLabel('Taken on').fill('2026-04-17');
	await page.getByRole('button', { name: 'Keep the picture' }).click();
	await expect(told(page, /The picture is kept/)).toBeVisible();
	await page
		.getByRole('link', { name: /^Measure in it/ })
		.last()
		.click();
	await expect(page.getByText('Touch the four corners of the bank card: 0 of 4.')).toBeVisible();
	const image = page.getByRole('img', { name: /17 April 2026/ });
	const touch = async (x: number, y: number): Promise<void> => {
		const box = await image.boundingBox();
		if (!box) throw new Error('no picture');
		await image.click({ position: { x: (x * box.width) / 1600, y: (y * box.height) / 1200 }, force: true });
	};
	for (const [x, y] of [
		[600, 300],
		[200, 300],
		[600, 552],
		[200, 552]
	] as const)
		await touch(x, y);
	await expect(page.getByText('Now touch one end of what you measure.')).toBeVisible();
	await touch(900, 200);
	await touch(900, 900);
	await expect(page.getByText(/^1(49|50|51)\smm ± \d+\smm$/)).toBeVisible();
	// By keyboard a point goes on, and back.
	await page.getByRole('button', { name: /^Point 2 of 2/ }).press('Shift+ArrowDown');
	await expect(page.getByText(/^1(5[2-9]|6\d)\smm ± \d+\smm$/)).toBeVisible();
	await page.getByRole('button', { name: /^Point 2 of 2/ }).press('Shift+ArrowUp');
	await expect(page.getByText(/^1(49|50|51)\smm ± \d+\smm$/)).toBeVisible();
	await expectAccessible(page);
	await page.emulateMedia({ colorScheme: 'dark' });
	await expectAccessible(page, 'colours');
	await page.getByRole('button', { name: 'Keep this length' }).click();
	await page.getByRole('button', { name: 'Write down 1 shoot of 17 April 2026' }).click();
	await expect(told(page, /kept as a look of that day/)).toBeVisible();
	await page.getByRole('link', { name: 'Back to the pictures' }).click();
	await page.getByRole('link', { name: 'Back to Recovery' }).click();
	await page.getByText(/^All looks/).click();
	await expect(page.getByText(/Measured in a picture \(.+\): 1(49|50|51)\smm ± \d+\smm\./)).toBeVisible();
});

test('the printed card is found by itself: two touches are a length, and two points a scale', async ({
	page
}) => {
	await open(page, `${DEMO}/reference/card`);
	const file = page.waitForEvent('download');
	await page.getByRole('button', { name: 'PDF, A4' }).click();
	const bytes = await readFile((await (await file).path()) ?? '');
	expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
	// A4 in points.
	expect(/MediaBox \[0 0 595\.27\d* 841\.88\d*\]/.test(bytes.toString('latin1'))).toBe(true);
	await open(page, `${DEMO}/trees/${await treeId('G-11')}/recovery/pictures`);
	// The print on a table, 6 px to the millimetre, turned by 20 degrees, and a shoot of 600 px: 100 mm.
	const print = await sharp(Buffer.from(cardSvg()), { density: 25.4 * 6 })
		.resize(card.widthMm * 6)
		.png()
		.toBuffer();
	const turned = await sharp(print).rotate(20, { background: '#6b5b4b' }).png().toBuffer();
	const table = await sharp({ create: { width: 2000, height: 1500, channels: 3, background: '#6b5b4b' } })
		.composite([
			{ input: turned, left: 150, top: 180 },
			{
				input: Buffer.from(
					'<svg xmlns="http://www.w3.org/2000/svg" width="900" height="40"><path d="M100 20h600" stroke="#4a4" stroke-width="16"/></svg>'
				),
				left: 900,
				top: 1400
			}
		])
		.png()
		.toBuffer();
	await page.getByLabel('File').setInputFiles({ name: 'card.png', mimeType: 'image/png', buffer: table });
	await page.getByLabel('Taken on').fill('2026-04-16');
	await page.getByRole('button', { name: 'Keep the picture' }).click();
	await expect(told(page, /The picture is kept/)).toBeVisible();
	await page
		.getByRole('link', { name: /^Measure in it/ })
		.first()
		.click();
	await expect(page.getByText(/The printed card was found by itself: 4 markers/)).toBeVisible();
	await expect(page.getByText('Now touch one end of what you measure.')).toBeVisible();
	const image = page.getByRole('img', { name: /16 April 2026/ });
	const touch = async (x: number, y: number): Promise<void> => {
		const box = await image.boundingBox();
		if (!box) throw new Error('no picture');
		await image.click({ position: { x: (x * box.width) / 2000, y: (y * box.height) / 1500 }, force: true });
	};
	await touch(1000, 1420);
	await touch(1600, 1420);
	await expect(page.getByText(/^(99|100|101)\smm ± \d+\smm$/)).toBeVisible();
	await expectAccessible(page);
	await page.getByRole('combobox', { name: 'Size' }).selectOption('two points, only the scale');
	await expect(page.getByText('Touch two points whose distance you know: 0 of 2.')).toBeVisible();
	await touch(1000, 1420);
	await touch(1600, 1420);
	await expect(page.getByText('Say how far the two points are apart.')).toBeVisible();
	await page.getByLabel('The two points are apart').fill('10 cm');
	await touch(1050, 1300);
	await touch(1350, 1300);
	await expect(page.getByText(/^(49|50|51)\smm ± \d+\smm$/)).toBeVisible();
	await expect(page.getByText(/Tilt is not corrected/)).toBeVisible();
	// Six places of a rim seen three quarters as high as wide.
	await page.getByRole('combobox', { name: 'Size' }).selectOption('round rim of the pot');
	for (let i = 0; i < 6; i++)
		await touch(1500 + 400 * Math.cos((i * Math.PI) / 3), 1000 + 300 * Math.sin((i * Math.PI) / 3));
	await page.getByLabel('Width of the rim, inside').fill('300');
	await touch(1200, 1000);
	await touch(1600, 1000);
	await expect(page.getByText(/^1(49|50|51)\smm ± \d+\smm$/)).toBeVisible();
	await expect(page.getByText(/Taken about 4[01]° from straight/)).toBeVisible();
});

test('pictures: text, nothing and too many pixels are refused; two of a view stand side by side under a slider', async ({
	page
}) => {
	await open(page, `${DEMO}/trees/${await treeId('W-03')}/recovery/pictures`);
	await expect(page.getByText(/No picture yet/)).toBeVisible();
	const send = async (name: string, buffer: Buffer, on: string) => {
		await page.getByLabel('File').setInputFiles({ name, mimeType: 'image/png', buffer });
		await page.getByLabel('Taken on').fill(on);
		await page.getByRole('button', { name: 'Keep the picture' }).click();
	};
	await send('tree.png', Buffer.from('not a picture at all'), '2026-03-01');
	await expect(page.getByText(/must be a picture: JPEG, PNG or WebP/).first()).toBeVisible();
	await send('tree.png', Buffer.alloc(0), '2026-03-01');
	await expect(page.getByText(/must not be empty/).first()).toBeVisible();
	const plain = (color: string) =>
		sharp({ create: { width: 600, height: 400, channels: 3, background: color } })
			.png()
			.toBuffer();
	await send('tree.png', await plain('#777777'), '2026-03-01');
	await expect(told(page, /The picture is kept/)).toBeVisible();
	await send('tree.png', await plain('#338844'), '2026-04-10');
	await expect(page.getByLabel('How much of the earlier picture is seen')).toBeVisible();
	// Two plain colours are nothing that is found again.
	await expect(page.getByText(/^Too little of one picture is found again in the other/)).toBeVisible();
	const strip = page.getByRole('list', { name: 'Along its time' }).getByRole('listitem');
	await expect(strip).toHaveCount(2);
	await expect
		.poll(() =>
			strip
				.first()
				.getByRole('img')
				.evaluate((img) => (img as HTMLImageElement).naturalWidth)
		)
		.toBeGreaterThan(100);
	await strip
		.first()
		.getByRole('button', { name: /^Take out/ })
		.click();
	await expect(strip).toHaveCount(1);
	await told(page, 'Taken out.').getByRole('button', { name: 'Undo' }).click();
	await expect(strip).toHaveCount(2);
	// The last picture lies over the camera, so that the next is taken from the same spot.
	await page.getByRole('button', { name: /^Camera over the last/ }).click();
	const camera = page.getByRole('dialog', { name: /from the same spot/ });
	await expect(camera.getByRole('img', { name: 'This view as it was last' })).toBeVisible();
	await expect
		.poll(() => camera.locator('video').evaluate((video) => (video as HTMLVideoElement).videoWidth))
		.toBeGreaterThan(0);
	await camera.getByRole('button', { name: 'Take it' }).click();
	await expect(page.getByText('taken with the camera')).toBeVisible();
	await page.getByRole('button', { name: 'Keep the picture' }).click();
	await expect(strip).toHaveCount(3);
	await expectAccessible(page);
});

test('what the yard learns: outcomes without claims from few, the register of losses, the review; report and letter', async ({
	page
}) => {
	await open(page, `${DEMO}/yard/outcomes`);
	await expect(page.getByText(/Too few are decided to claim anything/)).toBeVisible();
	await page.getByRole('radio', { name: 'Mix', exact: true }).click();
	await expect(page.getByRole('columnheader', { name: 'Mix' })).toBeVisible();
	await expect(page.getByRole('region', { name: /Register of losses/ })).toContainText(
		'Worked out of season'
	);
	await open(page, `${DEMO}/yard/review`);
	await expect(page.getByRole('heading', { name: /Root stages that are due/ })).toBeVisible();
	await open(page, `${DEMO}/trees/${await treeId('H-03')}/recovery/report`);
	const report = page.getByRole('article', { name: 'Case report' });
	await expect(report.getByRole('heading', { name: 'Roots, before and after' })).toBeVisible();
	await expect(report.getByRole('heading', { name: 'Verdict' })).toBeVisible();
	const saved = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Save as PDF' }).click();
	const file = await saved;
	expect(file.suggestedFilename()).toBe('H-03-case-report.pdf');
	const pdf = await readFile(await file.path(), 'latin1');
	expect(pdf.startsWith('%PDF-')).toBe(true);
	expect(pdf).toContain('H-03 case report');
	// The text is text in its fonts, the pictures are pictures, and it takes more than a page.
	expect(pdf.match(/\/Type \/Page\b/g)?.length).toBeGreaterThan(1);
	expect(pdf.match(/\/Subtype \/Image\b/g)?.length).toBeGreaterThan(1);
	expect(pdf).toMatch(/\/FontName \/[A-Z]+\+AtkinsonHyperlegible/);
	await open(page, `${DEMO}/trees/${await treeId('L-01')}/recovery/letter`);
	const letter = page.getByRole('article', { name: 'Letter to the owner' });
	await expect(letter.getByRole('heading', { name: 'Will it fall?' })).toBeVisible();
	await expect(letter).toContainText('qualified arborist');
	await expect(letter).toContainText('It is no certificate of stability');
});

test('all trees: grouped, with the columns one wants, sorted both ways', async ({ page }) => {
	await open(page, `${DEMO}/trees`);
	await page.getByLabel('Group the trees').selectOption({ label: 'by place' });
	await expect(page.getByRole('rowheader', { name: /^Cold frame \d/ })).toBeVisible();
	await page.getByLabel('Narrow down').press('ArrowDown');
	const links = page.getByRole('table').getByRole('link');
	await expect(links.first()).toBeFocused();
	await page.keyboard.press('End');
	await expect(links.last()).toBeFocused();
	await page.keyboard.press('ArrowUp');
	await expect(links.nth(-2)).toBeFocused();
	await page.getByRole('checkbox', { name: 'Last look' }).uncheck();
	await expect(page.getByRole('columnheader', { name: 'Last look' })).toHaveCount(0);
	const tag = page.getByRole('columnheader', { name: /^Tag/ });
	await tag.getByRole('button').click();
	await expect(tag).toHaveAttribute('aria-sort', 'ascending');
	await tag.getByRole('button').click();
	await expect(tag).toHaveAttribute('aria-sort', 'descending');
	await expectAccessible(page);
});

test('two days lie over each other: less leaf in the crown is read and written down, and a shoot that grew', async ({
	page
}) => {
	test.setTimeout(180_000);
	await open(page, `${DEMO}/trees/${await treeId('E-04')}/recovery/pictures`);
	await expect(page.getByText(/^Laid over each other by \d+ places found in both\.$/)).toBeVisible({
		timeout: 60_000
	});
	await expectAccessible(page);
	await page.getByRole('link', { name: 'Measure between the two' }).click();
	await expect(page.getByText(/^Touch round the crown/)).toBeVisible({ timeout: 60_000 });
	await page.getByRole('button', { name: 'Outline the crown by what is green' }).click();
	await expect(page.getByText('Less leaf now')).toBeVisible({ timeout: 60_000 });
	await expect(page.getByText(/^The leaves themselves are paler than then/)).toBeVisible();
	// In the round loop 54 of 100 were drawn as leaf, and 41: a drawn loop lies about it as closely.
	await expect(page.getByText(/^(4[5-9]|5\d)\s% ± \d of the loop is leaf$/)).toBeVisible();
	await expect(
		page.getByText(/^Written down for 26 May 2025: 100\s% of\s+the\s+crown\s+in\s+leaf\.$/)
	).toBeVisible();
	await expectAccessible(page);
	await page.emulateMedia({ colorScheme: 'dark' });
	await expectAccessible(page, 'colours');
	await page.emulateMedia({ colorScheme: 'light' });
	// A point of the loop goes on by the keyboard, and it is read anew.
	await page.getByRole('button', { name: /^Loop 1 of/ }).press('Shift+ArrowUp');
	await expect(page.getByText('Less leaf now')).toBeVisible({ timeout: 60_000 });
	const write = page.getByRole('button', { name: /^Write down (7[0-9]|8[0-4])\s% in leaf, 6 October 2025$/ });
	await write.click();
	await expect(told(page, /kept as a look of that day/)).toBeVisible();
	await expect(page.getByText(/^Written down for 6 October 2025: (7\d|8[0-4])\s%/)).toBeVisible();

	await page.getByText('a length: shoot or wound').click();
	await expect(page.getByText(/^Touch along the thing as it was/)).toBeVisible({ timeout: 30_000 });
	const [was, is] = demoCrown();
	const image = page.getByRole('img', { name: /front, 6 October 2025/ });
	const touch = async ({ x, y }: { x: number; y: number }): Promise<void> => {
		const box = await image.boundingBox();
		if (!box) throw new Error('no picture');
		await image.click({ position: { x: (x * box.width) / 1400, y: (y * box.height) / 1050 }, force: true });
	};
	// Where it was in the later picture: its foot has not moved.
	const foot = is.seen({ x: 40, y: -0.9 * CROWN_MM });
	await touch(foot);
	await touch(is.seen({ x: 40, y: -0.9 * CROWN_MM - 20 }));
	await page.getByRole('radio', { name: '6 October 2025' }).click();
	await touch(foot);
	await touch(is.seen({ x: 40, y: -0.9 * CROWN_MM - 74 }));
	await expect(page.getByText(/^Longer by 5[0-9]\smm ± \d+\smm$/)).toBeVisible();
	await expectAccessible(page);
	await page.getByRole('button', { name: /^Write down 7\d\smm ± \d+\smm of 6 October 2025$/ }).click();
	await expect(told(page, /kept as a look of that day/)).toBeVisible();
	expect(was.cover).toBeGreaterThan(is.cover);
	await page.getByRole('link', { name: 'Back to the pictures' }).click();
	await page.getByRole('link', { name: 'Back to Recovery' }).click();
	await page.getByText(/^All looks/).click();
	await expect(
		page.getByText(/^Between two pictures \(front\), 26 May 2025 and 6 October 2025: leaf/)
	).toBeVisible();
});

test('roots on the wall of a ball: three touches, what the brown ones are, and it is the root sample of that day', async ({
	page
}) => {
	const id = await treeId('P-09');
	await open(page, `${DEMO}/trees/${id}/recovery/pictures`);
	await page.getByRole('radio', { name: /^wall of the ball 1/ }).click();
	await page.getByRole('link', { name: /^Measure in it: wall of the ball/ }).click();
	await page.getByRole('link', { name: 'Roots on the wall of a ball in it' }).click();
	await expect(page.getByText('Touch a white root.')).toBeVisible();
	const image = page.getByRole('img', { name: /wall of the ball/ });
	const touch = async (x: number, y: number): Promise<void> => {
		const box = await image.boundingBox();
		if (!box) throw new Error('no picture');
		await image.click({ position: { x: (x * box.width) / 1600, y: (y * box.height) / 1200 }, force: true });
	};
	await touch(703, 418);
	await expect(page.getByText('Touch a brown root.')).toBeVisible();
	await touch(1028, 490);
	await touch(901, 703);
	await expect(page.getByRole('row', { name: /^White roots/ })).toBeVisible({ timeout: 30_000 });
	// A stone read as a root is touched as what it is.
	await touch(1245, 777);
	await touch(416, 674);
	await expect(page.getByText(/worth \d+ roots drawn at random, \d+ of them white/)).toBeVisible();
	await expectAccessible(page);
	await expect(page.getByRole('button', { name: 'Keep this root sample' })).toBeHidden();
	await page.getByRole('radio', { name: /^dead: dark, soft/ }).click();
	await expect(page.getByRole('status').filter({ hasText: /alive, between/ })).toBeVisible();
	await page.getByRole('button', { name: 'Keep this root sample' }).click();
	await expect(page.getByText('The measurement is kept.')).toBeVisible();
	// It is the root sample of the tree where samples are counted.
	await page.goto(`${DEMO}/trees/${id}/examine/measure?tool=root-sample`);
	await expect(page.getByText(/\d+\s*% of \d+ roots alive/).first()).toBeVisible();
	await expect(page.getByText(/the brown ones felt dead/)).toBeVisible();
});
