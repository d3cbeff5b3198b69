import { z } from 'zod';
import { oneOf } from '../fields/fields';
import { situations, type Situation } from '../tree/tree';
import { strengthOf } from '../values/diagnosis';
import type { Values } from '../values/values';
import { conditionIds, type ConditionId } from './conditions';
import { independentPrior, infer, type NoisyOr } from './enumerate';
import { signIds, type SignId } from './signs';

export const findingSchema = z.strictObject({
	signId: oneOf(signIds as [SignId, ...SignId[]]),
	state: oneOf(['present', 'absent']).describe(
		'A sign that was not looked for is left out: unknown stays unknown'
	)
});
export type Finding = z.infer<typeof findingSchema>;

export const diagnosisInput = z.strictObject({
	situation: oneOf(situations),
	findings: z
		.array(findingSchema)
		.max(signIds.length)
		.refine((findings) => new Set(findings.map((f) => f.signId)).size === findings.length, {
			error: 'must name each sign at most once'
		})
});

export const diagnosisOutput = z.object({
	ranking: z.array(
		z.object({
			conditionId: z.string(),
			prior: z.number(),
			chance: z.number(),
			reasons: z.array(
				z.object({
					signId: z.string(),
					state: z.enum(['present', 'absent']),
					pull: z.number().describe('Log-odds this finding adds; negative speaks against')
				})
			)
		})
	),
	combination: z.array(z.string()).describe('The most probable set of conditions together; may be empty'),
	combinationChance: z.number()
});
export type Diagnosis = z.infer<typeof diagnosisOutput>;
export type RankedCause = Diagnosis['ranking'][number];

const logOdds = (chance: number): number => {
	const bounded = Math.min(1 - 1e-12, Math.max(1e-12, chance));
	return Math.log(bounded / (1 - bounded));
};

function effectOf(signId: SignId, values: Values): NoisyOr {
	return {
		leak: values[`diagnosis.leak.${signId}`],
		strengths: conditionIds.map((condition) => strengthOf(values, signId, condition))
	};
}

/**
 * Ranks what may be wrong: exact posterior over all subsets of the conditions, each sign a noisy-OR with a leak,
 * signs independent given the conditions. Signs not looked for move nothing.
 * The pull of a finding on a cause is the log-odds lost when that finding alone is taken away.
 * @param situation sets the prior chances
 * @param findings at most one a sign; order does not matter
 */
export function diagnose(situation: Situation, findings: readonly Finding[], values: Values): Diagnosis {
	const priors = conditionIds.map((id) => values[`diagnosis.prior.${id}.${situation}`]);
	const { chances, without, best, bestChance } = infer(
		independentPrior(priors),
		conditionIds.length,
		findings.map(({ signId, state }) => ({ effect: effectOf(signId, values), present: state === 'present' }))
	);
	const ranking = conditionIds.map((conditionId, index) => ({
		conditionId,
		prior: values[`diagnosis.prior.${conditionId}.${situation}`],
		chance: chances[index] ?? 0,
		reasons: findings
			.map(({ signId, state }, f) => ({
				signId,
				state,
				pull: logOdds(chances[index] ?? 0) - logOdds(without[f]?.[index] ?? 0)
			}))
			.filter((reason) => Math.abs(reason.pull) >= 0.05)
			.sort((a, b) => Math.abs(b.pull) - Math.abs(a.pull))
	}));
	ranking.sort((a, b) => b.chance - a.chance);

	return {
		ranking,
		combination: conditionIds.filter((_, index) => best & (1 << index)),
		combinationChance: bestChance
	};
}

/** The leading cause, when it is likelier than not. */
export const leadingCause = (diagnosis: Diagnosis): ConditionId | null => {
	const first = diagnosis.ranking[0];
	return first && first.chance >= 0.5 ? (first.conditionId as ConditionId) : null;
};
