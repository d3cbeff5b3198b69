import { inArray, sql } from 'drizzle-orm';
import { nightsUnderCover } from '../core/aftercare/book/effects';
import type { DeviceDay } from '../core/aftercare/water/pot-state';
import { addDays } from '../core/maths/calendar';
import { gateOf } from '../core/tree/gate';
import { treeGroundWater } from '../core/tree/ground-water';
import { movesOf } from '../core/tree/held';
import { aliveOf } from '../core/tree/lot';
import { standingKept, type StandingKept } from '../core/tree/kept';
import { lastRootWork, woundedOn } from '../core/tree/losses';
import { plannedWork } from '../core/tree/planned';
import { tooHeavyToWeigh } from '../core/tree/weights';
import { standingOf } from '../core/tree/standing';
import { treeWater } from '../core/tree/tree-water';
import { pressingOf } from '../core/tree/urgent';
import { groundStateOf, waterStateOf, type FunctionLow, type WaterState } from '../core/tree/water-state';
import type { Values } from '../core/values/values';
import type { Reader } from './db/database';
import { jsonRows } from './db/json-rows';
import * as tables from './db/schema';
import { readAll } from './records/tree-records';
import { referenceShootMm } from './trees';
import { placeSeries, type PlaceSeries } from './weather';

/** Weather reaches back so far for the filter, and so far ahead. */
const BACK_DAYS = 400;
const AHEAD_DAYS = 21;

/** Last reading of each day of the scales and probes that belong to trees, by tree. */
async function deviceDays(
	db: Reader,
	treeIds: readonly string[],
	from: string
): Promise<Map<string, DeviceDay[]>> {
	const { device, readingHour: hour } = tables;
	const value = sql`coalesce(${hour.weightKg}, ${hour.moisture})`;
	const days = await jsonRows<DeviceDay & { treeId: string; at: string }>(
		db,
		{
			treeId: device.onTreeId,
			on: sql`substr(${hour.hour}, 1, 10)`,
			kind: device.kind,
			value,
			at: sql`max(${hour.hour})`
		},
		sql`from ${device} join ${hour} on ${hour.deviceId} = ${device.id}
			where ${inArray(device.onTreeId, [...treeIds])} and ${hour.hour} >= ${from} and ${value} is not null
			group by ${device.id}, substr(${hour.hour}, 1, 10) order by ${hour.hour}`
	);
	const of = new Map<string, DeviceDay[]>();
	for (const { treeId, on, kind, value } of days)
		of.set(treeId, [...(of.get(treeId) ?? []), { on, kind, value }]);
	return of;
}

/** Weather of every place for the water of a day: as far back and ahead as it is read. */
export const weatherFor = (
	db: Reader,
	on: string,
	values: Values
): Promise<ReadonlyMap<string, PlaceSeries>> =>
	placeSeries(db, addDays(on, -BACK_DAYS), addDays(on, AHEAD_DAYS), values);

/** What devices told of trees up to a day. */
export const devicesFor = (
	db: Reader,
	treeIds: readonly string[],
	on: string
): Promise<Map<string, DeviceDay[]>> => deviceDays(db, treeIds, addDays(on, -BACK_DAYS));

/** What is kept beside a tree: how it stands, and its water where it is known to be watered. */
export interface Reckoned {
	treeId: string;
	standing: StandingKept;
	found: { state: WaterState; functionLow: FunctionLow } | null;
}

/** Reads some trees and reckons how each stands and what its water is on a day. */
export async function reckonTrees(
	db: Reader,
	treeIds: readonly string[],
	on: string,
	values: Values
): Promise<Reckoned[]> {
	const [read, devices, weather] = await Promise.all([
		readAll(db, treeIds),
		devicesFor(db, treeIds, on),
		weatherFor(db, on, values)
	]);
	const reckoned: Reckoned[] = [];
	for (const records of read) {
		const { id, placeId } = records.tree;
		const here = weather.get(placeId);
		const pot = here
			? treeWater(
					records,
					{ place: here.place, series: here.series, devices: devices.get(id) ?? [] },
					on,
					values
				)
			: null;
		const ground = here && !pot ? treeGroundWater(records, here, on, values) : null;
		const stands = standingOf(records, on, values);
		reckoned.push({
			treeId: id,
			standing: standingKept(stands, {
				firmness: movesOf(records, stands),
				rootsCutOn: lastRootWork(records, values)?.on ?? null,
				woundedOn: woundedOn(records, values),
				underCover: nightsUnderCover(records.book, on),
				planned: plannedWork(records, on, values)[0] ?? null,
				...pressingOf(records, on, values),
				alive: aliveOf(records),
				tooHeavy: tooHeavyToWeigh(records, on, values),
				gate: gateOf(records, await referenceShootMm(db, records), values)
			}),
			found: pot ? waterStateOf(pot, on, values) : ground ? groundStateOf(ground, values) : null
		});
	}
	return reckoned;
}
