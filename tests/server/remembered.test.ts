import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it, vi } from 'vitest';
import { CASE_VERSION, treeRecordFields, upgradeCase } from '$core/tree/case';
import { observationInput } from '$core/examine/looks/observation';
import { keepIn, openStore } from '$lib/server/db/database';
import { Refusal } from '$lib/server/errors';
import { observations, ofTree, trees } from '$lib/server/records/records';
import { doReckoned } from '$lib/server/records/reckoned';
import { loadRecords, readAll } from '$lib/server/records/tree-records';
import { takeIn } from '$lib/server/trees';
import { doWork, undo } from '$lib/server/records/work';
import { decisionsOf, forecastSaid, recordLook, recoveryOf } from '$lib/server/recovery';
import { readValues } from '$lib/server/settings';
import { placeSeries } from '$lib/server/weather';
import { saveRoots } from '$lib/server/roots';
import { todayTreesKept } from '$lib/server/tree-lists';
import { headOf } from '$lib/server/tree-head';
import { defaultValues, resolveValues, valuesInForce, valuesKey } from '$core/values/values';
import { asTakenIn, rootsWith, storeWithTree } from './helpers';

const look = (firmness: 'firm' | 'loose') =>
	observationInput.parse({ observedOn: '2026-04-18', firmness, note: '' });

describe('the records of a tree', () => {
	it('are read once for as long as nothing of them is written, and are shared frozen', async () => {
		const { store, tree } = await storeWithTree();
		const first = await loadRecords(store.db, tree.id);
		expect(await loadRecords(store.db, tree.id)).toBe(first);
		expect(() => first.observations.push()).toThrow(TypeError);
		const { entryId } = await recordLook(store, tree.id, look('firm'));
		const second = await loadRecords(store.db, tree.id);
		expect(second.observations.map((one) => one.firmness)).toEqual(['firm']);
		await undo(store, entryId);
		expect((await loadRecords(store.db, tree.id)).observations).toEqual([]);
		store.close();
	});
	it('are read anew when another process wrote, or a person elsewhere changed kind or journal', async () => {
		const file = `file:${path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-two-')), 'yard.db')}`;
		const { store, tree } = await storeWithTree({}, file);
		const other = await openStore(file);
		expect((await loadRecords(store.db, tree.id)).observations).toEqual([]);
		await recordLook(other, tree.id, look('loose'), false);
		const seen = await loadRecords(store.db, tree.id);
		expect(seen.observations.map((one) => one.firmness)).toEqual(['loose']);
		expect(seen.journal).toHaveLength(2);
		other.close();
		store.close();
	});
	it('on Today are read anew half a minute after another process wrote, on another day at once, and never of another yard', async () => {
		const file = `file:${path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-two-')), 'yard.db')}`;
		const { store, tree } = await storeWithTree({}, file);
		const elsewhere = (await storeWithTree({ name: 'Elm elsewhere' })).store;
		const other = await openStore(file);
		const names = async (of = store, on = '2026-04-18') =>
			(await todayTreesKept(of, on)).map((one) => one.tree.name);
		vi.useFakeTimers({ toFake: ['Date'], now: Date.parse('2026-04-18T09:00:00Z') });
		try {
			expect(await names()).toEqual(['Beech by the gate']);
			await doWork(other, { treeId: tree.id, stage: 'take-in', what: 'Renamed' }, (work) =>
				work.change(trees, tree.id, tree.version, (before) => ({ ...before, name: 'Beech, renamed' }))
			);
			vi.setSystemTime(Date.parse('2026-04-18T09:00:29.999Z'));
			expect(await names()).toEqual(['Beech by the gate']);
			vi.setSystemTime(Date.parse('2026-04-18T09:00:30Z'));
			expect(await names()).toEqual(['Beech, renamed']);
			await doWork(other, { treeId: tree.id, stage: 'take-in', what: 'Renamed' }, (work) =>
				work.change(trees, tree.id, tree.version + 1, (before) => ({ ...before, name: 'Beech again' }))
			);
			expect(await names(store, '2026-04-19')).toEqual(['Beech again']);
			expect(await names(elsewhere, '2026-04-19')).toEqual(['Elm elsewhere']);
			expect(await names(store, '2026-04-19')).toEqual(['Beech again']);
		} finally {
			vi.useRealTimers();
			for (const one of [store, other, elsewhere]) one.close();
		}
	});
	it('begin every page with what was worked out once, anew after a write, on another day and by other numbers', async () => {
		const { store, tree } = await storeWithTree();
		const records = await loadRecords(store.db, tree.id);
		const head = headOf(records, '2026-04-18', defaultValues);
		expect(headOf(records, '2026-04-18', defaultValues)).toBe(head);
		expect(() => head.care.marks.pop()).toThrow(TypeError);
		expect(headOf(records, '2026-04-19', defaultValues).care.today).toBe('2026-04-19');
		expect(headOf(records, '2026-04-18', resolveValues())).not.toBe(head);
		await recordLook(store, tree.id, look('loose'));
		const after = headOf(await loadRecords(store.db, tree.id), '2026-04-18', defaultValues);
		expect([head.stands.firmness.value, after.stands.firmness.value]).toEqual([null, 'loose']);
		store.close();
	});
	it('rest on numbers that are one object and one key for as long as none of them is changed', () => {
		const own = { 'rootFunction.drift': 0.02 };
		expect(valuesInForce({ ...own })).toBe(valuesInForce({ ...own }));
		expect(valuesInForce(own)['rootFunction.drift']).toBe(0.02);
		expect(valuesKey(valuesInForce(own))).toBe(valuesKey(resolveValues(own)));
		expect(valuesKey(valuesInForce(own))).not.toBe(valuesKey(defaultValues));
	});
	it('are read anew when only the journal tells something new', async () => {
		const { store, tree } = await storeWithTree();
		const first = await loadRecords(store.db, tree.id);
		await store.db.$client.execute({
			sql: `insert into journal (id, treeId, at_instant, on_day, stage, what) select 'told', treeId, at_instant, on_day, stage, 'A cold night' from journal where treeId = ?`,
			args: [tree.id]
		});
		const second = await loadRecords(store.db, tree.id);
		expect(second.journal.map((entry) => entry.what)).toContain('A cold night');
		expect(second.journal).toHaveLength(first.journal.length + 1);
		store.close();
	});
	it('keep every number to its last digit', async () => {
		const { store, tree } = await storeWithTree();
		await fc.assert(
			fc.asyncProperty(fc.double({ min: 0.01, max: 5000, noNaN: true }), async (weightKg) => {
				const kept = await store.write(async (tx) => {
					const doc = { ...look('firm'), id: randomUUID(), version: 1, weightKg, leafCover: 1 / 3 };
					await observations.put(tx, tree.id, doc);
					return doc;
				});
				expect(await observations.get(store.db, kept.id)).toEqual(kept);
			}),
			{ numRuns: 60 }
		);
		store.close();
	});
	it('of many trees are the same as of each alone, in the same order', async () => {
		const { store, tree, placeId } = await storeWithTree();
		const { tree: other } = await takeIn(store, asTakenIn(tree, { tag: 'T-2', placeId }));
		for (const firmness of ['loose', 'firm'] as const)
			await recordLook(store, other.id, look(firmness), false);
		await saveRoots(store, tree.id, rootsWith(['r5']));
		const ids = [other.id, 'nobody', tree.id];
		const many = new Map((await readAll(store.db, ids)).map((records) => [records.tree.id, records]));
		expect([...many.keys()].sort()).toEqual([tree.id, other.id].sort());
		for (const id of [tree.id, other.id]) expect(many.get(id)).toEqual(await loadRecords(store.db, id));
		expect(many.get(other.id)?.observations.map((one) => one.firmness)).toEqual(['loose', 'firm']);
		expect(many.get(tree.id)?.rootMap?.segments).toHaveLength(6);
		store.close();
	});
	it('are let go of in the order in which nobody asked for them', () => {
		const memory = new Map<string, number>();
		for (const name of ['a', 'b', 'a', 'c']) keepIn(memory, name, 1, 2);
		expect([...memory.keys()]).toEqual(['a', 'c']);
	});
	it('of a write that was taken back are never remembered', async () => {
		const { store, tree } = await storeWithTree();
		await expect(
			doWork(store, { treeId: tree.id, stage: 'recovery', what: 'breaks' }, async (work) => {
				await work.add(observations, look('loose'));
				expect((await loadRecords(work.tx, tree.id)).observations).toHaveLength(1);
				throw new Refusal(409, 'no', 'no');
			})
		).rejects.toThrow(Refusal);
		// The next write counts to the same number as the one that was taken back.
		await store.write((tx) => observations.put(tx, tree.id, { ...look('firm'), id: 'kept', version: 1 }));
		expect((await loadRecords(store.db, tree.id)).observations.map((one) => one.firmness)).toEqual(['firm']);
		store.close();
	});
	it('are told in one place: every table that belongs to a tree is the home of a field of its case', async () => {
		const { store } = await storeWithTree();
		const { rows } = await store.db.$client.execute(
			"select m.name as name from sqlite_master m join pragma_table_info(m.name) c on c.name = 'treeId' where m.type = 'table'"
		);
		expect(Object.keys(ofTree).sort()).toEqual(Object.keys(treeRecordFields).sort());
		expect(
			rows
				.map((row) => String(row.name))
				.filter((name) => !['journal', 'tree_water', 'shared_link'].includes(name))
		).toHaveLength(Object.keys(ofTree).length);
		store.close();
	});
	it('of a new kind count the version of a case up, and are empty in an older one', () => {
		// Whoever adds a field here adds one to the version, so that an older Bruntle says why it cannot read the case.
		expect([CASE_VERSION, Object.keys(treeRecordFields).length]).toEqual([6, 19]);
		expect(upgradeCase({ version: 5, tree: {}, lifts: ['kept'] })).toMatchObject({
			version: 6,
			lifts: ['kept'],
			book: [],
			rehearsals: [],
			rootMap: null
		});
		// What says that it is of this version or a later one is left for the schema to judge.
		for (const version of [6, 7]) expect(upgradeCase({ version })).toEqual({ version });
	});
	it('of a table that is new are counted from the day it is there', async () => {
		const file = `file:${path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-new-')), 'yard.db')}`;
		const first = await openStore(file);
		await first.db.$client.execute('create table news (id text primary key, treeId text)');
		first.close();
		const store = await openStore(file);
		const count = async (): Promise<unknown> =>
			(await store.db.$client.execute("select count from revision where scope = 'tree:t'")).rows[0]?.count;
		await store.db.$client.execute("insert into news values ('a', 't')");
		expect(await count()).toBe(1);
		await store.db.$client.execute("update news set id = 'b'");
		await store.db.$client.execute('delete from news');
		expect(await count()).toBe(3);
		store.close();
	});
});

describe('a write that was reckoned before', () => {
	it('is reckoned anew where something was written meanwhile, and writes what holds then', async () => {
		const { store, tree } = await storeWithTree();
		const met: number[] = [];
		const { result } = await doReckoned(
			store,
			{ treeId: tree.id, stage: 'recovery', what: 'counts looks' },
			async (records) => {
				met.push(records.observations.length);
				if (met.length === 1) await recordLook(store, tree.id, look('firm'), false);
				return records.observations.length;
			},
			async (_work, looks) => looks
		);
		expect(met).toEqual([0, 1]);
		expect(result).toBe(1);
		store.close();
	});
	it('gives up with a word where it is written on all the time', async () => {
		const { store, tree } = await storeWithTree();
		await expect(
			doReckoned(
				store,
				{ treeId: tree.id, stage: 'recovery', what: 'never' },
				async () => void (await recordLook(store, tree.id, look('firm'), false)),
				async () => 'written'
			)
		).rejects.toThrow(/being written on/);
		store.close();
	});
	it('says the forecast that the look leads to, as if it stood already', async () => {
		const { store, tree } = await storeWithTree();
		const treeId = tree.id;
		await saveRoots(store, treeId, rootsWith(['r5']));
		const values = await readValues(store.db);
		for (const firmness of ['firm', 'loose'] as const) {
			await recordLook(store, treeId, look(firmness));
			const records = await loadRecords(store.db, treeId);
			const said = records.forecasts.at(-1);
			expect(await forecastSaid(store.db, records, 'look', '2026-04-18', values)).toMatchObject({
				probability: said?.probability,
				horizonOn: said?.horizonOn
			});
			const of = await recoveryOf(store.db, records, values);
			expect(of && decisionsOf(of, values).probability).toBeCloseTo(said?.probability ?? 0, 3);
		}
		store.close();
	});
});

describe('the weather of a span', () => {
	it('is worked out once until weather, places or values are written', async () => {
		const { store, placeId } = await storeWithTree();
		const values = await readValues(store.db);
		const of = async () =>
			(await placeSeries(store.db, '2026-04-01', '2026-04-18', values)).get(placeId)?.series;
		const first = await of();
		expect(first).toHaveLength(18);
		expect(await of()).toBe(first);
		await store.db.$client.execute({
			sql: 'update place set "elevationM" = 900 where id = ?',
			args: [placeId]
		});
		const second = await of();
		expect(second).not.toBe(first);
		expect(second?.[0]?.minC).not.toBe(first?.[0]?.minC);
		const third = (
			await placeSeries(store.db, '2026-04-01', '2026-04-18', { ...values, 'climate.lapseCPerKm': 9 })
		).get(placeId)?.series;
		expect(third).not.toBe(second);
		store.close();
	});
});
