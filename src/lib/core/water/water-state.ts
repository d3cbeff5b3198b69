import type { TreeWater } from './tree-water';
import type { WateringWay } from './watering';

/** The water of a tree as Today and the lists need it: small, kept beside the tree until something changes. */
export interface WaterState {
	dryness: number;
	nextOn: string | null;
	earliest: string | null;
	latest: string | null;
	litres: number;
	way: WateringWay;
	reason: string;
	from: TreeWater['from'];
	lastWaterOn: string | null;
	phi: number;
	low: number;
	high: number;
	alarms: string[];
	/** Lower edge of root function, weekly, for what waits for it. */
	functionLow: { on: string; low: number }[];
}

export function waterStateOf(water: TreeWater): WaterState {
	const now = water.course.at(-1);
	const { next } = water;
	return {
		dryness: next.dryness,
		nextOn: next.on,
		earliest: next.earliest,
		latest: next.latest,
		litres: next.litres,
		way: next.way,
		reason: next.reason,
		from: water.from,
		lastWaterOn: water.lastWaterOn,
		phi: now?.phi ?? 1,
		low: now?.low ?? 0,
		high: now?.high ?? 1.2,
		alarms: water.alarms.map((alarm) => alarm.text),
		functionLow: water.course
			.filter((_, i) => i % 7 === 0 || i === water.course.length - 1)
			.map(({ on, low }) => ({ on, low }))
	};
}
