import { forecastTime } from '../recovery/forecast-time';
import { oddsUnsure, standingNow, type RecoveryCase } from '../recovery/forecast';
import { standings, STANDING_STEP, startingShares, type Kernel } from '../recovery/standing-chain';
import type { Random } from '../maths/random';
import type { Values } from '../values/values';

const N = standings.length;
/** Shares smaller than this are nothing. */
const NOTHING = 1e-9;

/** A kernel without the moves that hardly happen, so that thousands of courses are gone through quickly. */
export interface Band {
	from: Int32Array;
	rows: readonly Float64Array[];
}

const bands = new WeakMap<Kernel, Band>();

/** The band of a kernel; the same kernel gives the same one. */
export function bandOf(kernel: Kernel): Band {
	const known = bands.get(kernel);
	if (known) return known;
	const from = new Int32Array(N);
	const rows = kernel.map((row, i) => {
		let [low, high] = [0, row.length - 1];
		while (low < high && (row[low] ?? 0) < NOTHING) low++;
		while (high > low && (row[high] ?? 0) < NOTHING) high--;
		from[i] = low;
		return row.slice(low, high + 1);
	});
	const band = { from, rows };
	bands.set(kernel, band);
	return band;
}

/**
 * Shares of standings a week on.
 * @param into is filled with them
 */
export function weekOn(shares: Float64Array, into: Float64Array, { from, rows }: Band): void {
	into.fill(0);
	for (let i = 0; i < N; i++) {
		const share = shares[i] ?? 0;
		const row = rows[i];
		if (share < NOTHING || row === undefined) continue;
		const first = from[i] ?? 0;
		const { length } = row;
		for (let j = 0; j < length; j++) into[first + j] = (into[first + j] ?? 0) + share * (row[j] ?? 0);
	}
}

/**
 * Shares moved along the standings, in place; what is dead stays dead.
 * @param by in standings of the chain, may be a part of one
 * @param scratch room of the same length
 */
export function moveBy(shares: Float64Array, by: number, scratch: Float64Array): void {
	if (by === 0) return;
	scratch.fill(0);
	scratch[0] = shares[0] ?? 0;
	for (let i = 1; i < N; i++) {
		const share = shares[i] ?? 0;
		if (share === 0) continue;
		const at = Math.min(N - 1, Math.max(0, i + by));
		const low = Math.floor(at);
		const part = at - low;
		scratch[low] = (scratch[low] ?? 0) + share * (1 - part);
		if (part > 0) scratch[low + 1] = (scratch[low + 1] ?? 0) + share * part;
	}
	shares.set(scratch);
}

/** Chance to stand over the tipping point, by the shares of standings. */
export function overTipping(shares: Float64Array): number {
	let sum = 0;
	for (let i = 0; i < N; i++) {
		const y = standings[i] ?? 0;
		// Its middle is neither; a standing of it may go either way.
		sum += (shares[i] ?? 0) * (Math.abs(y) < STANDING_STEP / 2 ? 0.5 : y > 0 ? 1 : 0);
	}
	return sum;
}

/** Mean of the standings. */
const meanOf = (shares: Float64Array): number =>
	shares.reduce((sum, share, i) => sum + share * (standings[i] ?? 0), 0);

/** Where every future of a tree begins. */
export interface Begin {
	/** Shares of standings today, as Recovery judges it. */
	shares: Float64Array;
	/** Chance to come through of Recovery, its roots left out of account. */
	through: number;
	/** How unsure its log-odds are, one deviation. */
	spread: number;
	/** Standings that it moves by for each log-odds of chance. */
	perOdds: number;
	/** Added to the log-odds of each future, so that all of them together have the chance that Recovery tells. */
	even: number;
	/** How rot costs in log-odds; 0 where it is known that there is none. */
	rotOdds: number;
	/** Chance of rot that futures are drawn with. */
	rotChance: number;
}

/** Points of a normal spread with even weights, for its mean over what is not known. */
const NINE = [-1.593, -0.967, -0.589, -0.282, 0, 0.282, 0.589, 0.967, 1.593] as const;
const ROUNDS = 40;

/**
 * How a tree stands today, as Recovery judges it, spread out into what is not known of it: its odds, and whether it has rot.
 * @param rotChance chance of rot; null where nobody looked, which is taken as not sure
 */
export function beginOf(tree: RecoveryCase, rotChance: number | null, values: Values): Begin {
	const { seen, odds, time, nowStep } = standingNow(tree, values);
	const spread = oddsUnsure(tree, seen.lastSeenOn, values);
	const meanAt = (at: number): number => meanOf(startingShares(at, time.worthAtStart, values));
	const perOdds = Math.max(0.1, meanAt(odds + 0.5) - meanAt(odds - 0.5)) / STANDING_STEP;
	const through = time.through(seen.shares, nowStep);
	const chance = rotChance ?? values['triage.rot-unknown'];
	const rotOdds = chance > 0 ? values['triage.rot'] : 0;
	const scratch = new Float64Array(N);
	const meanChance = (even: number): number => {
		let sum = 0;
		for (const z of NINE)
			for (const [odds, weight] of [
				[0, 1 - chance],
				[rotOdds, chance]
			] as const) {
				if (weight === 0) continue;
				const shares = Float64Array.from(seen.shares);
				moveBy(shares, perOdds * (even + z * spread + odds), scratch);
				sum += (weight * time.through(shares, nowStep)) / NINE.length;
			}
		return sum;
	};
	let [low, high] = [-8, 8];
	for (let i = 0; i < ROUNDS; i++) {
		const middle = (low + high) / 2;
		if (meanChance(middle) < through) low = middle;
		else high = middle;
	}
	return {
		shares: seen.shares,
		through,
		spread,
		perOdds,
		even: (low + high) / 2,
		rotOdds,
		rotChance: chance
	};
}

/**
 * The weeks of a rehearsal: how the standing moves into each, and the part of a growing season that it is.
 * @param weeks how many
 */
export function weeksFrom(
	tree: RecoveryCase,
	weeks: number,
	values: Values
): { bands: Band[]; seasons: number[] } {
	const time = forecastTime(
		{ ...tree, sinceOn: tree.today, looks: [], functionSeen: [] },
		{ ...values, 'forecast.horizonDays': weeks * 7 }
	);
	const of = Array.from({ length: weeks }, (_, week) => week + 1);
	return {
		bands: of.map((step) => bandOf(time.kernelAt(step))),
		seasons: of.map((step) => (time.seasonsSince[step] ?? 0) - (time.seasonsSince[step - 1] ?? 0))
	};
}

/** How a tree stands as it goes on, whole or as one that is drawn. */
export interface Carried {
	/** Moves it along the standings; parts of one are gathered until they are whole. @param by in standings of the chain */
	move(by: number): void;
	weekOn(band: Band): void;
	/** Chance to be dead now. */
	dead(): number;
	/** Chance to stand over the tipping point at the end, with the parts of a standing that are left over. */
	over(): number;
}

/** All standings at once, each with its share: nothing of it is drawn. */
export class WholeStanding implements Carried {
	private shares: Float64Array;
	private next: Float64Array;
	private pending = 0;

	constructor(shares: Float64Array) {
		this.shares = new Float64Array(shares);
		this.next = new Float64Array(shares.length);
	}
	/** Moves all of it at once, parts of a standing too: for where it begins. */
	begin(by: number): this {
		moveBy(this.shares, by, this.next);
		return this;
	}
	move(by: number): void {
		// Whole standings at a time: parts of one each week would smear them.
		this.pending += by;
		const whole = Math.trunc(this.pending);
		if (whole === 0) return;
		moveBy(this.shares, whole, this.next);
		this.pending -= whole;
	}
	weekOn(band: Band): void {
		weekOn(this.shares, this.next, band);
		[this.shares, this.next] = [this.next, this.shares];
	}
	dead(): number {
		return this.shares[0] ?? 0;
	}
	over(): number {
		moveBy(this.shares, this.pending, this.next);
		this.pending = 0;
		return overTipping(this.shares);
	}
}

/** One standing, drawn where it begins and in each week: how a single tree fares. */
export class DrawnStanding implements Carried {
	private at: number;

	constructor(
		shares: Float64Array,
		by: number,
		private readonly random: Random
	) {
		this.at = this.drawn(shares, 0) + by;
		if (this.at <= 0) this.at = 0;
	}
	/** One of a list of shares. */
	private drawn(shares: Float64Array, from: number): number {
		let left = this.random.next();
		for (let i = 0; i < shares.length; i++) if ((left -= shares[i] ?? 0) < 0) return from + i;
		return from + shares.length - 1;
	}
	move(by: number): void {
		if (this.at > 0) this.at = Math.min(N - 1, Math.max(0, this.at + by));
	}
	weekOn({ from, rows }: Band): void {
		if (this.at <= 0) return;
		// Between two standings it goes on as one of them.
		const low = Math.floor(this.at);
		const i = this.random.next() < this.at - low ? Math.min(N - 1, low + 1) : low;
		const row = rows[i];
		if (row) this.at = this.drawn(row, from[i] ?? 0);
	}
	dead(): number {
		return this.at <= 0 ? 1 : 0;
	}
	over(): number {
		const y = (standings[0] ?? 0) + STANDING_STEP * this.at;
		return y > 0 ? 1 : 0;
	}
}
