import { z } from 'zod';
import { deathCauses } from '../recovery/rehearsal/kept';
import { PLANS_MOST, rehearsedPlan } from '../recovery/rehearsal/plan';
import { unknownNames, type Unknown } from '../rehearse/finding-out';
import { strongestOther } from '../rehearse/propose';
import { rehearse } from '../rehearse/rehearse';
import { rehearsalScene } from '../rehearse/scene';
import { findingWords, orderWords } from '../rehearse/words';
import { wordsOf } from '../vocabulary/words-of';
import { count } from '../vocabulary/fields';
import { calculation, type Calculation } from './calculation';

const shareNumber = (what: string) => z.number().describe(`${what}, 0 to 1`);
const points = z.array(
	z.object({
		on: z.string(),
		low: shareNumber('a tenth of the futures lie under it'),
		mean: shareNumber('mean of the futures'),
		high: shareNumber('a tenth of the futures lie over it')
	})
);
const chance = () => shareNumber('chance');
const seed = () => count(0, 2_147_483_647).default(1).describe('The same seed draws the same futures');

/** Calculations of Rehearse. */
export const rehearseCalculations: readonly Calculation[] = [
	calculation(
		'rehearsal',
		'Plans for a tree played forward through the same drawn futures: what becomes of each, what it dies of, what it costs, and whether they differ',
		z.strictObject({
			scene: rehearsalScene,
			plans: z
				.array(rehearsedPlan)
				.min(1, { error: 'must hold at least one plan' })
				.max(PLANS_MOST, { error: `must hold at most ${PLANS_MOST} plans` }),
			futures: count(9, 810).default(405).describe('Futures that each plan goes through'),
			seed: seed()
		}),
		z.object({
			from: z.string(),
			to: z.string(),
			headline: z.string(),
			against: z.array(z.string()).describe('The best plan against each other one, in words'),
			outcomes: z.array(
				z.object({
					name: z.string(),
					alive: points.describe('Chance to be alive, by day'),
					established: points.describe('Chance to be re-established, by day'),
					roots: points.describe('Root function, by day'),
					end: z.object({
						alive: chance(),
						stands: chance(),
						established: chance(),
						line: z.number().describe('chance that it or a young one of it lives, 0 to 1'),
						worth: z.number().describe('re-established counts 1, standing in part, 0 to 1'),
						error: z.number().describe('standard error of the worth, share')
					}),
					dies: z.array(
						z.object({ cause: z.enum(deathCauses), chance: chance(), showsOn: z.string().nullable() })
					),
					costs: z.object({
						waterings: z.number().describe('times, in the mean'),
						covered: z.number().describe('times it is carried in or covered, in the mean'),
						visits: z.number().describe('visits, in the mean'),
						minutes: z.number().describe('minutes, in the mean')
					}),
					worksLater: z.boolean().describe('Planned root work lies beyond the end')
				})
			),
			pairs: z.array(
				z.object({
					a: z.number().describe('index of a plan, from 0'),
					b: z.number().describe('index of the other, from 0'),
					aBetter: z.number().describe('share of futures, 0 to 1'),
					bBetter: z.number().describe('share of futures, 0 to 1'),
					gap: z.number().describe('mean gap of their worth, share'),
					error: z.number().describe('standard error of the gap, share'),
					differ: z.boolean()
				})
			),
			order: z.array(z.number().describe('indexes of the plans, best first')),
			finding: z.array(
				z.object({
					what: z.enum(wordsOf(unknownNames as Record<Unknown, string>)),
					worth: z.number().describe('gain in chance, 0 to 1'),
					wouldChoose: z.array(z.number().describe('index of the plan, by the answer')),
					words: z.string()
				})
			)
		}),
		({ scene, plans, futures, seed }, values) => {
			const played = rehearse(scene, plans, { futures, seed }, values);
			const words = findingWords(played);
			return {
				...orderWords(played),
				from: played.from,
				to: played.to,
				outcomes: played.outcomes.map(({ plan, ends: _ends, ...outcome }) => ({
					name: plan.name,
					...outcome
				})),
				pairs: played.pairs,
				order: played.order,
				finding: played.finding.map(({ what, worth, wouldChoose }, i) => ({
					what,
					worth,
					wouldChoose,
					words: words[i] ?? ''
				}))
			};
		}
	),
	calculation(
		'strongest-other-plan',
		'The strongest other plan for a tree: the changes of the plan that help most, put together',
		z.strictObject({ scene: rehearsalScene, plan: rehearsedPlan, seed: seed() }),
		z.object({ plan: rehearsedPlan.nullable().describe('null where there is no other') }),
		({ scene, plan, seed }, values) => ({ plan: strongestOther(scene, plan, { seed }, values) })
	)
];
