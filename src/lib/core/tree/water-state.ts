import type { Values } from '../values/values';
import { moveOf } from '../aftercare/water/forecast';
import type { TreeGroundWater } from './ground-water';
import type { FunctionEstimate } from '../aftercare/water/root-function';
import type { TreeWater } from './tree-water';
import type { WateringWay } from '../aftercare/water/watering';

/** Everything about the water of one tree; neither where it stands in a pot nobody wrote down. */
export interface WaterOfTree {
	pot: TreeWater | null;
	ground: TreeGroundWater | null;
	/** A fall of its root function, set against its neighbours; empty where there is none. */
	fall: string;
}

/** The water of a tree as Today and the lists need it: small, kept beside the tree until something changes. */
export interface WaterState {
	dryness: number;
	nextOn: string | null;
	earliest: string | null;
	latest: string | null;
	litres: number;
	way: WateringWay;
	/** Reckoned dry enough, but rain that nobody measured may have kept it wet. */
	rainPerhaps: boolean;
	reason: string;
	from: TreeWater['from'] | 'ground';
	lastWaterOn: string | null;
	/** Day on which it was set in the ground, where nobody wrote down that it was watered in. */
	firstOwedFrom: string | null;
	/** First day on which it gets water after its dry rest; null where there is none. */
	restUntil: string | null;
	/** Day its water was last poured, weighed, felt or probed, by hand or by a device; null where it never was. */
	knownOn: string | null;
	phi: number;
	low: number;
	high: number;
	alarms: string[];
	/** A fall of its root function, and how it moved at all where it was weighed: its neighbours are compared by that. */
	fall: { days: number; by: number } | null;
	move: number | null;
}
/** Lower edge of root function on the days of its weighings, for what waits for it: read only where something waits. */
export type FunctionLow = { on: string; low: number; weighed: boolean }[];

/**
 * Root function on the days on which weighings told it, for what waits for it. What is reckoned from them on is no weighing and releases
 * nothing.
 */
export const functionLowOf = (course: readonly FunctionEstimate[]): FunctionLow =>
	course.flatMap(({ on, low, seen }) =>
		seen === null ? [] : [{ on, low: Math.round(low * 1000) / 1000, weighed: true }]
	);

/**
 * Root function as weighings told it last, or as it is now where work or loss has taken of it since: what has regrown since by reckoning alone
 * is not seen.
 * @returns null where no weighing told anything
 */
export function functionWeighed(
	course: readonly FunctionEstimate[]
): (FunctionEstimate & { weighedOn: string }) | null {
	const told = course.findLast(({ seen }) => seen !== null);
	const now = course.at(-1);
	if (!told || !now) return null;
	return { ...(now.phi < told.phi ? now : told), weighedOn: told.on };
}

/** What is kept of the water of a pot between two reckonings. */
export function waterStateOf(
	water: TreeWater,
	today: string,
	values: Values
): { state: WaterState; functionLow: FunctionLow } {
	const now = water.course.at(-1);
	const { next } = water;
	return {
		state: {
			dryness: next.dryness,
			nextOn: next.on,
			earliest: next.earliest,
			latest: next.latest,
			litres: next.litres,
			way: next.way,
			rainPerhaps: next.rainPerhaps,
			reason: next.reason,
			from: water.from,
			lastWaterOn: water.lastWaterOn,
			firstOwedFrom: null,
			restUntil: water.restUntil,
			knownOn: water.knownOn,
			phi: now?.phi ?? 1,
			low: now?.low ?? 0,
			high: now?.high ?? values['rootFunction.most'],
			alarms: water.alarms.map((alarm) => alarm.text),
			fall: water.fall,
			move: water.pairs.length >= 3 ? moveOf(water.course, today, values) : null
		},
		functionLow: functionLowOf(water.course)
	};
}

/** Of a tree in the ground; a grown one is only brought up where its roots were hurt. */
export function groundStateOf(
	water: TreeGroundWater,
	values: Values
): { state: WaterState; functionLow: FunctionLow } {
	const now = water.course.at(-1);
	const { next } = water;
	const brought = water.known && (water.how === 'planted' || (now?.phi ?? 1) < values['water.groundHurt']);
	return {
		state: {
			dryness: water.now?.dryness ?? 0,
			nextOn: brought ? next.on : null,
			earliest: brought ? next.earliest : null,
			latest: brought ? next.latest : null,
			litres: next.litres,
			way: 'all-round',
			rainPerhaps: water.rainPerhaps,
			reason:
				water.how === 'planted'
					? 'Its ball dries before the ground round it does.'
					: 'With fewer roots it feels a drought before its neighbours do.',
			from: 'ground',
			lastWaterOn: water.lastWaterOn,
			firstOwedFrom: water.firstWaterOwed ? water.plantedOn : null,
			restUntil: null,
			knownOn: water.knownOn,
			phi: now?.phi ?? 1,
			low: now?.low ?? 0,
			high: now?.high ?? values['rootFunction.most'],
			alarms: [],
			fall: null,
			move: null
		},
		functionLow: functionLowOf(water.course)
	};
}
