import { answeredByWatering, tasksAnswered } from '../core/aftercare/tasks/result';
import { fallWords } from '../core/aftercare/water/forecast';
import type { Watering, WateringInput } from '../core/aftercare/water/watering';
import { measured } from '../core/text/measured';
import type { TreeRecords } from '../core/tree/case';
import { treeGroundWater } from '../core/tree/ground-water';
import { treeWater } from '../core/tree/tree-water';
import type { WaterOfTree } from '../core/tree/water-state';
import { aboutKg, unlikelyGain, unlikelyKg } from '../core/tree/weights';
import type { Values } from '../core/values/values';
import { notInArray, sql } from 'drizzle-orm';
import { today } from './clock';
import type { Reader, Store } from './db/database';
import { jsonRows } from './db/json-rows';
import * as tables from './db/schema';
import { invalid, notFound } from './errors';
import { devicesFor, weatherFor } from './reckon';
import { tasks, trees, waterings } from './records/records';
import { loadRecords, matesInPot } from './records/tree-records';
import { doWorks, takeOut, type Piece, type Work } from './records/work';
import { readValues } from './settings';
import { closeAnswered } from './task-work';
import { headOf } from './tree-head';
import { refuseCare, requireTree } from './trees';

const { tree, treeWater: cache } = tables;

const none: WaterOfTree = { pot: null, ground: null, fall: '' };

/** Everything about the water of one tree today; neither where it stands in a pot nobody wrote down, or is in care no more. */
export async function waterOf(db: Reader, treeId: string, values: Values): Promise<WaterOfTree> {
	const records = await loadRecords(db, treeId);
	return records.tree.state === 'in-care' ? waterFor(db, records, values) : none;
}

/** The same of records in hand, or of what they are to be; of a case that is closed as it was on that day. */
export async function waterFor(db: Reader, records: TreeRecords, values: Values): Promise<WaterOfTree> {
	const on = records.tree.closedOn ?? today();
	const { id: treeId, placeId } = records.tree;
	const [weather, devices] = await Promise.all([weatherFor(db, on, values), devicesFor(db, [treeId], on)]);
	const here = weather.get(placeId);
	if (!here) return none;
	const pot = treeWater(
		records,
		{ place: here.place, series: here.series, devices: devices.get(treeId) ?? [] },
		on,
		values
	);
	return {
		pot,
		ground: treeGroundWater(records, here, on, values),
		fall: pot?.fall ? fallWords(pot.fall, await movesOfNeighbours(db, records, placeId), values) : ''
	};
}

/** How root function of the weighed trees of a place moved, without one of them and what is weighed with it in its pot. */
export async function movesOfNeighbours(
	db: Reader,
	{ tree: own, mates }: Pick<TreeRecords, 'tree' | 'mates'>,
	placeId: string
): Promise<number[]> {
	const inPot = [own.id, ...mates.map((mate) => mate.tree.id)];
	const rows = await jsonRows<{ move: number }>(
		db,
		{ move: sql`json_extract(${cache.state}, '$.move')` },
		sql`from ${cache} join ${tree} on ${tree.id} = ${cache.treeId}
			where ${tree.placeId} = ${placeId} and ${notInArray(tree.id, inPot)} and json_extract(${cache.state}, '$.move') is not null`
	);
	return rows.map((row) => row.move);
}

/** What presses of a mate in the same pot and wants less water; null where nothing does. */
export async function lessWaterOfMate(
	db: Reader,
	{ mates }: Pick<TreeRecords, 'mates'>,
	on: string,
	values: Values
): Promise<{ tag: string; subject: string; chance: number } | null> {
	for (const { tree: mate } of mates) {
		const { urgent } = headOf(await loadRecords(db, mate.id), on, values);
		if (urgent?.water === 'less') return { tag: mate.tag, subject: urgent.subject, chance: urgent.chance };
	}
	return null;
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
export const removeWatering = (store: Store, treeId: string, id: string, version: number): Promise<string> =>
	takeOut(store, waterings, { treeId, id, version }, 'aftercare');

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
		if (input.note === '') {
			const gain = unlikelyGain(input, await readValues(work.tx));
			if (gain !== null) throw invalid([{ field: 'afterKg', message: gain }]);
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
		}
		await closeAnswered(work, treeId, answeredByWatering(input), input.wateredOn);
		if (!corrects) return work.add(waterings, input);
		if (!(await waterings.list(work.tx, treeId)).some((one) => one.id === corrects.id))
			throw notFound('watering');
		return work.change(waterings, corrects.id, corrects.version, (before) => ({ ...before, ...input }));
	}
});
