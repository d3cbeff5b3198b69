import { reductionPlan } from '$core/roots/plan/reduction/reduction-plan';
import type { ReductionPlanInput } from '$core/roots/plan/reduction/question';
import { loadSolver } from '$core/roots/plan/solver';
import type { Values } from '$core/values/values';
import { expose } from 'comlink';
import machineCode from 'highs/runtime?url';

/** The planner in a thread of its own, so that the page stays at hand and the work can be stopped. */
const planner = {
	plan: async (input: ReductionPlanInput, values: Values) =>
		reductionPlan(input, await loadSolver(() => machineCode), values)
};
export type PlannerThread = typeof planner;
expose(planner);
