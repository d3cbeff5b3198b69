/**
 * Exact inference over all subsets of a few binary causes. A subset is a bit mask: bit i set means cause i holds.
 */

/** How one observed effect follows from the causes by a noisy-OR with a leak. */
export interface NoisyOr {
	/** Chance of the effect with no cause at all, 0 ≤ leak < 1. */
	leak: number;
	/** Chance that cause i alone brings the effect, below 1; index is the cause. */
	strengths: readonly number[];
}

export interface Observed {
	effect: NoisyOr;
	present: boolean;
}

export interface Inference {
	/** Chance of each cause, given all that was observed. */
	chances: number[];
	/** For each observation: the chances had it alone not been made; empty when that was not asked. */
	without: number[][];
	/** The most probable subset and its chance. */
	best: number;
	bestChance: number;
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

/** `start` times the factor of every cause that holds, for every subset; length 2ⁿ. */
export function productOverCauses(start: number, factors: readonly number[]): Float64Array {
	const products = new Float64Array(1 << factors.length);
	products[0] = start;
	for (const [index, factor] of factors.entries()) {
		const size = 1 << index;
		for (let mask = 0; mask < size; mask++) products[size + mask] = (products[mask] as number) * factor;
	}
	return products;
}

/** Prior weight of every subset when causes are independent. */
export function independentPrior(chances: readonly number[]): Float64Array {
	const none = chances.reduce((product, chance) => product * (1 - chance), 1);
	return productOverCauses(
		none,
		chances.map((chance) => chance / (1 - chance))
	);
}

/** A factor over subsets that splits into one over the lower and one over the upper causes. */
interface Split {
	lower: Float64Array;
	upper: Float64Array;
}

/** Chance that an effect does not show, as a split factor. */
function absence({ leak, strengths }: NoisyOr, lowerCount: number): Split {
	const factors = strengths.map((strength) => 1 - strength);
	return {
		lower: productOverCauses(1 - leak, factors.slice(0, lowerCount)),
		upper: productOverCauses(1, factors.slice(lowerCount))
	};
}

/**
 * Exact posterior of every cause, and what it would be without each observation, in one sweep over all 2ⁿ subsets.
 * Causes are split in two halves, so that every factor is a product of two short tables and only sums by half are kept.
 * @param prior weight of every subset, length 2ⁿ; need not sum to 1 and need not be independent
 * @param causeCount n, from 2 to about 18
 * @param observed effects that were found or looked for and not found, in any order
 * @param leaveOneOut also work out the chances without each observation
 */
export function infer(
	prior: Float64Array,
	causeCount: number,
	observed: readonly Observed[],
	leaveOneOut = true
): Inference {
	const lowerCount = causeCount >> 1;
	const lowerSize = 1 << lowerCount;
	const upperSize = 1 << (causeCount - lowerCount);
	const factors = observed.map(({ effect }) => absence(effect, lowerCount));
	const found = observed.flatMap(({ present }, index) => (present ? [index] : []));
	const missing = observed.flatMap(({ present }, index) => (present ? [] : [index]));
	const foundFactors = found.map((index) => factors[index] as Split);
	const missingFactors = missing.map((index) => factors[index] as Split);
	const allMissing = {
		lower: productOfTables(
			missingFactors.map((factor) => factor.lower),
			lowerSize
		),
		upper: productOfTables(
			missingFactors.map((factor) => factor.upper),
			upperSize
		)
	};
	const count = foundFactors.length;

	// Sums by half: of all observations, and of one left out at a time, first the found, then the missing ones.
	const variants = leaveOneOut ? 1 + observed.length : 1;
	const lowerSums = Array.from({ length: variants }, () => new Float64Array(lowerSize));
	const upperSums = Array.from({ length: variants }, () => new Float64Array(upperSize));
	const keep = (variant: number, upper: number, row: Float64Array): void => {
		const sums = lowerSums[variant] as Float64Array;
		let total = 0;
		for (let lower = 0; lower < lowerSize; lower++) {
			const weight = row[lower] as number;
			sums[lower] = (sums[lower] as number) + weight;
			total += weight;
		}
		(upperSums[variant] as Float64Array)[upper] = total;
	};

	let best = 0;
	let bestWeight = -1;
	/** Weights of one row, before each found effect has been taken in; the last one holds them all. */
	const rows = Array.from({ length: count + 1 }, () => new Float64Array(lowerSize));
	const after = new Float64Array(lowerSize);
	const without = new Float64Array(lowerSize);
	for (let upper = 0; upper < upperSize; upper++) {
		const missingHere = allMissing.upper[upper] as number;
		const first = rows[0] as Float64Array;
		for (let lower = 0; lower < lowerSize; lower++)
			first[lower] =
				(prior[(upper << lowerCount) | lower] as number) * (allMissing.lower[lower] as number) * missingHere;
		for (let k = 0; k < count; k++) {
			const factor = foundFactors[k] as Split;
			takeIn(
				rows[k] as Float64Array,
				factor.lower,
				factor.upper[upper] as number,
				rows[k + 1] as Float64Array
			);
		}
		const all = rows[count] as Float64Array;
		keep(0, upper, all);
		for (let lower = 0; lower < lowerSize; lower++)
			if ((all[lower] as number) > bestWeight) {
				bestWeight = all[lower] as number;
				best = (upper << lowerCount) | lower;
			}
		if (!leaveOneOut) continue;
		after.fill(1);
		for (let k = count - 1; k >= 0; k--) {
			const factor = foundFactors[k] as Split;
			const before = rows[k] as Float64Array;
			for (let lower = 0; lower < lowerSize; lower++)
				without[lower] = (before[lower] as number) * (after[lower] as number);
			keep(1 + k, upper, without);
			takeIn(after, factor.lower, factor.upper[upper] as number, after);
		}
		for (let k = 0; k < missingFactors.length; k++) {
			const factor = missingFactors[k] as Split;
			const absent = factor.upper[upper] as number;
			for (let lower = 0; lower < lowerSize; lower++)
				without[lower] = (all[lower] as number) / ((factor.lower[lower] as number) * absent);
			keep(1 + count + k, upper, without);
		}
	}

	const chancesOf = (variant: number): number[] =>
		marginals(lowerSums[variant] as Float64Array, upperSums[variant] as Float64Array, causeCount, lowerCount);
	const order = [...found, ...missing];
	return {
		chances: chancesOf(0),
		without: leaveOneOut ? observed.map((_, index) => chancesOf(1 + order.indexOf(index))) : [],
		best,
		bestChance: bestWeight / ((lowerSums[0] as Float64Array).reduce((sum, part) => sum + part, 0) || 1)
	};
}

function productOfTables(tables: readonly Float64Array[], size: number): Float64Array {
	const product = new Float64Array(size).fill(1);
	for (const table of tables)
		for (let i = 0; i < size; i++) product[i] = (product[i] as number) * (table[i] as number);
	return product;
}

/** `into` = `row` times the chance that an effect shows, 1 − lower · upper, for every lower subset. */
function takeIn(row: Float64Array, lower: Float64Array, upper: number, into: Float64Array): void {
	for (let i = 0; i < row.length; i++) into[i] = (row[i] as number) * (1 - (lower[i] as number) * upper);
}

function marginals(
	lower: Float64Array,
	upper: Float64Array,
	causeCount: number,
	lowerCount: number
): number[] {
	const total = lower.reduce((sum, weight) => sum + weight, 0);
	return Array.from({ length: causeCount }, (_, cause) => {
		const [sums, bit] = cause < lowerCount ? [lower, 1 << cause] : [upper, 1 << (cause - lowerCount)];
		let holds = 0;
		for (let mask = 0; mask < sums.length; mask++) if (mask & bit) holds += sums[mask] as number;
		return total > 0 ? holds / total : 0;
	});
}
