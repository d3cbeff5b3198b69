import { sql } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { placeInput } from '$core/vocabulary/place';
import { kindInput } from '$core/vocabulary/kind';
import { observationInput } from '$core/examine/looks/observation';
import { defaultValues } from '$core/values/values';
import { wateringInput } from '$core/aftercare/water/watering';
import type { Store } from '$lib/server/db/database';
import { treeWater } from '$lib/server/db/schema';
import { kinds, places } from '$lib/server/records/records';
import { undo } from '$lib/server/records/work';
import { recordLook } from '$lib/server/recovery';
import { saveRoots } from '$lib/server/roots';
import { overrideValues, readValues } from '$lib/server/settings';
import { seedKinds } from '$lib/server/store';
import { changeTree, takeIn } from '$lib/server/trees';
import { recordWatering, waterOf } from '$lib/server/water';
import { refreshWater, waterStates } from '$lib/server/kept-water';
import { keepWeather } from '$lib/server/weather';
import { changeKind, changePlace } from '$lib/server/yard';
import { asTakenIn, rootsWith, storeWithTree } from './helpers';

/** What is kept of a tree's water, once what is stale was reckoned anew. */
async function keptOf(store: Store, treeId: string) {
	await refreshWater(store, await readValues(store.db));
	return (await waterStates(store.db)).get(treeId);
}
const basisOf = async (store: Store, treeId: string): Promise<string | undefined> => {
	await refreshWater(store, await readValues(store.db));
	const rows = await store.db.select().from(treeWater);
	return rows.find((row) => row.treeId === treeId)?.basis;
};

describe('a kept result holds while what it was worked out from stands', () => {
	it('every table that belongs to a tree counts its writes, but the results themselves', async () => {
		const { store } = await storeWithTree();
		const { rows } = await store.db.$client.execute(
			`select m.name as name, (select count(*) from sqlite_master t where t.type = 'trigger' and t.tbl_name = m.name) as triggers
			from sqlite_master m join pragma_table_info(m.name) c where m.type = 'table' and c.name = 'treeId' order by m.name`
		);
		const uncounted = rows.filter((row) => row.triggers !== 3).map((row) => row.name);
		expect(uncounted).toEqual(['tree_water']);
		expect(rows.length).toBeGreaterThan(18);
	});
	it('the numbers in force are one object until one is changed, and cannot be written on', async () => {
		const { store } = await storeWithTree({ situation: 'potted' });
		const before = await readValues(store.db);
		expect(await readValues(store.db)).toBe(before);
		await overrideValues(store, { 'water.firstWordDays': 31 });
		const after = await readValues(store.db);
		expect([before['water.firstWordDays'], after['water.firstWordDays']]).toEqual([30, 31]);
		expect(await readValues(store.db)).toBe(after);
		expect(Object.isFrozen(after)).toBe(true);
		await overrideValues(store, { 'water.firstWordDays': null });
		expect((await readValues(store.db))['water.firstWordDays']).toBe(30);
	});
	it('follows each thing it rests on, whoever wrote it, and nothing else', async () => {
		const { store, tree, placeId } = await storeWithTree({ situation: 'potted', heightM: 1 });
		const { tree: twin } = await takeIn(store, asTakenIn(tree, { tag: 'T-2', sharedPot: '' }));
		const { tree: other } = await takeIn(store, asTakenIn(tree, { tag: 'T-3', kindId: 'carpinus' }));
		await changeTree(store, tree.id, tree.version, { ...asTakenIn(tree), referenceTreeId: twin.id });
		const values = await readValues(store.db);
		const rainDay = (rainMm: number) => ({
			placeId,
			on: '2026-04-17',
			source: 'station' as const,
			from: 'gauge',
			minC: 5,
			maxC: 15,
			humidityPercent: null,
			windMs: null,
			gustMs: null,
			sunMj: null,
			rainMm
		});
		const writes: [string, () => Promise<unknown>][] = [
			[
				'a watering',
				() => recordWatering(store, tree.id, wateringInput.parse({ wateredOn: '2026-04-10', litres: 2 }))
			],
			['weather', () => keepWeather(store, [rainDay(1)], values)],
			['rain that was corrected', () => keepWeather(store, [rainDay(25)], values)],
			[
				'shelter of its place',
				async () => {
					const place = await places.get(store.db, placeId);
					if (!place) throw new Error('no place');
					return changePlace(
						store,
						placeId,
						place.version,
						placeInput.parse({ name: place.name, kind: 'greenhouse', latitudeDeg: 52 })
					);
				}
			],
			[
				'the months of its place',
				async () => {
					const place = await places.get(store.db, placeId);
					if (!place) throw new Error('no place');
					const { id: _id, version, ...input } = place;
					return changePlace(store, placeId, version, { ...input, coldestMonthC: 5, warmestMonthC: 24 });
				}
			],
			[
				'the trigger of its kind',
				async () => {
					const kind = await kinds.get(store.db, tree.kindId);
					if (!kind) throw new Error('no kind');
					const { id: _id, version, origin: _origin, ...input } = kind;
					return changeKind(store, tree.kindId, version, kindInput.parse({ ...input, wetnessTrigger: 0.31 }));
				}
			],
			[
				'a working value',
				() => overrideValues(store, { 'water.ballHeld': defaultValues['water.ballHeld'] * 0.9 })
			],
			['a first map', () => saveRoots(store, tree.id, rootsWith())],
			[
				'a look at its twin',
				() =>
					recordLook(
						store,
						twin.id,
						observationInput.parse({ observedOn: '2026-04-17', shootExtensionMm: 90 })
					)
			]
		];
		let [before, aside] = [await basisOf(store, tree.id), await basisOf(store, other.id)];
		for (const [what, write] of writes) {
			await write();
			const after = await basisOf(store, tree.id);
			expect(after, what).not.toBe(before);
			before = after;
			const own = await waterOf(store.db, tree.id, await readValues(store.db));
			expect((await keptOf(store, tree.id))?.dryness, what).toBe(own.pot?.next.dryness ?? null);
		}
		// Its own records, and those of its twin, say nothing of a third.
		const { result } = await saveTwice(store, tree.id);
		expect(result).toBe(true);
		expect((await basisOf(store, other.id))?.split('|')[6]).toBe(aside?.split('|')[6]);
		// The shipped kinds are written at each start: the same again is no change.
		aside = await basisOf(store, other.id);
		await seedKinds(store);
		expect(await basisOf(store, other.id)).toBe(aside);
	});
	it('follows the mates of a pot: what is done to one, who leaves it and who comes to it', async () => {
		const { store, tree: one } = await storeWithTree({
			situation: 'potted',
			heightM: 1,
			sharedPot: 'Long trough'
		});
		const { tree: two } = await takeIn(store, asTakenIn(one, { tag: 'T-2', sharedPot: ' long trough' }));
		const { tree: apart } = await takeIn(store, asTakenIn(one, { tag: 'T-3', sharedPot: '' }));
		const steps: [string, () => Promise<unknown>][] = [
			[
				'a mate was watered',
				() => recordWatering(store, two.id, wateringInput.parse({ wateredOn: '2026-04-10', litres: 2 }))
			],
			[
				'a mate left the pot',
				() => changeTree(store, two.id, two.version, asTakenIn(two, { sharedPot: '' }))
			],
			[
				'another came to it',
				() => changeTree(store, apart.id, apart.version, asTakenIn(apart, { sharedPot: 'LONG TROUGH' }))
			]
		];
		let before = await basisOf(store, one.id);
		for (const [what, step] of steps) {
			// Once nothing is stale, only what was written on is looked through.
			await basisOf(store, one.id);
			await step();
			const after = await basisOf(store, one.id);
			expect(after, what).not.toBe(before);
			before = after;
		}
	});
	it('what was undone and written anew at one instant is not taken for the first', async () => {
		const { store, tree } = await storeWithTree({ situation: 'potted', heightM: 1 });
		const pour = (litres: number) =>
			recordWatering(store, tree.id, wateringInput.parse({ wateredOn: '2026-04-17', litres }));
		const { entryId } = await pour(0.1);
		const little = (await keptOf(store, tree.id))?.dryness;
		await undo(store, entryId);
		await pour(40);
		expect((await keptOf(store, tree.id))?.dryness).not.toBe(little);
	});
});

/** Maps twice on one day: the journal tells it once. */
async function saveTwice(store: Store, treeId: string): Promise<{ result: boolean }> {
	const before = await basisOf(store, treeId);
	const { rows } = await store.db.$client.execute({
		sql: 'select version from root_map where treeId = ?',
		args: [treeId]
	});
	const plan = await store.db.get<{ version: number }>(
		sql`select version from reduction_plan where "treeId" = ${treeId}`
	);
	await saveRoots(store, treeId, {
		...rootsWith(['r0']),
		mapVersion: Number(rows[0]?.version),
		planVersion: plan?.version ?? null
	});
	return { result: (await basisOf(store, treeId)) !== before };
}
