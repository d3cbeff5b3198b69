/**
 * Exact inference over all subsets of a few binary causes. A subset is a bit mask: bit i set means cause i holds.
 */

/** How one effect follows from the causes by a noisy-OR with a leak. */
export interface NoisyOr {
	/** Chance of the effect with no cause at all, 0 ≤ leak < 1. */
	leak: number;
	/** Chance that cause i alone brings the effect, below 1; index is the cause. */
	strengths: readonly number[];
}

/**
 * What was observed of an effect that comes in grades, each grade or more a noisy-OR of its own: it reached `reached`
 * (null: not even the lowest) and did not reach `missed` (null: it stands at its highest).
 * A plain effect is { reached: it, missed: null } when present and { reached: null, missed: it } when absent.
 */
export interface Observed {
	reached: NoisyOr | null;
	missed: NoisyOr | null;
}

export interface Posterior {
	causeCount: number;
	/** Chance of each cause, given all that was observed. */
	chances: number[];
	/** How probable all that was observed was, before it was seen; 1 when nothing was. */
	evidence: number;
	/** Chance of every subset, length 2ⁿ. */
	weights: Float64Array;
	/** The observations as factors, for taking one away. */
	factors: readonly Factor[];
	/** `weights` with the upper or the lower causes summed out but for some, by which; filled as asked for. */
	folds: { upper: Map<number, Fold>; lower: Map<number, Fold> };
}

/** Weights summed over one half of the causes, except over those kept. */
interface Fold {
	/** For each subset of the half: which of the kept configurations it has. */
	index: Uint8Array;
	/** For each kept configuration: the causes of the half that it holds, as a mask of the half. */
	configurations: number[];
	sums: Float64Array;
}

/** Keeps every factor above 0, so that an observation can be taken away again by division. */
const LEAST = 1e-12;

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

/** Chance of an effect when the causes are independent, each with its chance. */
export const noisyOrAmong = ({ leak, strengths }: NoisyOr, chances: readonly number[]): number =>
	1 - strengths.reduce((none, strength, i) => none * (1 - strength * (chances[i] ?? 0)), 1 - leak);

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

/** Chance that noisy-ORs do not show: a table over the lower times one over the upper causes. */
export interface Absence {
	parents: number;
	lower: Float64Array;
	upper: Float64Array;
}

/** Causes told apart by the lower table. */
const HALF = 8;
const absences = new WeakMap<NoisyOr, Absence>();

/** Chance that an effect does not show, for every subset. */
export function absenceOf(effect: NoisyOr): Absence {
	const known = absences.get(effect);
	if (known) return known;
	const factors = effect.strengths.map((strength) => 1 - strength);
	const absence = {
		parents: effect.strengths.reduce((mask, strength, i) => (strength > 0 ? mask | (1 << i) : mask), 0),
		lower: productOverCauses(1 - effect.leak, factors.slice(0, HALF)),
		upper: productOverCauses(1, factors.slice(HALF))
	};
	absences.set(effect, absence);
	return absence;
}

/** Chance that neither of two shows. */
export const bothAbsent = (a: Absence, b: Absence): Absence => ({
	parents: a.parents | b.parents,
	lower: a.lower.map((value, i) => value * (b.lower[i] as number)),
	upper: a.upper.map((value, i) => value * (b.upper[i] as number))
});

/**
 * An observation as a function of the subset: chance that it was missed above less that it was not reached. Positive
 * everywhere, so that it can be taken away again by division.
 */
export interface Factor {
	parents: number;
	missed: Absence | null;
	reached: Absence | null;
}

function factorOf({ reached, missed }: Observed): Factor {
	const above = missed ? absenceOf(missed) : null;
	const below = reached ? absenceOf(reached) : null;
	return { parents: (above?.parents ?? 0) | (below?.parents ?? 0), missed: above, reached: below };
}

/** A factor, or its reciprocal, for each upper by each lower subset given, row by row. */
function valuesOf(
	{ missed, reached }: Factor,
	uppers: readonly number[],
	lowers: readonly number[],
	inverse: boolean
): Float64Array {
	const values = new Float64Array(uppers.length * lowers.length);
	let at = 0;
	for (const upper of uppers) {
		const high = missed ? (missed.upper[upper] as number) : 1;
		const deep = reached ? (reached.upper[upper] as number) : 0;
		for (const lower of lowers) {
			const value =
				(missed ? (missed.lower[lower] as number) * high : 1) -
				(reached ? (reached.lower[lower] as number) * deep : 0);
			const positive = value > LEAST ? value : LEAST;
			values[at++] = inverse ? 1 / positive : positive;
		}
	}
	return values;
}

interface Halves {
	lowerCount: number;
	lowerSize: number;
	upperSize: number;
}
const halves = (causeCount: number): Halves => {
	const lowerCount = Math.min(HALF, causeCount);
	return { lowerCount, lowerSize: 1 << lowerCount, upperSize: 1 << (causeCount - lowerCount) };
};

const configurations = new Map<number, Pick<Fold, 'index' | 'configurations'>>();

/** For every mask of `size`, which configuration of the kept bits it has; and the configurations as masks. */
function configurationsOf(kept: number, size: number): Pick<Fold, 'index' | 'configurations'> {
	const key = size * 65_536 + kept;
	const known = configurations.get(key);
	if (known) return known;
	const list: number[] = [];
	const at = new Map<number, number>();
	const index = Uint8Array.from({ length: size }, (_, mask) => {
		const configuration = mask & kept;
		const place = at.get(configuration) ?? list.push(configuration) - 1;
		at.set(configuration, place);
		return place;
	});
	const made = { index, configurations: list };
	configurations.set(key, made);
	return made;
}

/** Most kept causes of a table that others are joined to: beyond that a sweep of its own is cheaper. */
const JOINED = 7;

/** Observations that depend on the same upper causes, as one table: a row of lower subsets a configuration. */
interface Table {
	upper: number;
	index: Uint8Array;
	configurations: number[];
	rows: Float64Array;
}

/**
 * Exact posterior of every cause over all 2ⁿ subsets. Causes are split in two halves; what was only missed is one split
 * product, and factors that depend on the same upper causes are one short table, so that the sweep over all subsets
 * meets few of them.
 * @param prior weight of every subset, length 2ⁿ, summing to 1; need not be independent
 * @param causeCount n, from 2 to 16
 * @param observed what was found, or looked for and not found, in any order
 * @see Henrion 1989 and Díez 1993 on graded effects (noisy-MAX) [from memory]; Pearl 1988
 */
export function posterior(prior: Float64Array, causeCount: number, observed: readonly Observed[]): Posterior {
	const { lowerSize, upperSize } = halves(causeCount);
	const factors = observed.map(factorOf);
	const missed = factors.filter((factor) => !factor.reached).flatMap((factor) => factor.missed ?? []);
	const [firstMissed, ...otherMissed] = missed;
	const allMissed = firstMissed ? otherMissed.reduce(bothAbsent, firstMissed) : null;
	const tables = joined(
		factors.filter((factor) => factor.reached),
		causeCount
	);

	const weights = prior.slice();
	let evidence = 0;
	for (let upper = 0; upper < upperSize; upper++) {
		const from = upper * lowerSize;
		if (allMissed) timesTable(weights, from, allMissed.lower, 0, lowerSize, allMissed.upper[upper] as number);
		for (const { index, rows } of tables)
			timesTable(weights, from, rows, (index[upper] as number) * lowerSize, lowerSize, 1);
		for (let lower = 0; lower < lowerSize; lower++) evidence += weights[from + lower] as number;
	}
	const scale = evidence > 0 ? 1 / evidence : 0;
	for (let mask = 0; mask < weights.length; mask++) weights[mask] = (weights[mask] as number) * scale;
	const result: Posterior = {
		causeCount,
		chances: [],
		evidence,
		weights,
		factors,
		folds: { upper: new Map(), lower: new Map() }
	};
	result.chances = chancesOf(sumsOf(result));
	return result;
}

/** Factors as tables by the upper causes they depend on; a table joins the smallest one that holds its causes. */
function joined(factors: readonly Factor[], causeCount: number): Table[] {
	const { lowerCount, lowerSize, upperSize } = halves(causeCount);
	const tables = new Map<number, Table>();
	for (const factor of factors) {
		const upper = factor.parents >> lowerCount;
		const { index, configurations } = configurationsOf(upper, upperSize);
		const lower = configurationsOf(factor.parents & (lowerSize - 1), lowerSize);
		const width = lower.configurations.length;
		const values = valuesOf(factor, configurations, lower.configurations, false);
		const table = tables.get(upper) ?? {
			upper,
			index,
			configurations,
			rows: new Float64Array(configurations.length * lowerSize).fill(1)
		};
		tables.set(upper, table);
		for (let c = 0; c < configurations.length; c++)
			timesRow(table.rows, c * lowerSize, values, c * width, lower.index);
	}
	const left: Table[] = [];
	const bySize = [...tables.values()].sort((a, b) => a.configurations.length - b.configurations.length);
	for (const [at, table] of bySize.entries()) {
		const home = bySize
			.slice(at + 1)
			.find(
				(other) => (other.upper & table.upper) === table.upper && other.configurations.length <= 1 << JOINED
			);
		if (!home) left.push(table);
		else
			for (const [c, upper] of home.configurations.entries())
				timesTable(
					home.rows,
					c * lowerSize,
					table.rows,
					(table.index[upper] as number) * lowerSize,
					lowerSize,
					1
				);
	}
	return left;
}

/** A stretch of one table times a stretch of another, and a number. */
function timesTable(
	into: Float64Array,
	from: number,
	by: Float64Array,
	fromBy: number,
	length: number,
	scale: number
): void {
	for (let i = 0; i < length; i++)
		into[from + i] = (into[from + i] as number) * (by[fromBy + i] as number) * scale;
}

/** A row of a table times the values of its configurations. */
function timesRow(
	table: Float64Array,
	from: number,
	values: Float64Array,
	row: number,
	index: Uint8Array
): void {
	for (let i = 0; i < index.length; i++)
		table[from + i] = (table[from + i] as number) * (values[row + (index[i] as number)] as number);
}

/** A reweighted posterior: its sum, and the part of it in which each cause holds. */
export interface Sums {
	total: number;
	holds: Float64Array;
}

/** The chance of each cause within sums. */
export const chancesOf = ({ total, holds }: Sums): number[] =>
	Array.from(holds, (part) => (total > 0 ? part / total : 0));

/** One part of a posterior less another. */
export const difference = (a: Sums, b: Sums): Sums => ({
	total: Math.max(0, a.total - b.total),
	holds: a.holds.map((part, i) => Math.max(0, part - (b.holds[i] as number)))
});

/** The chances had one observation not been made, for each observation in turn. */
export function withoutEach(result: Posterior): number[][] {
	const chances: number[][] = [];
	for (const at of widestFirst(result.factors)) {
		const factor = result.factors[at] as Factor;
		const { lowerCount, lowerSize } = halves(result.causeCount);
		const upper = foldUpper(result, factor.parents >> lowerCount);
		const lower = foldLower(result, factor.parents & (lowerSize - 1));
		const values = valuesOf(factor, upper.configurations, lower.configurations, true);
		chances[at] = chancesOf(foldedSums(result, upper, lower, values));
	}
	return chances;
}

/** Places of a list, those that depend on most causes first, so that smaller folds come from larger ones. */
export const widestFirst = (list: readonly { parents: number }[]): number[] =>
	[...list.keys()].sort((a, b) => bitCount(list[b]?.parents ?? 0) - bitCount(list[a]?.parents ?? 0));

const bitCount = (mask: number): number => {
	let count = 0;
	for (let rest = mask; rest; rest &= rest - 1) count++;
	return count;
};

/** The posterior as it stands, or the part of it in which an effect does not show. Exact. */
export function sumsOf(result: Posterior, absence?: Absence): Sums {
	const { lowerCount, lowerSize } = halves(result.causeCount);
	const parents = absence?.parents ?? 0;
	const upper = foldUpper(result, parents >> lowerCount);
	const lower = foldLower(result, parents & (lowerSize - 1));
	const factor = { parents, missed: absence ?? null, reached: null };
	return foldedSums(
		result,
		upper,
		lower,
		valuesOf(factor, upper.configurations, lower.configurations, false)
	);
}

/** The posterior times values that are told apart by the kept configurations of both halves alone. */
function foldedSums(result: Posterior, upper: Fold, lower: Fold, values: Float64Array): Sums {
	const { lowerSize, upperSize } = halves(result.causeCount);
	const width = lower.configurations.length;
	const lowerSums = new Float64Array(lowerSize);
	for (let c = 0; c < upper.configurations.length; c++)
		addTimes(lowerSums, upper.sums, c * lowerSize, values, c * width, lower.index);
	const upperSums = new Float64Array(upperSize);
	for (let u = 0; u < upperSize; u++)
		upperSums[u] = dot(lower.sums, u * width, values, (upper.index[u] as number) * width, width);
	return marginals(lowerSums, upperSums, result.causeCount);
}

function addTimes(
	into: Float64Array,
	sums: Float64Array,
	from: number,
	values: Float64Array,
	row: number,
	index: Uint8Array
): void {
	for (let i = 0; i < into.length; i++)
		into[i] =
			(into[i] as number) + (sums[from + i] as number) * (values[row + (index[i] as number)] as number);
}

function dot(a: Float64Array, fromA: number, b: Float64Array, fromB: number, length: number): number {
	let sum = 0;
	for (let i = 0; i < length; i++) sum += (a[fromA + i] as number) * (b[fromB + i] as number);
	return sum;
}

/** The smallest fold made so far that keeps at least the causes asked for. */
function closest(folds: ReadonlyMap<number, Fold>, kept: number): Fold | null {
	let best: Fold | null = null;
	for (const [other, fold] of folds)
		if ((other & kept) === kept && (!best || fold.configurations.length < best.configurations.length))
			best = fold;
	return best;
}

/** Sums over the upper causes but for those kept: one row of lower subsets for each kept configuration. */
function foldUpper(result: Posterior, kept: number): Fold {
	const known = result.folds.upper.get(kept);
	if (known) return known;
	const { lowerSize, upperSize } = halves(result.causeCount);
	const { index, configurations } = configurationsOf(kept, upperSize);
	const sums = new Float64Array(configurations.length * lowerSize);
	const source = closest(result.folds.upper, kept);
	const rows = source ? source.sums : result.weights;
	const count = source ? source.configurations.length : upperSize;
	for (let r = 0; r < count; r++) {
		const upper = source ? (source.configurations[r] as number) : r;
		addStretch(sums, (index[upper] as number) * lowerSize, rows, r * lowerSize, lowerSize);
	}
	const fold = { index, configurations, sums };
	result.folds.upper.set(kept, fold);
	return fold;
}

/** Sums over the lower causes but for those kept: for each upper subset one sum a kept configuration. */
function foldLower(result: Posterior, kept: number): Fold {
	const known = result.folds.lower.get(kept);
	if (known) return known;
	const { lowerSize, upperSize } = halves(result.causeCount);
	const { index, configurations } = configurationsOf(kept, lowerSize);
	const sums = new Float64Array(upperSize * configurations.length);
	const source = closest(result.folds.lower, kept);
	const place = source ? Uint8Array.from(source.configurations, (lower) => index[lower] as number) : index;
	const rows = source ? source.sums : result.weights;
	for (let u = 0; u < upperSize; u++) scatter(sums, u * configurations.length, rows, u * place.length, place);
	const fold = { index, configurations, sums };
	result.folds.lower.set(kept, fold);
	return fold;
}

function addStretch(
	into: Float64Array,
	from: number,
	by: Float64Array,
	fromBy: number,
	length: number
): void {
	for (let i = 0; i < length; i++) into[from + i] = (into[from + i] as number) + (by[fromBy + i] as number);
}

function scatter(
	into: Float64Array,
	from: number,
	by: Float64Array,
	fromBy: number,
	place: Uint8Array
): void {
	for (let i = 0; i < place.length; i++) {
		const at = from + (place[i] as number);
		into[at] = (into[at] as number) + (by[fromBy + i] as number);
	}
}

/**
 * The most probable sets of the given causes, all others summed out.
 * @param among causes that are told apart, as a bit mask
 * @returns at most `count`, most probable first
 */
export function combinations(
	{ weights }: Pick<Posterior, 'weights'>,
	among: number,
	count: number
): { causes: number; chance: number }[] {
	const sums = new Float64Array(weights.length);
	for (let mask = 0; mask < weights.length; mask++) {
		const causes = mask & among;
		sums[causes] = (sums[causes] as number) + (weights[mask] as number);
	}
	const best: { causes: number; chance: number }[] = [];
	for (let causes = 0; causes < sums.length; causes++) {
		const chance = sums[causes] as number;
		if (chance <= 0 || (best.length === count && chance <= (best[count - 1]?.chance ?? 0))) continue;
		best.push({ causes, chance });
		best.sort((a, b) => b.chance - a.chance);
		best.length = Math.min(best.length, count);
	}
	return best;
}

function marginals(lower: Float64Array, upper: Float64Array, causeCount: number): Sums {
	const { lowerCount } = halves(causeCount);
	const holds = new Float64Array(causeCount);
	for (let cause = 0; cause < causeCount; cause++) {
		const sums = cause < lowerCount ? lower : upper;
		const bit = 1 << (cause < lowerCount ? cause : cause - lowerCount);
		let sum = 0;
		for (let mask = 0; mask < sums.length; mask++) if (mask & bit) sum += sums[mask] as number;
		holds[cause] = sum;
	}
	let total = 0;
	for (let mask = 0; mask < lower.length; mask++) total += lower[mask] as number;
	return { total, holds };
}
