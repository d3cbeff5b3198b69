import { addDays, daysBetween } from '../climate/calendar';
import type { SeriesDay } from '../weather/series';
import type { Values } from '../values/values';
import { drynessOf, fullPot, potDay, type PotDay, type PotStores, type PotWater } from './balance';
import type { WateringWay } from './watering';

/** How much is known of the roots: expected, and a 90 % band. */
export interface FunctionBand {
	phi: number;
	low: number;
	high: number;
}

export interface NextWatering {
	/** Day on which it reaches the dryness of its kind; null where it does not within the days that are known. */
	on: string | null;
	/** As early and as late as the band of the roots makes it. */
	earliest: string | null;
	latest: string | null;
	/** Dryness now, 0 drained … 1 dry. */
	dryness: number;
	/** Litres to pour then, with the share that runs through. */
	litres: number;
	way: WateringWay;
	/** Why then. */
	reason: string;
	days: PotDay[];
}

export interface WaterQuestion {
	stores: PotStores;
	/** State at the end of a day: full on the day of the last watering, or as weighed. */
	since: { on: string; water: PotWater };
	/** From the day after `since` on, without gaps. */
	series: readonly SeriesDay[];
	today: string;
	trigger: number;
	root: FunctionBand;
	inLeaf: (on: string) => boolean;
	/** Not before this day: a dry rest. */
	restUntil: string | null;
	/** It sheds water; roots are few against the mix. */
	sheds: boolean;
	outflow: number;
}

/** Runs the days; with `phi` as root function, no water given. */
function run(question: WaterQuestion, phi: number, values: Values): PotDay[] {
	const days: PotDay[] = [];
	let water = question.since.water;
	for (const day of question.series) {
		if (day.on <= question.since.on) continue;
		const next = potDay(water, question.stores, day, phi, question.inLeaf(day.on), 0, values);
		water = next.water;
		days.push(next);
	}
	return days;
}

const firstDry = (days: readonly PotDay[], trigger: number, from: string): string | null =>
	days.find((day) => day.on >= from && day.dryness >= trigger)?.on ?? null;

/**
 * The next watering, from the water that was there, the weather and the roots as they are: never from a rhythm. The band is
 * that of the root function: good roots drink it earlier, poor ones later. A dry rest is respected.
 */
export function nextWatering(question: WaterQuestion, values: Values): NextWatering {
	const { stores, trigger, today, restUntil, root } = question;
	const usual = run(question, root.phi, values);
	const now = usual.filter((day) => day.on <= today).at(-1);
	const water = now?.water ?? question.since.water;
	const dryness = drynessOf(water, stores);
	const from = restUntil !== null && restUntil > question.since.on ? restUntil : question.since.on;
	const on = firstDry(usual, trigger, from);
	const then = usual.find((day) => day.on === on)?.water ?? water;
	const most = fullPot(stores);
	const missing = most.rootedL + most.unrootedL - then.rootedL - then.unrootedL;
	const unrooted = stores.unrootedMostL / Math.max(1e-9, stores.rootedMostL + stores.unrootedMostL);
	const way: WateringWay = question.sheds
		? 'twice'
		: unrooted > values['water.sparingFrom'] && root.phi < 0.6
			? 'sparingly'
			: 'all-round';
	const litres =
		way === 'sparingly'
			? Math.max(0, stores.rootedMostL - then.rootedL)
			: missing / Math.max(0.5, 1 - question.outflow);
	const resting = restUntil !== null && restUntil > today;
	return {
		on,
		earliest: firstDry(run(question, root.high, values), trigger, from),
		latest: firstDry(run(question, root.low, values), trigger, from),
		dryness,
		litres,
		way,
		reason: resting
			? `A dry rest until ${restUntil}; no water before.`
			: dryness >= trigger
				? 'It is as dry as its kind should get.'
				: on === null
					? 'It stays wet for as long as the weather is known.'
					: way === 'sparingly'
						? 'Few roots in much mix: round the roots only, or the rest stays sour.'
						: question.sheds
							? 'Its mix sheds water: wet it, wait, pour the rest.'
							: 'Until a tenth to a fifth runs through.',
		days: usual
	};
}

export interface WaterAlarm {
	kind: 'falling' | 'wet' | 'fast';
	text: string;
}

/**
 * What is wrong with its water.
 * @param course root function by day, oldest first, with its band
 * @param neighboursFall whether others of the place fall as well
 */
export function waterAlarms(
	course: readonly { on: string; phi: number; low: number; high: number }[],
	next: Pick<NextWatering, 'on' | 'dryness'> | null,
	lastWaterOn: string | null,
	today: string,
	neighboursFall: boolean,
	values: Values
): WaterAlarm[] {
	const alarms: WaterAlarm[] = [];
	const last = course.at(-1);
	const before = course.find((point) => point.on >= addDays(today, -values['rootFunction.fallDays']));
	// The bands have drawn apart: not noise.
	if (last && before && before.on < last.on && last.high < before.phi && last.phi < before.low)
		alarms.push({
			kind: 'falling',
			text: `It drinks less than ${Math.round(daysBetween(before.on, last.on))} days ago${neighboursFall ? ', and so do its neighbours: look at the weather first' : ', while its neighbours do not: look at the roots'}.`
		});
	if (lastWaterOn !== null && next) {
		const wetDays = daysBetween(lastWaterOn, next.on ?? addDays(today, 21));
		if (wetDays > values['pot.dryDownMostDays'])
			alarms.push({
				kind: 'wet',
				text: `It stays wet for ${next.on === null ? 'more than ' : 'about '}${wetDays} days: too much mix for its roots, or they do not drink.`
			});
		else if (next.on !== null && wetDays <= values['pot.dryDownLeastDays'])
			alarms.push({
				kind: 'fast',
				text: `It dries within ${Math.max(1, wetDays)} day${wetDays > 1 ? 's' : ''}: bound, or its mix sheds the water.`
			});
	}
	return alarms;
}
