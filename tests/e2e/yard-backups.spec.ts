import { cp, mkdtemp, readFile } from 'node:fs/promises';
import { execFile } from 'node:child_process';
import path from 'node:path';
import { promisify } from 'node:util';
import { ended, expect, expectAccessible, open, startServer, test } from './helpers';

const port = 4870 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const AT = `http://127.0.0.1:${port}`;

test('the yard is backed up, the file taken along, and restored elsewhere as the same yard', async ({
	page
}) => {
	test.setTimeout(120_000);
	const data = process.env.BRUNTLE_E2E_DATA ?? '';
	const folder = await mkdtemp(path.join(data, 'backed-up-'));
	await cp(path.join(data, 'demo'), folder, { recursive: true });
	const server = await startServer(path.join(folder, 'demo.db'), port, { BRUNTLE_DEMO: '1' });
	await open(page, `${AT}/yard`);
	await page.getByRole('link', { name: 'Backups', exact: true }).click();
	await expect(page.getByRole('heading', { name: 'Backups of the yard' })).toBeVisible();
	await expect(page.getByText('There is none yet.')).toBeVisible();
	await page.getByRole('button', { name: 'Back it up now' }).click();
	await expect(
		page.getByRole('listitem').filter({ hasText: 'backed up, and the copy was counted' })
	).toBeVisible();
	await expect(
		page.getByText(/The last is of 18 Apr 2026, 09:00 UTC: 15 trees, [\d,]+ records, \d+ pictures?\./)
	).toBeVisible();
	await expectAccessible(page);
	const download = page.waitForEvent('download');
	await page.getByRole('link', { name: /^Take the backup of 18 Apr 2026/ }).click();
	const file = path.join(folder, 'taken-along.zip');
	await (await download).saveAs(file);
	const tags = async (): Promise<string[]> => {
		const { trees } = (await (await page.request.get(`${AT}/api/v1/trees`)).json()) as {
			trees: { tag: string }[];
		};
		return trees.map(({ tag }) => tag);
	};
	const before = await tags();
	const gone = ended(server);
	server.kill();
	await gone;

	const restored = path.join(folder, 'elsewhere');
	const { stdout } = await promisify(execFile)('node', ['scripts/backup.js', 'restore', file], {
		env: {
			...process.env,
			DATABASE_URL: `file:${path.join(restored, 'yard.db')}`,
			BRUNTLE_FOLDER: restored,
			BRUNTLE_MIGRATIONS: path.resolve('drizzle')
		}
	});
	expect(stdout).toMatch(/15 trees, \d+ records, \d+ pictures, equal to what was backed up\./);
	const again = await startServer(path.join(restored, 'yard.db'), port);
	expect(await tags()).toEqual(before);
	await open(page, `${AT}/trees`);
	await expect(page.getByRole('link', { name: /Hornbeam from the tram cutting/ }).first()).toBeVisible();
	const over = ended(again);
	again.kill();
	await over;
});

test('the whole yard is taken along as open files, and read into an empty yard after a look', async ({
	page
}) => {
	test.setTimeout(180_000);
	const data = process.env.BRUNTLE_E2E_DATA ?? '';
	const folder = await mkdtemp(path.join(data, 'opened-'));
	await cp(path.join(data, 'demo'), folder, { recursive: true });
	const server = await startServer(path.join(folder, 'demo.db'), port, { BRUNTLE_DEMO: '1' });
	await open(page, `${AT}/yard/people`);
	const own = async (name: string): Promise<void> => {
		await page.getByLabel('Name', { exact: true }).fill(name);
		await page.getByLabel('Passphrase', { exact: true }).fill('kelp verse tin arch');
		await page.getByRole('button', { name: 'Own this yard' }).click();
		await expect(page.getByText('you, on this device')).toBeVisible();
	};
	await own('Ana');
	await open(page, `${AT}/yard/backups`);
	await expect(page.getByText('This yard has 15 trees already')).toBeVisible();
	const taken = page.waitForEvent('download');
	await page.getByRole('link', { name: 'Take the whole yard as open files' }).click();
	const file = path.join(folder, 'open.zip');
	await (await taken).saveAs(file);
	const first = await (await page.request.get(`${AT}/yard/archive`)).body();
	expect(first.equals(await readFile(file))).toBe(true);
	const gone = ended(server);
	server.kill();
	await gone;

	const empty = await startServer(path.join(folder, 'empty', 'yard.db'), port);
	await open(page, `${AT}/yard/backups`);
	const field = page.getByLabel('Archive of a whole yard (ZIP)');
	await field.setInputFiles({
		name: 'x.zip',
		mimeType: 'application/zip',
		buffer: Buffer.from('no archive')
	});
	await expect(
		page.getByText('This is no archive of a whole yard that can be read here.').first()
	).toBeVisible();
	const sent = async (query: string, type: string, data: string | Buffer): Promise<number> =>
		(
			await page.request.put(`${AT}/yard/archive?${query}`, {
				headers: { 'content-type': type, origin: AT },
				data
			})
		).status();
	expect(await sent('sending=1-2-3-4&at=0', 'text/plain', 'x')).toBe(415);
	expect(await sent('sending=../x&at=0', 'application/zip', 'x')).toBe(422);
	expect(await sent('sending=1-2-3-4&at=-1', 'application/zip', 'x')).toBe(422);
	expect(await sent('sending=1-2-3-4&at=9', 'application/zip', 'x')).toBe(409);
	expect(await sent('sending=1-2-3-4&at=0', 'application/zip', '')).toBe(413);
	expect(await sent('sending=1-2-3-4&at=0', 'application/zip', Buffer.alloc(17 * 1024 * 1024))).toBe(413);
	await field.setInputFiles(file);
	await expect(page.getByText(/^Of 18 Apr 2026, 09:00 UTC: 15 trees, \d+ waterings, /)).toBeVisible();
	await expectAccessible(page);
	await page.getByRole('button', { name: 'Read the whole yard in' }).click();
	await expect(
		page.getByRole('listitem').filter({ hasText: '15 trees read in, with all that belongs to them.' })
	).toBeVisible({ timeout: 30_000 });
	await expect(page.getByText('This yard has 15 trees already')).toBeVisible();
	await page.getByRole('link', { name: 'Trees', exact: true }).first().click();
	await page
		.getByRole('link', { name: /Hornbeam from the tram cutting/ })
		.first()
		.click();
	await expect(page.getByRole('heading', { level: 1, name: /Hornbeam from the tram cutting/ })).toBeVisible();
	const again = await (await page.request.get(`${AT}/yard/archive`)).body();
	expect(again.equals(first)).toBe(true);
	// Who owned it came along without a way in: at the computer itself they take their place again.
	await open(page, `${AT}/yard/people`);
	await expect(page.getByText('Ana (owner) came with an archive, without a passphrase')).toBeVisible();
	await own('Ana');
	await expect(page.getByRole('listitem').filter({ hasText: 'you, on this device' })).toHaveCount(1);
	const over = ended(empty);
	empty.kill();
	await over;
});
