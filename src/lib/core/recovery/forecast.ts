import { logistic, logOdds } from '../maths/odds';
import { addDays, daysBetween } from '../maths/calendar';
import type { PlaceClimate } from '../climate/normals';
import type { Values } from '../values/values';
import { grown, grownSlope, rootWarmth } from '../aftercare/water/regrowth';
import { evidenceOf, functionEvidence, limitEvidence, type LookSeen, type Reference } from './evidence';
import { growingDayCounter, type RootLoss } from './expected';
import {
	backward,
	kernelOf,
	normalised,
	onward,
	standings,
	startingShares,
	type Kernel
} from './standing-chain';

export type { LookSeen } from './evidence';

export interface RecoveryCase {
	/** Day of the last root work, or of taking in. */
	sinceOn: string;
	today: string;
	/** Log-odds of living through it, as judged at the work, and how unsure that is. */
	odds: number;
	oddsSpread: number;
	/** Root function expected on the day of the work, its loss counted. */
	begin: number;
	/** Losses after it, done and planned. */
	losses: readonly RootLoss[];
	place: PlaceClimate;
	tender: boolean;
	evergreen: boolean;
	looks: readonly LookSeen[];
	/** Root function by weighings, thinned so that they are apart. */
	functionSeen: readonly { on: string; phi: number; sd: number }[];
	/** Shoots of a healthy reference over a season, mm; null where there is none. */
	healthyShootMm: number | null;
	/** Share of a whole crown that was in leaf, or would have been in its season, when it began: what was cut, burnt or dropped before is allowed for. Default 1. */
	crownAtStart?: number;
	/** Height of the living wood at the start, mm; null or left out where it is not known. */
	heightMm?: number | null;
}

export interface CoursePoint {
	on: string;
	low: number;
	middle: number;
	high: number;
}

export interface RecoveryForecast {
	/** Probability of re-establishment as judged at the work, and now. */
	prior: number;
	now: number;
	/** 80 % range of now: what is not known of the odds at the work, and what nobody has looked at since, stays not known. */
	low: number;
	high: number;
	/** By day of what was seen. */
	path: { on: string; probability: number }[];
	/** What moved it, strongest first: log-odds by which each thing seen did. */
	moved: { on: string; what: string; by: number }[];
	/** Root function over time, 90 % band: as expected at the work, and with what was seen. */
	expected: CoursePoint[];
	course: CoursePoint[];
	/** Day on which enough root function is reached, if it recovers: 10, 50 and 90 % of the courses. */
	reaches: { early: string; middle: string; late: string } | null;
	/** Standings that carry the weight: few means that what was seen leaves little doubt. */
	effective: number;
	horizonOn: string;
	/** Day on which anything was seen of it last; null when nothing was since the work. */
	lastSeenOn: string | null;
	/** False when nobody has seen anything for so long that the chance is not known any more. */
	known: boolean;
	/** What says that it is dead, the strongest first, when it does; null otherwise. */
	dead: string[] | null;
}

const STEP_DAYS = 7;

/** Normal quantiles at the middles of nine equal parts. */
const NINE = [-1.593, -0.967, -0.589, -0.282, 0, 0.282, 0.589, 0.967, 1.593] as const;

interface RootCourse {
	/** Pace of regrowth against the usual one. */
	pace: number;
	/** Root function by step of a tree that does as well as it can. */
	phi: Float64Array;
}

/** Root function of a tree that recovers, by its pace: from what was left, over every loss, drawn to what was weighed. */
function rootCourses(
	tree: RecoveryCase,
	steps: readonly string[],
	values: Values
): { courses: RootCourse[]; sd: Float64Array } {
	const last = steps.at(-1) ?? tree.sinceOn;
	const warmth = rootWarmth(tree.place, tree.sinceOn, last, values);
	const grownIn = steps.map((on, step) => (step === 0 ? 0 : warmth(steps[step - 1] ?? on, on)));
	const between = <T extends { on: string }>(list: readonly T[], step: number): T[] => {
		const on = steps[step] ?? '';
		const after = steps[step - 1] ?? tree.sinceOn;
		return list.filter((one) => one.on > after && one.on <= on);
	};
	const seen = tree.functionSeen.filter((one) => one.on <= tree.today);
	const begin = Math.max(values['forecast.leastRoots'], tree.begin);
	const sd = new Float64Array(steps.length);
	const courses = NINE.map((z): RootCourse => {
		const pace = Math.exp(values['forecast.paceSpread'] * z);
		const phi = new Float64Array(steps.length);
		let now = begin;
		let variance = (values['forecast.beginSpread'] * (0.3 + 0.7 * begin)) ** 2;
		for (let step = 0; step < steps.length; step++) {
			const dd = (grownIn[step] ?? 0) * pace;
			variance *= grownSlope(now, dd, values) ** 2;
			now = grown(now, dd, values);
			for (const loss of between(tree.losses, step)) {
				now *= 1 - loss.share;
				variance = variance * (1 - loss.share) ** 2 + (loss.share * values['rootFunction.lossSpread']) ** 2;
			}
			for (const one of between(seen, step)) {
				const gain = variance / (variance + Math.max(values['forecast.weighingError'], one.sd) ** 2);
				now = Math.min(1, Math.max(values['forecast.leastRoots'], now + gain * (one.phi - now)));
				variance *= 1 - gain;
			}
			phi[step] = now;
			if (z === 0) sd[step] = Math.sqrt(variance);
		}
		return { pace, phi };
	});
	return { courses, sd };
}

/** What a recovering tree shows by step: the measure for looks. It does not ask how many roots this tree had, so that fewer never count for it. */
function references(
	tree: RecoveryCase,
	steps: readonly string[],
	seasonsSince: readonly number[],
	values: Values
): Reference[] {
	const warmth = rootWarmth(tree.place, tree.sinceOn, steps.at(-1) ?? tree.sinceOn, values);
	const towards = (start: number, pace: number, seasons: number): number =>
		1 - (1 - start) * Math.exp(-pace * seasons);
	const crown = Math.min(1, Math.max(0.05, tree.crownAtStart ?? 1));
	return steps.map((on, step) => {
		const seasons = seasonsSince[step] ?? 0;
		return {
			cover: towards(values['forecast.coverAtFirst'] * crown, values['forecast.crownPace'], seasons),
			shoots: towards(values['forecast.shootsAtFirst'], values['forecast.crownPace'], seasons),
			rootFunction: grown(values['forecast.functionAtFirst'], warmth(tree.sinceOn, on), values),
			heightMm: tree.heightMm ?? null
		};
	});
}

/**
 * Whether it comes back: a hidden standing from the work on, moved by the season, weighed by everything that was seen since
 * (a hidden Markov model, solved exactly; Rabiner 1989). The probability is that of re-establishment within the horizon: of
 * standing above the tipping point then, with roots enough. In every single thing seen, and in roots, losses and odds at the
 * start, worse never makes it better. Looks soon after each other count less [our own numbers].
 */
export function recoveryForecast(
	tree: RecoveryCase,
	values: Values,
	{ bands = true }: { bands?: boolean } = {}
): RecoveryForecast {
	const horizonOn = addDays(tree.sinceOn, values['forecast.horizonDays']);
	const to = horizonOn > tree.today ? horizonOn : tree.today;
	const steps: string[] = [];
	for (let on = tree.sinceOn; on <= to; on = addDays(on, STEP_DAYS)) steps.push(on);
	const stepOf = (on: string): number =>
		Math.min(steps.length - 1, Math.max(0, Math.round(daysBetween(tree.sinceOn, on) / STEP_DAYS)));

	// Time as the tree has it: the growing season whole, the rest of the year a little.
	const growing = growingDayCounter(tree.place, tree.tender, tree.sinceOn, steps.at(-1) ?? to, values);
	const season = Math.max(60, growing(tree.sinceOn, addDays(tree.sinceOn, 365)));
	const grew = steps.map((on, step) => (step === 0 ? 0 : growing(steps[step - 1] ?? on, on)));
	const rest = values['forecast.restPace'];
	const growingKernel = kernelOf(STEP_DAYS / season, values);
	const restingKernel = kernelOf((rest * STEP_DAYS) / season, values);
	const kernelAt = (step: number): Kernel =>
		(grew[step] ?? 0) > STEP_DAYS / 2 ? growingKernel : restingKernel;
	let sum = 0;
	const seasonsSince = grew.map((days) => (sum += days) / season);
	// Stores carry a tree at first, so that it shows more than it has; with time it shows how it stands.
	const bendAt = seasonsSince.map(
		(seasons) =>
			1 - (1 - values['forecast.storesShow']) * Math.exp(-seasons / values['forecast.storesSeasons'])
	);
	const shownAt = (step: number): Float64Array =>
		Float64Array.from(standings, (y, i) => (i === 0 ? 0 : logistic(y) ** (bendAt[step] ?? 1)));

	// Chance to come through from each standing at each step.
	const worth: Float64Array[] = [];
	let later: Float64Array = Float64Array.from(standings, (y) => (y > 0 ? 1 : y === 0 ? 0.5 : 0));
	for (let step = steps.length - 1; step >= 0; step--) {
		worth[step] = later;
		if (step > 0) later = backward(later, kernelAt(step));
	}
	const through = (shares: Float64Array, step: number): number => {
		let chance = 0;
		const at = worth[step];
		for (let i = 0; i < shares.length; i++) chance += (shares[i] ?? 0) * (at?.[i] ?? 0);
		return chance;
	};

	// Whether roots enough can be there by the horizon, by pace and by how fit it comes to be.
	const wanted = values['verdict.rootFunction'];
	const { courses, sd } = rootCourses(tree, steps, values);
	const horizon = stepOf(horizonOn);
	const fitness = NINE.map((z) =>
		Math.min(1, values['forecast.fitness'] + values['forecast.fitnessSpread'] * z)
	);
	const reached: number[] = [];
	for (const course of courses)
		for (const fit of fitness) {
			const at = course.phi.findIndex((phi) => phi * fit >= wanted);
			if (at >= 0 && at <= horizon) reached.push(at);
		}
	const inTime = reached.length / (courses.length * fitness.length);

	// Losses since the work cost their share of the odds, like those at the work.
	const lostSince = tree.losses
		.filter((loss) => loss.on > tree.sinceOn && loss.on <= tree.today)
		.reduce((total, loss) => total + loss.share, 0);
	const odds = tree.odds + values['forecast.lossOdds'] * lostSince;
	const start = startingShares(odds, worth[0] ?? later, values);
	const prior = through(start, 0) * inTime;

	const path = [{ on: tree.sinceOn, probability: prior }];
	const moved: RecoveryForecast['moved'] = [];
	const measures = references(tree, steps, seasonsSince, values);
	const looks = tree.looks
		.filter((look) => look.observedOn > tree.sinceOn && look.observedOn <= tree.today)
		.map((look) => ({ on: look.observedOn, point: null, look }));
	const weighed = tree.functionSeen
		.filter((point) => point.on > tree.sinceOn && point.on <= tree.today)
		.map((point) => ({ on: point.on, point, look: null }));
	const events = [...weighed, ...looks].sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
	const tilt = (
		shares: Float64Array,
		step: number,
		log: (shows: number) => number,
		power: number
	): Float64Array => {
		const shown = shownAt(step);
		const logs = shown.map((shows) => power * log(shows));
		const most = Math.max(...logs);
		return normalised(shares.map((share, i) => share * Math.exp((logs[i] ?? 0) - most)));
	};

	let shares: Float64Array = start;
	let at = 0;
	let lastLookOn: string | null = null;
	// Living wood does not rise: a later higher reading was a slip or a new shoot.
	let lowestMm: number | null = null;
	let limitBy = 0;
	const filtered: Float64Array[] = [start];
	/** Shares with the last reading of the limit, which counts once, where it was read last. */
	const withLimit = (of: Float64Array, step: number): { shares: Float64Array; what: string } | null => {
		const measure = measures[step];
		const limit = lowestMm === null || !measure ? null : limitEvidence(lowestMm, measure, values);
		return limit && { shares: tilt(of, step, limit.log, 1), what: limit.what };
	};
	for (const { on, point, look } of events) {
		const step = stepOf(on);
		for (; at < step; at++) {
			shares = onward(shares, kernelAt(at + 1));
			filtered[at + 1] = shares;
		}
		const measure = measures[step];
		if (!measure) continue;
		const take = (what: string, log: (shows: number) => number, power: number): void => {
			const before = through(shares, step);
			shares = tilt(shares, step, log, power);
			moved.push({ on, what, by: logOdds(through(shares, step), 1e-9) - logOdds(before, 1e-9) });
		};
		if (point) {
			const one = functionEvidence(point.phi, point.sd, measure, values);
			take(one.what, one.log, 1);
		}
		if (look) {
			// Looks soon after each other see the same thing.
			const apart = lastLookOn === null ? values['forecast.apartDays'] : daysBetween(lastLookOn, on);
			const power = Math.min(1, apart / values['forecast.apartDays']);
			const of = {
				evergreen: tree.evergreen,
				healthyShootMm: tree.healthyShootMm,
				beganBare: (tree.crownAtStart ?? 1) < values['forecast.bareCrown']
			};
			for (const one of evidenceOf(look, of, measure, values)) take(one.what, one.log, power);
			if (look.diebackLimitMm !== null) {
				lowestMm = lowestMm === null ? look.diebackLimitMm : Math.min(lowestMm, look.diebackLimitMm);
				const limit = withLimit(shares, step);
				if (limit) {
					const by = logOdds(through(limit.shares, step), 1e-9) - logOdds(through(shares, step), 1e-9);
					moved.push({ on, what: limit.what, by: by - limitBy });
					limitBy = by;
				}
			}
			lastLookOn = on;
		}
		filtered[step] = shares;
		const told = withLimit(shares, step)?.shares ?? shares;
		path.push({ on, probability: through(told, step) * inTime });
	}
	const nowStep = stepOf(tree.today);
	for (; at < nowStep; at++) {
		shares = onward(shares, kernelAt(at + 1));
		filtered[at + 1] = shares;
	}
	shares = withLimit(shares, nowStep)?.shares ?? shares;
	filtered[nowStep] = shares;
	const now = through(shares, nowStep) * inTime;

	if (path.at(-1)?.on === tree.today) path.pop();
	path.push({ on: tree.today, probability: now });

	// Beyond today nothing is seen; before it, what came later tells of what was.
	const band = (of: readonly Float64Array[], till: number): CoursePoint[] => {
		if (!bands) return [];
		const points: CoursePoint[] = [];
		let ahead: Float64Array = of[till] ?? start;
		for (let step = 0; step < steps.length; step++) {
			if (step > till) ahead = onward(ahead, kernelAt(step));
			if (step % 2 === 1) continue;
			const [low, middle, high] = functionBand(
				step <= till ? (of[step] ?? start) : ahead,
				shownAt(step),
				courses.map((course) => course.phi[step] ?? 0),
				sd[step] ?? 0,
				values
			);
			points.push({ on: steps[step] ?? '', low, middle, high });
		}
		return points;
	};
	reached.sort((a, b) => a - b);
	const dayAt = (share: number): string =>
		steps[reached[Math.min(reached.length - 1, Math.floor(share * reached.length))] ?? horizon] ?? horizonOn;

	const lastSeenOn = events.at(-1)?.on ?? null;
	const unseen = daysBetween(lastSeenOn ?? tree.sinceOn, tree.today);
	const beyond = Math.max(0, unseen - values['look.overdueDays']);
	const spread = Math.hypot(tree.oddsSpread, (values['forecast.unseenSpread'] * beyond) / 365);
	const z80 = 1.2816;
	const told = logOdds(now, 1e-9);
	const against = moved.filter((one) => one.by < -0.05).sort((a, b) => a.by - b.by);
	const merged = (list: readonly Float64Array[]): Float64Array[] => smoothed(list, kernelAt, nowStep, shares);
	return {
		prior,
		now,
		low: Math.min(now, logistic(told - z80 * spread)),
		high: Math.max(now, logistic(told + z80 * spread)),
		path,
		moved: moved.filter((one) => Math.abs(one.by) >= 0.05).sort((a, b) => Math.abs(b.by) - Math.abs(a.by)),
		expected: band([start], 0),
		course: bands ? band(merged(filtered), nowStep) : [],
		reaches:
			reached.length > 0 && now > 1e-6 ? { early: dayAt(0.1), middle: dayAt(0.5), late: dayAt(0.9) } : null,
		effective: 1 / shares.reduce((total, share) => total + share ** 2, 0),
		horizonOn,
		lastSeenOn,
		known: unseen <= values['forecast.unknownDays'],
		dead: now < values['forecast.deadUnder'] && against.length > 0 ? against.map((one) => one.what) : null
	};
}

/** Standings of the past in the light of all that was seen since (forward filtering, backward smoothing). */
function smoothed(
	filtered: readonly Float64Array[],
	kernelAt: (step: number) => Kernel,
	till: number,
	last: Float64Array
): Float64Array[] {
	const list: Float64Array[] = [];
	list[till] = last;
	let after = last;
	for (let step = till - 1; step >= 0; step--) {
		const here = filtered[step];
		if (!here) continue;
		const kernel = kernelAt(step + 1);
		const predicted = onward(here, kernel);
		const ratio = after.map((share, i) => ((predicted[i] ?? 0) > 1e-200 ? share / (predicted[i] ?? 1) : 0));
		const back = backward(ratio, kernel);
		after = normalised(here.map((share, i) => share * (back[i] ?? 0)));
		list[step] = after;
	}
	return list;
}

/** 5, 50 and 95 % of root function, over standings: of each a spread of what its pace, its roots and its fitness are not known to. */
function functionBand(
	shares: Float64Array,
	shown: Float64Array,
	phis: readonly number[],
	sd: number,
	values: Values
): [number, number, number] {
	const mean = phis.reduce((total, phi) => total + phi, 0) / Math.max(1, phis.length);
	const variance = phis.reduce((total, phi) => total + (phi - mean) ** 2, 0) / Math.max(1, phis.length);
	const spread = 0.5513 * Math.hypot(sd, Math.sqrt(variance), values['forecast.fitnessSpread'] * mean);
	const middle = values['forecast.fitness'] * mean;
	const quantile = (share: number): number => {
		let [low, high] = [0, 1.2];
		for (let i = 0; i < 11; i++) {
			const x = (low + high) / 2;
			let below = 0;
			for (let j = 0; j < shares.length; j++) {
				const shows = shown[j] ?? 0;
				below += (shares[j] ?? 0) * logistic((x - middle * shows) / Math.max(0.007, spread * shows));
			}
			if (below < share) low = x;
			else high = x;
		}
		return Math.min(1, (low + high) / 2);
	};
	return [quantile(values['forecast.bandTail']), quantile(0.5), quantile(1 - values['forecast.bandTail'])];
}
