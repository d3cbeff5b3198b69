import { z } from 'zod';
import type { Values } from '../values/values';
import { actNow, disturbanceFactor, standingToday, type StandingToday } from './act-now';
import { conditionIds, conditionOf, type ConditionId } from './conditions';
import { diagnosisContext, type DiagnosisContext } from './context';
import { diagnosisPosterior, effectOf } from './diagnose';
import {
	absenceOf,
	bothAbsent,
	chancesOf,
	difference,
	sumsOf,
	widestFirst,
	type Absence,
	type Posterior,
	type Sums
} from './enumerate';
import { findingsSchema, type Finding } from './finding';
import { procedures, type ProcedureId } from './procedures';
import { gradeWord, signApplies, signIds, signOf, topGrade, type SignId } from './signs';

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
			worth: z.number().describe('Gain by cost, bits an hour'),
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
/** Answers rarer than this do not make a condition relevant. */
const RARE = 0.02;
/** A check below this many bits tells nothing. */
const LEAST_BITS = 1e-4;

const entropyBits = (p: number): number =>
	p <= 0 || p >= 1 ? 0 : -(p * Math.log2(p) + (1 - p) * Math.log2(1 - p));

interface Answered {
	probability: number;
	chances: number[];
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
	const open = signIds.filter((id) => signApplies(id, context.situation) && !asked.has(id));
	const whole = sumsOf(result);
	const answersOf = new Map<SignId, Answered[]>();
	for (const at of widestFirst(open.map((id) => absenceOf(effectOf(id, 1, values))))) {
		const id = open[at] as SignId;
		answersOf.set(id, answers(result, whole, id, values));
	}

	const thresholds = conditionIds.map((id) => actNow(id, 0, standing, values).threshold);
	const acts = (index: number, chance: number): boolean => chance >= (thresholds[index] ?? Infinity);
	const relevant = conditionIds.flatMap((_, index) => {
		const now = acts(index, result.chances[index] ?? 0);
		const turns = [...answersOf.values()].some((list) =>
			list.some((answer) => answer.probability >= RARE && acts(index, answer.chances[index] ?? 0) !== now)
		);
		return turns ? [index] : [];
	});

	const drops = (list: readonly Answered[]): number[] =>
		relevant.map((index) =>
			list.reduce(
				(drop, answer) => drop - answer.probability * entropyBits(answer.chances[index] ?? 0),
				entropyBits(result.chances[index] ?? 0)
			)
		);
	const sum = (list: readonly number[]): number => list.reduce((total, value) => total + value, 0);

	const done = new Set(findings.map((finding) => signOf(finding.signId).procedure));
	const harmOf = (procedure: ProcedureId): number => {
		if (done.has(procedure)) return 0;
		const roots = procedure === 'open-edge' || procedure === 'sample' || procedure === 'unpot';
		return (
			values[`diagnosis.harm.${procedure}`] *
			disturbanceFactor(standing.seasonFit, standing.vigour, values) *
			(roots && context.situation === 'just-lifted' ? values['diagnosis.harm-open-roots'] : 1)
		);
	};

	const checkOf = (ids: SignId[], list: readonly Answered[]): Check => {
		const procedure = signOf(ids[0] as SignId).procedure;
		const each = ids.map((id) => values[`diagnosis.minutes.${id}`]);
		// Further signs of the same procedure cost a minute each.
		const minutes = Math.max(...each) + (ids.length - 1);
		const harm = harmOf(procedure);
		const cost = minutes + harm * values['diagnosis.minutes-for-a-life'];
		const perCondition = drops(list);
		const gainBits = sum(perCondition);
		const top = relevant[perCondition.indexOf(Math.max(...perCondition))] ?? 0;
		return {
			signIds: ids,
			procedure,
			minutes,
			harm,
			cost,
			gainBits,
			worth: (gainBits / cost) * 60,
			subject: conditionIds[top] as ConditionId,
			answers: ids.flatMap((id) =>
				(answersOf.get(id) ?? []).map((answer, grade) => ({
					signId: id,
					grade,
					probability: answer.probability,
					chance: answer.chances[top] ?? 0,
					acts: acts(top, answer.chances[top] ?? 0)
				}))
			)
		};
	};

	const checks: Check[] = [];
	for (const procedure of Object.keys(procedures) as ProcedureId[]) {
		const singles = open
			.filter((id) => signOf(id).procedure === procedure)
			.map((id) => checkOf([id], answersOf.get(id) ?? []))
			.filter((check) => check.gainBits >= LEAST_BITS)
			.sort((a, b) => b.gainBits - a.gainBits);
		if (procedure === 'look' || singles.length < 2) checks.push(...singles);
		else {
			const ids = singles.slice(0, BUNDLE).flatMap((check) => check.signIds);
			checks.push(checkOf(ids, together(result, whole, ids, values)), ...singles.slice(BUNDLE));
		}
	}
	checks.sort((a, b) => b.worth - a.worth);
	return { relevant: relevant.map((index) => conditionIds[index] as ConditionId), checks };
}

/** Chance that a sign stays below each grade: one absence for each grade from 1 up, and none for what is certain. */
const ceilings = (sign: SignId, values: Values): (Absence | null)[] => [
	...Array.from({ length: topGrade(sign) }, (_, i) => absenceOf(effectOf(sign, i + 1, values))),
	null
];

const answered = (sums: Sums): Answered => ({ probability: sums.total, chances: chancesOf(sums) });

/** For every grade of a sign: how probable it is, and the chances if it is found. */
function answers(result: Posterior, whole: Sums, sign: SignId, values: Values): Answered[] {
	const below = ceilings(sign, values).map((absence) => (absence ? sumsOf(result, absence) : whole));
	return below.map((sums, grade) =>
		answered(grade === 0 ? sums : difference(sums, below[grade - 1] as Sums))
	);
}

/** For every way several signs can come out at once: how probable it is, and the chances if so. */
function together(result: Posterior, whole: Sums, signs: readonly SignId[], values: Values): Answered[] {
	const [first, ...rest] = signs.map((sign) => ceilings(sign, values));
	if (!first) return [];
	/** Sums of the part below each ceiling of the first sign, given what is held below by the others. */
	const parts = (held: Absence | null, lists: readonly (Absence | null)[][]): Sums[] => {
		const [list, ...others] = lists;
		if (!list) return [held ? sumsOf(result, held) : whole];
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
 * @param percent how a chance is written
 */
export function checkSentence(check: Check, percent: (chance: number) => string): string {
	const [first, ...more] = check.signIds;
	if (!first) return '';
	const subject = conditionOf(check.subject).label.toLowerCase();
	const told = check.answers.filter((answer) => answer.signId === first);
	const [absent, ...found] = told;
	const means = (answer: Check['answers'][number]): string =>
		`${gradeWord(first, answer.grade)} → ${percent(answer.chance)}${answer.acts ? ', act' : ''}`;
	const also =
		more.length > 0
			? `; the same step shows ${more.map((id) => signOf(id).label.toLowerCase()).join(' and ')}`
			: '';
	return `${signOf(first).how.replace(/\.$/, '')}. ${subject[0]?.toUpperCase()}${subject.slice(1)}: ${[...found.reverse(), ...(absent ? [absent] : [])].map(means).join(' · ')}${also}.`;
}
