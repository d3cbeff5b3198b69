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
	/** Chance that found effect k does not show, lower half: entry lower · count + k. Laid out in the order it is read. */
	const lowerTable = Float64Array.from({ length: lowerSize * count }, (_, at) => {
		const factor = foundFactors[at % count] as Split;
		return factor.lower[Math.floor(at / count)] as number;
	});

	// Sums by half: of all observations, and of one left out at a time, first the found, then the missing ones.
	const variants = leaveOneOut ? 1 + observed.length : 1;
	const lowerSums = Array.from({ length: variants }, () => new Float64Array(lowerSize));
	const upperSums = Array.from({ length: variants }, () => new Float64Array(upperSize));
	const upperRow = new Float64Array(count);
	const likelihood = new Float64Array(count);
	const before = new Float64Array(count + 1);
	const allSum = lowerSums[0] as Float64Array;
	let best = 0;
	let bestWeight = -1;

	for (let upper = 0; upper < upperSize; upper++) {
		for (let k = 0; k < count; k++) upperRow[k] = (foundFactors[k] as Split).upper[upper] as number;
		const missingHere = allMissing.upper[upper] as number;
		const offset = upper << lowerCount;
		let rowSum = 0;
		for (let lower = 0; lower < lowerSize; lower++) {
			let weight = (prior[offset | lower] as number) * (allMissing.lower[lower] as number) * missingHere;
			const at = lower * count;
			if (leaveOneOut) {
				before[0] = weight;
				for (let k = 0; k < count; k++) {
					const seen = 1 - (lowerTable[at + k] as number) * (upperRow[k] as number);
					likelihood[k] = seen;
					weight *= seen;
					before[k + 1] = weight;
				}
			} else
				for (let k = 0; k < count; k++)
					weight *= 1 - (lowerTable[at + k] as number) * (upperRow[k] as number);
			if (weight > bestWeight) {
				bestWeight = weight;
				best = offset | lower;
			}
			rowSum += weight;
			allSum[lower] = (allSum[lower] as number) + weight;
			if (!leaveOneOut) continue;
			let after = 1;
			for (let k = count - 1; k >= 0; k--) {
				add(lowerSums, upperSums, 1 + k, lower, upper, (before[k] as number) * after);
				after *= likelihood[k] as number;
			}
			for (let k = 0; k < missingFactors.length; k++) {
				const factor = missingFactors[k] as Split;
				const absent = (factor.lower[lower] as number) * (factor.upper[upper] as number);
				add(lowerSums, upperSums, 1 + count + k, lower, upper, weight / absent);
			}
		}
		(upperSums[0] as Float64Array)[upper] = rowSum;
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

function add(
	lowerSums: Float64Array[],
	upperSums: Float64Array[],
	variant: number,
	lower: number,
	upper: number,
	weight: number
): void {
	const byLower = lowerSums[variant] as Float64Array;
	const byUpper = upperSums[variant] as Float64Array;
	byLower[lower] = (byLower[lower] as number) + weight;
	byUpper[upper] = (byUpper[upper] as number) + weight;
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
