import { inArray, sql, type SQL } from 'drizzle-orm';
import type { AnySQLiteColumn } from 'drizzle-orm/sqlite-core';
import type { WaterState } from '../core/tree/water-state';
import type { Values } from '../core/values/values';
import { today } from './clock';
import type { Reader, Store } from './db/database';
import { jsonRows } from './db/json-rows';
import { recordsKey, written } from './db/revisions';
import * as tables from './db/schema';
import { reckonTrees, type Reckoned } from './reckon';
import { openReckoners } from './threads';

const { tree, treeWater: cache, device, readingHour } = tables;

/** The reckoning itself, counted up where it changes what it gives. */
const RECKONING = 50;
/**
 * What the water and the standing of a tree are worked out from, as one key: the day, the working values, the weather, the places (its
 * shelter, and the stations that serve it), its kind, its own records, those of its mates in a shared pot and of its twin, and its devices.
 * A kept result holds while its key does.
 */
const basis = (on: string): SQL => {
	const devices = sql`(select group_concat(known) from (select d."id" || ':' || ${written(sql`'device:' || d."id"`)} || ':' || coalesce(max(h."hour"), '') as known
		from ${device} d left join ${readingHour} h on h."deviceId" = d."id" where d."onTreeId" = ${tree.id} group by d."id" order by d."id"))`;
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
/** From so many on it is worth while to start threads for them. */
const THREADS_FROM = 4 * BATCH;

type Stale = Awaited<ReturnType<typeof staleTrees>>;

async function keep(
	store: Store,
	reckoned: readonly Reckoned[],
	bases: ReadonlyMap<string, string>
): Promise<void> {
	const rows = reckoned.flatMap(({ treeId, standing, found }) => {
		const basis = bases.get(treeId);
		return basis === undefined
			? []
			: [{ treeId, basis, standing, ...(found ?? { state: null, functionLow: [] }) }];
	});
	if (rows.length === 0) return;
	const anew = (column: AnySQLiteColumn): SQL => sql`excluded.${sql.identifier(column.name)}`;
	await store.write(
		(tx) =>
			tx
				.insert(cache)
				.values(rows)
				.onConflictDoUpdate({
					target: cache.treeId,
					set: {
						basis: anew(cache.basis),
						standing: anew(cache.standing),
						state: anew(cache.state),
						functionLow: anew(cache.functionLow)
					}
				}),
		() => rows.map(({ treeId }) => treeId)
	);
}

/** Reckons trees and keeps what came out, batch by batch: many of them in threads of their own, beside whatever else is asked. */
async function reckonAll(store: Store, stale: Stale, on: string, values: Values): Promise<void> {
	const bases = new Map(stale.map(({ id, basis: now }) => [id, now]));
	const batches: string[][] = [];
	for (let i = 0; i < stale.length; i += BATCH) batches.push(stale.slice(i, i + BATCH).map(({ id }) => id));
	const reckoners = stale.length >= THREADS_FROM ? openReckoners(store) : [];
	type Hand = (ids: string[]) => Promise<Reckoned[]>;
	const here: Hand = (ids) => reckonTrees(store.db, ids, on, values);
	const hands = reckoners.map(
		({ reckon }): Hand =>
			(ids) =>
				reckon(ids, on, values).catch((cause: unknown) => {
					console.error(cause);
					return here(ids);
				})
	);
	try {
		await Promise.all(
			(hands.length > 0 ? hands : [here]).map(async (hand) => {
				for (let ids = batches.shift(); ids; ids = batches.shift()) await keep(store, await hand(ids), bases);
			})
		);
	} finally {
		for (const reckoner of reckoners) reckoner.end();
	}
}

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
	await reckonAll(store, stale.slice(0, most), on, values);
	const rest = stale.slice(most);
	if (rest.length === 0) clean = { store, on, writes, at };
	if (rest.length === 0 || running) return;
	running = reckonAll(store, rest, on, values)
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
