import { effectOf } from '../examine/diagnosis/diagnose';
import { noisyOr } from '../examine/diagnosis/enumerate';
import { worldParts } from '../examine/diagnosis/worlds';
import { conditionIds, type ConditionId } from '../vocabulary/conditions';
import { signApplies, signShows, topGrade, type SignId } from '../vocabulary/signs';
import { logistic } from '../maths/odds';
import { WEEK, type FutureEnd } from '../rehearse/course';
import { causes, type Cause } from '../rehearse/played-tree';
import type { ScenePot } from '../rehearse/scene';
import { DrawnStanding, WholeStanding } from '../rehearse/standings';
import { LivedRound, stillShows, type Fault, type PracticeDay } from './lived';
import { contextOn, type PracticeTree } from './practice-tree';
import type { PracticeAct } from './round';
import { drawsOf } from './truth';

/** A round as far as it was played. */
export interface PlayedRound {
	/** Days played. */
	day: number;
	days: readonly PracticeDay[];
	faults: readonly Fault[];
	/** What shows beside its faults, by what it went through since. */
	since: readonly ConditionId[];
	/** Day on which it died; null while it lives. */
	diedOn: number | null;
	/** What killed it, where it died. */
	diedOf: Cause | ConditionId | 'hands' | 'stood' | null;
	/** Chance to be alive by week, by what was done so far. */
	alive: readonly number[];
	/** Log-odds lost by cause. */
	odds: Readonly<Record<Cause, number>>;
	/** What it comes to at the end by what was done, over all luck; null before it. */
	end: FutureEnd | null;
	minutes: number;
	waterings: number;
	covered: number;
	/** As it stands, for what is seen of it. */
	world: number;
	dryness: number;
	roots: number;
	crown: number;
	/** The pot it stands in; null in the ground. */
	pot: ScenePot | null;
	/** 0 dead … 1 as well as can be. */
	thrives: number;
}

/**
 * Plays a practice tree to a day: its water, its weather, its faults, and what was done to it. The same acts end in the same.
 * @param acts in order; those of the day itself are done, the day is not over
 * @param toDay 0 … the last day of the tree
 */
export function playRound(tree: PracticeTree, acts: readonly PracticeAct[], toDay: number): PlayedRound {
	const { truth, stage, values } = tree;
	const until = Math.min(toDay, tree.days);
	const cuts = acts.filter((act) => act.what === 'cut');
	const round = new LivedRound(tree, cuts);
	const { begin } = stage;
	const at = begin.perOdds * begin.even;
	const dead = truth.conditions.includes('dead');
	const whole = new WholeStanding(begin.shares).begin(at);
	const drawn = new DrawnStanding(begin.shares, at, drawsOf(truth.wish.seed, 'luck'));
	const alive = [dead ? 0 : 1 - whole.dead()];
	let diedOn: number | null = dead || drawn.dead() > 0 ? 0 : null;
	let before = 0;
	let next = 0;
	let warmth = 0;
	let enoughWeek = -1;
	const actsOf = (day: number): void => {
		while (next < acts.length && (acts[next]?.day ?? 0) <= day) {
			const act = acts[next++];
			if (act) round.act(act);
		}
	};
	const sum = (): number => round.played.odds.reduce((all, one) => all + one, 0);
	for (let day = 0; day < until; day++) {
		actsOf(day);
		round.pass(day);
		const last = round.days[day];
		warmth += Math.max(0, ((last?.minC ?? 0) + (last?.maxC ?? 0)) / 2 - values['degreeDays.rootBaseC']);
		if ((day + 1) % WEEK !== 0) continue;
		const week = (day + 1) / WEEK - 1;
		round.played.week(stage.seasons[week] ?? 0, warmth);
		warmth = 0;
		const band = stage.bands[week];
		if (band) {
			whole.weekOn(band);
			drawn.weekOn(band);
		}
		const now = sum();
		whole.move(begin.perOdds * (now - before));
		drawn.move(begin.perOdds * (now - before));
		before = now;
		alive.push(dead ? 0 : 1 - whole.dead());
		if (diedOn === null && drawn.dead() > 0) diedOn = day + 1;
		if (enoughWeek < 0 && round.played.phi * tree.future.fitness >= values['verdict.rootFunction'])
			enoughWeek = week;
	}
	actsOf(until);
	const odds = Object.fromEntries(causes.map((cause, i) => [cause, round.played.odds[i] ?? 0])) as Record<
		Cause,
		number
	>;
	const ended = until >= tree.days;
	const stands = ended && !dead ? whole.over() : 0;
	const established = enoughWeek >= 0 ? stands : 0;
	const base = logistic(truth.odds + sum());
	return {
		day: until,
		days: round.days,
		faults: round.faults,
		since: round.since(until),
		diedOn,
		diedOf: diedOn === null ? null : dead ? 'dead' : killer(round, odds),
		alive,
		odds,
		end: ended
			? {
					alive: dead ? 0 : 1 - whole.dead(),
					stands,
					established,
					worth: established + values['rehearse.hardlyHeldWorth'] * (stands - established)
				}
			: null,
		minutes: round.minutes,
		waterings: round.played.waterings,
		covered: round.played.covered,
		world: round.world(until),
		dryness: round.played.dryness,
		roots: round.played.phi,
		crown: round.played.crown,
		pot: round.pot,
		thrives: diedOn !== null ? 0 : base
	};
}

/** What took most of its chance: its water, the weather, one of its faults, or what was done to it. */
function killer(round: LivedRound, odds: Readonly<Record<Cause, number>>): PlayedRound['diedOf'] {
	const list: { of: NonNullable<PlayedRound['diedOf']>; odds: number }[] = [
		...(['drowned', 'dried', 'frost', 'scorched'] as const).map((of) => ({ of, odds: odds[of] })),
		...round.faults.map(({ conditionId, odds: one }) => ({ of: conditionId, odds: one })),
		{ of: 'hands', odds: odds.roots + odds.rot - round.faultsOdds }
	];
	const worst = list.sort((a, b) => a.odds - b.odds)[0];
	return worst && worst.odds < 0 ? worst.of : 'stood';
}

/** What ails it on a day and shows, with what it went through since. */
export function shownOf({ values }: PracticeTree, played: PlayedRound): ReadonlySet<ConditionId> {
	return new Set<ConditionId>([
		...played.faults
			.filter((fault) => stillShows(fault, played.day, values))
			.map(({ conditionId }) => conditionId),
		...played.since,
		...(played.diedOn !== null ? (['dead'] as const) : [])
	]);
}

/**
 * What is seen when a sign is looked for on a day: drawn with the frequencies of the diagnosis from what ails it then. Asked again
 * within some weeks nothing else is seen, unless something changed: then it may come, and go.
 * @returns grade, 0 where it is not there
 */
export function seenOf(tree: PracticeTree, played: PlayedRound, signId: SignId): number {
	const { truth, values } = tree;
	const shown = shownOf(tree, played);
	const mask = conditionIds.reduce((bits, id, index) => (shown.has(id) ? bits | (1 << index) : bits), 0);
	const world = played.diedOn !== null ? worldParts.length - 1 : played.world;
	const spell = Math.floor(played.day / values['practice.signDays']);
	const dice = drawsOf(truth.wish.seed, 'sign', signId, spell).next();
	let grade = 0;
	while (grade < topGrade(signId) && dice < noisyOr(effectOf(signId, grade + 1, values), mask, world))
		grade++;
	return grade;
}

/** Whether a sign can show on it on a day, where it stands and in its season. @param day of the round, from 0 */
export const canShow = (tree: PracticeTree, day: number, signId: SignId): boolean =>
	signApplies(signId, tree.truth.situation) && signShows(signId, contextOn(tree, day));
