import type { ReductionPlan, ReductionPlanInput } from '$core/roots/plan/reduction/question';
import type { Values } from '$core/values/values';
import { wrap } from 'comlink';
import type { PlannerThread } from './reduction-plan.worker';

/** Makes reduction plans away from the page. */
export interface Planner {
	plan(input: ReductionPlanInput, values: Values): Promise<ReductionPlan>;
	/** Stops what is under way; its promise never settles. */
	stop(): void;
}

/** A planner with a thread of its own; loads the solver when it is first asked. */
export function createPlanner(): Planner {
	const worker = new Worker(new URL('./reduction-plan.worker.ts', import.meta.url), { type: 'module' });
	const thread = wrap<PlannerThread>(worker);
	return {
		// Values are a frozen plain object; a copy of it crosses over.
		plan: (input, values) => thread.plan(structuredClone(input), { ...values }),
		stop: () => worker.terminate()
	};
}
