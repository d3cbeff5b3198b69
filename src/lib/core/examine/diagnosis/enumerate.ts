/**
 * Exact inference over a few dozen binary causes that bring signs by noisy-ORs. A set of causes is a bit mask: bit i set
 * means cause i holds. Sums go by what was found, not by the sets: a sign not found is one factor a cause, a sign found is a
 * difference of two products, so that p findings are 2ᵖ products (Heckerman 1989, quickscore) for each world.
 */

/** How one effect follows from the causes by a noisy-OR with a leak. */
export interface NoisyOr {
	/** Chance of the effect with no cause at all, 0 ≤ leak < 1. */
	leak: number;
	/** Chance that cause i alone brings the effect, below 1; index is the cause. */
	strengths: readonly number[];
	/** Share of it that still shows in each world: opposites hide it. Left out where no world does. */
	inWorld?: readonly number[];
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

/** One way things may stand that several causes and signs depend on, as wet or dry; causes are independent within it. */
export interface World {
	/** Chance of the world; those of all worlds sum to one. */
	weight: number;
	/** Chance of each cause in it. */
	priors: readonly number[];
}

/** A number times a factor for every cause that holds, for each world. */
export interface Product {
	starts: readonly number[];
	factors: readonly Float64Array[];
	/** Causes with a factor other than 1 in some world. */
	parents: readonly number[];
}

export interface Posterior {
	causeCount: number;
	/** Chance of each cause, given all that was observed. */
	chances: number[];
	/** How probable all that was observed was, before it was seen; 1 when nothing was. */
	evidence: number;
	/** False when so much was found that it was taken in parts, each on what those before had left. */
	exact: boolean;
	/** The products: their world, their signed share of the evidence, and the chance of each cause within each. */
	rows: { world: Uint8Array; share: Float64Array; chance: Float64Array };
	/** The worlds as they stand after all that was observed, each with its chance and the chances within it. */
	worlds: readonly World[];
	/** The chances had one observation not been made, for each observation in turn. */
	without(): number[][];
}

/** Findings whose products are summed at once; the doubling ends here. */
const AT_ONCE = 10;
/** and where there are more, so many at a time. */
const PART = 6;
/** Worlds less probable than this are left out of what builds on the posterior, where there are many products. */
const RARE_WORLD = 2e-2;
const MANY_ROWS = 600;

/**
 * Chance of an effect given which causes hold: 1 − (1 − leak) Π (1 − strength).
 * @param causes the causes that hold, a bit for each
 * @see Pearl 1988, Probabilistic Reasoning in Intelligent Systems; Russell & Norvig
 * @example fever with inhibition 0.6, 0.2, 0.1 and all three causes: 0.988
 */
export function noisyOr({ leak, strengths, inWorld }: NoisyOr, causes: number, world = 0): number {
	const shows = inWorld?.[world] ?? 1;
	let none = 1 - leak * shows;
	for (const [index, strength] of strengths.entries())
		if (causes & (1 << index)) none *= 1 - strength * shows;
	return 1 - none;
}

/** Chance of an effect before anything was observed. */
export const noisyOrAmong = (effect: NoisyOr, worlds: readonly World[]): number =>
	worlds.reduce((sum, { weight, priors }, world) => {
		const shows = effect.inWorld?.[world] ?? 1;
		const none = effect.strengths.reduce(
			(product, strength, i) => product * (1 - strength * shows * (priors[i] ?? 0)),
			1 - effect.leak * shows
		);
		return sum + weight * (1 - none);
	}, 0);

const products = new WeakMap<NoisyOr, Product>();

/** Chance that an effect does not show. */
export function absenceOf(effect: NoisyOr, worldCount = 1): Product {
	const known = products.get(effect);
	if (known && known.starts.length >= worldCount) return known;
	const plain = Float64Array.from(effect.strengths, (strength) => 1 - strength);
	const product = {
		starts: Array.from(
			{ length: worldCount },
			(_, world) => 1 - effect.leak * (effect.inWorld?.[world] ?? 1)
		),
		factors: Array.from({ length: worldCount }, (_, world) => {
			const shows = effect.inWorld?.[world] ?? 1;
			return shows === 1 ? plain : Float64Array.from(effect.strengths, (strength) => 1 - strength * shows);
		}),
		parents: effect.strengths.flatMap((strength, i) => (strength > 0 ? [i] : []))
	};
	products.set(effect, product);
	return product;
}

/** Chance that neither of two shows. */
export const bothAbsent = (a: Product, b: Product): Product => ({
	starts: a.starts.map((start, world) => start * (b.starts[world] ?? 1)),
	factors: a.factors.map((factors, world) =>
		factors.map((factor, i) => factor * (b.factors[world]?.[i] ?? 1))
	),
	parents: [...new Set([...a.parents, ...b.parents])]
});

/** Worlds with what was not found taken into them: it is one factor a cause. */
interface Standing {
	weight: number;
	/** For each cause, the weight of its absence and of its presence. */
	none: Float64Array;
	holds: Float64Array;
}

function afterMissed(worlds: readonly World[], missed: readonly Product[]): Standing[] {
	return worlds.map(({ weight, priors }, world) => {
		const holds = Float64Array.from(priors);
		let start = weight;
		for (const { starts, factors } of missed) {
			start *= starts[world] ?? 1;
			const own = factors[world];
			if (own) for (let i = 0; i < holds.length; i++) holds[i] = (holds[i] as number) * (own[i] as number);
		}
		return { weight: start, none: Float64Array.from(priors, (chance) => 1 - chance), holds };
	});
}

interface Swept {
	evidence: number;
	chances: number[];
	rows: Posterior['rows'];
	/** Chance of each cause in each world, and of the world: for taking the next part on. */
	byWorld: World[];
}

/** Sums the products of up to ten findings, each the absence of more less the absence of what was found. */
function sweep(standings: readonly Standing[], found: readonly Observed[], causeCount: number): Swept {
	const worldCount = standings.length;
	const count = 1 << found.length;
	const pairs = found.map(({ reached, missed }) => ({
		upper: missed ? absenceOf(missed, worldCount) : null,
		lower: reached ? absenceOf(reached, worldCount) : null
	}));
	const rows = standings.length * count;
	const worldOf = new Uint8Array(rows);
	const share = new Float64Array(rows);
	const chance = new Float64Array(rows * causeCount);
	const totals = new Float64Array(worldCount);
	const held = standings.map(() => new Float64Array(causeCount));
	const factor = new Float64Array(count * causeCount);
	const start = new Float64Array(count);
	for (const [world, { weight, none, holds }] of standings.entries()) {
		factor.fill(1, 0, causeCount);
		start[0] = weight;
		for (const [at, { upper, lower }] of pairs.entries()) {
			const size = 1 << at;
			const up = upper?.factors[world];
			const low = lower?.factors[world];
			const upStart = upper?.starts[world] ?? 1;
			const lowStart = lower?.starts[world] ?? 0;
			for (let mask = 0; mask < size; mask++) {
				const from = mask * causeCount;
				const to = (size + mask) * causeCount;
				start[size + mask] = -(start[mask] as number) * lowStart;
				start[mask] = (start[mask] as number) * upStart;
				for (let i = 0; i < causeCount; i++) {
					const value = factor[from + i] as number;
					factor[to + i] = low ? value * (low[i] as number) : value;
					if (up) factor[from + i] = value * (up[i] as number);
				}
			}
		}
		const heldHere = held[world] as Float64Array;
		if (weight === 0) continue;
		for (let mask = 0; mask < count; mask++) {
			const row = world * count + mask;
			const from = mask * causeCount;
			const into = row * causeCount;
			let product = start[mask] as number;
			for (let i = 0; i < causeCount; i++) {
				const present = (holds[i] as number) * (factor[from + i] as number);
				const all = (none[i] as number) + present;
				product *= all;
				chance[into + i] = all > 0 ? present / all : 0;
			}
			worldOf[row] = world;
			share[row] = product;
			totals[world] = (totals[world] as number) + product;
			for (let i = 0; i < causeCount; i++)
				heldHere[i] = (heldHere[i] as number) + product * (chance[into + i] as number);
		}
	}
	const evidence = totals.reduce((sum, total) => sum + Math.max(0, total), 0);
	const bounded = (value: number): number => Math.min(1, Math.max(0, value));
	const byWorld = standings.map((_, world): World => {
		const total = Math.max(0, totals[world] as number);
		return {
			weight: evidence > 0 ? total / evidence : 0,
			priors: Array.from(held[world] as Float64Array, (part) => (total > 0 ? bounded(part / total) : 0))
		};
	});
	const chances = Array.from({ length: causeCount }, (_, i) =>
		bounded(byWorld.reduce((sum, { weight, priors }) => sum + weight * (priors[i] ?? 0), 0))
	);
	return { evidence, chances, rows: { world: worldOf, share, chance }, byWorld };
}

function solve(
	worlds: readonly World[],
	observed: readonly Observed[]
): Swept & { exact: boolean; total: number } {
	const causeCount = worlds[0]?.priors.length ?? 0;
	const missed = observed.flatMap((one) =>
		one.reached || !one.missed ? [] : [absenceOf(one.missed, worlds.length)]
	);
	const found = observed.filter((one) => one.reached);
	let standings = afterMissed(worlds, missed);
	let total = 1;
	const exact = found.length <= AT_ONCE;
	let rest = found;
	while (!exact && rest.length > PART) {
		const part = sweep(standings, rest.slice(0, PART), causeCount);
		total *= part.evidence;
		standings = afterMissed(part.byWorld, []);
		rest = rest.slice(PART);
	}
	const last = sweep(standings, rest, causeCount);
	return { ...last, exact, total: total * last.evidence };
}

/**
 * Posterior of every cause, exact for up to ten findings (what was not found never counts among them); more are taken in
 * parts, in the order given.
 * @param worlds how things may stand; one for causes that are independent
 * @param observed what was found, or looked for and not found, in any order
 * @see Heckerman 1989, A tractable inference algorithm for diagnosing multiple diseases; Díez 1993 on graded effects [from memory]; Pearl 1988
 */
export function posterior(worlds: readonly World[], observed: readonly Observed[]): Posterior {
	const causeCount = worlds[0]?.priors.length ?? 0;
	const { chances, total, exact, rows, byWorld, evidence } = solve(worlds, observed);
	// Rows of improbable worlds count for nothing in what builds on this; the rest sum to one.
	const likely = byWorld.map(({ weight }) => rows.share.length < MANY_ROWS || weight >= RARE_WORLD);
	const kept = byWorld.reduce((sum, { weight }, world) => sum + (likely[world] ? weight : 0), 0) * evidence;
	for (let row = 0; row < rows.share.length; row++)
		rows.share[row] = likely[rows.world[row] as number] && kept > 0 ? (rows.share[row] as number) / kept : 0;
	const posteriorOf: Posterior = {
		causeCount,
		chances,
		evidence: total,
		exact,
		rows,
		worlds: byWorld,
		without: () =>
			observed.map((one, at) => {
				if (one.reached)
					return solve(
						worlds,
						observed.filter((_, other) => other !== at)
					).chances;
				const absence = one.missed ? absenceOf(one.missed, worlds.length) : null;
				return absence ? chancesOf(sumsOf(posteriorOf, inverse(absence))) : chances;
			})
	};
	return posteriorOf;
}

/**
 * The posterior as if causes were independent within each world: hundreds of times fewer products, and the chances as they are. For
 * sifting what is then looked at exactly. Small ones are given back as they stand.
 */
export function roughly(result: Posterior): Posterior {
	const { worlds, causeCount, rows } = result;
	if (rows.share.length < MANY_ROWS) return result;
	const chance = new Float64Array(worlds.length * causeCount);
	for (const [world, { priors }] of worlds.entries()) chance.set(priors, world * causeCount);
	return {
		...result,
		rows: {
			world: Uint8Array.from(worlds.keys()),
			share: Float64Array.from(worlds, ({ weight }) => weight),
			chance
		}
	};
}

const inverse = ({ starts, factors, parents }: Product): Product => ({
	starts: starts.map((start) => 1 / Math.max(1e-12, start)),
	factors: factors.map((own) => own.map((factor) => 1 / Math.max(1e-12, factor))),
	parents
});

/** A reweighted posterior: its sum, and the part of it in which each cause holds. */
export interface Sums {
	total: number;
	holds: Float64Array;
}

/** The chance of each cause within sums. */
export const chancesOf = ({ total, holds }: Sums): number[] =>
	Array.from(holds, (part) => (total > 0 ? Math.min(1, Math.max(0, part / total)) : 0));

/** One part of a posterior less another. */
export const difference = (a: Sums, b: Sums): Sums => ({
	total: Math.max(0, a.total - b.total),
	holds: a.holds.map((part, i) => Math.max(0, part - (b.holds[i] as number)))
});

/**
 * The posterior as it stands, or times a product over the causes.
 * @param near causes to follow beside those the product depends on; the others are taken to stay as they were. Left out: all
 */
export function sumsOf(
	{ rows, causeCount, chances }: Posterior,
	by?: Product,
	near?: readonly number[]
): Sums {
	const { world, share, chance } = rows;
	const parents = by ? Int32Array.from(by.parents) : new Int32Array(0);
	const isParent = new Set(parents);
	const others = Int32Array.from(
		(near ?? Array.from({ length: causeCount }, (_, i) => i)).filter((cause) => !isParent.has(cause))
	);
	const holds = new Float64Array(causeCount);
	const all = new Float64Array(parents.length);
	let total = 0;
	for (let row = 0; row < share.length; row++) {
		let value = share[row] as number;
		if (value === 0) continue;
		const from = row * causeCount;
		const own = by?.factors[world[row] as number];
		if (by && own) {
			value *= by.starts[world[row] as number] as number;
			for (let at = 0; at < parents.length; at++) {
				const cause = parents[at] as number;
				const left = 1 - (chance[from + cause] as number) * (1 - (own[cause] as number));
				all[at] = left;
				value *= left;
			}
			for (let at = 0; at < parents.length; at++) {
				const cause = parents[at] as number;
				const part = ((chance[from + cause] as number) * (own[cause] as number)) / (all[at] as number);
				holds[cause] = (holds[cause] as number) + value * part;
			}
		}
		total += value;
		for (let at = 0; at < others.length; at++) {
			const cause = others[at] as number;
			holds[cause] = (holds[cause] as number) + value * (chance[from + cause] as number);
		}
	}
	if (near) {
		const followed = new Set([...near, ...parents]);
		for (let i = 0; i < causeCount; i++) if (!followed.has(i)) holds[i] = total * (chances[i] ?? 0);
	}
	return { total, holds };
}

/**
 * The most probable sets of the given causes, all others summed out.
 * @param among causes that are told apart, the likeliest first; beyond six the list is cut
 * @returns at most `count`, most probable first
 */
export function combinations(
	{ rows, causeCount }: Pick<Posterior, 'rows' | 'causeCount'>,
	among: readonly number[],
	count: number
): { causes: number[]; chance: number }[] {
	const told = among.slice(0, 6);
	const size = 1 << told.length;
	const sums = new Float64Array(size);
	const part = new Float64Array(size);
	for (let row = 0; row < rows.share.length; row++) {
		part[0] = rows.share[row] as number;
		if (part[0] === 0) continue;
		for (const [at, cause] of told.entries()) {
			const chance = rows.chance[row * causeCount + cause] as number;
			const half = 1 << at;
			for (let mask = 0; mask < half; mask++) {
				part[half + mask] = (part[mask] as number) * chance;
				part[mask] = (part[mask] as number) * (1 - chance);
			}
		}
		for (let mask = 0; mask < size; mask++) sums[mask] = (sums[mask] as number) + (part[mask] as number);
	}
	return Array.from(sums, (chance, mask) => ({
		causes: told.filter((_, at) => mask & (1 << at)),
		chance: Math.min(1, Math.max(0, chance))
	}))
		.sort((a, b) => b.chance - a.chance)
		.slice(0, count);
}
