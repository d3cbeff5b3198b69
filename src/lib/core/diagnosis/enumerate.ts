/**
 * Exact inference over all subsets of a few binary causes. A subset is a bit mask: bit i set means cause i holds.
 * Arrays over subsets have length 2ⁿ.
 */

/** How one observed effect follows from the causes by a noisy-OR with a leak. */
export interface NoisyOr {
	/** Chance of the effect with no cause at all, 0 ≤ leak < 1. */
	leak: number;
	/** Chance that cause i alone brings the effect; index is the cause. */
	strengths: readonly number[];
}

/**
 * Chance of an effect given which causes hold: 1 − (1 − leak) Π (1 − strength).
 * @see Pearl 1988, Probabilistic Reasoning in Intelligent Systems; Russell & Norvig
 * @example fever with inhibition 0.6, 0.2, 0.1 and all three causes: 0.988
 */
export function noisyOr({ leak, strengths }: NoisyOr, causes: number): number {
	let none = 1 - leak;
	for (const [index, strength] of strengths.entries()) if (causes & (1 << index)) none *= 1 - strength;
	return 1 - none;
}

/** `start` times the factor of every cause that holds, for every subset. */
export function productOverCauses(start: number, factors: readonly number[]): Float64Array {
	const products = new Float64Array(1 << factors.length);
	products[0] = start;
	for (const [index, factor] of factors.entries()) {
		const size = 1 << index;
		for (let mask = 0; mask < size; mask++) products[size + mask] = (products[mask] ?? 0) * factor;
	}
	return products;
}

/**
 * Prior weight of every subset when causes are independent, already multiplied by the likelihood of effects that were
 * looked for and not found: absence of a noisy-OR splits into one factor a cause, so it costs nothing extra.
 */
export function priorWithAbsent(chances: readonly number[], absent: readonly NoisyOr[]): Float64Array {
	let start = 1;
	const odds = chances.map((chance) => {
		start *= 1 - chance;
		return chance / (1 - chance);
	});
	for (const { leak, strengths } of absent) {
		start *= 1 - leak;
		for (const [index, strength] of strengths.entries()) odds[index] = (odds[index] ?? 0) * (1 - strength);
	}
	return productOverCauses(start, odds);
}

/** Likelihood of an effect that was found, for every subset. */
export function presentLikelihood({ leak, strengths }: NoisyOr): Float64Array {
	const likelihood = productOverCauses(
		1 - leak,
		strengths.map((strength) => 1 - strength)
	);
	for (let mask = 0; mask < likelihood.length; mask++) likelihood[mask] = 1 - (likelihood[mask] ?? 0);
	return likelihood;
}

/** Entry by entry, a × b. */
export function times(a: Float64Array, b: Float64Array): Float64Array {
	const product = new Float64Array(a.length);
	for (let mask = 0; mask < a.length; mask++) product[mask] = (a[mask] ?? 0) * (b[mask] ?? 0);
	return product;
}

/**
 * Chance of each cause, from weights of the subsets that need not sum to 1.
 * Folds the array in half cause by cause, so that it takes 2 · 2ⁿ steps.
 */
export function marginals(weights: Float64Array, causeCount: number): number[] {
	const chances = new Array<number>(causeCount).fill(0);
	const folded = Float64Array.from(weights);
	for (let index = causeCount - 1; index >= 0; index--) {
		const size = 1 << index;
		let holds = 0;
		for (let mask = 0; mask < size; mask++) {
			const upper = folded[size + mask] ?? 0;
			holds += upper;
			folded[mask] = (folded[mask] ?? 0) + upper;
		}
		chances[index] = holds;
	}
	const total = folded[0] ?? 0;
	return total > 0 ? chances.map((chance) => chance / total) : chances;
}
