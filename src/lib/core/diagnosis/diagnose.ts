import { z } from 'zod';
import { leakOf, shiftOf, strengthOf, type Shift } from '../values/diagnosis';
import type { Values } from '../values/values';
import { conditionIds, type ConditionId } from './conditions';
import { diagnosisContext, type DiagnosisContext } from './context';
import {
	combinations,
	independentPrior,
	noisyOrAmong,
	posterior,
	withoutEach,
	type NoisyOr,
	type Observed,
	type Posterior
} from './enumerate';
import { contradictions, findingsSchema, type Finding } from './finding';
import { signIds, topGrade, type SignId } from './signs';

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
		)
});
export type Diagnosis = z.infer<typeof diagnosisOutput>;
export type RankedCause = Diagnosis['ranking'][number];

/** Causes under this chance are summed out of the combinations, so that these stay readable. */
const TOLD_APART = 0.1;

const logOdds = (chance: number): number => {
	const bounded = Math.min(1 - 1e-12, Math.max(1e-12, chance));
	return Math.log(bounded / (1 - bounded));
};

const effects = new WeakMap<Values, Map<string, NoisyOr>>();

/** A sign at a grade or more as an effect of all conditions; kept as long as the values are. */
export function effectOf(sign: SignId, grade: number, values: Values): NoisyOr {
	const known = effects.get(values) ?? new Map<string, NoisyOr>();
	effects.set(values, known);
	const key = `${sign}@${grade}`;
	const effect = known.get(key) ?? {
		leak: leakOf(values, sign, grade),
		strengths: conditionIds.map((condition) => strengthOf(values, sign, condition, grade))
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
	const odds = shifts.reduce((sum, shift) => sum * shiftOf(values, shift, condition), usual / (1 - usual));
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
		independentPrior(priors),
		conditionIds.length,
		findings.map((finding) => observationOf(finding, values))
	);
}

/**
 * Ranks what may be wrong: exact posterior over all subsets of the conditions, each sign a noisy-OR with a leak (a graded
 * sign one for each grade or more), signs independent given the conditions. Signs not looked for move nothing.
 * The pull of a finding on a cause is the log-odds lost when that finding alone is taken away.
 * @param context sets the chances before anything is looked at
 * @param findings at most one a sign; order does not matter
 */
export function diagnose(
	context: DiagnosisContext,
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	values: Values
): Diagnosis {
	const priors = conditionIds.map((id) => priorOf(id, context, values));
	const result = diagnosisPosterior(context, findings, values);
	const without = withoutEach(result);
	const ranking = conditionIds.map((conditionId, index) => ({
		conditionId,
		prior: priors[index] ?? 0,
		chance: result.chances[index] ?? 0,
		reasons: findings
			.map(({ signId, grade }, f) => ({
				signId,
				grade,
				pull: logOdds(result.chances[index] ?? 0) - logOdds(without[f]?.[index] ?? 0)
			}))
			.filter((reason) => Math.abs(reason.pull) >= 0.05)
			.sort((a, b) => Math.abs(b.pull) - Math.abs(a.pull))
	}));
	ranking.sort((a, b) => b.chance - a.chance);
	const apart = result.chances.reduce(
		(mask, chance, i) => (chance >= TOLD_APART ? mask | (1 << i) : mask),
		0
	);

	return {
		ranking,
		combinations: combinations(result, apart, 5).map(({ causes, chance }) => ({
			conditionIds: conditionIds.filter((_, index) => causes & (1 << index)),
			chance
		})),
		contradictions: contradictions(findings),
		conflict: conflictOf(findings, priors, result.evidence, values)
	};
}

/**
 * Π P(finding) / P(all findings): above 1 the findings hang together worse than if they had nothing to do with each other.
 * @see Jensen et al. 1991, Analysis in HUGIN of data conflict [from memory]
 */
function conflictOf(
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	priors: readonly number[],
	evidence: number,
	values: Values
): number {
	const apart = findings.reduce((product, finding) => {
		const { reached, missed } = observationOf(finding, values);
		const chance =
			(reached ? noisyOrAmong(reached, priors) : 1) - (missed ? noisyOrAmong(missed, priors) : 0);
		return product * Math.max(chance, 1e-12);
	}, 1);
	return evidence > 0 ? apart / evidence : Number.MAX_VALUE;
}

/** The leading cause, when it is likelier than not. */
export const leadingCause = (diagnosis: Diagnosis): ConditionId | null => {
	const first = diagnosis.ranking[0];
	return first && first.chance >= 0.5 ? first.conditionId : null;
};
