/**
 * Exact inference over all subsets of a few binary causes. A subset is a bit mask: bit i set means cause i holds.
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

/** Unnormalised weight of every subset when causes are independent. Length 2ⁿ. */
export function independentPrior(chances: readonly number[]): Float64Array {
	const weights = new Float64Array(1 << chances.length);
	weights[0] = chances.reduce((product, chance) => product * (1 - chance), 1);
	for (const [index, chance] of chances.entries()) {
		const size = 1 << index;
		const odds = chance / (1 - chance);
		for (let mask = 0; mask < size; mask++) weights[size + mask] = (weights[mask] ?? 0) * odds;
	}
	return weights;
}

/** Multiplies the weights by the likelihood of an observed effect, in place. */
export function observe(weights: Float64Array, effect: NoisyOr, present: boolean): void {
	const none = new Float64Array(weights.length);
	none[0] = 1 - effect.leak;
	for (const [index, strength] of effect.strengths.entries()) {
		const size = 1 << index;
		if (size >= weights.length) break;
		for (let mask = 0; mask < size; mask++) none[size + mask] = (none[mask] ?? 0) * (1 - strength);
	}
	for (let mask = 0; mask < weights.length; mask++) {
		const absent = none[mask] ?? 0;
		weights[mask] = (weights[mask] ?? 0) * (present ? 1 - absent : absent);
	}
}

/** Scales weights so that they sum to 1, in place; leaves them when all are zero. */
export function normalise(weights: Float64Array): void {
	let total = 0;
	for (const weight of weights) total += weight;
	if (total > 0) for (let mask = 0; mask < weights.length; mask++) weights[mask] = (weights[mask] ?? 0) / total;
}

/** Chance of each cause, from normalised weights of the subsets. */
export function marginals(weights: Float64Array, causeCount: number): number[] {
	const chances = new Array<number>(causeCount).fill(0);
	for (let mask = 0; mask < weights.length; mask++) {
		const weight = weights[mask] ?? 0;
		if (weight === 0) continue;
		for (let index = 0; index < causeCount; index++)
			if (mask & (1 << index)) chances[index] = (chances[index] ?? 0) + weight;
	}
	return chances;
}
