import type { Values } from '../../../values/values';
import { checkPlan } from '../check-plan';
import { ledger, type LedgerCut } from '../ledger';
import type { Solve } from '../solver';
import { explained, whatGives } from './explanation';
import { greedyPlan, worthOf } from './greedy';
import { modelOf } from './model';
import { nameOf, problemOf, withoutNeedless } from './problem';
import { relaxed } from './program';
import type { ReductionPlan, ReductionPlanInput } from './question';

/**
 * The best staged reduction within the limits [our own model, after the trade's order of claims]: as much trouble gone as
 * early as possible, for as little living and structural root as possible. Rot goes first, serious girdlers by the second
 * stage, whatever their class. No stage takes more than its allowance; kept and untraced roots and sound anchors stay; no anchorage window
 * falls below what is wanted. What must be cut and cannot be is said, with what would have to give.
 * Every plan is verified by an independent check before it is returned.
 * @param solve a loaded solver
 * @throws Error when the check finds fault, which would be a fault of ours
 */
export function reductionPlan(input: ReductionPlanInput, solve: Solve, values: Values): ReductionPlan {
	const problem = problemOf(input, values);
	const { candidates, allowances, musts } = problem;
	const timeLimitS = input.seconds;
	let give: string[] = [];
	let model = modelOf(problem, 'none');
	let answer = solve(model.text, { gap: 0, timeLimitS });
	if (answer.status === 'infeasible') {
		// As few as may be are given up; among the plans that do, the best.
		const least = solve(modelOf(problem, 'musts').text, { gap: 0, timeLimitS });
		const fewest = musts.filter((_, m) => (least.values[`u${m}`] ?? 0) > 0.5).length;
		give = whatGives(problem, solve, timeLimitS);
		model = modelOf(problem, { giveUp: Math.max(1, fewest) });
		answer = solve(model.text, { gap: 0, timeLimitS });
	}
	let gap: number | null = answer.status === 'optimal' ? 0 : null;
	if (answer.status === 'limit') {
		const nearly = solve(model.text, { gap: 0.01, timeLimitS });
		if (nearly.status === 'optimal') [answer, gap] = [nearly, 0.01];
		else if (nearly.status === 'limit') {
			answer = nearly;
			const bound = solve(relaxed(model.text), { gap: 0, timeLimitS });
			gap =
				bound.status === 'optimal'
					? Math.max(0, (bound.objective - answer.objective) / Math.max(1e-9, Math.abs(answer.objective)))
					: null;
		}
	}
	const chosen = candidates.flatMap((candidate, k) =>
		allowances.flatMap((_, stage) =>
			(answer.values[model.cutName(k, stage)] ?? 0) > 0.5
				? [{ segmentId: candidate.segmentId, atMm: candidate.atMm, stage }]
				: []
		)
	);
	const faultsOf = (cuts: readonly LedgerCut[]): string[] =>
		checkPlan(input.map, [...input.done, ...cuts], allowances, values, input.done.length);
	let cuts = withoutNeedless(chosen, problem);
	const found =
		answer.status === 'optimal' || (answer.status === 'limit' && Number.isFinite(answer.objective));
	// What a solver that ran out of time holds may be no plan at all.
	const whole = found && (answer.status === 'optimal' || faultsOf(cuts).length === 0);
	const greedy = !whole;
	if (greedy) {
		cuts = withoutNeedless(greedyPlan(problem, input, faultsOf), problem);
		gap = null;
	}
	const faults = faultsOf(cuts);
	if (faults.length > 0) throw new Error(`The plan does not hold: ${faults.join('; ')}`);
	const gone = ledger(problem.map, [...input.done, ...cuts], allowances, values).gone;
	const unmet = musts.filter((must, m) =>
		greedy
			? !gone.has(must.segmentId) && !cuts.some((cut) => cut.segmentId === must.segmentId)
			: (answer.values[`u${m}`] ?? 0) > 0.5
	);
	return {
		...explained(problem, input, cuts, greedy ? null : solve),
		unmet: [
			...unmet.map((must) => `${nameOf(problem, must.segmentId)}: ${must.name}`),
			...problem.barred.map(
				({ segmentId, name, because }) => `${nameOf(problem, segmentId)}: ${name}; ${because}`
			)
		],
		give,
		worth: greedy ? worthOf(problem, cuts) : answer.objective,
		gap,
		how: greedy ? 'greedy' : gap === 0 ? 'best' : 'near'
	};
}
