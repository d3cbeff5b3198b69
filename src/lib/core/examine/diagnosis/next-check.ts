import { atStart, midSentence } from '../../text/mid-sentence';
import { z } from 'zod';
import type { Values } from '../../values/values';
import { actNow, disturbanceFactor, standingToday, type StandingToday } from './act-now';
import { conditionIds, conditionOf, type ConditionId } from '../../vocabulary/conditions';
import { diagnosisContext, type DiagnosisContext } from './context';
import { diagnosisPosterior, effectOf, oddsOf, priorOf } from './diagnose';
import {
	absenceOf,
	bothAbsent,
	chancesOf,
	difference,
	roughly,
	sumsOf,
	type Posterior,
	type Product,
	type Sums
} from './enumerate';
import { findingsSchema, type Finding } from './finding';
import { procedures, type ProcedureId } from '../../vocabulary/procedures';
import type { Situation } from '../../vocabulary/words';
import {
	gradeWord,
	howToLook,
	signIds,
	signOf,
	signShows,
	topGrade,
	type SignId
} from '../../vocabulary/signs';
import { worldParts } from './worlds';

export const nextCheckInput = diagnosisContext.extend({
	findings: findingsSchema,
	standing: standingToday
});

const signId = z.enum(signIds as [SignId, ...SignId[]]);
const conditionId = z.enum(conditionIds as [ConditionId, ...ConditionId[]]);

export const nextCheckOutput = z.object({
	relevant: z.array(conditionId).describe('Conditions whose further knowledge would change what is done'),
	checks: z.array(
		z.object({
			signIds: z.array(signId).min(1),
			procedure: z.string(),
			minutes: z.number(),
			harm: z.number().describe('Chance to live lost by looking, for this tree today'),
			cost: z.number().describe('Minutes, harm turned into minutes'),
			gainBits: z.number().describe('Expected drop in entropy of the relevant conditions'),
			worth: z.number().describe('Gain by cost, bits an hour, each weighed by what acting on it saves'),
			subject: conditionId.describe('The condition it tells most about'),
			answers: z.array(
				z.object({
					signId,
					grade: z.number(),
					probability: z.number(),
					chance: z.number().describe('Chance of the subject after this answer'),
					acts: z.boolean().describe('Whether one would then act on the subject now')
				})
			)
		})
	)
});
export type NextChecks = z.infer<typeof nextCheckOutput>;
export type Check = NextChecks['checks'][number];

/** Signs of one procedure that are looked for together, at most. */
const BUNDLE = 3;
/** Causes less likely than this are followed only where a sign speaks of them. */
const FOLLOWED = 0.03;
/** So many checks that look best at first are worked out exactly; the others are told roughly. */
const EXACTLY = 24;
/** A check below this many bits tells nothing. */
const LEAST_BITS = 1e-4;

/**
 * How little is known of a yes or no.
 * @param p chance of the yes, 0 … 1
 * @returns bits, 0 … 1
 */
export const entropyBits = (p: number): number =>
	p <= 0 || p >= 1 ? 0 : -(p * Math.log2(p) + (1 - p) * Math.log2(1 - p));

export interface Answered {
	probability: number;
	chances: number[];
}

/** What the ranking of checks goes by: the look so far, and which causes are worth knowing better. */
interface Asking {
	context: DiagnosisContext;
	standing: StandingToday;
	values: Values;
	/** Chance of each cause now. */
	chances: readonly number[];
	/** Whether one acts on a cause at a chance. */
	acts: (index: number, chance: number) => boolean;
	/** Causes, by index, whose further knowledge would change what is done. */
	relevant: readonly number[];
	/** What a bit about each of them counts. */
	stakes: readonly number[];
	/** Procedures that were used in this look already. */
	done: ReadonlySet<ProcedureId>;
}

/** Which causes are worth knowing better, and what a bit about each counts. */
function askingOf(
	{ context, findings, standing }: Look,
	chances: readonly number[],
	answers: Iterable<readonly Answered[]>,
	values: Values
): Asking {
	const thresholds = conditionIds.map((id) =>
		id === 'dead' ? values['diagnosis.dead-from'] : actNow(id, 0, standing, values).threshold
	);
	const acts = (index: number, chance: number): boolean => chance >= (thresholds[index] ?? Infinity);
	const anyFound = findings.some((finding) => finding.grade > 0);
	/** By how much what was found multiplies the odds of each cause. */
	const lift = conditionIds.map(
		(id, index) => oddsOf(chances[index] ?? 0) / Math.max(1e-9, oddsOf(priorOf(id, context, values)))
	);
	const raised = lift.map((factor) => anyFound && factor >= values['diagnosis.raised']);
	/** Whether some answer would turn what is done about each cause. */
	const lists = [...answers];
	const turns = conditionIds.map((_, index) => {
		const now = acts(index, chances[index] ?? 0);
		return lists.some((list) =>
			list.some(
				(answer) =>
					answer.probability >= values['diagnosis.answer-rare'] &&
					acts(index, answer.chances[index] ?? 0) !== now
			)
		);
	});
	const relevant = conditionIds.flatMap((id, index) => {
		const chance = chances[index] ?? 0;
		if (id === 'something-else' || (id === 'dead' && chance < values['diagnosis.dead-asked'])) return [];
		// What the findings speak for and what is not settled yet is worth knowing better, whichever way one would act.
		const open =
			raised[index] && chance >= values['diagnosis.open-from'] && chance <= values['diagnosis.settled-from'];
		return turns[index] || open ? [index] : [];
	});
	return {
		context,
		standing,
		values,
		chances,
		acts,
		relevant,
		// A bit counts by what acting on it saves: knowing of a dim place is not worth as much as knowing of rot.
		stakes: relevant.map(
			(index) =>
				stakeOf(conditionIds[index] as ConditionId, values) *
				(raised[index] || !anyFound ? 1 : values['diagnosis.unraised-counts']) *
				(turns[index] ? 1 : values['diagnosis.settled-counts'])
		),
		done: new Set(findings.map((finding) => signOf(finding.signId).procedure))
	};
}

const sum = (list: readonly number[]): number => list.reduce((total, value) => total + value, 0);

/** A check of some signs of one procedure, valued by the answers it may give. */
function checkOf(
	{ context, standing, values, chances, acts, relevant, stakes, done }: Asking,
	ids: SignId[],
	list: readonly Answered[],
	answersBy: ReadonlyMap<SignId, readonly Answered[]>
): Check {
	const procedure = signOf(ids[0] as SignId).procedure;
	const each = ids.map((id) => values[`diagnosis.minutes.${id}`]);
	// Further signs of the same procedure cost a minute each.
	const minutes = Math.max(...each) + (ids.length - 1);
	const harm = harmToday(procedure, done, context.situation, standing, values);
	const cost = minutes + harm * values['diagnosis.minutes-for-a-life'];
	const drops = relevant.map((index) =>
		list.reduce(
			(drop, answer) => drop - answer.probability * entropyBits(answer.chances[index] ?? 0),
			entropyBits(chances[index] ?? 0)
		)
	);
	const staked = drops.map((bits, at) => bits * (stakes[at] ?? 0));
	const top = relevant[staked.indexOf(Math.max(...staked))] ?? 0;
	return {
		signIds: ids,
		procedure,
		minutes,
		harm,
		cost,
		gainBits: sum(drops),
		worth: (sum(staked) / cost) * 60,
		subject: conditionIds[top] as ConditionId,
		answers: ids.flatMap((id) =>
			(answersBy.get(id) ?? []).map((answer, grade) => ({
				signId: id,
				grade,
				probability: answer.probability,
				chance: answer.chances[top] ?? 0,
				acts: acts(top, answer.chances[top] ?? 0)
			}))
		)
	};
}

/** A look so far. */
interface Look {
	context: DiagnosisContext;
	findings: readonly Pick<Finding, 'signId' | 'grade'>[];
	standing: StandingToday;
}

/**
 * Every check not made yet, ranked by the expected drop in entropy of those conditions whose further knowledge would
 * change what is done, by its cost: minutes, and the harm to this tree today turned into minutes. A condition counts when
 * some answer would carry its chance over the threshold from which one acts (see `actNow`).
 * Signs that one procedure shows together are valued together, exactly, and its harm is paid once; a procedure that was
 * used in this look already harms no more.
 * @returns best first; nothing that tells less than a ten-thousandth of a bit
 */
export function nextChecks(
	context: DiagnosisContext,
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	standing: StandingToday,
	values: Values
): NextChecks {
	const result = diagnosisPosterior(context, findings, values);
	const asked = new Set(findings.map((finding) => finding.signId));
	const open = signIds.filter((id) => !asked.has(id) && signShows(id, context, findings));
	// Roughly for all signs at first; exactly for those that may lead.
	const rough = roughly(result);
	const roughWhole = sumsOf(rough);
	const answersBy = new Map<SignId, Answered[]>();
	for (const id of open) answersBy.set(id, answersOf(rough, roughWhole, id, values));
	const asking = askingOf({ context, findings, standing }, result.chances, answersBy.values(), values);
	const single = (id: SignId): Check => checkOf(asking, [id], answersBy.get(id) ?? [], answersBy);

	const whole = sumsOf(result);
	// What is hardly there, and no sign asked after speaks of it, moves too little to follow.
	const near = result.chances.flatMap((chance, i) => (chance >= FOLLOWED ? [i] : []));
	const leading = open
		.map((id) => ({ id, worth: single(id).worth }))
		.sort((a, b) => b.worth - a.worth)
		.slice(0, rough === result ? 0 : EXACTLY)
		.map(({ id }) => id);
	for (const id of leading) answersBy.set(id, answersOf(result, whole, id, values, near));

	const checks = (Object.keys(procedures) as ProcedureId[]).flatMap((procedure): Check[] => {
		const singles = open
			.filter((id) => signOf(id).procedure === procedure)
			.map(single)
			.filter((check) => check.gainBits >= LEAST_BITS)
			.sort((a, b) => b.gainBits - a.gainBits);
		if (procedure === 'look' || singles.length < 2) return singles;
		const ids = singles.slice(0, BUNDLE).flatMap((check) => check.signIds);
		const exactly = rough === result || ids.some((id) => leading.includes(id));
		const list = exactly
			? together(result, whole, ids, values, near)
			: together(rough, roughWhole, ids, values);
		return [checkOf(asking, ids, list, answersBy), ...singles.slice(BUNDLE)];
	});
	return {
		relevant: asking.relevant.map((index) => conditionIds[index] as ConditionId),
		checks: checks.sort((a, b) => b.worth - a.worth)
	};
}

/** What acting on a condition saves of the chance to live, in a month, from a least: how much a bit of knowing it counts. */
const stakeOf = (id: ConditionId, values: Values): number =>
	id === 'dead'
		? values['diagnosis.dead-stake']
		: values['diagnosis.least-stake'] + values[`diagnosis.loss.${id}`] * values[`diagnosis.averts.${id}`];

/** Chance to live that a procedure costs a tree today; one that was used in this look harms no more. */
export function harmToday(
	procedure: ProcedureId,
	done: ReadonlySet<ProcedureId>,
	situation: DiagnosisContext['situation'],
	standing: StandingToday,
	values: Values
): number {
	if (done.has(procedure)) return 0;
	const roots = procedure === 'open-edge' || procedure === 'sample' || procedure === 'unpot';
	return (
		values[`diagnosis.harm.${procedure}`] *
		disturbanceFactor(standing.seasonFit, standing.vigour, values) *
		(roots && situation === 'just-lifted' ? values['diagnosis.harm-open-roots'] : 1)
	);
}

/** Chance that a sign stays below each grade: one absence for each grade from 1 up, and none for what is certain. */
const ceilings = (sign: SignId, values: Values): (Product | null)[] => [
	...Array.from({ length: topGrade(sign) }, (_, i) =>
		absenceOf(effectOf(sign, i + 1, values), worldParts.length)
	),
	null
];

const answered = (sums: Sums): Answered => ({ probability: sums.total, chances: chancesOf(sums) });

/** For every grade of a sign: how probable it is, and the chances if it is found. */
export function answersOf(
	result: Posterior,
	whole: Sums,
	sign: SignId,
	values: Values,
	near?: readonly number[]
): Answered[] {
	const below = ceilings(sign, values).map((absence) => (absence ? sumsOf(result, absence, near) : whole));
	return below.map((sums, grade) =>
		answered(grade === 0 ? sums : difference(sums, below[grade - 1] as Sums))
	);
}

/** For every way several signs can come out at once: how probable it is, and the chances if so. */
function together(
	result: Posterior,
	whole: Sums,
	signs: readonly SignId[],
	values: Values,
	near?: readonly number[]
): Answered[] {
	const [first, ...rest] = signs.map((sign) => ceilings(sign, values));
	if (!first) return [];
	/** Sums of the part below each ceiling of the first sign, given what is held below by the others. */
	const parts = (held: Product | null, lists: readonly (Product | null)[][]): Sums[] => {
		const [list, ...others] = lists;
		if (!list) return [held ? sumsOf(result, held, near) : whole];
		const below = list.map((absence) =>
			parts(held && absence ? bothAbsent(held, absence) : (held ?? absence), others)
		);
		return below.flatMap((sums, grade) =>
			grade === 0 ? sums : sums.map((sum, i) => difference(sum, below[grade - 1]?.[i] as Sums))
		);
	};
	return parts(null, [first, ...rest]).map(answered);
}

/**
 * A check as one sentence: what to do, and what each answer would mean.
 * @param situation how the tree stands: what is done in a pot is done otherwise in the ground
 * @param percent how a chance is written
 */
export function checkSentence(
	check: Check,
	situation: Situation,
	percent: (chance: number) => string
): string {
	const [first, ...more] = check.signIds;
	if (!first) return '';
	const subject = conditionOf(check.subject).label.toLowerCase();
	const told = check.answers.filter((answer) => answer.signId === first);
	const [absent, ...found] = told;
	const means = (answer: Check['answers'][number]): string =>
		`${gradeWord(first, answer.grade)} → ${percent(answer.chance)}${answer.acts ? ', act' : ''}`;
	const also =
		more.length > 0
			? `; the same step shows ${more.map((id) => midSentence(signOf(id).label)).join(' and ')}`
			: '';
	return `${howToLook(first, situation).replace(/\.$/, '')}. ${atStart(subject)}: ${[...found.reverse(), ...(absent ? [absent] : [])].map(means).join(' · ')}${also}.`;
}
