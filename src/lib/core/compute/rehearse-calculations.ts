import { z } from 'zod';
import { PLANS_MOST, rehearsedPlan } from '../recovery/rehearsal/plan';
import { apartOutput } from '../rehearse/apart';
import { findingOutOutput } from '../rehearse/finding-out';
import { planEndsOutput } from '../rehearse/outcome';
import { strongestOther } from '../rehearse/propose';
import { rehearse } from '../rehearse/rehearse';
import { rehearsalScene } from '../rehearse/scene';
import { findingWords, orderWords } from '../rehearse/words';
import { count } from '../vocabulary/fields';
import { calculation, type Calculation } from './calculation';

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
			outcomes: z.array(planEndsOutput.extend({ name: z.string() })),
			pairs: z.array(apartOutput),
			order: z.array(z.number().describe('indexes of the plans, best first')),
			finding: z.array(findingOutOutput.omit({ check: true }).extend({ words: z.string() }))
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
