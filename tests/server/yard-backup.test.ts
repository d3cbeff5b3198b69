import { createClient } from '@libsql/client';
import fc from 'fast-check';
import { createHash } from 'node:crypto';
import {
	createWriteStream,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { describe, expect, it } from 'vitest';
import { ZipFile } from 'yazl';
import { addDays } from '$core/maths/calendar';
import { backupInto, packBackup, restoreFrom } from '$lib/server/yard-backup/file';
import { KEPT, keptBackups } from '$lib/server/yard-backup/kept';
import { backupFile, BackupFault, listBackups, makeBackup, sha256Of } from '$lib/server/yard-backup/make';
import { backUp, backupsOf, isDue } from '$lib/server/yard-backup/yard';
import { pictures, places } from '$lib/server/records/records';
import { doWork } from '$lib/server/records/work';
import { refusal, storeWithTree } from './helpers';

const fresh = (): string => mkdtempSync(path.join(tmpdir(), 'bruntle-backup-'));
const at = new Date('2026-04-18T09:00:00Z');

/** A yard with one picture that has its files and one that has lost them. */
async function yard() {
	const { store, tree, placeId } = await storeWithTree();
	const database = store.url.slice('file:'.length);
	const picturesFolder = path.join(path.dirname(database), 'pictures');
	mkdirSync(picturesFolder);
	const jpeg = Buffer.from('as if it were a picture');
	const hash = createHash('sha256').update(jpeg).digest('hex');
	for (const ending of ['.jpg', '.small.jpg']) writeFileSync(path.join(picturesFolder, hash + ending), jpeg);
	for (const one of [hash, 'f'.repeat(64)])
		await doWork(store, { treeId: tree.id, stage: 'recovery', what: 'Kept a picture' }, (work) =>
			work.add(pictures, {
				takenOn: '2026-04-10',
				hash: one,
				widthPx: 10,
				heightPx: 10,
				view: 'front',
				note: '',
				exactTime: null
			} as never)
		);
	const task = (madeAt = '2026-04-18T09:00:00.000Z') => ({
		database,
		picturesFolder,
		folder: path.join(path.dirname(database), 'backups'),
		madeAt
	});
	return { store, tree, placeId, hash, jpeg, database, picturesFolder, task };
}

/** Every row of every table, in order. */
async function dump(file: string): Promise<Record<string, unknown[]>> {
	const client = createClient({ url: `file:${file}` });
	const { rows } = await client.execute(
		"select name from sqlite_master where type = 'table' and name not like 'sqlite_%' order by name"
	);
	const all: Record<string, unknown[]> = {};
	for (const { name } of rows)
		all[String(name)] = (await client.execute(`select * from "${String(name)}" order by rowid`)).rows.map(
			(row) => JSON.stringify(row)
		);
	client.close();
	return all;
}
const fault = async (work: Promise<unknown>): Promise<string> => {
	try {
		await work;
	} catch (cause) {
		if (cause instanceof BackupFault) return cause.message;
		throw cause;
	}
	return 'nothing was refused';
};

describe('which backups are kept', () => {
	const daily = (days: number): string[] =>
		Array.from({ length: days }, (_, i) => `${addDays('2026-04-18', -i)}T09:00:00.000Z`);
	it('of two years of days: seven days, four weeks, twelve months, the newest of each', () => {
		const kept = [...keptBackups(daily(730))].map((instant) => instant.slice(0, 10)).sort();
		expect(kept).toEqual([
			// The last days of eleven months before this one.
			...['05-31', '06-30', '07-31', '08-31', '09-30', '10-31', '11-30', '12-31'].map((day) => `2025-${day}`),
			'2026-01-31',
			'2026-02-28',
			// Sundays end the weeks by ISO 8601.
			'2026-03-29',
			'2026-03-31',
			'2026-04-05',
			'2026-04-12',
			'2026-04-13',
			'2026-04-14',
			'2026-04-15',
			'2026-04-16',
			'2026-04-17',
			'2026-04-18'
		]);
	});
	it('the newest is always kept, never more than there may be, and looking again drops none', () => {
		const instants = fc.uniqueArray(
			fc
				.integer({ min: 0, max: 900 * 24 })
				.map((hour) => new Date(Date.parse('2024-01-01T00:00:00Z') + hour * 3_600_000).toISOString()),
			{ minLength: 1, maxLength: 200 }
		);
		fc.assert(
			fc.property(instants, (all) => {
				const kept = keptBackups(all);
				expect(kept.has(all.toSorted().at(-1) ?? '')).toBe(true);
				expect(kept.size).toBeLessThanOrEqual(KEPT.days + KEPT.weeks + KEPT.months);
				expect(keptBackups([...kept])).toEqual(kept);
				const days = new Set(all.map((instant) => instant.slice(0, 10)));
				const keptDays = new Set([...kept].map((instant) => instant.slice(0, 10)));
				for (const day of [...days].sort().slice(-KEPT.days)) expect(keptDays.has(day)).toBe(true);
			})
		);
	});
	it('one is due after a day, and where the clock was set back', () => {
		const now = at.getTime();
		expect(isDue(null, now)).toBe(true);
		expect(isDue('2026-04-17T09:00:00.000Z', now)).toBe(true);
		expect(isDue('2026-04-17T09:00:01.000Z', now)).toBe(false);
		expect(isDue('2026-05-01T09:00:00.000Z', now)).toBe(true);
	});
});

describe('a backup of the yard', () => {
	it('is made while it runs, counted, and holds each picture once', async () => {
		const { store, task, hash, placeId, database } = await yard();
		const proof = await makeBackup(task());
		expect(proof).toMatchObject({ rows: { tree: 1, place: 1, picture: 2 }, missingPictures: 1 });
		expect(proof.pictures).toEqual([hash, 'f'.repeat(64)].sort());
		const { folder, madeAt } = task();
		expect(await dump(backupFile(folder, madeAt))).toEqual(await dump(database));
		expect(await sha256Of(backupFile(folder, madeAt))).toBe(proof.sha256);
		expect(await listBackups(folder)).toEqual([proof]);
		await doWork(store, { treeId: null, stage: 'take-in', what: 'Renamed' }, (work) =>
			work.change(places, placeId, 1, (before) => ({ ...before, name: 'Elsewhere' }))
		);
		await makeBackup(task('2026-04-18T10:00:00.000Z'));
		// Of one day the newest is kept.
		expect((await listBackups(folder)).map((one) => one.madeAt)).toEqual(['2026-04-18T10:00:00.000Z']);
		expect(readdirSync(path.join(folder, 'pictures')).sort()).toEqual([`${hash}.jpg`, `${hash}.small.jpg`]);
		expect(readdirSync(folder).some((name) => name.startsWith('.'))).toBe(false);
	});
	it('lets go of pictures that no backup has any longer, and of nothing else', async () => {
		const { store, task, hash } = await yard();
		await makeBackup(task());
		await store.db.$client.execute({ sql: 'delete from picture where hash = ?', args: [hash] });
		await makeBackup(task('2026-04-19T09:00:00.000Z'));
		const { folder } = task();
		expect(existsSync(path.join(folder, 'pictures', `${hash}.jpg`))).toBe(true);
		await makeBackup(task('2026-04-18T23:00:00.000Z'));
		expect(existsSync(path.join(folder, 'pictures', `${hash}.jpg`))).toBe(false);
	});
	it('that cannot be made is told in words, and remembered as failed until one can', async () => {
		const { store, task } = await yard();
		const { folder } = task();
		writeFileSync(folder, 'in the way');
		expect((await refusal(backUp(store))).status).toBe(503);
		expect(await backupsOf(store)).toMatchObject({ backups: [], failedAt: '2026-04-18T09:00:00.000Z' });
		rmSync(folder);
		await backUp(store);
		expect(await backupsOf(store)).toMatchObject({ backups: [{ rows: { tree: 1 } }], failedAt: null });
	});
	it('whose proof is cut off is not told as one', async () => {
		const { task } = await yard();
		await makeBackup(task());
		const { folder } = task();
		writeFileSync(path.join(folder, 'yard-20260418-090000.json'), '{"madeAt":');
		expect(await listBackups(folder)).toEqual([]);
		expect(await listBackups(path.join(folder, 'not-there'))).toEqual([]);
	});
});

describe('a yard restored', () => {
	const how = { replace: false, migrations: 'drizzle', at };
	const into = (folder = path.join(fresh(), 'new')) => ({ folder, database: path.join(folder, 'yard.db') });
	it('from a backup file is the yard that was backed up, row by row and picture by picture', async () => {
		const { task, database, hash, jpeg } = await yard();
		const file = path.join(fresh(), 'yard.zip');
		const { folder: _own, ...rest } = task();
		await backupInto(file, rest);
		const to = into();
		const { proof, aside } = await restoreFrom(file, to, how);
		expect(aside).toBeNull();
		expect(proof.rows.tree).toBe(1);
		expect(await dump(to.database)).toEqual(await dump(database));
		expect(readFileSync(path.join(to.folder, 'pictures', `${hash}.jpg`)).equals(jpeg)).toBe(true);
		expect(readdirSync(to.folder).sort()).toEqual(['pictures', 'yard.db']);
		expect(readdirSync(path.dirname(file))).toEqual(['yard.zip']);
		expect(await fault(backupInto(file, rest))).toMatch(/stands there already/);
		expect(await fault(backupInto(`${file}2`, { ...rest, database: '/nowhere.db' }))).toMatch(/no yard at/);
	});
	it('never takes the place of another unless told, and then sets that aside whole', async () => {
		const [first, second] = [await yard(), await yard()];
		const file = path.join(fresh(), 'yard.zip');
		await backupInto(file, { ...first.task(), madeAt: at.toISOString() });
		await second.store.db.$client.execute("update place set name = 'Second'");
		await second.store.db.$client.execute('PRAGMA wal_checkpoint(TRUNCATE)');
		second.store.close();
		const to = { folder: path.dirname(second.database), database: second.database };
		const before = await dump(second.database);
		expect(await fault(restoreFrom(file, to, how))).toMatch(/already.*--replace/);
		expect(await dump(second.database)).toEqual(before);
		const { aside } = await restoreFrom(file, to, { ...how, replace: true });
		expect(await dump(second.database)).toEqual(await dump(first.database));
		expect(await dump(path.join(aside ?? '', path.basename(second.database)))).toEqual(before);
		expect(existsSync(path.join(aside ?? '', 'pictures', `${second.hash}.jpg`))).toBe(true);
	});
	it('sets pictures aside that were left where no yard stands any more', async () => {
		const { task, hash } = await yard();
		const file = path.join(fresh(), 'yard.zip');
		await backupInto(file, { ...task(), madeAt: at.toISOString() });
		const to = into();
		mkdirSync(path.join(to.folder, 'pictures'), { recursive: true });
		writeFileSync(path.join(to.folder, 'pictures', 'left.jpg'), 'left');
		const { aside } = await restoreFrom(file, to, how);
		expect(existsSync(path.join(aside ?? '', 'pictures', 'left.jpg'))).toBe(true);
		expect(readdirSync(path.join(to.folder, 'pictures'))).toContain(`${hash}.jpg`);
	});
	it('is refused whole where the file is damaged, is none, or holds something else than it says', async () => {
		const { task } = await yard();
		const file = path.join(fresh(), 'yard.zip');
		await backupInto(file, { ...task(), madeAt: at.toISOString() });
		const whole = readFileSync(file);
		const tried = async (name: string, bytes: Buffer): Promise<string> => {
			const other = path.join(fresh(), name);
			writeFileSync(other, bytes);
			const to = into();
			const said = await fault(restoreFrom(other, to, how));
			expect(existsSync(to.database), name).toBe(false);
			expect(readdirSync(to.folder), name).toEqual([]);
			return said;
		};
		expect(await tried('cut.zip', whole.subarray(0, whole.length / 2))).toMatch(
			/no backup of a yard, or it is damaged/
		);
		expect(await tried('text.zip', Buffer.from('Dear diary'))).toMatch(/no backup of a yard/);
		const within = Buffer.from(whole);
		within.fill(0x5a, Math.floor(whole.length / 2), Math.floor(whole.length / 2) + 40);
		expect(await tried('within.zip', within)).toMatch(/damaged/);
		expect(await fault(restoreFrom('/nowhere.zip', into(), how))).toMatch(/no file/);
	});
	it('from an archive that reaches out of its folder writes nothing outside', async () => {
		const { task } = await yard();
		const { folder } = task();
		const proof = await makeBackup(task());
		const file = path.join(fresh(), 'odd.zip');
		const zip = new ZipFile();
		zip.addBuffer(Buffer.from(JSON.stringify(proof)), 'proof.json');
		zip.addFile(backupFile(folder, proof.madeAt), 'yard.db');
		zip.addBuffer(Buffer.from('x'), 'pictures/other.txt');
		zip.addBuffer(Buffer.from('x'), `pictures/${'0'.repeat(64)}.jpg`);
		zip.end();
		await pipeline(zip.outputStream, createWriteStream(file));
		const to = into();
		expect(await fault(restoreFrom(file, to, how))).toMatch(/a picture in it is another/);
		expect(readdirSync(to.folder)).toEqual([]);
		// What is named to lie elsewhere is not even looked at.
		const bytes = Buffer.from(
			readFileSync(file).toString('latin1').replaceAll('pictures/other.txt', '../../../other.txt'),
			'latin1'
		);
		writeFileSync(file, bytes);
		const next = into();
		expect(await fault(restoreFrom(file, next, how))).toMatch(/damaged/);
		expect(existsSync(path.join(next.folder, '../../other.txt'))).toBe(false);
		rmSync(file);
	});
	it('by a newer Bruntle than this is refused in its sentence', async () => {
		const { store, task } = await yard();
		await store.db.$client.execute(
			"insert into __drizzle_migrations (hash, created_at) values ('later', 9000000000000)"
		);
		const file = path.join(fresh(), 'newer.zip');
		await backupInto(file, { ...task(), madeAt: at.toISOString() });
		expect(await fault(restoreFrom(file, into(), how))).toMatch(/written by a newer Bruntle/);
	});
	it('comes whole also from the page, which sends the same file', async () => {
		const { task, database } = await yard();
		const proof = await makeBackup(task());
		const file = path.join(fresh(), 'sent.zip');
		await pipeline(packBackup(task().folder, proof), createWriteStream(file));
		const to = into();
		await restoreFrom(file, to, how);
		expect(await dump(to.database)).toEqual(await dump(database));
	});
});
