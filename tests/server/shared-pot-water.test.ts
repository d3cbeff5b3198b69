import { sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { treeWater } from '$lib/server/db/schema';
import { lessWaterOfMate, movesOfNeighbours, waterOf, recordWatering } from '$lib/server/water';
import { recordExamination } from '$lib/server/examine';
import { headOf } from '$lib/server/tree-head';
import { recordPlanting } from '$lib/server/replant';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { plantingOn } from '../records';
import { refreshWater, waterStates } from '$lib/server/kept-water';
import { closeTask, doTogether } from '$lib/server/aftercare';
import { exportCase } from '$lib/server/case-file';
import { undo } from '$lib/server/records/work';
import { loadRecords } from '$lib/server/records/tree-records';
import { changeTree, takeIn } from '$lib/server/trees';
import { tasks } from '$lib/server/records/records';
import { openTask } from '$lib/server/task-work';
import { taskInput } from '$core/vocabulary/task';
import { defaultValues as values } from '$core/values/values';
import { standingOf } from '$core/tree/standing';
import { firstWaterOfPot, ofThePot } from '$core/tree/shared-pot';
import { wateringInput } from '$core/aftercare/water/watering';
import { addDays } from '$core/maths/calendar';
import { today } from '$lib/server/clock';
import { asTakenIn, storeWithTree } from './helpers';

/** Two trees in one trough, and a third that stands alone. */
async function trough() {
	const { store, tree: one } = await storeWithTree({
		situation: 'potted',
		sharedPot: 'Long trough',
		heightM: 1
	});
	const { tree: two } = await takeIn(store, { ...asTakenIn(one, { tag: 'T-2' }), sharedPot: 'long trough ' });
	const { tree: alone } = await takeIn(store, asTakenIn(one, { tag: 'T-3', sharedPot: '' }));
	return { store, one, two, alone };
}
const poured = (wateredOn: string, change: object = {}) => wateringInput.parse({ wateredOn, ...change });

describe('a shared pot', () => {
	it('holds the trees that stand in it, not one that was lifted out or lost', async () => {
		const { store, one, two } = await trough();
		const mates = async () => (await loadRecords(store.db, one.id)).mates.map((mate) => mate.tree.tag);
		expect(await mates()).toEqual(['T-2']);
		await changeTree(store, two.id, two.version, { ...asTakenIn(two), situation: 'just-lifted' });
		expect(await mates()).toEqual([]);
	});
	it('is one: what is poured or weighed for one tree is so for all of them, and for nobody else', async () => {
		const { store, one, two, alone } = await trough();
		expect((await loadRecords(store.db, two.id)).mates.map((mate) => mate.tree.tag)).toEqual(['T-1']);
		expect((await loadRecords(store.db, alone.id)).mates).toEqual([]);
		const before = await waterOf(store.db, two.id, values);
		expect(before.pot?.knownOn).toBeNull();
		await recordWatering(store, one.id, poured('2026-04-16', { litres: 40 }));
		const [a, b] = [await waterOf(store.db, one.id, values), await waterOf(store.db, two.id, values)];
		expect(b.pot?.knownOn).toBe('2026-04-16');
		expect(b.pot?.stores).toEqual(a.pot?.stores);
		expect(b.pot?.next.dryness).toBeCloseTo(a.pot?.next.dryness ?? NaN, 9);
		expect(standingOf(await loadRecords(store.db, two.id), today(), values).waterSeen.value).toBe(
			'2026-04-16'
		);
		expect((await waterOf(store.db, alone.id, values)).pot?.knownOn).toBeNull();
		// Both crowns drink from it.
		expect(b.pot?.stores.crownM2).toBeCloseTo((2 * (before.pot?.stores.crownM2 ?? 0)) / 2, 9);
		const single = (await waterOf(store.db, alone.id, values)).pot?.stores.crownM2 ?? 0;
		expect(b.pot?.stores.crownM2).toBeCloseTo(2 * single, 9);
		// Each case keeps its own: nothing is written twice, and nothing of a mate leaves with it.
		expect((await loadRecords(store.db, two.id)).waterings).toEqual([]);
		const written = await exportCase(store.db, two.id);
		expect(written.waterings).toEqual([]);
		expect(written).not.toHaveProperty('mates');
	});
	it('a watering closes the work that asked for it on every tree of the pot, and is taken back with it', async () => {
		const { store, one, two, alone } = await trough();
		for (const tree of [one, two, alone])
			await store.write((tx) =>
				tasks.put(tx, tree.id, {
					...taskInput.parse({ kind: 'water', title: 'Water it', fromOn: '2026-04-10', toOn: '2026-04-20' }),
					...openTask,
					source: 'first-water@2026-04-10',
					id: `w-${tree.tag}`,
					version: 1
				})
			);
		const states = async () =>
			Promise.all(
				[one, two, alone].map(async (tree) => (await loadRecords(store.db, tree.id)).tasks[0]?.state)
			);
		const { entryIds } = await recordWatering(store, one.id, poured(today()));
		expect(await states()).toEqual(['done', 'done', 'open']);
		await undo(store, ...entryIds);
		expect(await states()).toEqual(['open', 'open', 'open']);
		// Together: one pot, one pouring.
		await doTogether(
			store,
			{ tasks: [], waterings: [one, two, alone].map((tree) => ({ treeId: tree.id, litres: null })) },
			today()
		);
		expect(await states()).toEqual(['done', 'done', 'done']);
		const counts = await Promise.all(
			[one, two, alone].map(async (tree) => (await loadRecords(store.db, tree.id)).waterings.length)
		);
		expect(counts).toEqual([1, 0, 1]);
	});
	it('a tick on a task that asked for water waters the pot once, and closes it for all', async () => {
		const { store, one, two, alone } = await trough();
		for (const tree of [one, two, alone])
			for (const [rule, kind] of [
				['first-water', 'water'],
				['turning', 'turning']
			] as const)
				await store.write((tx) =>
					tasks.put(tx, tree.id, {
						...taskInput.parse({ kind, title: 'Do it', fromOn: '2026-04-10', toOn: '2026-04-20' }),
						...openTask,
						source: `${rule}@2026-04-10`,
						id: `${rule}-${tree.tag}`,
						version: 1
					})
				);
		const all = async () => {
			const records = await Promise.all([one, two, alone].map((tree) => loadRecords(store.db, tree.id)));
			return {
				water: records.map(({ tasks: list }) => list.find((task) => task.kind === 'water')?.state),
				poured: records.map(({ waterings }) => waterings.length)
			};
		};
		const open = { water: ['open', 'open', 'open'], poured: [0, 0, 0] };
		const entries = await closeTask(store, one.id, {
			taskId: 'first-water-T-1',
			version: 1,
			state: 'done',
			skipReason: '',
			on: today(),
			found: { kind: 'watering', litres: 4 }
		});
		expect(await all()).toEqual({ water: ['done', 'done', 'open'], poured: [1, 0, 0] });
		await undo(store, ...entries);
		expect(await all()).toEqual(open);
		const ticked = async (...named: [string, string][]) =>
			Promise.all(
				named.map(async ([treeId, taskId]) => ({
					treeId,
					taskId,
					version: (await tasks.get(store.db, taskId))?.version ?? 0
				}))
			);
		// Other work of a mate ticked beside it is no reason to leave its water open.
		const together = await doTogether(
			store,
			{ tasks: await ticked([one.id, 'first-water-T-1'], [two.id, 'turning-T-2']), waterings: [] },
			today()
		);
		expect(await all()).toEqual({ water: ['done', 'done', 'open'], poured: [1, 0, 0] });
		await undo(store, ...together);
		expect(await all()).toEqual(open);
		await doTogether(
			store,
			{
				tasks: await ticked([one.id, 'first-water-T-1'], [two.id, 'first-water-T-2']),
				waterings: [
					{ treeId: two.id, litres: null },
					{ treeId: alone.id, litres: null }
				]
			},
			today()
		);
		expect(await all()).toEqual({ water: ['done', 'done', 'done'], poured: [1, 0, 1] });
	});
	it('on Today a mate is reckoned anew when its pot was watered', async () => {
		const { store, one, two } = await trough();
		await refreshWater(store, values);
		expect((await waterStates(store.db)).get(two.id)?.lastWaterOn).toBeNull();
		await recordWatering(store, one.id, poured('2026-04-17'));
		await refreshWater(store, values);
		expect((await waterStates(store.db)).get(two.id)?.lastWaterOn).toBe('2026-04-17');
	});
	it('that nobody wrote down is assumed to hold the balls of all that stand in it', async () => {
		const { store, one, two, alone } = await trough();
		const held = async (id: string) => {
			const { rootedMostL, unrootedMostL } = (await waterOf(store.db, id, values)).pot?.stores ?? {
				rootedMostL: NaN,
				unrootedMostL: NaN
			};
			return rootedMostL + unrootedMostL;
		};
		expect((await held(one.id)) / (await held(alone.id))).toBeCloseTo(2, 1);
		// A thicker mate takes more of it, and by whichever of them it is asked it is as large.
		await changeTree(store, two.id, two.version, {
			...asTakenIn(two),
			trunkDiameterMm: 2 * two.trunkDiameterMm
		});
		expect((await held(one.id)) / (await held(alone.id))).toBeCloseTo(9, 0);
		expect((await held(two.id)) / (await held(one.id))).toBeCloseTo(1, 1);
	});
	it('that is sour for one of them is watered less for all, until that one is planted anew', async () => {
		const { store, one, two, alone } = await trough();
		const less = async (id: string) =>
			lessWaterOfMate(store.db, await loadRecords(store.db, id), today(), values);
		expect(await less(two.id)).toBeNull();
		await recordExamination(
			store,
			one.id,
			examinationInput.parse({
				examinedOn: today(),
				findings: [{ signId: 'sour-smell', grade: 2, measuredBy: null }]
			})
		);
		expect(await less(two.id)).toMatchObject({ tag: 'T-1', subject: 'A sour, airless root zone is' });
		expect([await less(one.id), await less(alone.id)]).toEqual([null, null]);
		const { id: _id, version: _version, ...planting } = plantingOn(today());
		const plant = (id: string) =>
			recordPlanting(store, id, planting, { waterSchool: 'at-once', fromStock: null }, values);
		// What is set beside it lets no air to its roots.
		await plant(two.id);
		expect(await less(two.id)).toMatchObject({ tag: 'T-1' });
		await plant(one.id);
		expect(await less(two.id)).toBeNull();
	});
	it('that presses for more water holds back nobody', async () => {
		const { store, one, two } = await trough();
		await recordExamination(
			store,
			one.id,
			examinationInput.parse({
				examinedOn: today(),
				findings: [
					{ signId: 'wilts-dry', grade: 1, measuredBy: null },
					{ signId: 'water-beads', grade: 1, measuredBy: null }
				]
			})
		);
		const { urgent } = headOf(await loadRecords(store.db, one.id), today(), values);
		expect(urgent?.water).toBe('more');
		expect(await lessWaterOfMate(store.db, await loadRecords(store.db, two.id), today(), values)).toBeNull();
	});
	it('is compared with what stands in other pots of its place alone', async () => {
		const { store, one, two, alone } = await trough();
		await refreshWater(store, values);
		for (const [id, move] of [
			[one.id, 0.5],
			[two.id, 0.6],
			[alone.id, 0.9]
		] as const)
			await store.db.run(
				sql`update ${treeWater} set ${sql.identifier('state')} = json_set(${treeWater.state}, '$.move', ${move}) where ${treeWater.treeId} = ${id}`
			);
		const moves = async (id: string) => {
			const records = await loadRecords(store.db, id);
			return (await movesOfNeighbours(store.db, records, records.tree.placeId)).sort();
		};
		expect(await moves(one.id)).toEqual([0.9]);
		expect(await moves(two.id)).toEqual([0.9]);
		expect(await moves(alone.id)).toEqual([0.5, 0.6]);
	});
	it('has one first water: what waits for it by the work on one tree is that of the next', async () => {
		const { store, one, two, alone } = await trough();
		const { id: _id, version: _version, ...planting } = plantingOn(today());
		const plant = (id: string, waterSchool: 'at-once' | 'dry-rest') =>
			recordPlanting(store, id, planting, { waterSchool, fromStock: null }, values);
		const firstOf = async (id: string) => {
			const { tasks: list } = await loadRecords(store.db, id);
			return list.flatMap((task) =>
				task.source.startsWith('first-water@')
					? [{ kind: task.kind, from: task.fromOn, to: task.toOn, reason: task.reason, state: task.state }]
					: []
			);
		};
		await plant(one.id, 'dry-rest');
		await plant(two.id, 'at-once');
		await plant(alone.id, 'at-once');
		const [first] = await firstOf(one.id);
		expect(first?.kind).toBe('dry-rest');
		expect(await firstOf(two.id)).toEqual([
			{ ...first, reason: 'One pot has one first water: that which was planned for T-1.' }
		]);
		expect((await firstOf(alone.id)).map(({ kind }) => kind)).toEqual(['water']);
		// Work of before it, or of long after, waits for none of it.
		const records = await loadRecords(store.db, two.id);
		const waits = (on: string) => firstWaterOfPot(records, on)?.tag ?? null;
		expect([addDays(today(), -1), today(), first?.to ?? '', addDays(first?.to ?? '', 1)].map(waits)).toEqual([
			null,
			'T-1',
			'T-1',
			null
		]);
		// Given, it holds nobody any more.
		await recordWatering(store, one.id, poured(today()));
		expect((await firstOf(two.id)).map(({ state }) => state)).toEqual(['done']);
		expect(firstWaterOfPot(await loadRecords(store.db, two.id), today())).toBeNull();
	});
	it('that rests for one of them is not watered for the others', async () => {
		const { store, one, two, alone } = await trough();
		const { id: _id, version: _version, ...planting } = plantingOn(today());
		await recordPlanting(store, one.id, planting, { waterSchool: 'dry-rest', fromStock: null }, values);
		const rest = async (id: string) => (await waterOf(store.db, id, values)).pot?.restUntil;
		expect(await rest(one.id)).toBe(addDays(today(), values['aftercare.dryRestFrom']));
		expect([await rest(two.id), await rest(alone.id)]).toEqual([await rest(one.id), null]);
	});
	it('leaves a tree without mates as it is', async () => {
		const { store, alone } = await trough();
		const records = await loadRecords(store.db, alone.id);
		expect(ofThePot(records)).toBe(records);
	});
});
