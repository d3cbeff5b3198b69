import type { LedgerCut } from '../ledger';
import type { Candidate, Problem } from './problem';
import type { ReductionPlanInput } from './question';

/** What must go first, then what is worth most, each in the first stage that takes it: what a careful hand would do without a solver. */
export function greedyPlan(
	{ candidates, claims, allowances, firstStage, earliest, musts }: Problem,
	input: ReductionPlanInput,
	faultsOf: (cuts: readonly LedgerCut[]) => string[]
): LedgerCut[] {
	const must = new Map(musts.map((one) => [one.segmentId, one]));
	const order = [...candidates].sort((a, b) => {
		const [first, second] = [must.has(a.segmentId) ? 1 : 0, must.has(b.segmentId) ? 1 : 0];
		const points = (one: Candidate): number => (claims.get(one.segmentId)?.benefit ?? 0) * one.worth;
		return second - first || points(b) - points(a);
	});
	const cuts: LedgerCut[] = [];
	for (const { segmentId, atMm } of order) {
		if (cuts.some((cut) => cut.segmentId === segmentId)) continue;
		const only = must.get(segmentId)?.only ?? null;
		for (let stage = Math.max(firstStage, earliest.get(segmentId) ?? 0); stage < allowances.length; stage++) {
			if (only !== null && only !== stage) continue;
			const trial = [...cuts, { segmentId, atMm, stage }];
			if (faultsOf(trial).length > 0) continue;
			cuts.push({ segmentId, atMm, stage });
			break;
		}
	}
	return cuts.filter((cut) => input.map.segments.some((segment) => segment.id === cut.segmentId));
}

/** Points of a plan by the same rule as the model’s: trouble gone, discounted by its stage, less what it costs. */
export function worthOf(
	{ map, claims, candidates, shares, values, gone }: Problem,
	cuts: readonly LedgerCut[]
): number {
	const total = [...shares.structuralMm2.values()].reduce((sum, area) => sum + area, 0);
	const off = new Set<string>();
	const shortened = new Map<string, number>();
	let points = 0;
	for (const cut of cuts) {
		const candidate = candidates.find((one) => one.segmentId === cut.segmentId && one.atMm === cut.atMm);
		points +=
			(claims.get(cut.segmentId)?.benefit ?? 0) *
			(candidate?.worth ?? 1) *
			values['plan.laterStage'] ** cut.stage;
		for (const removed of candidate?.removes ?? []) if (!gone.has(removed)) off.add(removed);
		if (candidate && candidate.shortens > 0) shortened.set(candidate.segmentId, candidate.shortens);
	}
	for (const [id, share] of shortened)
		if (!off.has(id)) points -= values['plan.livingCost'] * share * (shares.absorbing.get(id) ?? 0);
	for (const segment of map.segments)
		if (off.has(segment.id))
			points -=
				values['plan.livingCost'] * (shares.absorbing.get(segment.id) ?? 0) +
				(total > 0
					? (values['plan.structuralCost'] * (shares.structuralMm2.get(segment.id) ?? 0)) / total
					: 0);
	return points;
}
