import { z } from 'zod';
import { median } from 'simple-statistics';
import { measured } from '../../text/measured';
import { percent } from '../../text/percent';
import { addDays, daysBetween } from '../../maths/calendar';
import type { SeriesDay } from '../../climate/series';
import type { Values } from '../../values/values';
import {
	drynessOf,
	fullPot,
	potDay,
	type PotDay,
	type PotStores,
	type PotWater,
	potDayOutput
} from '../../replant/pots/balance';
import { driedTo } from './pot-state';
import { unmeasuredRainMm } from './root-function';
import { counted } from '../../text/plural';
import { Z90 } from '../../maths/normal';
import { wateringWays, type WateringWay } from './watering';

/** How much is known of the roots: expected, and a 90 % band. */
export interface FunctionBand {
	phi: number;
	low: number;
	high: number;
}

export const nextWateringOutput = z.object({
	on: z
		.string()
		.nullable()
		.describe(
			'Day on which it reaches the dryness of its kind; null where it does not within the days that are known'
		),
	earliest: z.string().nullable().describe('As early and as late as the band of the roots makes it'),
	latest: z.string().nullable(),
	dryness: z.number().describe('Dryness now, 0 drained … 1 dry'),
	litres: z.number().describe('Litres to pour then, with the share that runs through'),
	way: z.enum(wateringWays),
	reason: z.string().describe('Why then'),
	days: z.array(potDayOutput),
	frozen: z.boolean().describe('The ball is frozen today'),
	rainPerhaps: z
		.boolean()
		.describe('Reckoned dry enough to water, but rain that nobody measured may have kept it wet')
});
export type NextWatering = z.infer<typeof nextWateringOutput>;

export interface WaterQuestion {
	stores: PotStores;
	/** State at the end of the day of the last watering or reading, with one deviation of its dryness. */
	since: { on: string; water: PotWater; sd?: number };
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
	/** Share of the rain outdoors that falls on it, 0 to 1. */
	rainReach?: number;
}

/** Runs the days from the state, the drier by a shift; with `phi` as root function, no water given. */
function run(question: WaterQuestion, phi: number, values: Values, drier = 0): PotDay[] {
	const { stores, since } = question;
	let water =
		drier === 0
			? since.water
			: driedTo(Math.min(1, Math.max(0, drynessOf(since.water, stores) + drier)), stores);
	// The day itself, as it stands: it may be dry already.
	const days: PotDay[] = [
		{
			on: since.on,
			water,
			rainL: 0,
			irrigationL: 0,
			transpirationL: 0,
			evaporationL: 0,
			outflowL: 0,
			dryness: drynessOf(water, stores)
		}
	];
	for (const day of question.series) {
		if (day.on <= question.since.on) continue;
		const next = potDay(
			water,
			question.stores,
			{ day, rootFunction: phi, inLeaf: question.inLeaf(day.on), irrigationL: 0 },
			values
		);
		water = next.water;
		days.push(next);
	}
	return days;
}

const firstDry = (days: readonly PotDay[], trigger: number, from: string): string | null =>
	days.find((day) => day.on >= from && day.dryness >= trigger)?.on ?? null;

/**
 * Whether the ball is frozen today, and when it thaws: frozen by some days whose mean stays under freezing, thawed by as many over it.
 * @returns null while it is not; `thawsOn` null where it does not within the days that are known
 */
function frozenUntil(
	series: readonly SeriesDay[],
	today: string,
	values: Values
): { thawsOn: string | null } | null {
	const days = Math.max(1, Math.round(values['water.frozenDays']));
	let cold = 0;
	let mild = 0;
	let frozen = false;
	for (const day of series) {
		const mean = (day.minC + day.maxC) / 2;
		cold = mean <= values['water.frozenUnderC'] ? cold + 1 : 0;
		mild = mean > 0 ? mild + 1 : 0;
		if (cold >= days) frozen = true;
		if (frozen && mild >= days) {
			frozen = false;
			if (day.on > today) return { thawsOn: day.on };
		}
		// What freezes only later is a matter of that day.
		if (day.on === today && !frozen) return null;
	}
	return frozen ? { thawsOn: null } : null;
}

/**
 * Whether rain that nobody measured may have made up for what it is reckoned drier than it is watered at. Rain of the last days is
 * remembered without being written down.
 * @param beyond how much drier than that it is reckoned, share of what it holds
 */
function rainMayHaveHelped(
	{ series, since, today, stores, rainReach = 0 }: WaterQuestion,
	beyond: number,
	values: Values
): boolean {
	const days = series.filter((day) => day.on > since.on && day.on <= today);
	const forgotten = days.filter((day) => daysBetween(day.on, today) >= values['water.rainRememberedDays']);
	return (
		forgotten.some((day) => day.how !== '') &&
		unmeasuredRainMm(days, rainReach, values) * stores.surfaceM2 >
			beyond * (stores.rootedMostL + stores.unrootedMostL)
	);
}

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
	const unsure = Z90 * (question.since.sd ?? 0);
	const on = firstDry(usual, trigger, from);
	// Overdue, it is today’s deficit that is poured, not that of the day it was due.
	const then = (on !== null && on > today ? usual.find((day) => day.on === on)?.water : undefined) ?? water;
	const most = fullPot(stores);
	const missing = most.rootedL + most.unrootedL - then.rootedL - then.unrootedL;
	const unrooted = stores.unrootedMostL / Math.max(1e-9, stores.rootedMostL + stores.unrootedMostL);
	const way: WateringWay = question.sheds
		? 'twice'
		: unrooted > values['water.sparingFrom'] && root.phi < values['rootFunction.few']
			? 'sparingly'
			: 'all-round';
	const litres =
		way === 'sparingly'
			? Math.max(0, stores.rootedMostL - then.rootedL)
			: missing / Math.max(0.5, 1 - question.outflow);
	const resting = restUntil !== null && restUntil > today;
	const frozen = frozenUntil(question.series, today, values);
	const rainPerhaps = on !== null && on <= today && rainMayHaveHelped(question, dryness - trigger, values);
	const early = firstDry(run(question, root.high, values, unsure), trigger, from);
	const late = firstDry(run(question, root.low, values, -unsure), trigger, from);
	/** A frozen ball takes no water: nothing before it has thawed. */
	const thawed = (day: string | null): string | null =>
		!frozen || day === null
			? day
			: frozen.thawsOn === null
				? null
				: day < frozen.thawsOn
					? frozen.thawsOn
					: day;
	return {
		on: thawed(on),
		// A band is a band: the earliest is never after the date, nor the latest before it.
		earliest: thawed([early, on].filter((day) => day !== null).sort()[0] ?? null),
		latest: late === null || on === null ? null : thawed([late, on].sort()[1] ?? null),
		frozen: frozen !== null,
		dryness,
		litres,
		way,
		reason: frozen
			? frozen.thawsOn === null
				? 'Its ball is frozen: no water, for as long as the weather is known.'
				: `Its ball is frozen: no water before it thaws, about ${frozen.thawsOn}.`
			: resting
				? `A dry rest until ${restUntil}; no water before.`
				: rainPerhaps
					? `Dry enough to water, if no rain reached it: nobody wrote down the rain since ${question.since.on}.`
					: dryness >= trigger
						? 'Dry enough to water.'
						: on === null
							? early === null
								? 'It is not dry enough to water for as long as the weather is known.'
								: `As it is reckoned it is not dry enough to water for as long as the weather is known; if its roots drink well it may be from ${early} on.`
							: way === 'sparingly'
								? 'Few roots in much mix: round the roots only, or the rest stays sour.'
								: question.sheds
									? 'Its mix sheds water: wet it, wait, pour the rest.'
									: 'Until a tenth to a fifth runs through.',
		days: usual.slice(1),
		rainPerhaps
	};
}

export interface WaterAlarm {
	kind: 'falling' | 'wet' | 'fast' | 'pot';
	text: string;
}

/**
 * By how much root function fell over the last weeks, where the bands have drawn apart so that it is not noise; null where it
 * did not.
 * @param course root function by day, oldest first, with its band
 */
export function fallOf(
	course: readonly { on: string; phi: number; low: number; high: number }[],
	today: string,
	values: Values
): { days: number; by: number } | null {
	const last = course.at(-1);
	const before = course.find((point) => point.on >= addDays(today, -values['rootFunction.fallDays']));
	if (!last || !before || before.on >= last.on) return null;
	return last.high < before.phi && last.phi < before.low
		? { days: Math.round(daysBetween(before.on, last.on)), by: 1 - last.phi / before.phi }
		: null;
}

/**
 * Whether it was weighed both in the last weeks and in those before them: what it drank then and now is compared by nothing else.
 * @param pairedOn last days of its pairs of weighings
 */
export function weighedThenAndNow(pairedOn: readonly string[], today: string, values: Values): boolean {
	const weeks = values['rootFunction.fallDays'];
	const [then, earliest] = [addDays(today, -weeks), addDays(today, -2 * weeks)];
	return pairedOn.some((on) => on > then) && pairedOn.some((on) => on <= then && on >= earliest);
}

/** How root function moved over the last weeks, as a factor; null where that is not known. */
export function moveOf(
	course: readonly { on: string; phi: number }[],
	today: string,
	values: Values
): number | null {
	const last = course.at(-1);
	const before = course.find((point) => point.on >= addDays(today, -values['rootFunction.fallDays']));
	return last && before && before.on < last.on && before.phi > 0 ? last.phi / before.phi : null;
}

/**
 * A fall in words, set against the neighbours: where they fall as much the weather or the place is looked at first.
 * @param neighbours how others of its place moved, as factors
 */
export function fallWords(
	fall: { days: number; by: number },
	neighbours: readonly number[],
	values: Values
): string {
	const begin = `It drinks ${percent(fall.by)} less than ${fall.days} days ago`;
	if (neighbours.length < 2)
		return `${begin}: look at the roots. Too few weighed neighbours to compare it with.`;
	return median([...neighbours]) < 1 - values['rootFunction.neighbourFall']
		? `${begin}, and so do its neighbours: look at the weather and the place first.`
		: `${begin}, while its ${neighbours.length} weighed neighbours do not: look at the roots.`;
}

/** How a pot dries. */
export interface Drying {
	/** Water that its pot is reckoned to hold, and the most that its weights say it took up or lost, L. */
	holdsL: number;
	tookUpL: number;
	/** False where nobody ever spoke of its water: then nothing is said of it. */
	known: boolean;
	/** Day on which it is half dry, or as dry as its kind is watered at; null beyond the days that are known. */
	halfOn: string | null;
	/** Last day whose weather is known. */
	knownTo: string;
	today: string;
	lastWaterOn: string | null;
	/** Days from full to dry enough to water, after the last water that filled it: a sip says nothing of how fast it dries; null where not known. */
	dryDays: number | null;
	/** Whether a hand, a scale or a probe told since that water how dry it is; else its pace is reckoned. */
	paceSeen: boolean;
	/**
	 * Day since which it bears leaves; null while it bears none. A leafless tree hardly drinks, and its pot stays wet for no fault of its
	 * roots: of how long it stays wet only days with leaves count.
	 */
	leafySince: string | null;
}

/** What is wrong with how fast it dries. */
export function waterAlarms(drying: Drying, values: Values): WaterAlarm[] {
	const { known, halfOn, knownTo, today, lastWaterOn, dryDays, paceSeen, leafySince, holdsL, tookUpL } =
		drying;
	if (lastWaterOn === null || !known) return [];
	// Everything else would be reckoned for another pot.
	if (tookUpL > Math.max(holdsL * values['water.takesUpTimes'], holdsL + values['water.weightOffKg']))
		return [
			{
				kind: 'pot',
				text: `By its weights it holds ${measured(tookUpL, 'L')} of water, its pot as written down ${measured(holdsL, 'L')}: look whether pot, mix and weights are so.`
			}
		];
	const wetFrom = leafySince !== null && leafySince > lastWaterOn ? leafySince : lastWaterOn;
	const halfDays = daysBetween(wetFrom, halfOn ?? knownTo);
	if (halfDays > values['pot.dryDownMostDays'])
		return leafySince !== null
			? [
					{
						kind: 'wet',
						text: `${
							// Dry enough to water by now, it is told of the past, beside the advice to water it.
							halfOn !== null && halfOn <= today
								? `After its last water it stayed wet for about ${halfDays} days`
								: `It stays wet for ${halfOn === null ? 'more than ' : 'about '}${halfDays} days`
						}: too much mix for its roots, or they do not drink.`
					}
				]
			: [];
	const least = values['pot.dryDownLeastDays'];
	return dryDays !== null && dryDays <= least
		? [
				{
					kind: 'fast',
					text: paceSeen
						? `It dries within ${counted(Math.max(1, Math.ceil(dryDays)), 'day')}: bound, or its mix sheds the water.`
						: `It is reckoned to dry within ${counted(Math.max(1, Math.ceil(dryDays)), 'day')}: weigh or feel it before its next water.`
				}
			]
		: [];
}
