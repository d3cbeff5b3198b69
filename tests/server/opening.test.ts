import { createClient } from '@libsql/client';
import { spawn } from 'node:child_process';
import {
	existsSync,
	mkdtempSync,
	openSync,
	readFileSync,
	renameSync,
	rmSync,
	writeFileSync,
	writeSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { readCsv, writeCsv } from '$core/text/csv';
import { checkFile, holdAlone, NotOpened, socketOf, startFault } from '$lib/server/db/opening';
import { clockIsSetBack } from '$lib/server/clock';
import { places } from '$lib/server/records/records';
import { doWork, lastEntryAt } from '$lib/server/records/work';
import { demoStore, refusal, storeWithTree } from './helpers';

const folder = mkdtempSync(path.join(tmpdir(), 'bruntle-opening-'));
const at = (name: string): string => path.join(folder, name);
const check = async (file: string): Promise<string | null> => {
	try {
		await checkFile(file, 'drizzle');
		return null;
	} catch (cause) {
		if (cause instanceof NotOpened) return cause.message;
		throw cause;
	}
};

describe('a database is looked at before it is opened', () => {
	it('a new one and a whole one are opened', async () => {
		expect(await check(at('none.db'))).toBeNull();
		const store = await demoStore();
		expect(await check(store.url.slice('file:'.length))).toBeNull();
	});
	it('one that is empty, no database, cut off, damaged within or newer is refused in a sentence, and stays as it is', async () => {
		writeFileSync(at('empty.db'), '');
		expect(await check(at('empty.db'))).toMatch(/empty\.db is empty/);
		writeFileSync(at('text.db'), 'Dear diary, the hornbeam has buds.');
		expect(await check(at('text.db'))).toMatch(/no database, or its beginning is damaged/);
		const store = await demoStore();
		await store.db.$client.execute('PRAGMA wal_checkpoint(TRUNCATE)');
		const whole = readFileSync(store.url.slice('file:'.length));
		store.close();
		writeFileSync(at('cut.db'), whole.subarray(0, Math.floor(whole.length / 2)));
		expect(await check(at('cut.db'))).toMatch(/cut\.db is damaged/);
		writeFileSync(at('within.db'), whole);
		const handle = openSync(at('within.db'), 'r+');
		for (let page = 8; page * 4096 < whole.length; page += 3)
			writeSync(handle, Buffer.alloc(200, 0xa5), 0, 200, page * 4096);
		expect(await check(at('within.db'))).toMatch(/within\.db is damaged/);
		writeFileSync(at('newer.db'), whole);
		const client = createClient({ url: `file:${at('newer.db')}` });
		await client.execute(
			"insert into __drizzle_migrations (hash, created_at) values ('later', 9000000000000)"
		);
		client.close();
		const before = readFileSync(at('newer.db'));
		expect(await check(at('newer.db'))).toMatch(/was written by a newer Bruntle/);
		expect(readFileSync(at('newer.db')).equals(before)).toBe(true);
	});
	it('what goes wrong at the start is said without the words of the database', () => {
		const said = (cause: unknown): string => (startFault('yard.db', cause) as Error).message;
		expect(said(new Error('SQLITE_READONLY: attempt to write a readonly database'))).toMatch(
			/cannot be written to/
		);
		expect(
			said(new Error('Failed query: PRAGMA x', { cause: new Error('SQLITE_FULL: database or disk is full') }))
		).toMatch(/no room on the disk/);
		expect(said(new Error('SQLITE_BUSY: database is locked'))).toMatch(/held by another program/);
		expect(said(new Error('SQLITE_CORRUPT: malformed'))).toMatch(/damaged/);
		const other = new Error('the demo is never put into a yard');
		expect(startFault('yard.db', other)).toBe(other);
	});
});

describe('a yard is held by one Bruntle', () => {
	it('a second is refused, by whatever path it asks; another yard is not', async () => {
		await holdAlone(at('held.db'));
		await expect(holdAlone(at('held.db'))).rejects.toThrow(/Another Bruntle has .*held\.db open/);
		await expect(holdAlone(path.join(folder, 'x', '..', 'held.db'))).rejects.toThrow(NotOpened);
		await expect(holdAlone(at('other.db'))).resolves.toBeUndefined();
	});
	it('one that was killed holds it no longer', async () => {
		const socket = socketOf(at('killed.db'));
		rmSync(socket, { force: true });
		const child = spawn(process.execPath, [
			'-e',
			`require('node:net').createServer().listen(${JSON.stringify(socket)}, () => console.log('there'))`
		]);
		await new Promise((resolve) => child.stdout.once('data', resolve));
		await expect(holdAlone(at('killed.db'))).rejects.toThrow(NotOpened);
		child.kill('SIGKILL');
		await new Promise((resolve) => child.once('close', resolve));
		expect(existsSync(socket)).toBe(true);
		await expect(holdAlone(at('killed.db'))).resolves.toBeUndefined();
	});
});

describe('a CSV', () => {
	it('holds no formula, whatever was typed, and reads back what was written', () => {
		const texts = [
			'=1+1',
			'+SUM(A1)',
			'@cmd',
			'-cmd|calc',
			'-3',
			'-.5',
			'a=b',
			"'quoted",
			"'=2",
			"''@x",
			"'-3",
			'plain, with a comma'
		];
		const file = writeCsv(
			['text', 'number'],
			texts.map((text, i) => ({ text, number: -1 - i }))
		);
		for (const line of file.split('\r\n')) expect(line).not.toMatch(/^"?([=+@]|-(?![\d.,]))/);
		expect(file).toContain("'=1+1");
		const { rows } = readCsv(file);
		expect(rows.map(([text]) => text)).toEqual(texts);
		expect(rows.map(([, number]) => Number(number))).toEqual(texts.map((_, i) => -1 - i));
	});
});

const ownFile = async () => {
	const made = await storeWithTree();
	await made.store.db.$client.execute('PRAGMA wal_checkpoint(TRUNCATE)');
	return { ...made, file: made.store.url.slice('file:'.length) };
};

describe('while it runs', () => {
	it('a database that is taken away or replaced takes no write, and what was kept can be read', async () => {
		const { store, placeId, file } = await ownFile();
		const rename = () =>
			doWork(store, { treeId: null, stage: 'take-in', what: 'Renamed a place' }, (work) =>
				work.change(places, placeId, 1, (before) => ({ ...before, name: 'Behind the shed' }))
			);
		for (const take of [
			() => renameSync(file, `${file}.away`),
			() => writeFileSync(file, readFileSync(`${file}.away`))
		]) {
			take();
			const { status, message } = await refusal(rename());
			expect(status).toBe(503);
			expect(message).toMatch(/is gone from its folder, or another was put there/);
			expect((await places.get(store.db, placeId))?.name).toBe('Bench');
		}
		rmSync(file);
		renameSync(`${file}.away`, file);
		await rename();
		expect((await places.get(store.db, placeId))?.name).toBe('Behind the shed');
	});
	it('one taken away in the middle of a write is not told to have kept it', async () => {
		const { store, placeId, file } = await ownFile();
		const { status } = await refusal(
			doWork(store, { treeId: null, stage: 'take-in', what: 'Renamed a place' }, (work) => {
				renameSync(file, `${file}.away`);
				return work.change(places, placeId, 1, (before) => ({ ...before, name: 'Behind the shed' }));
			})
		);
		expect(status).toBe(503);
	});
	it('a clock that is set back is told by the latest entry, a little put right is not', async () => {
		const { store } = await ownFile();
		expect(await lastEntryAt(store.db)).toBe('2026-04-18T09:00:00.000Z');
		expect(clockIsSetBack(null)).toBe(false);
		expect(clockIsSetBack('2026-04-18T09:14:00.000Z')).toBe(false);
		expect(clockIsSetBack('2026-04-18T09:16:00.000Z')).toBe(true);
		expect(clockIsSetBack('2025-04-18T09:00:00.000Z')).toBe(false);
	});
});
