import { eq, sql } from 'drizzle-orm';
import { addDays } from '../core/climate/calendar';
import { treeWater, type TreeWater } from '../core/water/tree-water';
import { waterStateOf, type WaterState } from '../core/water/water-state';
import type { Watering, WateringInput } from '../core/water/watering';
import type { Values } from '../core/values/values';
import { today } from './clock';
import type { Reader, Store } from './db/database';
import { jsonRows } from './db/json-rows';
import * as tables from './db/schema';
import { waterings } from './records/records';
import { doWork } from './records/work';
import { readOverrides } from './settings';
import { loadRecords, refuseDate, requireTree } from './trees';
import { placeSeries } from './weather';

/** Weather reaches back so far for the filter, and so far ahead. */
const BACK_DAYS = 400;
const AHEAD_DAYS = 21;

/** Everything about the water of one tree today; null for one in the ground or in a pot nobody wrote down. */
export async function waterOf(db: Reader, treeId: string, values: Values): Promise<TreeWater | null> {
	const on = today();
	const [records, series] = await Promise.all([
		loadRecords(db, treeId),
		placeSeries(db, addDays(on, -BACK_DAYS), addDays(on, AHEAD_DAYS), values)
	]);
	const here = series.get(records.tree.placeId);
	return here ? treeWater(records, here.place, here.series, on, values) : null;
}

export async function recordWatering(
	store: Store,
	treeId: string,
	input: WateringInput
): Promise<{ watering: Watering; entryId: string }> {
	const { result, entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'aftercare',
			on: input.wateredOn,
			what: `Watered${input.litres === null ? '' : `, ${Math.round(input.litres * 10) / 10} L`}`
		},
		async (work) => {
			refuseDate('wateredOn', input.wateredOn, await requireTree(work, treeId));
			return work.add(waterings, input);
		}
	);
	return { watering: result, entryId };
}

const { tree, journal, planting, treeWater: cache, weatherDay } = tables;

/** Potted trees in care whose water was reckoned from something else than what stands now. */
async function staleTrees(db: Reader, on: string): Promise<{ id: string; basis: string }[]> {
	const [weather] = await db
		.select({
			stamp: sql<string>`count(*) || '/' || coalesce(max(${weatherDay.on}), '') || '/' || coalesce(round(sum(${weatherDay.minC} * 7 + ${weatherDay.maxC} * 3), 1), '')`
		})
		.from(weatherDay);
	const own = JSON.stringify(await readOverrides(db));
	const rows = await jsonRows<{ id: string; basis: string; known: string | null }>(
		db,
		{
			id: tree.id,
			basis: sql`${on} || '|' || ${own} || '|' || ${weather?.stamp ?? ''} || '|' || coalesce((select max(${journal.at}) || count(*) from ${journal} where ${journal.treeId} = ${tree.id}), '')`,
			known: cache.basis
		},
		sql`from ${tree} left join ${cache} on ${cache.treeId} = ${tree.id} where ${tree.state} = 'in-care' and ${tree.situation} <> 'in-ground' and exists (select 1 from ${planting} where ${planting.treeId} = ${tree.id})`
	);
	return rows.filter((row) => row.basis !== row.known).map(({ id, basis }) => ({ id, basis }));
}

let running: Promise<void> | null = null;
/** When nothing was stale: looked for again after a write, on another day, or after a while, since others may write too. */
let clean: { store: Store; on: string; writes: number; at: number } | null = null;
const LOOK_AGAIN_MS = 60_000;

/** Reckons the water of trees anew where something changed; waits for at most `most` of them, the rest follow. */
export async function refreshWater(store: Store, values: Values, most = 40): Promise<void> {
	const on = today();
	if (
		clean?.store === store &&
		clean.on === on &&
		clean.writes === store.writes() &&
		Date.now() - clean.at < LOOK_AGAIN_MS
	)
		return;
	const writes = store.writes();
	const stale = await staleTrees(store.db, on);
	if (stale.length === 0) {
		clean = { store, on, writes, at: Date.now() };
		return;
	}
	const series = await placeSeries(store.db, addDays(on, -BACK_DAYS), addDays(on, AHEAD_DAYS), values);
	const reckon = async (list: readonly { id: string; basis: string }[]): Promise<void> => {
		const states: { treeId: string; basis: string; state: WaterState | null }[] = [];
		for (const { id, basis } of list) {
			const records = await loadRecords(store.db, id);
			const here = series.get(records.tree.placeId);
			const water = here ? treeWater(records, here.place, here.series, on, values) : null;
			states.push({ treeId: id, basis, state: water ? waterStateOf(water) : null });
		}
		await store.write(async (tx) => {
			for (const { treeId, basis, state } of states)
				if (state)
					await tx
						.insert(cache)
						.values({ treeId, basis, state })
						.onConflictDoUpdate({ target: cache.treeId, set: { basis, state } });
				else await tx.delete(cache).where(eq(cache.treeId, treeId));
		});
	};
	await reckon(stale.slice(0, most));
	const rest = stale.slice(most);
	if (rest.length === 0 || running) return;
	running = (async () => {
		for (let i = 0; i < rest.length; i += 50) await reckon(rest.slice(i, i + 50));
	})()
		.catch((cause: unknown) => console.error(cause))
		.finally(() => {
			running = null;
		});
}

/** Water of all trees as last reckoned. */
export async function waterStates(db: Reader): Promise<Map<string, WaterState>> {
	const rows = await jsonRows<{ treeId: string; state: string }>(
		db,
		{ treeId: cache.treeId, state: cache.state },
		sql`from ${cache}`
	);
	return new Map(
		rows.map((row) => [
			row.treeId,
			(typeof row.state === 'string' ? JSON.parse(row.state) : row.state) as WaterState
		])
	);
}
