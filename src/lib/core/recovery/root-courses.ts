import { logistic, LOGISTIC_SD } from '../maths/odds';
import type { Values } from '../values/values';
import { grown, grownSlope, rootWarmth } from '../aftercare/water/regrowth';
import type { RecoveryCase } from './forecast-case';

/** Normal quantiles at the middles of nine equal parts. */
const NINE = [-1.593, -0.967, -0.589, -0.282, 0, 0.282, 0.589, 0.967, 1.593] as const;

export interface RootCourse {
	/** Pace of regrowth against the usual one. */
	pace: number;
	/** Root function by step of a tree that does as well as it can. */
	phi: Float64Array;
}

/** Root function of a tree that recovers, by its pace: from what was left, over every loss, drawn to what was weighed. */
export function rootCourses(
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
	const least = values['forecast.beginSpreadLeast'];
	const sd = new Float64Array(steps.length);
	const courses = NINE.map((z): RootCourse => {
		const pace = Math.exp(values['forecast.paceSpread'] * z);
		const phi = new Float64Array(steps.length);
		let now = begin;
		let variance = (values['forecast.beginSpread'] * (least + (1 - least) * begin)) ** 2;
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

/**
 * Steps at which courses come to have roots enough for a verdict, of those that do by the horizon, in order; and their share of all courses.
 * By pace of regrowth and by how fit a tree comes to be.
 * @param horizon the step of the horizon, counted from 0
 */
export function rootsEnough(
	courses: readonly RootCourse[],
	horizon: number,
	values: Values
): { reached: number[]; inTime: number } {
	const wanted = values['verdict.rootFunction'];
	const fitness = NINE.map((z) =>
		Math.min(1, values['forecast.fitness'] + values['forecast.fitnessSpread'] * z)
	);
	const reached = courses.flatMap((course) =>
		fitness
			.map((fit) => course.phi.findIndex((phi) => phi * fit >= wanted))
			.filter((at) => at >= 0 && at <= horizon)
	);
	return {
		reached: reached.sort((a, b) => a - b),
		inTime: reached.length / (courses.length * fitness.length)
	};
}

/**
 * 5, 50 and 95 % of root function, over standings: of each a spread of what its pace, its roots and its fitness are not known to.
 * @param sd standard deviation of root function around each pace, at this step
 */
export function functionBand(
	shares: Float64Array,
	shown: Float64Array,
	phis: readonly number[],
	sd: number,
	values: Values
): [number, number, number] {
	const mean = phis.reduce((total, phi) => total + phi, 0) / Math.max(1, phis.length);
	const variance = phis.reduce((total, phi) => total + (phi - mean) ** 2, 0) / Math.max(1, phis.length);
	const spread = LOGISTIC_SD * Math.hypot(sd, Math.sqrt(variance), values['forecast.fitnessSpread'] * mean);
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
