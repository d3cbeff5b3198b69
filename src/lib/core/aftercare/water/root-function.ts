import { z } from 'zod';
import { Z90 } from '../../maths/normal';
import { counted } from '../../text/plural';
import { addDays, daysBetween } from '../../maths/calendar';
import { grownBy, slopeBy } from './regrowth';
import { seriesBetween, type SeriesDay } from '../../climate/series';
import { fullPot, potDay, type PotStores, type PotWater } from '../../replant/pots/balance';
import type { Values } from '../../values/values';

/** Loss between two weighings with no water between them. */
export interface WeighingPair {
	from: string;
	to: string;
	lossKg: number;
	/** Day on which the pot was last full, and what it had lost by `from`. */
	fullOn: string;
	lostKg: number;
}

export interface FunctionState {
	on: string;
	phi: number;
	/** Variance. */
	p: number;
}
export const functionEstimateOutput = z.object({
	on: z.string(),
	phi: z.number(),
	low: z.number(),
	high: z.number(),
	seen: z.number().nullable().describe('What the weighings alone said on this day; null between them'),
	expected: z.number().describe('What was expected before the weighing')
});
export type FunctionEstimate = z.infer<typeof functionEstimateOutput>;

/**
 * A linear filter of one state: what is known becomes less certain, and surer by what is seen.
 * @see Kalman 1960
 * @param seen root function by a weighing
 * @param seenVariance its variance
 */
export function kalman(
	{ phi, p }: { phi: number; p: number },
	seen: number,
	seenVariance: number
): { phi: number; p: number } {
	const gain = p / (p + seenVariance);
	return { phi: phi + gain * (seen - phi), p: (1 - gain) * p };
}

export interface FunctionInput {
	/** Where it begins: as far as the cuts tell. */
	begin: FunctionState;
	pairs: readonly WeighingPair[];
	/** Days of the place, without gaps, from the beginning on. */
	series: readonly SeriesDay[];
	stores: PotStores;
	inLeaf: (on: string) => boolean;
	/** Cuts after the beginning. */
	losses: readonly { on: string; share: number }[];
	/** One deviation of a weighing, kg. */
	scaleKg: number;
	/** Share of the rain outdoors that falls on the pot where it stands, 0 to 1. */
	rainReach: number;
}

/**
 * Root function from weighings: that φ with which the balance of the pot loses what the scale lost, evaporation of the surface
 * and the stint of drying mix counted. Between weighings φ grows with warmth and its uncertainty with time; each pair corrects it by its own error, of the
 * scale and of the demand. A pair that could not tell anything (leafless, hardly any demand) is passed over.
 * @returns one estimate a day, with a 90 % band
 */
export function rootFunction(input: FunctionInput, values: Values): FunctionEstimate[] {
	const byDay = new Map(input.pairs.length > 0 ? input.series.map((day) => [day.on, day]) : []);
	const pairsTo = new Map<string, WeighingPair[]>();
	for (const pair of input.pairs) pairsTo.set(pair.to, [...(pairsTo.get(pair.to) ?? []), pair]);
	// Of one day there may be several, a lift and the cuts after it: each takes of what the one before left.
	const leftOn = new Map<string, number>();
	for (const { on, share } of input.losses) leftOn.set(on, (leftOn.get(on) ?? 1) * (1 - share));
	let { phi, p } = input.begin;
	const most = values['rootFunction.most'];
	const perDegreeDay = values['rootFunction.perDegreeDay'];
	const baseC = values['degreeDays.rootBaseC'];
	const drift = values['rootFunction.drift'] ** 2;
	const none: readonly WeighingPair[] = [];
	const estimates: FunctionEstimate[] = [];
	for (const day of input.series) {
		if (day.on < input.begin.on) continue;
		const lost = 1 - (leftOn.get(day.on) ?? 1);
		if (lost > 0) {
			phi *= 1 - lost;
			p = p * (1 - lost) ** 2 + (lost * values['rootFunction.lossSpread']) ** 2;
		}
		const left = Math.exp(-perDegreeDay * Math.max(0, (day.minC + day.maxC) / 2 - baseC));
		p = slopeBy(phi, left) ** 2 * p + drift;
		phi = Math.min(most, grownBy(phi, left));
		const expected = phi;
		let seenOn: number | null = null;
		for (const pair of pairsTo.get(day.on) ?? none) {
			const read = readPair(pair, phi, byDay, input, values);
			// What would hardly move what is known tells nothing, and is not counted as a weighing that did.
			if (!read || p / (p + read.variance) < values['rootFunction.tellsLeast']) continue;
			seenOn = read.phi;
			({ phi, p } = kalman({ phi, p }, read.phi, read.variance));
			phi = Math.min(most, Math.max(0, phi));
		}
		const spread = Z90 * Math.sqrt(p);
		estimates.push({
			on: day.on,
			phi,
			low: Math.max(0, phi - spread),
			high: Math.min(most, phi + spread),
			seen: seenOn,
			expected
		});
	}
	return estimates;
}

/** Of a tree whose roots nothing is known of: taken as whole, and perhaps few. */
export const unknownFunction = (values: Values): { phi: number; low: number; high: number } => ({
	phi: 1,
	low: values['rootFunction.few'],
	high: values['rootFunction.most']
});

/** Water lost from a state over some days, L, and what is left; rain counts against it. */
function dryRun(
	begin: PotWater,
	days: readonly SeriesDay[],
	phi: number,
	input: Pick<FunctionInput, 'stores' | 'inLeaf'>,
	values: Values
): { lostL: number; water: PotWater } {
	let water = begin;
	for (const day of days)
		water = potDay(
			water,
			input.stores,
			{ day, rootFunction: phi, inLeaf: input.inLeaf(day.on), irrigationL: 0 },
			values
		).water;
	return { lostL: begin.rootedL + begin.unrootedL - water.rootedL - water.unrootedL, water };
}

/** φ with which a run of days loses an amount; the loss rises with φ. */
function phiFor(
	lostL: number,
	begin: PotWater,
	days: readonly SeriesDay[],
	input: Pick<FunctionInput, 'stores' | 'inLeaf'>,
	values: Values
): number {
	let [low, high] = [0, 2];
	for (let i = 0; i < 24; i++) {
		const middle = (low + high) / 2;
		if (dryRun(begin, days, middle, input, values).lostL < lostL) low = middle;
		else high = middle;
	}
	return (low + high) / 2;
}

/** Rain that may have fallen on a pot on days whose rain nobody measured, mm. @param reach share of the rain that reaches it */
export const unmeasuredRainMm = (days: readonly SeriesDay[], reach: number, values: Values): number =>
	days.filter((day) => day.how !== '').length * values['rootFunction.unmeasuredRainMm'] * reach;

/**
 * Rain may have fallen unmeasured between two weighings.
 * @param series days of the place without gaps
 * @param reach share of the rain that reaches the pot, 0 … 1
 */
export const rainUnmeasured = (
	pair: Pick<WeighingPair, 'from' | 'to'>,
	series: readonly SeriesDay[],
	reach: number,
	values: Values
): boolean => unmeasuredRainMm(seriesBetween(series, addDays(pair.from, 1), pair.to), reach, values) > 0;

/**
 * Root function as one pair of weighings tells it, with its variance; null when it tells nothing.
 * @param expected root function before it
 */
function readPair(
	pair: WeighingPair,
	expected: number,
	byDay: ReadonlyMap<string, SeriesDay>,
	input: Pick<FunctionInput, 'stores' | 'inLeaf' | 'scaleKg' | 'rainReach'>,
	values: Values
): { phi: number; variance: number } | null {
	const daysOf = (after: string, to: string): SeriesDay[] | null => {
		const days: SeriesDay[] = [];
		for (let on = addDays(after, 1); on <= to; on = addDays(on, 1)) {
			const day = byDay.get(on);
			if (!day) return null;
			days.push(day);
		}
		return days;
	};
	const days = daysOf(pair.from, pair.to);
	if (!days || days.length === 0) return null;
	let begin = fullPot(input.stores);
	if (pair.lostKg > 0 && pair.fullOn < pair.from) {
		const before = daysOf(pair.fullOn, pair.from);
		if (!before) return null;
		begin = dryRun(begin, before, phiFor(pair.lostKg, begin, before, input, values), input, values).water;
	}
	const phi = phiFor(pair.lossKg, begin, days, input, values);
	const step = 0.05;
	const low = Math.max(0, phi - step);
	const at = (value: number): number => dryRun(begin, days, value, input, values).lostL;
	const slope = (at(low + 2 * step) - at(low)) / (2 * step);
	// A scale that could not tell half of the roots from all of them tells nothing.
	if (slope < 3 * input.scaleKg) return null;
	const scale = (Math.SQRT2 * input.scaleKg) / slope;
	const demand = (values['rootFunction.demandError'] * Math.max(pair.lossKg, 0.1)) / slope;
	// What it may have drunk besides: rain that nobody measured.
	// Over days in which the pot runs dry whatever its roots are, a little of it stands for much of them.
	const apart = expected - phi;
	const across = Math.abs(apart) < step ? slope : Math.min(slope, (at(expected) - at(phi)) / apart);
	const rainL = unmeasuredRainMm(days, input.rainReach, values) * input.stores.surfaceM2;
	const rain = rainL > 0 ? rainL / Math.max(across, 1e-9) : 0;
	return { phi, variance: scale ** 2 + demand ** 2 + rain ** 2 };
}

/** The weighings of a pot. */
export interface Weighings {
	pairs: readonly WeighingPair[];
	/** Those of them that tell what its roots drink. */
	told: readonly WeighingPair[];
	/** A pair that has begun: it was weighed after its last water. */
	begun: boolean;
	/** Its pot is too heavy for a scale. */
	tooHeavy: boolean;
	/** Rain may have fallen between the last two, and nobody measured it. */
	rainUnmeasured: boolean;
}

/** What root function rests on, by how many pairs of weighings there are and how many of them tell it. */
export const functionBy = ({ pairs, told }: Pick<Weighings, 'pairs' | 'told'>): string =>
	told.length > 0
		? `a filter over ${counted(told.length, 'pair')} of weighings`
		: pairs.length > 0
			? 'no pair of weighings that tells it'
			: 'no pair of weighings yet';

/** What the weighings are worth, and when to weigh next. */
export function weighingAdvice(
	{ pairs, told, begun, tooHeavy, rainUnmeasured }: Weighings,
	last: FunctionEstimate | null,
	today: string,
	values: Values
): string {
	if (pairs.length === 0 && tooHeavy)
		return 'Its pot is too heavy for a scale: feel or probe it between waters; what its roots do shows in its shoots and leaves.';
	if (pairs.length === 0)
		return begun
			? 'No pair of weighings yet: it was weighed after its last water; weigh it again before the next.'
			: 'No pair of weighings yet: weigh it after water, and again before the next.';
	if (rainUnmeasured)
		return 'Nobody wrote down the rain between the last two weighings, and it may have got into the pot: they tell little. Weigh it twice without rain between, or write down the weather.';
	if (told.length === 0)
		return 'Its weighings tell nothing of its roots yet: between them it bore no leaves, went dry whatever its roots are, or lost too little for the scale. Weigh it in leaf, after water and before the next.';
	if (told.length < values['water.pairsEnough'])
		return `${counted(told.length, 'pair')} of weighings: too few to rely on; the band is wide.`;
	const newest =
		pairs
			.map((pair) => pair.to)
			.sort()
			.at(-1) ?? today;
	const old = daysBetween(newest, today);
	if (old > values['water.weighAgainDays'])
		return `The last pair is ${old} days old: weigh it at the next two waterings.`;
	return last && last.high - last.low > values['water.wideBand']
		? 'The band is wide: weigh before and after the next water.'
		: '';
}
