import type { RootMapInput } from '$core/roots/map/root-map';
import { tempers, type PlanInput, type Temper } from '$core/roots/plan/plan';
import { planStanding, type PlanStanding } from '$core/roots/plan/plan-standing';
import { planFrom, proposalFor } from '$core/roots/plan/proposal';
import type { ReductionPlan } from '$core/roots/plan/reduction/question';
import { createPlanner, type Planner } from '$lib/workers/planner';
import { newId } from './new-id';
import type { RootsOfTree } from './roots-of-tree';

/** One way to stage the work, ready to be taken. */
export interface Proposed {
	temper: Temper;
	plan: PlanInput;
	result: ReductionPlan;
	standing: PlanStanding;
}

/** Ways to stage the work, one by one as they are worked out. */
export class Ways {
	/** Those that are worked out; null while nobody asked. */
	list = $state.raw<Proposed[] | null>(null);
	planning = $state(false);
	/** Why none could be worked out, for the person; empty while nothing went wrong. */
	failed = $state('');
	#planner: Planner | null = null;
	readonly #of: RootsOfTree;
	readonly #makePlanner: () => Planner;

	/** @param makePlanner makes the planner; a thread of its own unless another is given */
	constructor(of: RootsOfTree, makePlanner: () => Planner = createPlanner) {
		this.#of = of;
		this.#makePlanner = makePlanner;
	}

	/** Has the three tempers worked out beside each other; what was cut or set by hand stays. */
	async propose(map: RootMapInput, plan: PlanInput): Promise<void> {
		this.stop();
		const { tree, kind, place, values, today, flags } = this.#of;
		this.list = [];
		this.failed = '';
		this.planning = true;
		const planner = this.#makePlanner();
		this.#planner = planner;
		try {
			for (const temper of tempers) {
				const proposal = proposalFor(
					{ tree, kind, place, today, held: flags.length > 0 },
					map,
					plan,
					temper,
					values
				);
				const result = await planner.plan(proposal.question, values);
				if (this.#planner !== planner) return;
				const proposed = planFrom(plan, proposal, result, () => newId('c'));
				const standing = planStanding({ tree, kind }, place, map, proposed, values);
				this.list = [...this.list, { temper, plan: proposed, result, standing }];
			}
		} catch (cause) {
			console.error(cause);
			if (this.#planner === planner)
				this.failed = 'The plan could not be worked out. Load the page again and try once more.';
		} finally {
			if (this.#planner === planner) this.stop();
		}
	}

	stop(): void {
		this.#planner?.stop();
		this.#planner = null;
		this.planning = false;
	}

	/** Stops, and shows none any more. */
	close(): void {
		this.stop();
		this.list = null;
	}
}
