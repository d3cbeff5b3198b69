import { createClient } from '@libsql/client';
import { mkdtemp } from 'node:fs/promises';
import path from 'node:path';
import { openPeer } from '../remote/peer.js';
import { ended, expect, load, stageViews, startServer, test } from './helpers';

const port = 4880 + Number(process.env.TEST_PARALLEL_INDEX ?? 0);
const AT = `http://127.0.0.1:${port}`;
/** A page goes to the server of the database and back so often at the most. */
const MOST_TRIPS = 7;
const asPage = { maxRedirects: 0, headers: { accept: 'text/html' } };

test('a yard whose database is on a server of its own is worked on as any other, in few trips, and says when that server is gone', async ({
	page
}) => {
	test.setTimeout(180_000);
	const data = process.env.BRUNTLE_E2E_DATA ?? '';
	const folder = await mkdtemp(path.join(data, 'far-'));
	const file = path.join(folder, 'far.db');
	const demo = createClient({ url: `file:${path.join(data, 'demo', 'demo.db')}` });
	await demo.execute({ sql: 'VACUUM INTO ?', args: [file] });
	demo.close();
	const peer = await openPeer({ file });
	const server = await startServer(file, port, {
		DATABASE_URL: peer.url,
		BRUNTLE_DEMO: '1',
		BRUNTLE_PICTURES: path.join(folder, 'pictures')
	});
	const { trees } = (await (await page.request.get(`${AT}/api/v1/trees`)).json()) as {
		trees: { id: string; tag: string }[];
	};
	const id = trees.find(({ tag }) => tag === 'P-09')?.id ?? '';
	const views = [
		...[
			'',
			'trees',
			'round',
			'calendar',
			'yard',
			'yard/weather',
			'yard/devices',
			'yard/stock',
			'yard/people'
		],
		...['yard/outcomes', 'yard/backups', 'reference/kinds', 'reference/values'],
		...stageViews.map((view) => `trees/${id}/${view}`)
	];
	// What is reckoned once a day is reckoned before.
	for (const view of views) await page.request.get(`${AT}/${view}`, asPage);
	const trips: Record<string, number> = {};
	for (const view of views) {
		peer.asked = 0;
		const answer = await page.request.get(`${AT}/${view}`, asPage);
		expect(answer.status(), view).toBeLessThan(400);
		trips[view.replace(id, '')] = peer.asked;
	}
	expect(
		Object.values(trips).every((count) => count > 0 && count <= MOST_TRIPS),
		JSON.stringify(trips)
	).toBe(true);

	// Thirty milliseconds away, as over a country.
	peer.awayMs = 30;
	await load(page, `${AT}/trees/${id}/aftercare`);
	peer.asked = 0;
	await page.getByRole('button', { name: 'Watered or weighed' }).click();
	const sheet = page.getByRole('dialog');
	await sheet.getByLabel('Poured').fill('0.4');
	await sheet.getByRole('button', { name: 'Keep it' }).click();
	await expect(page.getByRole('listitem').filter({ hasText: 'Kept.' })).toBeVisible();
	const { waterings } = (await (await page.request.get(`${AT}/api/v1/trees/${id}`)).json()) as {
		waterings: { litres: number }[];
	};
	expect(waterings.at(-1)?.litres).toBe(0.4);

	await peer.close();
	await page.goto(`${AT}/trees/${id}/aftercare`);
	await expect(page.getByText('The server of the database does not answer.')).toBeVisible();
	const gone = ended(server);
	server.kill();
	await gone;
	await expect(startServer(file, port, { DATABASE_URL: peer.url })).rejects.toThrow(
		/The server of the database does not answer\. Is it running/
	);
	const replica = { DATABASE_URL: `file:${path.join(folder, 'replica.db')}`, DATABASE_SYNC_URL: peer.url };
	await expect(startServer(file, port, replica)).rejects.toThrow(
		/The server of the database does not answer\. Is it running/
	);
});
