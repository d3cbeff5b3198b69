import { linearRegression } from 'simple-statistics';

/** Size at a time, in any units. */
export interface SizePoint {
	time: number;
	size: number;
}

export interface GrowthCurve {
	/** Size it grows to. */
	asymptote: number;
	/** Time at which half of it is reached. */
	midpoint: number;
	/** Time scale of the rise. */
	scale: number;
	/** Standard errors of the three, from the curvature at the fit. */
	errors: { asymptote: number; midpoint: number; scale: number };
	/** Residual standard error. */
	sigma: number;
	at: (time: number) => number;
	/** Standard error of the curve at a time. */
	errorAt: (time: number) => number;
}

/** Inverse of a 3 × 3 matrix; null where it has none. */
function inverse(m: readonly (readonly number[])[]): number[][] | null {
	const a = m.map((row, i) => [...row, ...[0, 1, 2].map((j) => (i === j ? 1 : 0))]);
	for (let c = 0; c < 3; c++) {
		let pivot = c;
		for (let r = c + 1; r < 3; r++) if (Math.abs(a[r]?.[c] ?? 0) > Math.abs(a[pivot]?.[c] ?? 0)) pivot = r;
		const row = a[pivot];
		const other = a[c];
		if (!row || !other || Math.abs(row[c] ?? 0) < 1e-300) return null;
		[a[c], a[pivot]] = [row, other];
		const p = row[c] ?? 1;
		for (let k = 0; k < 6; k++) row[k] = (row[k] ?? 0) / p;
		for (let r = 0; r < 3; r++) {
			const target = a[r];
			if (r === c || !target) continue;
			const f = target[c] ?? 0;
			for (let k = 0; k < 6; k++) target[k] = (target[k] ?? 0) - f * (row[k] ?? 0);
		}
	}
	return a.map((row) => row.slice(3));
}

type Three = readonly [number, number, number];

const logistic = ([a, m, s]: Three, time: number): number => a / (1 + Math.exp((m - time) / s));

/** How the curve moves with each of its three numbers at a time. */
function gradientAt([a, m, s]: Three, time: number): Three {
	const e = Math.exp((m - time) / s);
	const d = (1 + e) ** 2;
	return [1 / (1 + e), (-a * e) / (s * d), (a * e * (m - time)) / (s ** 2 * d)];
}

const squares = (points: readonly SizePoint[], beta: Three): number =>
	points.reduce((sum, { time, size }) => sum + (size - logistic(beta, time)) ** 2, 0);

/** Normal equations of the curve at three numbers, the diagonal damped. */
function normalEquations(
	points: readonly SizePoint[],
	beta: Three,
	damping: number
): { jtj: number[][]; jtr: number[] } {
	const jtj = [
		[0, 0, 0],
		[0, 0, 0],
		[0, 0, 0]
	];
	const jtr = [0, 0, 0];
	for (const { time, size } of points) {
		const g = gradientAt(beta, time);
		const residual = size - logistic(beta, time);
		for (let i = 0; i < 3; i++) {
			jtr[i] = (jtr[i] ?? 0) + (g[i] ?? 0) * residual;
			const row = jtj[i];
			if (row) for (let j = 0; j < 3; j++) row[j] = (row[j] ?? 0) + (g[i] ?? 0) * (g[j] ?? 0);
		}
	}
	for (let i = 0; i < 3; i++) {
		const row = jtj[i];
		if (row) row[i] = (row[i] ?? 0) * (1 + damping);
	}
	return { jtj, jtr };
}

/** A start by the line of the log-odds of size under a top a little above what was measured; null where it does not rise. */
function startOf(points: readonly SizePoint[], top: number): Three | null {
	const begin = top * 1.1;
	const logits = points
		.filter((point) => point.size > 0)
		.map((point) => [point.time, Math.log(point.size / (begin - point.size))]);
	const { m: slope, b } = linearRegression(logits);
	return slope > 0 ? [begin, -b / slope, 1 / slope] : null;
}

/** The three numbers of the least squares from a start, damped by what the last step brought; null where it cannot be solved. */
function leastSquares(points: readonly SizePoint[], start: Three): { beta: Three; rest: number } | null {
	let beta = start;
	let damping = 1e-3;
	let rest = squares(points, beta);
	for (let round = 0; round < 200; round++) {
		const { jtj, jtr } = normalEquations(points, beta, damping);
		const inv = inverse(jtj);
		if (!inv) return null;
		const step = inv.map((row) => row.reduce((sum, cell, j) => sum + cell * (jtr[j] ?? 0), 0));
		const next: Three = [beta[0] + (step[0] ?? 0), beta[1] + (step[1] ?? 0), beta[2] + (step[2] ?? 0)];
		const tried = next[0] > 0 && next[2] > 0 ? squares(points, next) : Infinity;
		if (tried < rest) {
			const done = rest - tried < 1e-12 * rest;
			beta = next;
			rest = tried;
			damping /= 5;
			if (done) break;
		} else {
			damping *= 5;
			if (damping > 1e12) break;
		}
	}
	return { beta, rest };
}

/**
 * Fits size = asymptote / (1 + exp((midpoint − time) / scale)) by least squares, Levenberg’s way.
 * @param points at least four, at different times
 * @returns null where they do not rise to a curve
 * @see Draper & Smith 1981, exercise 24.N; Pinheiro & Bates 2000, SSlogis
 * @example the first orange tree: asymptote 154, midpoint 627, scale 363 days
 */
export function fitGrowth(points: readonly SizePoint[]): GrowthCurve | null {
	const times = points.map((point) => point.time);
	if (new Set(times).size < 4) return null;
	const [least, most] = [Math.min(...times), Math.max(...times)];
	const top = Math.max(...points.map((point) => point.size));
	const start = top > 0 ? startOf(points, top) : null;
	const fit = start && leastSquares(points, start);
	if (!fit) return null;
	const { beta, rest } = fit;
	const [asymptote, midpoint, scale] = beta;
	// Beyond twice the time and five times the size nothing was seen that could carry it.
	if (
		!Number.isFinite(asymptote + midpoint + scale) ||
		asymptote > 5 * top ||
		midpoint > most + 2 * (most - least)
	)
		return null;
	const covariance = inverse(normalEquations(points, beta, 0).jtj);
	if (!covariance) return null;
	const sigma = Math.sqrt(rest / Math.max(1, points.length - 3));
	const error = (i: number): number => sigma * Math.sqrt(Math.max(0, covariance[i]?.[i] ?? 0));
	// Sizes that hardly bear on one of the three leave its error without end.
	if (![0, 1, 2].every((i) => Number.isFinite(error(i)))) return null;
	return {
		asymptote,
		midpoint,
		scale,
		errors: { asymptote: error(0), midpoint: error(1), scale: error(2) },
		sigma,
		at: (time) => logistic(beta, time),
		errorAt: (time) => {
			const g = gradientAt(beta, time);
			let variance = 0;
			for (let i = 0; i < 3; i++)
				for (let j = 0; j < 3; j++) variance += (g[i] ?? 0) * (covariance[i]?.[j] ?? 0) * (g[j] ?? 0);
			return sigma * Math.sqrt(Math.max(0, variance));
		}
	};
}
