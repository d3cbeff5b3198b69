import { daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import { moveOf } from '../aftercare/water/forecast';
import type { TreeGroundWater } from './ground-water';
import type { FunctionEstimate, WeighingPair } from '../aftercare/water/root-function';
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
	reason: string;
	from: TreeWater['from'] | 'ground';
	lastWaterOn: string | null;
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
/** Lower edge of root function, weekly, for what waits for it: long, so it is read only where something waits. */
export type FunctionLow = { on: string; low: number; weighed: boolean }[];

/**
 * Root function week by week, for what waits for it: weighed where a pair of weighings of those weeks tells it; what is only reckoned
 * releases nothing.
 */
export function functionLowOf(
	course: readonly FunctionEstimate[],
	pairs: readonly Pick<WeighingPair, 'to'>[],
	values: Values
): FunctionLow {
	return course
		.filter((_, i) => i % 7 === 0 || i === course.length - 1)
		.map(({ on, low }) => ({
			on,
			low: Math.round(low * 1000) / 1000,
			weighed: pairs.some(
				(pair) => pair.to <= on && daysBetween(pair.to, on) <= values['decision.waterKnownDays']
			)
		}));
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
			reason: next.reason,
			from: water.from,
			lastWaterOn: water.lastWaterOn,
			restUntil: water.restUntil,
			knownOn: water.knownOn,
			phi: now?.phi ?? 1,
			low: now?.low ?? 0,
			high: now?.high ?? values['rootFunction.most'],
			alarms: water.alarms.map((alarm) => alarm.text),
			fall: water.fall,
			move: water.pairs.length >= 3 ? moveOf(water.course, today, values) : null
		},
		functionLow: functionLowOf(water.course, water.pairs, values)
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
			reason:
				water.how === 'planted'
					? 'Its ball dries before the ground round it does.'
					: 'With fewer roots it feels a drought before its neighbours do.',
			from: 'ground',
			lastWaterOn: water.lastWaterOn,
			restUntil: null,
			knownOn: water.knownOn,
			phi: now?.phi ?? 1,
			low: now?.low ?? 0,
			high: now?.high ?? values['rootFunction.most'],
			alarms: [],
			fall: null,
			move: null
		},
		functionLow: functionLowOf(water.course, [], values)
	};
}
