import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync, existsSync, statSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { DEMO, ended, expect, open, pick, request, startServer, test, treeId } from './helpers';

test.describe('the API', () => {
	test('lists every calculation with schemas, runs one, and refuses in problem+json', async () => {
		const api = await request.newContext({ baseURL: DEMO });
		const { calculations } = await (await api.get('/api/v1/compute')).json();
		expect(calculations.length).toBeGreaterThan(15);
		for (const calculation of calculations)
			expect(calculation).toMatchObject({
				name: expect.any(String),
				summary: expect.any(String),
				input: { type: 'object' },
				output: { type: 'object' }
			});

		const zone = await api.post('/api/v1/compute/structural-root-zone', {
			data: { diameterAboveFlareM: 0.5 }
		});
		expect((await zone.json()).radiusM).toBeCloseTo(2.47, 2);
		const wrong = await api.post('/api/v1/compute/structural-root-zone', {
			data: { diameterAboveFlareM: -1 }
		});
		expect(wrong.status()).toBe(422);
		expect(wrong.headers()['content-type']).toContain('application/problem+json');
		expect((await wrong.json()).errors).toEqual([
			{ field: 'diameterAboveFlareM', message: 'must be a number from 0.01 to 5 m' }
		]);
		expect((await api.post('/api/v1/compute/nothing', { data: {} })).status()).toBe(404);
		expect(
			(
				await api.post('/api/v1/compute/allowance', {
					headers: { 'content-type': 'application/json' },
					data: Buffer.from('{"a":')
				})
			).status()
		).toBe(400);
		expect((await api.get('/api/v1/elsewhere')).headers()['content-type']).toContain(
			'application/problem+json'
		);
		const { paths } = await (await api.get('/api/v1/openapi.json')).json();
		expect(Object.keys(paths)).toEqual(
			expect.arrayContaining([
				'/api/v1/trees/{id}',
				...calculations.map((c: { name: string }) => `/api/v1/compute/${c.name}`)
			])
		);
	});

	test('takes a 50 MB body with a clear no, by the API and by a form', async () => {
		const api = await request.newContext({ baseURL: DEMO });
		const huge = 'x'.repeat(50 * 1024 * 1024);
		const imported = await api.post('/api/v1/trees', {
			headers: { 'content-type': 'application/json' },
			data: JSON.stringify({ huge })
		});
		expect(imported.status()).toBe(413);
		expect((await imported.json()).title).toBe('The body is larger than 24 MB.');
		const form = await api.post('/trees/new', {
			headers: { origin: DEMO, 'content-type': 'application/x-www-form-urlencoded' },
			data: `note=${huge}`
		});
		expect(form.status()).toBe(413);
		expect(await form.text()).not.toMatch(/at .*\.js:\d+/);
	});
});

test('a bad form says what to mend, keeps what was typed, and saves nothing', async ({ page }) => {
	await open(page, `${DEMO}/trees/new`);
	await page.getByLabel('Tag', { exact: true }).fill('h-03');
	await page.getByLabel('Name', { exact: true }).fill('   ');
	await page.getByLabel('Trunk above the flare').fill('-5');
	await page.getByLabel('How many').fill('2.5');
	await page.getByText('More: day, batch').click();
	await page.getByLabel('Taken in on').fill('1800-01-01');
	await page.getByLabel('Notes').fill('x'.repeat(10_000));
	await page.getByRole('button', { name: 'Take it in' }).click();
	await expect(page.getByText('11 fields need another look.').first()).toBeVisible();
	for (const text of [
		'Name must be 1 to 80 characters.',
		'Trunk above the flare must be a number from 1 to 3,000 mm.',
		/must be a whole number from 1 to 5000\.$/,
		/must be a date from 1 Jan 1950/,
		/must be at most 4000 characters\.$/
	])
		await expect(page.getByText(text)).toBeVisible();
	await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
	await expect(page.getByText(/must be chosen\./)).toHaveCount(6);
	await expect(page.getByLabel('Trunk above the flare')).toHaveValue('-5');
	await expect(page.getByLabel('Tag', { exact: true })).toHaveValue('h-03');

	// How it stands and does, and whether it may be touched, nobody presumes.
	for (const [group, answer] of [
		['How it stands', 'potted'],
		['Permission to lift or work on it', 'my own tree'],
		['Vigour today', 'fair'],
		['Reserves', 'field-grown']
	] as const) {
		const choice = page.getByRole('radiogroup', { name: group });
		await expect(choice).toHaveAttribute('aria-invalid', 'true');
		await choice.getByRole('radio', { name: answer }).click();
		await expect(choice).not.toHaveAttribute('aria-invalid', 'true');
	}
	await pick(page.getByLabel('Kind, or only its group', { exact: true }), 'Beech (Fagus)');
	await page.getByLabel('Place', { exact: true }).selectOption({ label: 'East bench' });
	await page.getByLabel('Name', { exact: true }).fill('Twice tagged');
	await page.getByLabel('Trunk above the flare').fill('50');
	await page.getByLabel('How many').fill('1');
	await page.getByLabel('Taken in on').fill('2026-04-01');
	await page.getByLabel('Notes').fill('');
	await page.getByRole('button', { name: 'Take it in' }).click();
	await expect(
		page.getByText('Tag is already on Hornbeam from the tram cutting; every tag is used once.').first()
	).toBeVisible();
});

test('a case file is read on the formats page, and a wrong version is refused', async ({ page }) => {
	const folder = mkdtempSync(path.join(tmpdir(), 'bruntle-case-'));
	const exported = await (await fetch(`${DEMO}/api/v1/trees/${await treeId('E-04')}`)).json();
	const file = (name: string, change: object) => {
		const where = path.join(folder, name);
		writeFileSync(where, JSON.stringify({ ...exported, ...change }));
		return where;
	};
	await open(page, `${DEMO}/reference/formats`);
	await page.getByLabel('JSON file').setInputFiles(file('old.json', { version: 99 }));
	await page.getByRole('button', { name: 'Read it' }).click();
	await expect(page.getByRole('alert')).toContainText('version must be 6, the version this Bruntle reads');
	await page.getByLabel('JSON file').setInputFiles(file('same.json', {}));
	await page.getByRole('button', { name: 'Read it' }).click();
	await expect(page.getByRole('alert')).toContainText(
		'Elm from the bowling green stands in this yard already.'
	);
});

test('loses no accepted write when it is killed, and stops cleanly when asked', async () => {
	const database = path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-kill-')), 'yard.db');
	const port = 4811;
	const base = `http://127.0.0.1:${port}`;
	let server = await startServer(database, port);
	const exported = await (await fetch(`${DEMO}/api/v1/trees/${await treeId('H-00')}`)).json();
	const strip = (i: number) => ({
		...exported,
		tree: { ...exported.tree, id: `tree-${i}`, tag: `K-${i}`, referenceTreeId: null },
		observations: exported.observations.map((look: { id: string }) => ({ ...look, id: `${look.id}-${i}` })),
		journal: exported.journal.map((entry: { id: string }) => ({ ...entry, id: `${entry.id}-${i}` }))
	});
	const accepted: number[] = [];
	const writes = Array.from({ length: 60 }, async (_, i) => {
		const response = await fetch(`${base}/api/v1/trees`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(strip(i))
		}).catch(() => null);
		if (response?.status === 201) accepted.push(i);
		if (accepted.length === 20) server.kill('SIGKILL');
	});
	await Promise.all(writes);
	expect(accepted.length).toBeGreaterThanOrEqual(20);

	server = await startServer(database, port);
	const { trees } = (await (await fetch(`${base}/api/v1/trees`)).json()) as { trees: { id: string }[] };
	const kept = new Set(trees.map((tree) => tree.id));
	for (const i of accepted) expect(kept.has(`tree-${i}`)).toBe(true);
	for (const { id } of trees) {
		const whole = await (await fetch(`${base}/api/v1/trees/${id}`)).json();
		expect(whole.observations).toHaveLength(exported.observations.length);
	}
	const stopping = ended(server);
	server.kill('SIGTERM');
	expect(await stopping).toBe(0);
	// The database is whole in its one file: nothing waits beside it.
	expect(existsSync(`${database}-wal`) ? statSync(`${database}-wal`).size : 0).toBe(0);
});

test.describe('the script', () => {
	const run = (args: string[], env: Record<string, string> = {}) => {
		const { status, stdout, stderr } = spawnSync('./bruntle', args, {
			encoding: 'utf8',
			timeout: 60_000,
			env: { ...process.env, ...env }
		});
		return { status, text: stdout + stderr };
	};
	test('says in one sentence what is wrong: port, folder, word, Node', async () => {
		for (const [args, sentence] of [
			[['demo', '--port', 'abc'], /--port must be a number from 1 to 65535/],
			[['demo', '--port', '70000'], /--port must be a number/],
			[['start', '--data', '/proc/nothing'], /The data folder \/proc\/nothing cannot be made/],
			[['demo', '--colour'], /"--colour" is not known/],
			[['dance'], /\.\/bruntle demo/]
		] as const) {
			const { status, text } = run([...args]);
			expect(status, text).toBe(1);
			expect(text).toMatch(sentence);
			expect(text).not.toMatch(/at .*:\d+:\d+/);
		}
		const fake = mkdtempSync(path.join(tmpdir(), 'bruntle-node-'));
		writeFileSync(path.join(fake, 'node'), '#!/bin/sh\necho v18.3.0\n', { mode: 0o755 });
		const old = run(['start'], { PATH: `${fake}:${process.env.PATH ?? ''}` });
		expect(old.status).toBe(1);
		expect(old.text).toContain('Bruntle needs Node 20.20 or a later 20; this is Node 18.3.0.');
	});

	test('says that a port is in use, and never puts the demo into a yard of one’s own', async () => {
		const taken = createServer();
		await new Promise<void>((resolve) => taken.listen(4812, '127.0.0.1', resolve));
		const busy = spawnSync('node', ['scripts/serve.js'], {
			encoding: 'utf8',
			env: { ...process.env, PORT: '4812', DATABASE_URL: 'file:never.db' }
		});
		taken.close();
		expect(busy.status).toBe(1);
		expect(busy.stderr.trim()).toBe('Port 4812 is in use. Choose another with --port.');

		const database = path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-own-')), 'yard.db');
		const server = await startServer(database, 4813);
		const exported = await (await fetch(`${DEMO}/api/v1/trees/${await treeId('E-04')}`)).json();
		await fetch('http://127.0.0.1:4813/api/v1/trees', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(exported)
		});
		const stopping = ended(server);
		server.kill('SIGTERM');
		await stopping;
		const demo = spawnSync('node', ['scripts/serve.js'], {
			encoding: 'utf8',
			timeout: 30_000,
			env: {
				...process.env,
				PORT: '4813',
				DATABASE_URL: `file:${database}`,
				BRUNTLE_DEMO: '1',
				BRUNTLE_NOW: '2026-04-18T09:00:00Z'
			}
		});
		expect(demo.status).toBe(1);
		expect(demo.stderr).toContain('holds a yard of its own');
		expect(demo.stderr).not.toMatch(/\n\s+at /);
	});
});
