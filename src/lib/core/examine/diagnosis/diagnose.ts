import { logOdds } from '../../maths/odds';
import { z } from 'zod';
import { leakOf, shiftOf, strengthOf, type Shift } from '../../values/diagnosis';
import type { Values } from '../../values/values';
import { conditionIds, type ConditionId } from '../../vocabulary/conditions';
import { diagnosisContext, type DiagnosisContext } from './context';
import {
	combinations,
	noisyOrAmong,
	posterior,
	type NoisyOr,
	type Observed,
	type Posterior
} from './enumerate';
import { contradictions, findingsSchema, type Finding } from './finding';
import { showsIn, worldsOf } from './worlds';
import { firstLookOf, signIds, signShows, topGrade, type SignId } from '../../vocabulary/signs';

export const diagnosisInput = diagnosisContext.extend({ findings: findingsSchema });

const conditionId = z.enum(conditionIds as [ConditionId, ...ConditionId[]]);
const signId = z.enum(signIds as [SignId, ...SignId[]]);

export const diagnosisOutput = z.object({
	ranking: z.array(
		z.object({
			conditionId,
			prior: z.number(),
			chance: z.number(),
			reasons: z.array(
				z.object({
					signId,
					grade: z.number(),
					pull: z.number().describe('Log-odds this finding adds; negative speaks against')
				})
			)
		})
	),
	combinations: z
		.array(z.object({ conditionIds: z.array(conditionId), chance: z.number() }))
		.describe('The most probable sets of the causes above a tenth, most probable first; a set may be empty'),
	contradictions: z.array(z.object({ first: signId, second: signId })),
	conflict: z
		.number()
		.describe(
			'How many times rarer the findings are together than each by itself would suggest; over 1 is unusual'
		),
	exact: z
		.boolean()
		.describe(
			'False when more than ten signs were found: they are then taken in parts, each on what those before left'
		),
	nothingFound: z
		.boolean()
		.describe('Enough was looked for, nothing of it was there, and no cause stands out: leave it alone'),
	notLookedAt: z.array(signId).describe('Signs of a first look that nobody has looked for yet')
});
export type Diagnosis = z.infer<typeof diagnosisOutput>;

/** Causes under this chance are summed out of the combinations, so that these stay readable. */
const TOLD_APART = 0.1;

/**
 * Odds of a chance; of what is sure they are large, never without end.
 * @param chance 0 … 1
 * @returns chance against its opposite, no unit
 */
export const oddsOf = (chance: number): number => chance / Math.max(1e-9, 1 - chance);

const placeOf: ReadonlyMap<string, number> = new Map(signIds.map((id, place) => [id, place]));

const effects = new WeakMap<Values, Map<string, NoisyOr>>();

/** A sign at a grade or more as an effect of all conditions; kept as long as the values are. */
export function effectOf(sign: SignId, grade: number, values: Values): NoisyOr {
	const known = effects.get(values) ?? new Map<string, NoisyOr>();
	effects.set(values, known);
	const key = `${sign}@${grade}`;
	const effect: NoisyOr = known.get(key) ?? {
		leak: leakOf(values, sign, grade),
		strengths: conditionIds.map((condition) => strengthOf(values, sign, condition, grade)),
		inWorld: showsIn(sign, values)
	};
	known.set(key, effect);
	return effect;
}

/** A finding as what was reached and what was missed. */
export const observationOf = (
	{ signId: sign, grade }: Pick<Finding, 'signId' | 'grade'>,
	values: Values
): Observed => ({
	reached: grade > 0 ? effectOf(sign, grade, values) : null,
	missed: grade < topGrade(sign) ? effectOf(sign, grade + 1, values) : null
});

/** Chance of a condition before anything is looked at: usual in the situation, its odds shifted by what is known. */
export function priorOf(condition: ConditionId, context: DiagnosisContext, values: Values): number {
	const usual = values[`diagnosis.prior.${condition}.${context.situation}`];
	const shifts: Shift[] = [
		...(context.group ? [context.group] : []),
		...(context.season ? [context.season] : []),
		...context.events
	];
	const before = context.before?.find((one) => one.conditionId === condition)?.times ?? 1;
	const odds = shifts.reduce(
		(sum, shift) => sum * shiftOf(values, shift, condition),
		(before * usual) / (1 - usual)
	);
	return odds / (1 + odds);
}

/** The posterior behind a diagnosis, for what builds on it. */
export function diagnosisPosterior(
	context: DiagnosisContext,
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	values: Values
): Posterior {
	const priors = conditionIds.map((id) => priorOf(id, context, values));
	return posterior(
		worldsOf(priors, values),
		findings.map((finding) => observationOf(finding, values))
	);
}

// Sums of many signs cancel in their last digits: taken in one order, they are the same to the digit.
const inOneOrder = <T extends Pick<Finding, 'signId'>>(findings: readonly T[]): T[] =>
	[...findings].sort((a, b) => (placeOf.get(a.signId) ?? 0) - (placeOf.get(b.signId) ?? 0));

/** Each cause with its chance before and after what was found, likeliest first: the ranking of `diagnose` without what speaks for it. */
export function causeChances(
	context: DiagnosisContext,
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	values: Values
): { conditionId: ConditionId; prior: number; chance: number }[] {
	const { chances } = diagnosisPosterior(context, inOneOrder(findings), values);
	return conditionIds
		.map((conditionId, index) => ({
			conditionId,
			prior: priorOf(conditionId, context, values),
			chance: chances[index] ?? 0
		}))
		.sort((a, b) => b.chance - a.chance);
}

/**
 * Ranks what may be wrong: exact posterior over all subsets of the conditions, each sign a noisy-OR with a leak (a graded
 * sign one for each grade or more), signs independent given the conditions. Signs not looked for move nothing.
 * The pull of a finding on a cause is the log-odds lost when that finding alone is taken away.
 * @param context sets the chances before anything is looked at
 * @param given at most one a sign; their order does not matter
 */
export function diagnose(
	context: DiagnosisContext,
	given: readonly Pick<Finding, 'signId' | 'grade'>[],
	values: Values
): Diagnosis {
	const findings = inOneOrder(given);
	const priors = conditionIds.map((id) => priorOf(id, context, values));
	const result = diagnosisPosterior(context, findings, values);
	// Of very many findings each is told by what it says alone: taking each away in turn would be slow, and no surer.
	const alone = result.exact
		? null
		: findings.map((finding) => diagnosisPosterior(context, [finding], values).chances);
	const without = alone ? [] : result.without();
	const pullOf = (f: number, index: number): number =>
		alone
			? logOdds(alone[f]?.[index] ?? 0) - logOdds(priors[index] ?? 0)
			: logOdds(result.chances[index] ?? 0) - logOdds(without[f]?.[index] ?? 0);
	const ranking = conditionIds.map((conditionId, index) => ({
		conditionId,
		prior: priors[index] ?? 0,
		chance: result.chances[index] ?? 0,
		reasons: findings
			.map(({ signId, grade }, f) => ({
				signId,
				grade,
				pull: pullOf(f, index)
			}))
			.filter((reason) => Math.abs(reason.pull) >= values['diagnosis.reasonLeast'])
			.sort((a, b) => Math.abs(b.pull) - Math.abs(a.pull))
	}));
	ranking.sort((a, b) => b.chance - a.chance);
	const apart = result.chances.flatMap((chance, i) => (chance >= TOLD_APART ? [i] : []));
	apart.sort((a, b) => (result.chances[b] ?? 0) - (result.chances[a] ?? 0));

	return {
		ranking,
		combinations: combinations(result, apart, 5).map(({ causes, chance }) => ({
			conditionIds: causes.map((index) => conditionIds[index] as ConditionId),
			chance
		})),
		contradictions: contradictions(findings),
		conflict: conflictOf(findings, priors, values),
		exact: result.exact,
		nothingFound:
			findings.length >= values['diagnosis.sound-signs'] &&
			findings.every((finding) => finding.grade === 0) &&
			(ranking[0]?.chance ?? 1) < values['diagnosis.sound-under'],
		notLookedAt: firstLookOf(context).filter(
			(id) => signShows(id, context, findings) && !findings.some((finding) => finding.signId === id)
		)
	};
}

/**
 * Π P(finding) / P(all findings): above 1 the findings hang together worse than if they had nothing to do with each other.
 * @see Jensen et al. 1991, Analysis in HUGIN of data conflict [from memory]
 */
function conflictOf(
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	priors: readonly number[],
	values: Values
): number {
	if (findings.length < 2) return 1;
	// Among the named causes alone: whatever has no name would explain anything.
	const worlds = worldsOf(
		priors.map((chance, i) => (conditionIds[i] === 'something-else' ? 0 : chance)),
		values
	);
	const { evidence } = posterior(
		worlds,
		findings.map((finding) => observationOf(finding, values))
	);
	const apart = findings.reduce((product, finding) => {
		const { reached, missed } = observationOf(finding, values);
		const chance =
			(reached ? noisyOrAmong(reached, worlds) : 1) - (missed ? noisyOrAmong(missed, worlds) : 0);
		return product * Math.max(chance, 1e-12);
	}, 1);
	return evidence > 0 ? apart / evidence : Number.MAX_VALUE;
}
