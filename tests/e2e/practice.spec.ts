import { expectAccessible, expect, open, OWN, test, type Page } from './helpers';

/** Practice in the real interface: a tree is lost by drowning and explained, and the same one is saved; the yard knows nothing of either. */

const bar = (page: Page) => page.getByRole('region', { name: 'Practice' });
const begin = async (page: Page, name: string): Promise<void> => {
	await open(page, `${OWN}/practice`);
	await page
		.getByRole('listitem')
		.filter({ hasText: name })
		.getByRole('button', { name: /Begin|Once more/ })
		.click();
	await expect(bar(page)).toContainText('day 0 of 364');
};

test('a practice tree is drowned, and it is explained', async ({ page }) => {
	await begin(page, 'The heavy pot');
	await expect(bar(page)).toContainText('It has been watered every day, out of care.');

	// It answers what is looked for; nobody can say for it what is seen.
	const smell = page
		.getByRole('listitem')
		.filter({ hasText: 'Sour or sulphur smell from the root zone' })
		.first();
	await smell.getByRole('button', { name: /Look for it/ }).click();
	await expect(smell.getByText(/^(Faint|Strong)$/)).toBeVisible();
	await expect(smell.getByRole('button')).toHaveCount(0);

	await bar(page).getByRole('button', { name: 'At the tree' }).click();
	const sheet = page.getByRole('dialog', { name: 'At the tree' });
	await sheet.getByRole('button', { name: 'How dry it is, by hand' }).click();
	await expect(page.getByText(/Felt two knuckles deep: (soaking|wet)/)).toBeVisible();
	await expectAccessible(page);
	await sheet.getByLabel('A cause', { exact: true }).selectOption('Drought');
	await sheet.getByRole('button', { name: 'Say so' }).click();
	await expect(page.getByText('it is held against what was true')).toBeVisible();
	await sheet.getByRole('radio', { name: 'every so many days' }).click();
	await sheet.getByRole('slider', { name: /Every/ }).fill('1');
	await sheet.getByRole('button', { name: 'Care for it so' }).click();
	await expect(page.getByText('so it is cared for while days go by')).toBeVisible();
	await page.keyboard.press('Escape');

	await bar(page).getByRole('button', { name: 'Next week' }).click();
	await expect(bar(page)).toContainText('day 7 of 364');
	await expect(page.getByText(/it was watered 7 times/)).toBeVisible();
	// What was seen stands as a look, its water on Aftercare, and Today is that of the round.
	await expect(page.getByRole('radio', { name: /9 Aug/ })).toBeVisible();
	await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Aftercare' }).click();
	// What smells sour gets no water without a finger in it first.
	await expect(page.getByText(/^Feel it .*before any water$/).first()).toBeVisible();
	await page.getByRole('link', { name: 'Bruntle, to Today' }).click();
	await expect(page.getByText('16 August 2025').first()).toBeVisible();
	await expect(page.getByText('P-1').first()).toBeVisible();

	await bar(page).getByRole('button', { name: 'At the tree' }).click();
	await sheet.getByRole('button', { name: 'Let the year run out' }).click();
	await expect(page.getByRole('heading', { name: 'The heavy pot: it died' })).toBeVisible({
		timeout: 60_000
	});
	await expect(page.getByText('Sour, airless root zone ailed it.')).toBeVisible();
	await expect(page.getByText(/water every day was more than it drank/)).toBeVisible();
	await expect(page.getByRole('row', { name: /watered it every day/ })).toContainText('−');
	await expect(page.getByRole('row', { name: /Sour, airless root zone/ })).toContainText('it had it');
	await expectAccessible(page);
});

test('the same tree is saved: looked at, planted anew, and watered when it is dry', async ({ page }) => {
	await begin(page, 'The heavy pot');
	await page.getByRole('button', { name: 'Make this check' }).click();
	await expect(page.getByText(/New look, [1-9]/)).toBeVisible();
	await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Replant' }).click();
	await page.getByRole('button', { name: 'Write it down as planted' }).click();
	await expect(page.getByText(/Planted|Kept|written down/i).first()).toBeVisible();
	await bar(page).getByRole('button', { name: 'Next day' }).click();
	await expect(bar(page)).toContainText('day 1 of 364');
	await bar(page).getByRole('button', { name: 'At the tree' }).click();
	await page
		.getByRole('dialog', { name: 'At the tree' })
		.getByRole('button', { name: 'Let the year run out' })
		.click();
	await expect(page.getByRole('heading', { name: 'The heavy pot: it lives' })).toBeVisible({
		timeout: 60_000
	});
	await expect(page.getByRole('row', { name: /planted it anew/ })).toContainText('+');

	// The yard knows nothing of it; what came of it stands under Practice, and goes out as CSV.
	await page.getByRole('link', { name: 'Another tree' }).click();
	await expect(page.getByText(/trees? of \d+ died/)).toBeVisible();
	const results = await page.request.get(`${OWN}/practice/results.csv`);
	expect(await results.text()).toMatch(/^trainee,started_at,/);
	await open(page, `${OWN}/trees`);
	await expect(page.getByText('P-1')).toHaveCount(0);
	await expect(bar(page)).toHaveCount(0);
});

test('practice is left and gone on with, by keyboard; a link begins a tree by its number', async ({
	page
}) => {
	await open(page, `${OWN}/practice?seed=77`);
	await expect(page.getByRole('heading', { name: 'Tree 77, by a link' })).toBeVisible();
	await page.getByRole('button', { name: 'Take it in' }).focus();
	await page.keyboard.press('Enter');
	await expect(bar(page)).toContainText('day 0 of 364');
	await bar(page).getByRole('button', { name: 'Leave' }).click();
	await expect(page.getByRole('heading', { name: 'Under way' })).toBeVisible();
	await expectAccessible(page);
	await open(page, `${OWN}/`);
	await expect(bar(page)).toHaveCount(0);
	await open(page, `${OWN}/practice`);
	await page.getByRole('button', { name: 'Go on with Tree 77' }).click();
	await expect(bar(page)).toContainText('day 0 of 364');
	await open(page, `${OWN}/practice`);
	await page.getByRole('button', { name: 'Give up Tree 77' }).click();
	await expect(page.getByRole('button', { name: 'Go on with Tree 77' })).toHaveCount(0);
});
