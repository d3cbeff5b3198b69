import { advise, type CauseAdvice } from '../examine/diagnosis/advice';
import { standingOn, type StandingToday } from '../examine/diagnosis/act-now';
import type { DiagnosisContext } from '../examine/diagnosis/context';
import { causeChances, diagnose, oddsOf, priorOf } from '../examine/diagnosis/diagnose';
import type { Values } from '../values/values';
import { strengthOf } from '../values/diagnosis';
import { contradiction, conditionIds, conditionOf, type ConditionId } from '../vocabulary/conditions';
import { firstLookOf, type SignId } from '../vocabulary/signs';
import { nextWindowDay } from '../climate/windows';
import { daysBetween, addDays } from '../maths/calendar';
import type { FutureEnd } from '../rehearse/course';
import type { ScenePot } from '../rehearse/scene';
import { nextChecks } from '../examine/diagnosis/next-check';
import { pottingMixOf, usualMix } from '../replant/mixes/mixes';
import { sizeAdvice, type PlantingInput } from '../replant/pots/replant-plan';
import { scaledPot } from '../replant/pots/volume';
import { playRound, seenOf } from './played';
import { contextOn, type PracticeTree } from './practice-tree';
import { careRule, remediesOf, type PracticeAct, type Remedy } from './round';
import { scenePotOf } from './truth';

/** A way of caring for a practice tree: all that is done, what it comes to and what it costs. */
export interface Way {
	acts: PracticeAct[];
	end: FutureEnd;
	/** What it is worth, its minutes taken off. */
	net: number;
	minutes: number;
}

/** Pots that a tree can be planted into: a better mix in its own size, one a step smaller, one a step larger. */
export type PotWay = 'same' | 'smaller' | 'larger';

/** Its pot filled anew with a mix that drains, of its own size or a step smaller or larger; null in the ground. */
export function potOf({ truth, values }: PracticeTree, way: PotWay): ScenePot | null {
	const { planting, kind } = truth;
	if (!planting) return null;
	const step = sizeAdvice(planting.ballDiameterMm, 0, { rot: way === 'smaller', packed: false }, values);
	const factor =
		way === 'same'
			? 1
			: way === 'smaller'
				? Math.min(0.95, step.widthMm / planting.pot.topWidthMm)
				: Math.max(1.12, step.widthMm / planting.pot.topWidthMm);
	const fresh: PlantingInput = {
		...planting,
		pot: scaledPot(planting.pot, factor),
		mix: pottingMixOf(usualMix(kind.group, true)),
		coarseLayerMm: 0
	};
	return scenePotOf(fresh, truth, values);
}

/** Root that goes where something is treated at the roots. */
const takes = (remedy: Remedy, values: Values): number =>
	remedy === 'cut-rot'
		? values['rehearse.treatShare']
		: remedy === 'free-roots'
			? values['practice.takes.free']
			: remedy === 'open-ball'
				? values['practice.takes.open']
				: 0;

/** What is done against some causes on a day. @param day of the round, from 0 */
export function treating(tree: PracticeTree, causes: readonly ConditionId[], day: number): PracticeAct[] {
	const wanted = new Set<Remedy>();
	for (const cause of causes) {
		const fits = remediesOf[cause].filter(
			(one) => (one === 'drain') === (tree.truth.planting === null) || remediesOf[cause].length === 1
		);
		const first = fits[0] ?? remediesOf[cause][0];
		if (first) wanted.add(first);
	}
	const acts: PracticeAct[] = [];
	const cut = {
		rot: wanted.has('cut-rot'),
		girdles: wanted.has('free-roots'),
		bound: wanted.has('open-ball')
	};
	if (cut.rot || cut.girdles || cut.bound) {
		const share = 1 - [...wanted].reduce((left, one) => left * (1 - takes(one, tree.values)), 1);
		acts.push({
			day,
			what: 'cut',
			share,
			rot: cut.rot ? 1 : 0,
			girdles: cut.girdles ? 1 : 0,
			bound: cut.bound ? 1 : 0
		});
	}
	const potWay: PotWay | null = wanted.has('larger-pot')
		? 'larger'
		: wanted.has('smaller-pot')
			? 'smaller'
			: wanted.has('new-mix')
				? 'same'
				: null;
	const pot = potWay && potOf(tree, potWay);
	if (pot) acts.push({ day, what: 'plant', pot, restUntilDay: null });
	const done: readonly Remedy[] = [
		'cut-rot',
		'free-roots',
		'open-ball',
		'larger-pot',
		'smaller-pot',
		'new-mix'
	];
	for (const remedy of wanted)
		if (!done.includes(remedy))
			acts.push({
				day,
				what: 'treat',
				remedy,
				untilDay:
					remedy === 'shade' || remedy === 'shelter'
						? day + Math.round(tree.values['rehearse.shadeDays'])
						: null,
				loss: 0
			});
	return acts;
}

/** Acts by their days; those of one day as they were done. */
export const inOrder = (acts: readonly PracticeAct[]): PracticeAct[] =>
	[...acts].sort((a, b) => a.day - b.day);

/** What a way comes to: its net worth counts the minutes of people. */
export function wayOf(tree: PracticeTree, acts: readonly PracticeAct[]): Way {
	const ordered = inOrder(acts);
	const played = playRound(tree, ordered, tree.days);
	const end = played.end ?? { alive: 0, stands: 0, established: 0, worth: 0 };
	return {
		acts: ordered,
		end,
		minutes: played.minutes,
		net: end.worth - played.minutes / tree.values['practice.minuteWorth']
	};
}

const looked = (day: number, signs: readonly SignId[]): PracticeAct[] =>
	signs.map((signId) => ({ day, what: 'check', signId }));

const standingOf = ({ truth, values }: PracticeTree, day: number, girdlerGrade: number): StandingToday =>
	standingOn(
		{ tree: { vigour: truth.vigour }, kind: truth.kind, place: truth.place },
		addDays(truth.startOn, day),
		{ failingFast: false, girdlerGrade },
		values
	);

/**
 * Day of the round on which the next window for root work opens.
 * @param from day of the round, from 0
 * @returns day of the round, from 0; null where none opens in time
 */
export function windowDay({ truth, values, days }: PracticeTree, from = 0): number | null {
	const on = nextWindowDay(truth.kind, truth.place, addDays(truth.startOn, from), values);
	const day = on === null ? null : Math.max(from, daysBetween(truth.startOn, on));
	return day !== null && day < days ? day : null;
}

/** Checks that advice is followed with, after a first look. */
const CHECKS_MOST = 8;

/** Days on which one who follows advice looks at it anew, as the tasks after work and after a look ask for. */
const LOOK_DAYS = [0, 28, 70, 140];
const FRESH = 0.5;

/** One look as Bruntle leads it: a first look, the checks it names as long as some answer changes what is done, and those it wants before work. */
function lookedAt(
	tree: PracticeTree,
	acts: readonly PracticeAct[],
	day: number,
	before: NonNullable<DiagnosisContext['before']>,
	checksMost: number
): { findings: { signId: SignId; grade: number }[]; context: DiagnosisContext; standing: StandingToday } {
	const { values } = tree;
	const now = playRound(tree, acts, day);
	const context = contextOn(tree, day, before);
	const findings = firstLookOf(context).map((signId) => ({ signId, grade: seenOf(tree, now, signId) }));
	const standing = (): StandingToday =>
		standingOf(tree, day, findings.find((one) => one.signId === 'girdler-seen')?.grade ?? 0);
	const next = (): readonly SignId[] => {
		const check = nextChecks(context, findings, standing(), values).checks[0];
		if (check && turns(check, values)) return check.signIds;
		const first = adviceOn(context, findings, standing(), values).find((one) => one.check !== null);
		return first?.check ? [first.check] : [];
	};
	for (let more = 0; more < checksMost; more++) {
		const signs = next().filter((signId) => !findings.some((one) => one.signId === signId));
		if (signs.length === 0) break;
		findings.push(...signs.map((signId) => ({ signId, grade: seenOf(tree, now, signId) })));
	}
	return { findings, context, standing: standing() };
}

/** What Bruntle says about each cause, as Examine does. */
const adviceOn = (
	context: DiagnosisContext,
	findings: readonly { signId: SignId; grade: number }[],
	standing: StandingToday,
	values: Values
): CauseAdvice[] => advise(diagnose(context, findings, values), context, findings, standing, values).causes;

/** How somebody who sees no more than its signs decides. */
export interface Policy {
	/** Days on which it is looked at. */
	lookDays: readonly number[];
	/** Checks after a first look, at the most. */
	checksMost: number;
	/** What is treated: what Bruntle says, or each cause from a chance on, work at the roots in its window or at once. */
	does: 'as-advised' | { actFrom: number; waits: boolean };
	/** It is shaded when its roots were touched. */
	shades: boolean;
}

/** Looks, checks and treats as Bruntle says, on the day and some weeks later. */
export const advisedPolicy: Policy = {
	lookDays: LOOK_DAYS,
	checksMost: CHECKS_MOST,
	does: 'as-advised',
	shades: true
};

/** What is treated of causes by their chances, the likelier first: without two that contradict, and nothing of a dead tree. */
function treatedFrom(
	chances: readonly { conditionId: ConditionId; chance: number }[],
	{ actFrom, waits }: { actFrom: number; waits: boolean },
	values: Values
): { conditionId: ConditionId; waits: boolean }[] {
	if (
		chances.some(
			({ conditionId, chance }) => conditionId === 'dead' && chance >= values['diagnosis.dead-from']
		)
	)
		return [];
	const together: { conditionId: ConditionId; waits: boolean }[] = [];
	for (const { conditionId, chance } of chances)
		if (
			chance >= actFrom &&
			remediesOf[conditionId].length > 0 &&
			!together.some((one) => contradiction(one.conditionId, conditionId) !== null)
		)
			together.push({ conditionId, waits: waits && conditionOf(conditionId).atRoots });
	return together;
}

/** The way of one who sees no more than its signs, and keeps to a policy; waters by need and covers on cold nights. */
export function policyWay(tree: PracticeTree, policy: Policy): Way {
	const { values } = tree;
	const acts: PracticeAct[] = [{ day: 0, what: 'care', rule: careRule.parse({}) }];
	const treated = new Set<ConditionId>();
	let before: NonNullable<DiagnosisContext['before']> = [];
	for (const day of policy.lookDays) {
		const { findings, context, standing } = lookedAt(tree, inOrder(acts), day, before, policy.checksMost);
		acts.push(
			...looked(
				day,
				findings.map(({ signId }) => signId)
			)
		);
		const told = causeChances(context, findings, values);
		before = told.map(({ conditionId, chance }) => ({
			conditionId,
			times: Math.min(
				1e4,
				Math.max(1e-4, (oddsOf(chance) / oddsOf(priorOf(conditionId, contextOn(tree, day), values))) ** FRESH)
			)
		}));
		const { does } = policy;
		const causes = (
			does === 'as-advised'
				? adviceOn(context, findings, standing, values)
						.filter(({ verdict }) => verdict === 'now' || verdict === 'window')
						.map(({ conditionId, verdict }) => ({ conditionId, waits: verdict === 'window' }))
				: treatedFrom(told, does, values)
		).filter(({ conditionId }) => remediesOf[conditionId].length > 0 && !treated.has(conditionId));
		for (const { conditionId } of causes) treated.add(conditionId);
		const window = windowDay(tree, day);
		const of = (waits: boolean): ConditionId[] =>
			causes.filter((one) => one.waits === waits).map(({ conditionId }) => conditionId);
		const work = [
			...treating(tree, of(false), day),
			...(window === null ? [] : treating(tree, of(true), window))
		];
		const cut = work.find((act) => act.what === 'cut');
		if (policy.shades && cut && !work.some((act) => act.what === 'treat' && act.remedy === 'shade'))
			work.push(...treating(tree, ['recent-root-loss'], cut.day));
		acts.push(...work);
	}
	return wayOf(tree, acts);
}

/** The way of one who does what Bruntle says. */
export const advisedWay = (tree: PracticeTree): Way => policyWay(tree, advisedPolicy);

/** Whether a check is worth its cost: some answer changes what is done. */
const turns = (check: ReturnType<typeof nextChecks>['checks'][number], values: Values): boolean => {
	const acts = check.answers.filter((answer) => answer.probability >= values['diagnosis.answer-rare']);
	return acts.some((answer) => answer.acts) && acts.some((answer) => !answer.acts);
};

/** The way of one who treats what the first sign that is seen speaks for most, at once, and waters by the calendar. */
export function firstSignWay(tree: PracticeTree): Way {
	const { truth, values } = tree;
	const start = playRound(tree, [], 0);
	const look = firstLookOf(truth.context);
	const at = look.findIndex((signId) => seenOf(tree, start, signId) > 0);
	const seen = look.slice(0, at < 0 ? look.length : at + 1);
	const sign = at < 0 ? undefined : look[at];
	const strength = (id: ConditionId): number =>
		sign && remediesOf[id].length > 0 ? strengthOf(values, sign, id) : 0;
	const named = sign ? [...conditionIds].sort((a, b) => strength(b) - strength(a)).slice(0, 1) : [];
	return wayOf(tree, [
		...looked(0, seen),
		...treating(tree, named, 0),
		{ day: 0, what: 'care', rule: careRule.parse({ water: 'every-days', everyDays: CALENDAR_DAYS }) }
	]);
}
/** Days between waterings of one who waters by the calendar. */
const CALENDAR_DAYS = 3;

/** All subsets of a short list. */
const subsets = <T>(list: readonly T[]): T[][] =>
	list.reduce<T[][]>((sets, one) => [...sets, ...sets.map((set) => [...set, one])], [[]]);

/**
 * The best way that is found by one who knows what ails it: every choice of causes to treat, today or in its window, with and without
 * shade and a mix that drains, watered by need.
 */
export function bestWay(tree: PracticeTree): Way {
	const { truth } = tree;
	const window = windowDay(tree);
	const treatable = truth.conditions.filter((id) => remediesOf[id].length > 0);
	const rule = careRule.parse({});
	const mix = potOf(tree, 'same');
	let best: Way | null = null;
	for (const treated of subsets(treatable)) {
		// What is not work at the roots waits for no window.
		const later = treated.filter((id) => conditionOf(id).atRoots);
		const now = treated.filter((id) => !conditionOf(id).atRoots);
		for (const day of new Set([0, ...(later.length > 0 && window !== null ? [window] : [])]))
			for (const shade of [false, true])
				for (const drains of mix ? [false, true] : [false]) {
					const acts: PracticeAct[] = [
						{ day: 0, what: 'care', rule },
						...(day === 0
							? treating(tree, treated, 0)
							: [...treating(tree, now, 0), ...treating(tree, later, day)])
					];
					if (shade && !acts.some((act) => act.what === 'treat' && act.remedy === 'shade'))
						acts.push(...treating(tree, ['recent-root-loss'], 0));
					if (drains && mix && !acts.some((act) => act.what === 'plant'))
						acts.push({ day, what: 'plant', pot: mix, restUntilDay: null });
					const way = wayOf(tree, acts);
					if (!best || way.net > best.net) best = way;
				}
	}
	return best ?? wayOf(tree, []);
}
