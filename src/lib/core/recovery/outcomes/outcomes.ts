import { wordsOf } from '../../vocabulary/words-of';
import { daysBetween } from '../../maths/calendar';
import { seasonFitNames, type SeasonFit } from '../../climate/windows';
import { groupNames, type Group } from '../../vocabulary/kind';
import { reservesNames, type Reserves, type TreeState } from '../../vocabulary/words';
import { type Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import { kaplanMeier, medianDays, type Follow, type SurvivalStep } from './kaplan-meier';

/** A case as outcomes count it. */
export interface OutcomeCase {
	treeId: string;
	tag: string;
	group: Group;
	reserves: Reserves;
	state: TreeState;
	/** Day of its first work, or of taking in where none is known. */
	fromOn: string;
	closedOn: string | null;
	/** What its first work took and how it stood to its season; null where it was not recorded. */
	livingLoss: number | null;
	seasonFit: SeasonFit | null;
	crownSchool: 'balance' | 'keep-leaves' | null;
	mixName: string | null;
}

/** A lost tree as the register keeps it. */
export type LossRow = { treeId: string; kindName: string } & Pick<
	Tree,
	'tag' | 'name' | 'closedOn' | 'lossCause' | 'lossConditions' | 'shownEarlier' | 'closingNote'
>;

export const outcomeFactorNames = {
	group: 'Group',
	reserves: 'Origin',
	season: 'Season of the work',
	loss: 'Living root taken',
	crown: 'School of the crown',
	mix: 'Mix'
};
export type OutcomeFactor = keyof typeof outcomeFactorNames;
export const outcomeFactors = wordsOf(outcomeFactorNames);

const lossBand = (share: number): string =>
	share < 0.1 ? 'under 10 %' : share < 0.25 ? '10 to 25 %' : share < 0.4 ? '25 to 40 %' : '40 % and more';

/** The level of a case by a factor; null where it is not known. */
export function levelOf(one: OutcomeCase, factor: OutcomeFactor): string | null {
	switch (factor) {
		case 'group':
			return groupNames[one.group];
		case 'reserves':
			return reservesNames[one.reserves];
		case 'season':
			return one.seasonFit === null ? null : seasonFitNames[one.seasonFit];
		case 'loss':
			return one.livingLoss === null ? null : lossBand(one.livingLoss);
		case 'crown':
			return one.crownSchool === null
				? null
				: one.crownSchool === 'balance'
					? 'crown balanced'
					: 'leaves kept';
		case 'mix':
			return one.mixName;
	}
}

export interface OutcomeGroup {
	level: string;
	count: number;
	reEstablished: number;
	lost: number;
	gone: number;
	inCare: number;
	/** Time to re-establishment; null while too few cases carry a curve. */
	curve: SurvivalStep[] | null;
	/** How each is followed, for the numbers still watched. */
	follows: Follow[];
	medianDays: number | null;
}

/**
 * How a case is followed towards re-establishment. One that is lost can never be re-established: it stays among those for whom
 * it has not happened to the end of the longest watch, and does not count as merely no longer watched.
 */
export function followOf(one: OutcomeCase, today: string, longestDays: number): Follow {
	const days = Math.max(0, daysBetween(one.fromOn, one.closedOn ?? today));
	if (one.state === 're-established') return { days, happened: true };
	return { days: one.state === 'dead' ? Math.max(days, longestDays) : days, happened: false };
}

/**
 * Outcomes by the levels of a factor: counts in plain sight, a curve only where enough cases carry it.
 * @returns largest level first; cases of which the level is not known last
 */
export function outcomesBy(
	cases: readonly OutcomeCase[],
	factor: OutcomeFactor | null,
	today: string,
	values: Values
): OutcomeGroup[] {
	const longest = Math.max(0, ...cases.map((one) => daysBetween(one.fromOn, one.closedOn ?? today)));
	const levels = new Map<string, OutcomeCase[]>();
	for (const one of cases) {
		const level = factor === null ? 'all' : (levelOf(one, factor) ?? 'not known');
		levels.set(level, [...(levels.get(level) ?? []), one]);
	}
	return [...levels]
		.map(([level, list]): OutcomeGroup => {
			const enough = level !== 'not known' && list.length >= values['outcomes.least'];
			const follows = list.map((one) => followOf(one, today, longest));
			const curve = enough ? kaplanMeier(follows) : null;
			const of = (state: TreeState): number => list.filter((one) => one.state === state).length;
			return {
				level,
				count: list.length,
				reEstablished: of('re-established'),
				lost: of('dead'),
				gone: of('gone'),
				inCare: of('in-care'),
				curve,
				follows,
				medianDays: curve ? medianDays(curve) : null
			};
		})
		.sort((a, b) => Number(a.level === 'not known') - Number(b.level === 'not known') || b.count - a.count);
}

export interface Entangled {
	factor: OutcomeFactor;
	/** Cramér’s V: 0 apart, 1 one and the same. */
	v: number;
	/** The plainest of it in words. */
	example: string;
}

/**
 * Which other factors went along with one, so that nobody reads a cause into it: Cramér’s V of each, over the cases where both
 * are known.
 * @see Cramér 1946, Mathematical Methods of Statistics
 */
export function entangledWith(
	cases: readonly OutcomeCase[],
	factor: OutcomeFactor,
	values: Values
): Entangled[] {
	return outcomeFactors
		.filter((other) => other !== factor)
		.flatMap((other): Entangled[] => {
			const pairs = cases.flatMap((one) => {
				const [a, b] = [levelOf(one, factor), levelOf(one, other)];
				return a === null || b === null ? [] : [[a, b] as const];
			});
			const v = cramersV(pairs);
			if (v === null || v < values['outcomes.entangled']) return [];
			const counts = new Map<string, number>();
			for (const [a, b] of pairs) counts.set(`${a}\n${b}`, (counts.get(`${a}\n${b}`) ?? 0) + 1);
			const [most = ['', 0] as const] = [...counts].sort((x, y) => y[1] - x[1]);
			const [a = '', b = ''] = most[0].split('\n');
			const all = pairs.filter(([level]) => level === a).length;
			return [{ factor: other, v, example: `${most[1]} of ${all} “${a}” were also “${b}”` }];
		})
		.sort((x, y) => y.v - x.v);
}

/**
 * Cramér’s V of pairs of words; null with fewer than two levels on either side.
 * @returns 0 of what does not hang together … 1
 */
export function cramersV(pairs: readonly (readonly [string, string])[]): number | null {
	const rows = [...new Set(pairs.map(([a]) => a))];
	const columns = [...new Set(pairs.map(([, b]) => b))];
	const n = pairs.length;
	const k = Math.min(rows.length, columns.length);
	if (k < 2 || n === 0) return null;
	let chi2 = 0;
	for (const a of rows)
		for (const b of columns) {
			const seen = pairs.filter(([x, y]) => x === a && y === b).length;
			const expected = (pairs.filter(([x]) => x === a).length * pairs.filter(([, y]) => y === b).length) / n;
			chi2 += (seen - expected) ** 2 / expected;
		}
	return Math.sqrt(chi2 / (n * (k - 1)));
}
