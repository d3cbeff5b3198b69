import { logistic } from '../maths/odds';
import type { Values } from '../values/values';

/*
 * How a tree may fare between the work and the horizon: one hidden standing that moves from week to week. Standings are ordered
 * from dead to thriving; under a tipping point they slide down, within weeks or over seasons, over it they rise. Because the
 * standing is ordered, the step from week to week keeps the order (it is totally positive of order two), and every sign is
 * likelier the better it is the better the tree stands, what is seen worse can never make the chance better: Karlin & Rinott
 * 1980, Milgrom & Weber 1982 (affiliation).
 */

/** Standings in log-odds from −5, dead, to +5, thriving. */
export const STANDING_STEP = 0.2;
const STEP = STANDING_STEP;
export const standings: readonly number[] = Array.from({ length: 51 }, (_, i) => -5 + STEP * i);
const N = standings.length;

/** A normal spread around a mean, over the standings. Rows of it are totally positive in mean and standing, exactly. */
function spreadOver(mean: number, sd: number): Float64Array {
	const logs = Float64Array.from(standings, (y) => -0.5 * ((y - mean) / sd) ** 2);
	const most = Math.max(...logs);
	return normalised(logs.map((log) => Math.exp(log - most)));
}

/** Moves of one step of time: from each standing, its shares after it. */
export type Kernel = readonly Float64Array[];

/**
 * The moves over a share of a growing season. Dead stays dead; otherwise a standing leaves the tipping point, and wavers.
 * @param seasons length of a step, growing seasons
 */
export function kernelOf(seasons: number, values: Values): Kernel {
	const own = kernels.get(values) ?? new Map<number, Kernel>();
	kernels.set(values, own);
	const known = own.get(seasons);
	if (known) return known;
	const kernel = movesOver(seasons, values);
	if (own.size > 200) own.clear();
	own.set(seasons, kernel);
	return kernel;
}

const kernels = new WeakMap<Values, Map<number, Kernel>>();

function movesOver(seasons: number, values: Values): Kernel {
	const away = Math.exp(values['forecast.leavesTipping'] * seasons);
	const sd = Math.max(0.6 * STEP, values['forecast.wavers'] * Math.sqrt(seasons));
	return standings.map((y, i) => {
		if (i > 0) return spreadOver(y * away, sd);
		const dead = new Float64Array(N);
		dead[0] = 1;
		return dead;
	});
}

/** Shares one step on. */
export function onward(shares: Float64Array, kernel: Kernel): Float64Array {
	const next = new Float64Array(N);
	for (let i = 0; i < N; i++) {
		const share = shares[i] ?? 0;
		if (share < 1e-300) continue;
		const row = kernel[i];
		if (row) for (let j = 0; j < N; j++) next[j] = (next[j] ?? 0) + share * (row[j] ?? 0);
	}
	return next;
}

/** What a value of standings at the end of a step is worth before it. */
export function backward(worth: Float64Array, kernel: Kernel): Float64Array {
	const before = new Float64Array(N);
	for (let i = 0; i < N; i++) {
		const row = kernel[i];
		let sum = 0;
		if (row) for (let j = 0; j < N; j++) sum += (row[j] ?? 0) * (worth[j] ?? 0);
		before[i] = sum;
	}
	return before;
}

/** Shares that sum to one. */
export function normalised(shares: Float64Array): Float64Array {
	let sum = 0;
	for (const share of shares) sum += share;
	return sum > 0 ? shares.map((share) => share / sum) : shares;
}

/**
 * Shares of the standings on the day of the work, so that the chance to come through is the one judged then: a normal spread whose
 * mean is found by halving.
 * @param worth chance to come through from each standing
 * @param odds odds to come through, as judged on the day of the work
 */
export function startingShares(odds: number, worth: Float64Array, values: Values): Float64Array {
	const sd = values['forecast.standingSpread'];
	const wanted = logistic(odds);
	let [low, high] = [-14, 14];
	let shares: Float64Array = spreadOver(0, sd);
	for (let i = 0; i < 40; i++) {
		const mean = (low + high) / 2;
		shares = spreadOver(mean, sd);
		let chance = 0;
		for (let j = 0; j < N; j++) chance += (shares[j] ?? 0) * (worth[j] ?? 0);
		if (chance < wanted) low = mean;
		else high = mean;
	}
	return shares;
}
