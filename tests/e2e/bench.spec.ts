import { expect, test } from '@playwright/test';
import { DEMO, expectAccessible, open, told, treeId } from './helpers';

test('at the bench: one cut at a time, through a reload, differently with rot found, not now with a reason; the record holds it', async ({
	page
}) => {
	const id = await treeId('T-05');
	await open(page, `${DEMO}/trees/${id}/roots`);
	await page.getByRole('link', { name: 'To the bench' }).click();
	await expect(page.getByRole('heading', { name: 'T-05 at the bench, stage I' })).toBeVisible();
	await expect(page.getByRole('status')).toContainText('0 of 3');
	await expect(page.getByText('5:10')).toBeVisible();
	await expectAccessible(page);
	await page.getByRole('button', { name: 'Done', exact: true }).click();
	await expect(page.getByRole('status')).toContainText('1 of 3');
	await page.reload();
	await expect(page.getByRole('status')).toContainText('1 of 3');
	await expect(page.getByText('7:15')).toBeVisible();
	await page.getByRole('button', { name: 'Not now' }).click();
	await expect(page.getByRole('button', { name: 'Leave it' })).toBeDisabled();
	await page.getByLabel('Why not now').fill('holds the moss');
	await page.getByRole('button', { name: 'Leave it' }).click();
	await page.getByRole('button', { name: 'Differently' }).click();
	await page.getByLabel('Cut at, from its start').fill('20');
	await page.getByLabel('What was different').fill('dark core');
	await page.getByLabel('Rot goes deeper').check();
	await page.getByRole('button', { name: 'Cut so' }).click();
	await expect(page.getByRole('heading', { name: 'Through' })).toBeVisible();
	await expect(page.getByText('2 cut, 1 left, against 3 planned')).toBeVisible();
	await expect(page.getByText('What you found is on the map.')).toBeVisible();
	await page.getByRole('button', { name: 'Keep the record', exact: true }).click();
	await expect(told(page, 'The cuts are in the record.')).toBeVisible();
	await expect(page).toHaveURL(/\/roots$/);
	const row = (at: string) => page.getByRole('table').getByRole('row').filter({ hasText: at });
	await expect(row('5:10')).toContainText('cut, done');
	await expect(row('3:30')).toContainText('rotten from 20 mm');
	await page.getByRole('link', { name: 'Cut card' }).click();
	const card = page.getByRole('article', { name: 'Cut card' });
	await expect(card.getByRole('listitem').filter({ hasText: '7:15' })).toContainText('holds the moss');
	await expectAccessible(page);
	await page.emulateMedia({ media: 'print' });
	await expect(page.getByRole('navigation', { name: 'Stages' })).toBeHidden();
	await expect(card).toBeVisible();
});
