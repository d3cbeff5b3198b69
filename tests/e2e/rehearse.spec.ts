import { cp } from 'node:fs/promises';
import path from 'node:path';
import { DEMO, ended, expect, open, startServer, test, told, treeId } from './helpers';

/** The year rehearsed before it is lived: plans side by side, one taken over, and a year on what came of it. */

test('a plan is rehearsed beside others, taken over, and a year later set against what came', async ({
	page
}, info) => {
	test.setTimeout(180_000);
	const folder = info.outputPath('rehearsed');
	await cp(path.join(process.env.BRUNTLE_E2E_DATA ?? '', 'demo'), folder, { recursive: true });
	const port = 4880 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
	const server = `http://127.0.0.1:${port}`;
	const clock = (day: string) =>
		startServer(path.join(folder, 'demo.db'), port, { BRUNTLE_NOW: `${day}T09:00:00Z` });
	let running = await clock('2026-04-18');
	try {
		const id = await treeId('L-01', server);
		await open(page, `${server}/trees/${id}/recovery`);
		await page.getByRole('link', { name: 'Rehearse' }).click();
		await expect(page.getByRole('heading', { name: 'Rehearse the next two years' })).toBeVisible();

		// What is planned stands first, the strongest other plan beside it; both are played by themselves.
		const plans = page.getByRole('article');
		await expect(plans).toHaveCount(2, { timeout: 60_000 });
		const headline = page.getByRole('status').filter({ hasText: /comes out best|do not differ/ });
		await expect(headline).toBeVisible({ timeout: 60_000 });
		await expect(headline).toContainText(/of 100 futures/);
		const first = page.getByRole('article', { name: 'Plan A: As planned' });
		await expect(first.getByText(/re-established by Apr 2028/)).toBeVisible();
		await expect(first.getByText('What it dies of')).toBeVisible();

		// A third plan: half of the work now, watered by the calendar. What was typed wrong stays as it was.
		await page.getByRole('button', { name: 'Set another plan beside' }).click();
		const third = page.getByRole('article', { name: /^Plan C/ });
		await third.getByLabel('Name of plan C').fill('Half now, by the calendar');
		await third.getByLabel('Name of plan C').blur();
		await third.getByLabel('Root work').selectOption('half of the next stage, the rest a year on');
		await third.getByLabel('Water', { exact: true }).selectOption('every so many days');
		const every = third.getByLabel(/Every/);
		await every.fill('900');
		await every.blur();
		await expect(every).toHaveValue('7');
		await every.fill('14');
		await every.blur();
		const takeOver = third.getByRole('button', { name: 'Take plan C over' });
		await expect(takeOver).toBeEnabled({ timeout: 60_000 });
		await expect(page.getByRole('status').filter({ hasText: 'Half now, by the calendar' })).toBeVisible();
		await takeOver.click();
		await expect(told(page, 'The plan is taken over: 1 task on its list.')).toBeVisible();

		// Taken over, it is the plan: its stages on Roots, its work on Aftercare, the rehearsal beside it.
		await expect(page.getByRole('heading', { name: 'Rehearsed before, and what came' })).toBeVisible();
		await expect(page.getByText('“Half now, by the calendar” was taken over')).toBeVisible();
		await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Aftercare' }).click();
		await expect(page.getByRole('listitem').filter({ hasText: 'Water it every 14 days' })).toBeVisible();
		await expect(
			page.getByText(/Taken over from the rehearsal of 18 Apr: “Half now, by the calendar”\./)
		).toBeVisible();

		const gone = ended(running);
		running.kill();
		await gone;
		running = await clock('2027-04-20');
		await open(page, `${server}/trees/${id}/rehearse`);
		const before = page.getByRole('region', { name: 'Rehearsed before, and what came' });
		await expect(before.getByRole('row', { name: /^Alive/ })).toContainText(/by now/);
		await expect(before.getByRole('row', { name: /^Alive/ })).toContainText('in care');
		await expect(before.getByRole('row', { name: /^Waterings/ })).toContainText('none written down');
	} finally {
		running.kill();
	}
});

test('a rehearsal is stopped, and by keys alone another plan is taken away', async ({ page }) => {
	const id = await treeId('P-09');
	await open(page, `${DEMO}/trees/${id}/rehearse`);
	await page.getByRole('button', { name: 'Stop' }).click();
	await expect(page.getByText('Stopped.')).toBeVisible();
	await page.getByRole('button', { name: 'Play the plans' }).press('Enter');
	const status = page.getByRole('status').filter({ hasText: 'set another plan beside it' });
	await expect(status).toBeVisible({ timeout: 60_000 });
	await page.getByRole('button', { name: 'Set another plan beside' }).press('Enter');
	await expect(page.getByRole('article')).toHaveCount(2);
	await page.getByRole('button', { name: 'Take plan A away' }).press('Enter');
	await expect(page.getByRole('article')).toHaveCount(1);
});
