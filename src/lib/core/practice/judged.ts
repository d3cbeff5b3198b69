import { z } from 'zod';
import { conditionIds, conditionOf, type ConditionId } from '../vocabulary/conditions';
import { atStart, midSentence } from '../text/mid-sentence';
import { counted, listed } from '../text/plural';
import { logistic } from '../maths/odds';
import { WEEK } from '../rehearse/course';
import type { PracticeDay } from './lived';
import { signOf } from '../vocabulary/signs';
import { calendarDate, count, measure, oneOf, share } from '../vocabulary/fields';
import type { PlayedRound } from './played';
import type { PracticeTree } from './practice-tree';
import { playRound } from './played';
import { dateOf } from './practice-tree';
import { advisedWay, bestWay, inOrder, wayOf, type Way } from './ways';
import {
	decisions,
	remediesOf,
	remedyNames,
	type PracticeAct,
	type PracticeDecision,
	type Remedy
} from './round';

const choiceKinds = ['checks', 'cut', 'plant', 'treat', 'crown', 'care', 'left-undone'] as const;

/** One choice of a trainee, against the best way that is known. */
export interface Choice {
	kind: (typeof choiceKinds)[number];
	day: number;
	/** What it was, in words. */
	what: string;
	/** What it moved the chance to come through by; negative where it cost. */
	chance: number;
	minutes: number;
}

/** A round judged, when it is over. */
export interface Judged {
	/** What ailed it. */
	truth: ConditionId[];
	/** What was decided last, and what was to be decided; null where nothing was. */
	decision: { own: PracticeDecision | null; best: PracticeDecision };
	diedOn: string | null;
	/** What it died of, in words; null where it lives. */
	diedOf: string | null;
	/** Chance to come through by what was done, over all luck; by doing nothing; by advice; by the best way that is known. */
	own: number;
	nothing: number;
	advised: number;
	best: number;
	minutes: number;
	bestMinutes: number;
	/** The week in which it lost most. */
	turned: { on: string; lost: number; by: string } | null;
	choices: Choice[];
	/** Mean squared error of the chances that were given first and last; null where none were. */
	brier: number | null;
	brierFirst: number | null;
	/** What to do otherwise, from this tree. */
	lessons: string[];
	/** Causes that were judged worst, the worst first. */
	weak: ConditionId[];
}

const causeNames: Readonly<Record<string, string>> = {
	drowned: 'it drowned: its roots had no air for days on end',
	dried: 'it dried out',
	frost: 'frost killed it',
	scorched: 'the sun burnt what its roots could not feed',
	hands: 'what was done to it took more than it had',
	stood: 'it was too weak, and had bad luck'
};
/** What a tree died of, in words. */
export const diedOfWords = (of: NonNullable<PlayedRound['diedOf']>): string =>
	causeNames[of] ??
	(of === 'dead'
		? 'it was dead when it came'
		: `${midSentence(conditionOf(of as ConditionId).label)} killed it`);

/**
 * Mean squared error of chances over all causes: named or not, a cause that ails it should have 1 and another 0.
 * @returns 0 right throughout … 1 wrong throughout
 */
export function brierOf(
	chances: readonly { conditionId: ConditionId; chance: number }[],
	truth: readonly ConditionId[]
): number {
	const said = new Map(chances.map((one) => [one.conditionId, one.chance]));
	return (
		conditionIds.reduce((sum, id) => sum + ((said.get(id) ?? 0) - (truth.includes(id) ? 1 : 0)) ** 2, 0) /
		conditionIds.length
	);
}

const groupOf = (act: PracticeAct): Choice['kind'] | null => {
	switch (act.what) {
		case 'check':
		case 'read':
			return 'checks';
		case 'cut':
		case 'plant':
		case 'treat':
		case 'crown':
		case 'care':
			return act.what;
		default:
			return null;
	}
};

const everyWords = (days: number): string => (days === 1 ? 'every day' : `every ${days} days`);

/** What a cut treated, whole or in part; nothing where it did not. */
const parted = (part: number, whole: string, some: string): string =>
	part >= 1 ? whole : part > 0 ? some : '';

/** What an act was, in words. */
export function actWords(act: PracticeAct, percent: (share: number) => string): string {
	switch (act.what) {
		case 'check':
			return `looked for: ${midSentence(signOf(act.signId).label)}`;
		case 'read':
			return act.reading === 'roots' ? 'laid its roots bare' : 'read it';
		case 'cut':
			return `cut ${percent(act.share) === percent(0) ? 'dead root alone' : `${percent(act.share)} of its living root`}${parted(act.rot, ', its rot with it', ', some of its rot with it')}${parted(act.girdles, ', freed the trunk', ', freed the trunk in part')}${parted(act.bound, ', opened the ball', ', opened the ball in part')}`;
		case 'plant':
			return 'planted it anew';
		case 'treat':
			return remedyNames[act.remedy];
		case 'crown':
			return `took ${percent(act.share)} of its crown`;
		case 'care':
			return act.rule.water === 'every-days'
				? `watered it ${everyWords(act.rule.everyDays)}`
				: act.rule.water === 'by-hand'
					? 'watered it by hand alone'
					: 'watered it when it felt dry';
		case 'water':
			return 'watered it';
		case 'say':
			return 'said what ails it';
		case 'decide':
			return 'decided';
	}
}

/**
 * Judges a round that is over: each choice by what the chance would have been without it, over all luck; never by the luck it had.
 * @param acts all that was done, in order
 */
export function judged(
	tree: PracticeTree,
	acts: readonly PracticeAct[],
	percent: (share: number) => string
): Judged {
	const { truth, values } = tree;
	// What befell it is told up to its end; what it comes to over all luck goes by the whole year.
	const { diedOn } = playRound(tree, acts, tree.days);
	const lived = playRound(tree, acts, diedOn ?? tree.days);
	const own = wayOf(tree, acts);
	const best = bestWay(tree);
	const nothing = wayOf(tree, []);
	const advised = advisedWay(tree);
	const choices = choicesOf(tree, acts, { own, best, lastDay: lived.day }, percent);
	const says = acts.flatMap((act) => (act.what === 'say' ? [act.chances] : []));
	const [first, last] = [says[0], says.at(-1)];
	const errors = last
		? conditionIds
				.map((id) => ({
					id,
					off: Math.abs(
						(last.find((one) => one.conditionId === id)?.chance ?? 0) -
							(truth.conditions.includes(id) ? 1 : 0)
					)
				}))
				.filter(({ off }) => off >= values['diagnosis.likely'])
				.sort((a, b) => b.off - a.off)
		: truth.conditions.map((id) => ({ id, off: 1 }));
	const result: Omit<Judged, 'lessons'> = {
		truth: truth.conditions,
		decision: {
			own: acts.flatMap((act) => (act.what === 'decide' ? [act.decision] : [])).at(-1) ?? null,
			best: rightDecision(truth.conditions, best)
		},
		diedOn: diedOn === null ? null : dateOf(tree, diedOn),
		diedOf: lived.diedOf === null ? null : diedOfWords(lived.diedOf),
		own: own.end.stands,
		nothing: nothing.end.stands,
		advised: advised.end.stands,
		best: Math.max(best.end.stands, own.end.stands, advised.end.stands, nothing.end.stands),
		minutes: lived.minutes,
		bestMinutes: best.minutes,
		turned:
			own.end.stands >= best.end.stands - values['practice.turnedAt'] ? null : turnedIn(tree, lived, choices),
		choices,
		brier: last ? brierOf(last, truth.conditions) : null,
		brierFirst: first ? brierOf(first, truth.conditions) : null,
		weak: errors.map(({ id }) => id)
	};
	return { ...result, lessons: lessonsOf(tree, acts, lived, result, best, percent) };
}

/**
 * Each group of choices: what the chance would have been without it; and what the best way does that was left undone. Minutes are those that
 * were spent, until its last day.
 */
function choicesOf(
	tree: PracticeTree,
	acts: readonly PracticeAct[],
	{ own, best, lastDay }: { own: Way; best: Way; lastDay: number },
	percent: (share: number) => string
): Choice[] {
	const least = tree.values['practice.choiceLeast'];
	const minutesOf = (of: readonly PracticeAct[]): number => playRound(tree, of, lastDay).minutes;
	const spent = minutesOf(acts);
	const without = (drop: (act: PracticeAct) => boolean): Pick<Choice, 'chance' | 'minutes'> => {
		const left = acts.filter((act) => !drop(act));
		return { chance: own.end.stands - wayOf(tree, left).end.stands, minutes: spent - minutesOf(left) };
	};
	const list: Choice[] = [];
	const checks = acts.filter((act) => groupOf(act) === 'checks');
	if (checks.length > 0)
		list.push({
			kind: 'checks',
			day: checks[0]?.day ?? 0,
			what: `looked at it, ${checks.length === 1 ? 'one check' : `${checks.length} checks`}`,
			...without((act) => groupOf(act) === 'checks')
		});
	for (const act of acts) {
		const kind = groupOf(act);
		if (kind === null || kind === 'checks') continue;
		const moved = without((one) => one === act);
		if (kind === 'care' && Math.abs(moved.chance) < least) continue;
		list.push({ kind, day: act.day, what: actWords(act, percent), ...moved });
	}
	const did = new Set(acts.flatMap(remediesIn));
	for (const act of best.acts) {
		const missing = remediesIn(act).filter((remedy) => !did.has(remedy));
		if (missing.length === 0) continue;
		const withIt = inOrder([...acts, act]);
		const chance = own.end.stands - wayOf(tree, withIt).end.stands;
		if (chance <= -least)
			list.push({
				kind: 'left-undone',
				day: act.day,
				what: missing.map((remedy) => remedyNames[remedy]).join(', '),
				chance,
				minutes: minutesOf(withIt) - spent
			});
	}
	return list;
}

/** Remedies that an act is. */
const remediesIn = (act: PracticeAct): Remedy[] =>
	act.what === 'treat'
		? [act.remedy]
		: act.what === 'plant'
			? ['new-mix']
			: act.what === 'cut'
				? [
						...(act.rot > 0 ? (['cut-rot'] as const) : []),
						...(act.girdles > 0 ? (['free-roots'] as const) : []),
						...(act.bound > 0 ? (['open-ball'] as const) : [])
					]
				: [];

/** The week in which most of its chance went, and by what. Work that was worth what it cost turned nothing. */
function turnedIn(tree: PracticeTree, lived: PlayedRound, choices: readonly Choice[]): Judged['turned'] {
	const { values, truth } = tree;
	const harmful = new Set(choices.filter(({ chance }) => chance < 0).map(({ day }) => day));
	type Odds = PracticeDay['odds'];
	const zero: Odds = { water: 0, weather: 0, faults: 0, hands: 0 };
	// Log-odds by day, without what was worth its cost.
	let helped = 0;
	const courses = [
		zero,
		...lived.days.map(({ odds, day }, i): Odds => {
			if (!harmful.has(day - 1)) helped += odds.hands - (lived.days[i - 1]?.odds.hands ?? 0);
			return { ...odds, hands: odds.hands - helped };
		})
	];
	const standing = ({ water, weather, faults, hands }: Odds): number =>
		logistic(truth.odds + water + weather + faults + hands);
	let worst = { day: 0, lost: 0 };
	for (let day = WEEK; day < courses.length; day++) {
		const lost = standing(courses[day - WEEK] ?? zero) - standing(courses[day] ?? zero);
		if (lost > worst.lost) worst = { day, lost };
	}
	if (worst.lost < values['practice.turnedAt']) return null;
	const [before, after] = [courses[worst.day - WEEK] ?? zero, courses[worst.day] ?? zero];
	const by = (['water', 'weather', 'faults', 'hands'] as const)
		.map((key) => ({ key, lost: before[key] - after[key] }))
		.reduce((most, one) => (one.lost > most.lost ? one : most)).key;
	const parched = lived.days.slice(worst.day - WEEK, worst.day).some((day) => day.parched);
	const words = {
		water: parched ? 'days without water' : 'days without air at its roots',
		weather: 'cold or heat that it could not bear',
		faults: listed(truth.conditions.map((id) => midSentence(conditionOf(id).label))) || 'what ailed it',
		hands: 'work that it could not bear then'
	};
	return { on: dateOf(tree, worst.day - WEEK + 1), lost: worst.lost, by: words[by] };
}

/** Two or three sentences of what to do otherwise, from this tree. */
function lessonsOf(
	tree: PracticeTree,
	acts: readonly PracticeAct[],
	lived: PlayedRound,
	found: Omit<Judged, 'lessons'>,
	best: Way,
	percent: (share: number) => string
): string[] {
	const { values, truth } = tree;
	const least = values['practice.choiceLeast'];
	const lessons: string[] = [];
	const points = (chance: number): string => percent(Math.abs(chance));
	const named = (id: ConditionId): string => midSentence(conditionOf(id).label);
	const days = (of: (day: PracticeDay) => boolean): string => counted(lived.days.filter(of).length, 'day');
	const care = acts.filter((act) => act.what === 'care').at(-1);
	const wetStill = tree.stage.scene.wetnessTrigger * values['practice.stillWet'];
	const early = lived.days.filter(
		(day, i) => day.watered && (lived.days[i - 1]?.dryness ?? truth.dryness) < wetStill
	).length;
	if (lived.odds.drowned <= -values['practice.waterTold'])
		lessons.push(
			`Its roots stood without air on ${days((day) => day.airless)}: ${
				care?.rule.water === 'every-days'
					? `water ${everyWords(care.rule.everyDays)} was more than it drank; feel it, and wait until it is dry enough`
					: early > lived.waterings / 2
						? `most of its water came while it was still wet; feel it, and wait until it is dry enough`
						: 'its mix held water and no air; only a mix that drains lets it breathe'
			}.`
		);
	if (lived.odds.dried <= -values['practice.waterTold'])
		lessons.push(
			`It stood dry on ${days((day) => day.parched)}; what it stood in was used up sooner than it was watered.`
		);
	for (const choice of [...found.choices].sort((a, b) => a.chance - b.chance)) {
		if (lessons.length >= LESSONS || choice.chance > -least) break;
		if (choice.kind === 'care' && lessons.length > 0) continue;
		lessons.push(
			choice.kind === 'left-undone'
				? `Left undone: ${choice.what}; with it its chance would have been higher by ${points(choice.chance)}.`
				: choice.kind === 'checks'
					? `Looking cost it ${points(choice.chance)} of its chance: what opens its roots comes last.`
					: `${atStart(choice.what)}, ${choice.kind === 'care' ? `from day ${choice.day} on` : `on day ${choice.day}`}: without it its chance would have been higher by ${points(choice.chance)}.`
		);
	}
	const missed = found.truth.filter(
		(id) => remediesOf[id].length > 0 && found.weak.includes(id) && lessons.length < LESSONS
	);
	if (missed.length > 0 && found.brier !== null)
		lessons.push(`You gave ${listed(missed.map(named))} too little; it was there from the first day.`);
	const alarms = found.weak.filter((id) => !found.truth.includes(id));
	if (alarms.length > 0 && lessons.length < LESSONS)
		lessons.push(`You were sure of ${listed(alarms.slice(0, 2).map(named))}, which it never had.`);
	if (lessons.length === 0)
		lessons.push(
			truth.conditions.length === 0
				? 'Nothing ailed it, and you left it in peace: there is nothing to do otherwise.'
				: best.end.stands - found.own < least
					? 'There was hardly a better way than yours.'
					: `The best way known comes to ${percent(best.end.stands)}; yours to ${percent(found.own)}.`
		);
	return lessons.slice(0, LESSONS);
}
const LESSONS = 3;

const chanceTold = (what: string) => share().describe(`${what}, 0 to 1`);
const brierTold = () => share().describe('Brier score, mean square, 0 to 1').nullable();
const conditionTold = () => oneOf(conditionIds as [ConditionId, ...ConditionId[]]);

/** A judged round as it is given out. */
export const judgementTold = z.object({
	truth: z.array(conditionTold()),
	decision: z.object({ own: oneOf(decisions).nullable(), best: oneOf(decisions) }),
	diedOn: calendarDate().nullable(),
	diedOf: z.string().nullable(),
	own: chanceTold('chance to come through by what was done'),
	nothing: chanceTold('the same, watered and nothing else'),
	advised: chanceTold('the same by what Bruntle says'),
	best: chanceTold('the same by the best way that is known'),
	minutes: measure(0, 1e6, 'min').describe('minutes that it took'),
	bestMinutes: measure(0, 1e6, 'min').describe('minutes of the best way'),
	turned: z
		.object({ on: calendarDate(), lost: chanceTold('chance that was lost in that week'), by: z.string() })
		.nullable(),
	choices: z.array(
		z.object({
			kind: oneOf(choiceKinds),
			day: count(0, 1000).describe('day of the round, count from 0'),
			what: z.string(),
			chance: measure(-1, 1, 'chance').describe('what it moved the chance by, −1 to 1'),
			minutes: measure(-1e6, 1e6, 'min').describe('minutes that it took')
		})
	),
	brier: brierTold().describe('of the last chances; null where none were given'),
	brierFirst: brierTold().describe('of the first'),
	lessons: z.array(z.string()),
	weak: z.array(conditionTold())
});

/** What was to be decided of a tree that is known: as its best way has it. */
function rightDecision(truth: readonly ConditionId[], best: Way): PracticeDecision {
	const treats = best.acts.filter((act) => remediesIn(act).length > 0);
	if (truth.length === 0 || treats.length === 0) return 'leave';
	return treats.some((act) => act.day === 0) ? 'now' : 'later';
}
