import { measured } from '../core/text/measured';
import { inArray, sql, type SQL } from 'drizzle-orm';
import type { AnySQLiteColumn } from 'drizzle-orm/sqlite-core';
import { answeredByWatering, tasksAnswered } from '../core/aftercare/tasks/result';
import { nightsUnderCover } from '../core/aftercare/book/effects';
import { addDays } from '../core/maths/calendar';
import { standingKept, type StandingKept } from '../core/tree/kept';
import { gateOf } from '../core/tree/gate';
import { lastRootWork } from '../core/tree/losses';
import { plannedWork } from '../core/tree/planned';
import { standingOf } from '../core/tree/standing';
import { urgentOf } from '../core/tree/urgent';
import { aboutKg, unlikelyKg } from '../core/tree/weights';
import { fallWords } from '../core/aftercare/water/forecast';
import { treeGroundWater } from '../core/tree/ground-water';
import type { DeviceDay } from '../core/aftercare/water/pot-state';
import { treeWater } from '../core/tree/tree-water';
import {
	groundStateOf,
	waterStateOf,
	type FunctionLow,
	type WaterOfTree,
	type WaterState
} from '../core/tree/water-state';
import type { Watering, WateringInput } from '../core/aftercare/water/watering';
import type { TreeRecords } from '../core/tree/case';
import type { Values } from '../core/values/values';
import { today } from './clock';
import type { Reader, Store } from './db/database';
import { jsonRows } from './db/json-rows';
import { recordsKey, written } from './db/revisions';
import * as tables from './db/schema';
import { tasks, trees, waterings } from './records/records';
import { doWork, doWorks, type Piece, type Work } from './records/work';
import { invalid, notFound } from './errors';
import { readValues } from './settings';
import { closeAnswered } from './task-work';
import { loadRecords, matesInPot, readAll } from './records/tree-records';
import { referenceShootMm, refuseCare, requireTree } from './trees';
import { placeSeries } from './weather';

/** Weather reaches back so far for the filter, and so far ahead. */
const BACK_DAYS = 400;
const AHEAD_DAYS = 21;

/** Last reading of each day of the scales and probes that belong to trees, by tree. */
async function deviceDays(
	db: Reader,
	treeIds: readonly string[],
	from: string
): Promise<Map<string, DeviceDay[]>> {
	const { device, reading } = tables;
	const days = await jsonRows<DeviceDay & { treeId: string; at: string }>(
		db,
		{
			treeId: device.onTreeId,
			on: sql`substr(${reading.at}, 1, 10)`,
			kind: device.kind,
			value: sql`coalesce(${reading.weightKg}, ${reading.moisture})`,
			at: sql`max(${reading.at})`
		},
		sql`from ${device} join ${reading} on ${reading.deviceId} = ${device.id}
			where ${inArray(device.onTreeId, [...treeIds])} and ${reading.at} >= ${from} and coalesce(${reading.weightKg}, ${reading.moisture}) is not null
			group by ${device.id}, substr(${reading.at}, 1, 10) order by ${reading.at}`
	);
	const of = new Map<string, DeviceDay[]>();
	for (const { treeId, on, kind, value } of days)
		of.set(treeId, [...(of.get(treeId) ?? []), { on, kind, value }]);
	return of;
}

/** Everything about the water of one tree today; neither where it stands in a pot nobody wrote down. */
export const waterOf = async (db: Reader, treeId: string, values: Values): Promise<WaterOfTree> =>
	waterFor(db, await loadRecords(db, treeId), values);

/** The same of records in hand, or of what they are to be. */
export async function waterFor(db: Reader, records: TreeRecords, values: Values): Promise<WaterOfTree> {
	const on = today();
	const from = addDays(on, -BACK_DAYS);
	const treeId = records.tree.id;
	const [series, devices] = await Promise.all([
		placeSeries(db, from, addDays(on, AHEAD_DAYS), values),
		deviceDays(db, [treeId], from)
	]);
	const here = series.get(records.tree.placeId);
	if (!here || records.tree.state !== 'in-care') return { pot: null, ground: null, fall: '' };
	const pot = treeWater(records, here.place, here.series, on, values, devices.get(treeId) ?? []);
	return {
		pot,
		ground: treeGroundWater(records, here.place, here.series, on, values),
		fall: pot?.fall
			? fallWords(pot.fall, await movesOfNeighbours(db, treeId, records.tree.placeId), values)
			: ''
	};
}

/** How root function of the weighed trees of a place moved, without one of them. */
async function movesOfNeighbours(db: Reader, treeId: string, placeId: string): Promise<number[]> {
	const rows = await jsonRows<{ move: number }>(
		db,
		{ move: sql`json_extract(${cache.state}, '$.move')` },
		sql`from ${cache} join ${tree} on ${tree.id} = ${cache.treeId}
			where ${tree.placeId} = ${placeId} and ${tree.id} <> ${treeId} and json_extract(${cache.state}, '$.move') is not null`
	);
	return rows.map((row) => row.move);
}

/** @param corrects a watering that is written anew in its place */
export async function recordWatering(
	store: Store,
	treeId: string,
	input: WateringInput,
	corrects: { id: string; version: number } | null = null
): Promise<{ watering: Watering; entryId: string; entryIds: string[] }> {
	const { told, work } = wateringPiece(treeId, input, corrects);
	const mates = corrects
		? []
		: await matePieces(store.db, [treeId], input.wateredOn, answeredByWatering(input));
	let watering: Watering | undefined;
	const entryIds = await doWorks(store, [
		{ told, work: async (running) => void (watering = await work(running)) },
		...mates
	]);
	const [entryId] = entryIds;
	if (!watering || entryId === undefined) throw new Error('a watering was not kept');
	return { watering, entryId, entryIds };
}

/** Watered with its pot: for each mate in a shared pot the work that asked for it is closed. */
export async function matePieces(
	db: Reader,
	treeIds: readonly string[],
	on: string,
	answers: Parameters<typeof closeAnswered>[2]
): Promise<Piece[]> {
	const pieces: Piece[] = [];
	const met = new Set(treeIds);
	for (const id of treeIds) {
		const own = await trees.get(db, id);
		for (const mate of own ? await matesInPot(db, own) : []) {
			if (met.has(mate.id)) continue;
			met.add(mate.id);
			// Where nothing asked for it there is nothing to close, and nothing to tell.
			if (tasksAnswered(await tasks.list(db, mate.id), answers, on).length === 0) continue;
			pieces.push({
				told: {
					treeId: mate.id,
					stage: 'aftercare',
					on,
					what: `Watered with its pot, by ${own?.tag ?? ''}`
				},
				work: (running) => closeAnswered(running, mate.id, answers, on)
			});
		}
	}
	return pieces;
}

/** Takes a watering out that was written by mistake; undo brings it back. @throws Refusal 404, 409 */
export async function removeWatering(
	store: Store,
	treeId: string,
	id: string,
	version: number
): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId, stage: 'aftercare', what: 'Took a watering out' },
		async (work) => {
			if (!(await waterings.list(work.tx, treeId)).some((one) => one.id === id)) throw notFound('watering');
			return work.remove(waterings, id, version);
		}
	);
	return entryId;
}

/** A weight far from what its pot is known to weigh is asked for again. @throws Refusal 422 */
async function refuseUnlikelyKg(
	work: Work,
	treeId: string,
	{ field, kg, on, exceptId }: { field: string; kg: number | null; on: string; exceptId: string | null }
): Promise<void> {
	if (kg === null) return;
	const values = await readValues(work.tx);
	refuseUnlikely(await loadRecords(work.tx, treeId), { field, kg, on, exceptId }, values);
}

/** The same against records in hand. @throws Refusal 422 */
export function refuseUnlikely(
	records: TreeRecords,
	{ field, kg, on, exceptId }: { field: string; kg: number; on: string; exceptId: string | null },
	values: Values
): void {
	const message = unlikelyKg(kg, aboutKg(records, on, exceptId, values), values);
	if (message !== null) throw invalid([{ field, message }]);
}

/** A watering as a piece of work, alone or with others. */
export const wateringPiece = (
	treeId: string,
	input: WateringInput,
	corrects: { id: string; version: number } | null = null
): Piece<Watering> => ({
	told: {
		treeId,
		stage: 'aftercare',
		on: input.wateredOn,
		what: `${corrects ? 'Corrected: watered' : 'Watered'}${input.litres === null ? '' : `, ${measured(input.litres, 'L')}`}`
	},
	work: async (work) => {
		refuseCare('wateredOn', input.wateredOn, await requireTree(work, treeId));
		if (input.note === '')
			for (const [field, kg] of [
				['beforeKg', input.beforeKg],
				['afterKg', input.afterKg]
			] as const)
				await refuseUnlikelyKg(work, treeId, {
					field,
					kg,
					on: input.wateredOn,
					exceptId: corrects?.id ?? null
				});
		await closeAnswered(work, treeId, answeredByWatering(input), input.wateredOn);
		if (!corrects) return work.add(waterings, input);
		if (!(await waterings.list(work.tx, treeId)).some((one) => one.id === corrects.id))
			throw notFound('watering');
		return work.change(waterings, corrects.id, corrects.version, (before) => ({ ...before, ...input }));
	}
});

const { tree, treeWater: cache, device, reading } = tables;

/** The reckoning itself, counted up where it changes what it gives. */
const RECKONING = 15;
/**
 * What the water and the standing of a tree are worked out from, as one key: the day, the working values, the weather, the places (its
 * shelter, and the stations that serve it), its kind, its own records, those of its mates in a shared pot and of its twin, and its devices.
 * A kept result holds while its key does.
 */
const basis = (on: string): SQL => {
	const devices = sql`(select group_concat(known) from (select d."id" || ':' || ${written(sql`'device:' || d."id"`)} || ':' || coalesce(substr(max(r."at_instant"), 1, 13), '') as known
		from ${device} d left join ${reading} r on r."deviceId" = d."id" where d."onTreeId" = ${tree.id} group by d."id" order by d."id"))`;
	return sql`${RECKONING} || '|' || ${on} || '|' || ${written(sql`'values'`)} || '|' || ${written(sql`'weather'`)} || '|' || ${recordsKey()}
		|| '|' || coalesce(${tree.referenceTreeId} || ':' || ${written(sql`'tree:' || ${tree.referenceTreeId}`)}, '')
		|| '|' || coalesce(${devices}, '')`;
};

/**
 * Trees in care whose water was reckoned from something else than what stands now.
 * @param among only of these and of those that rest on them: their mates in a pot, and whom they are the twin of
 */
async function staleTrees(
	db: Reader,
	on: string,
	among: ReadonlySet<string> | null
): Promise<{ id: string; basis: string }[]> {
	const ids = among && [...among];
	const resting =
		ids === null
			? sql``
			: sql`and (${inArray(tree.id, ids)} or ${inArray(tree.referenceTreeId, ids)} or (trim(${tree.sharedPot}) <> '' and lower(trim(${tree.sharedPot})) in
				(select lower(trim(m."sharedPot")) from ${tree} m where ${inArray(sql`m."id"`, ids)})))`;
	const rows = await jsonRows<{ id: string; basis: string; known: string | null }>(
		db,
		{ id: tree.id, basis: basis(on), known: cache.basis },
		sql`from ${tree} left join ${cache} on ${cache.treeId} = ${tree.id} where ${tree.state} = 'in-care' ${resting}`
	);
	return rows.filter((row) => row.basis !== row.known).map(({ id, basis: now }) => ({ id, basis: now }));
}

let running: Promise<void> | null = null;
/** When nothing was stale: looked for again after a write, on another day, or after a while, since others may write too. */
let clean: { store: Store; on: string; writes: number; at: number } | null = null;
const LOOK_AGAIN_MS = 60_000;
/** Trees read and reckoned together. */
const BATCH = 50;

/** Reckons the water of trees anew where something changed; waits for at most `most` of them, the rest follow. */
export async function refreshWater(store: Store, values: Values, most = 40): Promise<void> {
	const on = today();
	const fresh =
		clean?.store === store && clean.on === on && Date.now() - clean.at < LOOK_AGAIN_MS ? clean : null;
	const writes = store.writes();
	if (fresh?.writes === writes) return;
	// Where it is known what was written on since, only that is looked at.
	const touched = fresh && store.touchedSince(fresh.writes);
	const stale = touched?.size === 0 ? [] : await staleTrees(store.db, on, touched);
	const at = touched ? (fresh?.at ?? Date.now()) : Date.now();
	if (stale.length === 0) {
		clean = { store, on, writes, at };
		return;
	}
	const series = await placeSeries(store.db, addDays(on, -BACK_DAYS), addDays(on, AHEAD_DAYS), values);
	const reckon = async (list: readonly { id: string; basis: string }[]): Promise<void> => {
		const states: {
			treeId: string;
			basis: string;
			standing: StandingKept;
			found: { state: WaterState; functionLow: FunctionLow } | null;
		}[] = [];
		const ids = list.map(({ id }) => id);
		const [read, devices] = await Promise.all([
			readAll(store.db, ids),
			deviceDays(store.db, ids, addDays(on, -BACK_DAYS))
		]);
		const basisOf = new Map(list.map(({ id, basis }) => [id, basis]));
		for (const records of read) {
			const id = records.tree.id;
			const basis = basisOf.get(id);
			if (basis === undefined) continue;
			const here = series.get(records.tree.placeId);
			const pot = here
				? treeWater(records, here.place, here.series, on, values, devices.get(id) ?? [])
				: null;
			const ground = here && !pot ? treeGroundWater(records, here.place, here.series, on, values) : null;
			states.push({
				treeId: id,
				basis,
				standing: standingKept(standingOf(records, on, values), {
					rootsCutOn: lastRootWork(records, values)?.on ?? null,
					underCover: nightsUnderCover(records.book, on),
					planned: plannedWork(records, on, values)[0] ?? null,
					urgent: urgentOf(records, on, values),
					gate: gateOf(records, await referenceShootMm(store.db, records.tree), values)
				}),
				found: pot ? waterStateOf(pot, on, values) : ground ? groundStateOf(ground, values) : null
			});
		}
		await store.write(
			async (tx) => {
				if (states.length === 0) return;
				const anew = (column: AnySQLiteColumn): SQL => sql`excluded.${sql.identifier(column.name)}`;
				await tx
					.insert(cache)
					.values(
						states.map(({ found, ...kept }) => ({ ...kept, ...(found ?? { state: null, functionLow: [] }) }))
					)
					.onConflictDoUpdate({
						target: cache.treeId,
						set: {
							basis: anew(cache.basis),
							standing: anew(cache.standing),
							state: anew(cache.state),
							functionLow: anew(cache.functionLow)
						}
					});
			},
			() => states.map(({ treeId }) => treeId)
		);
	};
	for (let i = 0; i < Math.min(most, stale.length); i += BATCH)
		await reckon(stale.slice(i, Math.min(most, i + BATCH)));
	const rest = stale.slice(most);
	if (rest.length === 0) clean = { store, on, writes, at };
	if (rest.length === 0 || running) return;
	running = (async () => {
		for (let i = 0; i < rest.length; i += BATCH) await reckon(rest.slice(i, i + BATCH));
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
		sql`from ${cache} where ${cache.state} is not null`
	);
	return new Map(
		rows.map((row) => [
			row.treeId,
			(typeof row.state === 'string' ? JSON.parse(row.state) : row.state) as WaterState
		])
	);
}
