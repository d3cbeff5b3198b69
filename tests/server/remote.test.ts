import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClient } from '@libsql/client';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { exportCase, importCase } from '$lib/server/case-file';
import type { Store } from '$lib/server/db/database';
import { isFarAway } from '$lib/server/db/database';
import { withFewTrips } from '$lib/server/db/few-trips';
import * as tables from '$lib/server/db/schema';
import { refusalOf } from '$lib/server/edge/fault';
import { examinations, places, trees } from '$lib/server/records/records';
import { doWork, undo } from '$lib/server/records/work';
import { loadRecords } from '$lib/server/records/tree-records';
import { addPlace, changePlace } from '$lib/server/yard';
import { placeInput } from '$core/vocabulary/place';
import { openPeer } from '../remote/peer.js';
import { demoStore, freshStore, refusal, storeWithTree } from './helpers';

const fresh = (): string => path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-far-')), 'far.db');
type Peer = Awaited<ReturnType<typeof openPeer>>;
let peer: Peer;
let far: Store;
beforeAll(async () => {
	peer = await openPeer({ file: fresh() });
	far = await freshStore(peer.url);
});
afterAll(async () => {
	far.close();
	await peer.close();
});
/** What was asked of the server meanwhile. */
async function asked<T>(work: () => Promise<T>): Promise<{ trips: number; result: T }> {
	const before = peer.asked;
	const result = await work();
	return { trips: peer.asked - before, result };
}
const place = (name: string) => placeInput.parse({ name, kind: 'open', latitudeDeg: 52 });

describe('a yard on a server of its own', () => {
	it('keeps the same records as one in a file, read in and given out again, in a few trips', async () => {
		const demo = await demoStore();
		const all = await demo.db.select({ id: tables.tree.id, tag: tables.tree.tag }).from(tables.tree);
		expect(all.length).toBeGreaterThan(10);
		// Each takes a second.
		for (const { id, tag } of all.filter((_, i) => i % 3 === 0)) {
			const doc = await exportCase(demo.db, id);
			const { trips } = await asked(() => importCase(far, doc));
			const records = Object.values(doc).reduce(
				(sum: number, part) => sum + (Array.isArray(part) ? part.length : 1),
				0
			);
			// Two hundred statements go together: a long case takes some trips more.
			expect(trips, `${tag} with ${records} records`).toBeLessThan(9 + records / 100);
			const back = await asked(() => exportCase(far.db, id));
			expect(back.trips, tag).toBeLessThan(8);
			expect(back.result, tag).toEqual(doc);
		}
		demo.close();
	}, 120_000);

	it('loads a tree in few trips, and none twice', async () => {
		const [one] = await far.db.select({ id: tables.tree.id }).from(tables.tree).limit(1);
		const load = () => asked(() => loadRecords(far.db, one?.id ?? ''));
		expect((await load()).trips).toBeLessThanOrEqual(3);
		expect((await load()).trips).toBe(1);
	});

	it('writes, changes and takes back like any other', async () => {
		const { tree, placeId } = await storeWithTree({}, peer.url);
		const { id, entryId } = await addPlace(far, place('Far bench'));
		await refusal(changePlace(far, id, 9, place('Other')));
		await changePlace(far, id, 1, place('Nearer bench'));
		expect((await places.get(far.db, id))?.name).toBe('Nearer bench');
		await refusal(undo(far, entryId));
		expect(await trees.get(far.db, tree.id)).toMatchObject({ placeId, tag: 'T-1' });
		const { entryId: looked } = await doWork(
			far,
			{ treeId: tree.id, stage: 'examine', what: 'Looked' },
			(work) =>
				work.add(examinations, {
					examinedOn: '2026-04-18',
					note: '',
					events: [],
					failingFast: false,
					findings: [{ signId: 'sour-smell', grade: 1, measuredBy: null }]
				} as never)
		);
		expect((await examinations.list(far.db, tree.id))[0]?.findings).toHaveLength(1);
		await undo(far, looked);
		expect(await examinations.list(far.db, tree.id)).toEqual([]);
	});

	it('keeps nothing of a write whose last part fails, though it was sent at the end', async () => {
		const count = () => far.db.$count(tables.place);
		const before = await count();
		const broken = far.write(async (tx) => {
			await tx.insert(tables.place).values({ ...place('Half'), id: 'half', note: '' } as never);
			// Its owner is not there; this is told with the commit.
			await tx.insert(tables.finding).values({ ownerId: 'nobody', position: 0, signId: 'sour-smell' });
			await tx.insert(tables.place).values({ ...place('After'), id: 'after', note: '' } as never);
		});
		await expect(broken).rejects.toThrow();
		expect(refusalOf(await broken.catch((cause: unknown) => cause))?.message).toBe(
			'What this belongs to is not here any more.'
		);
		expect(await count()).toBe(before);
		// And where something is asked in between, who asks is told.
		const asking = far.write(async (tx) => {
			await tx.insert(tables.finding).values({ ownerId: 'nobody', position: 0, signId: 'sour-smell' });
			await tx.select().from(tables.place);
			throw new Error('it went on');
		});
		await expect(asking).rejects.not.toThrow(/it went on/);
		await addPlace(far, place('Afterwards'));
		expect(await count()).toBe(before + 1);
	});

	it('reads within a write what that write has done', async () => {
		await far.write(async (tx) => {
			await tx.insert(tables.setting).values({ key: 'far', value: 1 });
			expect(await tx.select().from(tables.setting).where(eq(tables.setting.key, 'far'))).toHaveLength(1);
			await tx.delete(tables.setting).where(eq(tables.setting.key, 'far'));
			const [left, all] = await Promise.all([
				tx.select().from(tables.setting).where(eq(tables.setting.key, 'far')),
				tx.select().from(tables.kind)
			]);
			expect([left.length, all.length > 10]).toEqual([0, true]);
		});
	});

	it('that is not there, or does not take the token, is told in a sentence', async () => {
		const shut = await openPeer({ file: fresh(), token: 'right' });
		await expect(freshStore(shut.url)).rejects.toSatisfy((cause) =>
			/does not know this yard’s token/.test(refusalOf(cause)?.message ?? '')
		);
		process.env.DATABASE_AUTH_TOKEN = 'right';
		const store = await freshStore(shut.url);
		delete process.env.DATABASE_AUTH_TOKEN;
		const before = await store.db.$count(tables.kind);
		expect(before).toBeGreaterThan(10);
		await shut.close();
		for (const work of [() => store.db.$count(tables.kind), () => addPlace(store, place('Nowhere'))]) {
			const told = refusalOf(
				await work().then(
					() => null,
					(cause: unknown) => cause
				)
			);
			expect(told).toMatchObject({ status: 503, message: 'The server of the database does not answer.' });
		}
		store.close();
	});

	it('is told from a file by its address', () => {
		for (const url of [
			'libsql://yard.example',
			'https://yard.example',
			'http://127.0.0.1:1',
			'ws://a',
			'wss://a'
		])
			expect(isFarAway(url)).toBe(true);
		for (const url of ['file:yard.db', 'file:/tmp/https:/x', 'alone:']) expect(isFarAway(url)).toBe(false);
	});
});

describe('what is asked at one time', () => {
	const client = () => withFewTrips(createClient({ url: peer.url }));
	it('goes together; what comes later goes by itself', async () => {
		const far = client();
		const { trips, result } = await asked(() =>
			Promise.all([
				far.execute('select 1 as a'),
				far.execute({ sql: 'select ? as b', args: ['x'] }),
				far.execute('select ? as c', [2])
			])
		);
		expect(trips).toBe(1);
		expect(result.map(({ rows }) => rows[0])).toMatchObject([{ a: 1 }, { b: 'x' }, { c: 2 }]);
		const one = await asked(async () => [await far.execute('select 1'), await far.execute('select 2')]);
		expect(one.trips).toBe(2);
		far.close();
	});
	it('is answered one by one where one of them is at fault', async () => {
		const far = client();
		const [good, bad, also] = await Promise.allSettled([
			far.execute('select 1 as a'),
			far.execute('select nothing from nowhere'),
			far.execute('select 3 as a')
		]);
		expect([good.status, bad.status, also.status]).toEqual(['fulfilled', 'rejected', 'fulfilled']);
		expect(also.status === 'fulfilled' && also.value.rows[0]).toMatchObject({ a: 3 });
		far.close();
	});
	it('of a write is sent with the next question or at its end, in its order, and not at all when it is given up', async () => {
		const far = client();
		await far.execute('create table if not exists few (n integer)');
		const { trips } = await asked(async () => {
			const tx = await far.transaction('write');
			for (let n = 0; n < 150; n++) await tx.execute({ sql: 'insert into few values (?)', args: [n] });
			expect((await tx.execute('select count(*) as n from few')).rows[0]?.n).toBe(150);
			await tx.execute('delete from few where n > 9');
			await tx.execute({ sql: 'insert into few values (?)', args: [77] });
			await tx.commit();
		});
		expect(trips).toBeLessThanOrEqual(4);
		const many = await asked(async () => {
			const tx = await far.transaction('write');
			for (let n = 0; n < 500; n++) await tx.execute({ sql: 'insert into few values (?)', args: [1000 + n] });
			await tx.rollback();
		});
		// More than two hundred do not wait.
		expect(many.trips).toBeGreaterThanOrEqual(2);
		expect((await far.execute('select count(*) as n from few')).rows[0]?.n).toBe(11);
		const tx = await far.transaction('write');
		await tx.execute('insert into few values (5)');
		await tx.rollback();
		expect((await far.execute('select count(*) as n from few')).rows[0]?.n).toBe(11);
		const failing = await far.transaction('write');
		await failing.execute('insert into nowhere values (5)');
		await failing.execute('insert into few values (5)');
		await expect(failing.commit()).rejects.toThrow(/nowhere/);
		await failing.rollback();
		expect((await far.execute('select count(*) as n from few')).rows[0]?.n).toBe(11);
		await far.execute('drop table few');
		far.close();
	});
});
