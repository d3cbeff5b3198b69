import { addDays } from '../maths/calendar';
import type { RehearsalInput } from '../recovery/rehearsal/kept';
import type { RehearsedPlan } from '../recovery/rehearsal/plan';
import type { Values } from '../values/values';
import { apart, type Apart } from './apart';
import { beginsBy, playedFuture, stageOf, WEEK, type Course } from './course';
import { findingOut, type FindingOut } from './finding-out';
import { futuresOf, spreadsOf, type Future } from './futures';
import { deadAnyway, outcomeOf, type PlanOutcome } from './outcome';
import { prepared } from './prepared';
import type { RehearsalScene } from './scene';
import { WholeStanding } from './standings';

export type { ChancePoint, PlanOutcome } from './outcome';
export { livedTrees, type FutureEnd } from './course';

/** Plans played side by side through the same futures. */
export interface Rehearsal {
	futures: number;
	seed: number;
	from: string;
	to: string;
	outcomes: PlanOutcome[];
	/** Every pair of plans: in how many futures which is better, and whether they differ at all. */
	pairs: Apart[];
	/** Indexes of the plans, best first. */
	order: number[];
	/** What would be worth knowing before choosing, the most first. */
	finding: FindingOut[];
}

export interface RehearsalOptions {
	futures?: number;
	seed?: number;
	/** Is told the share that is played, 0 … 1; throws to stop. */
	onProgress?: (share: number) => void;
}

/**
 * Plays plans forward through the same futures: for each future its weather, what is not known of the tree and what its people miss
 * are drawn once, and every plan meets them (common random numbers; Law, Simulation Modeling and Analysis). Within a future the
 * standing of the tree is not drawn but carried on whole, by the chain that Recovery judges by, so that four hundred futures tell
 * what thousands would [our own].
 * @param plans one to four
 * @returns the same to the digit for the same scene, plans, futures and seed
 */
export function rehearse(
	scene: RehearsalScene,
	plans: readonly RehearsedPlan[],
	options: RehearsalOptions,
	values: Values
): Rehearsal {
	const { futures: count = Math.round(values['rehearse.futures']), seed = 1, onProgress } = options;
	const stage = stageOf(scene, values);
	const { calendar, begin, weeks } = stage;
	const anyway = deadAnyway(stage);
	const ready = plans.map((plan) => prepared(scene, plan, calendar.days, values));
	const used = new Set(ready.map((to) => to.placeAt));
	const draw = futuresOf(scene, calendar, begin, { count, seed, used }, values);
	const courses = plans.map((): Course[] => []);
	const futures: Omit<Future, 'days'>[] = [];
	for (let i = 0; i < count; i++) {
		const future = draw(i);
		const begins = beginsBy(begin, future);
		ready.forEach((to, p) => {
			const standing = new WholeStanding(begin.shares).begin(begins);
			courses[p]?.push(playedFuture(stage, to, future, standing));
		});
		const { days: _, ...rest } = future;
		futures.push(rest);
		onProgress?.((i + 1) / count);
	}
	const outcomes = ready.map((to, p) => outcomeOf(stage, to, courses[p] ?? [], futures, anyway));
	const pairs = outcomes.flatMap((one, a) =>
		outcomes.slice(a + 1).map((other, i) => apart(a, a + 1 + i, one.ends, other.ends, values))
	);
	return {
		futures: count,
		seed,
		from: scene.recovery.today,
		to: addDays(scene.recovery.today, weeks * WEEK),
		outcomes,
		pairs,
		order: outcomes
			.map((outcome, index) => ({ index, worth: outcome.end.worth }))
			.sort((a, b) => b.worth - a.worth || a.index - b.index)
			.map(({ index }) => index),
		finding: findingOut(
			futures.map((future) => ({ ...future, standing: future.z })),
			outcomes.map((outcome) => outcome.ends.map((end) => end.worth)),
			{
				known: { rot: scene.rotChance === 0 },
				potted: scene.pots.length > 0,
				spreads: spreadsOf(scene, values)
			},
			values
		)
	};
}

/**
 * A rehearsal as it is kept where one of its plans is taken over.
 * @param taken index of that plan, from 0
 * @param on calendar date
 */
export const keptOf = (
	{ futures, seed, outcomes }: Pick<Rehearsal, 'futures' | 'seed' | 'outcomes'>,
	taken: number,
	on: string
): RehearsalInput => ({
	rehearsedOn: on,
	futures,
	seed,
	taken,
	outcomes: outcomes.map(({ plan, alive, established, roots, end, dies, costs }) => ({
		plan,
		alive,
		established,
		roots,
		end: { alive: end.alive, stands: end.stands, established: end.established },
		dies,
		waterings: costs.waterings,
		minutes: costs.minutes
	}))
});
