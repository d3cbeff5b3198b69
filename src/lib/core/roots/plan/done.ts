import { z } from 'zod';
import type { Values } from '../../values/values';
import { ledger, type LedgerMap } from './ledger';
import type { Cut, PlanInput } from './plan';
import type { Segment } from '../map/root-map';
import type { StageGate } from './stage-gate';

/** One day of cutting, against what was planned for its stages. */
export interface Session {
	on: string;
	stages: number[];
	cuts: { cut: Cut; segment: Segment; livingShare: number }[];
	/** Living root that went on this day, and what the whole of its stages was planned to take. */
	livingShare: number;
	plannedShare: number;
	plannedCount: number;
	/** Why it was cut against what stood against it; empty where nothing did. */
	because: string;
}

/** What some stages are planned to take: roots in number, and living share. */
export function plannedOf(
	map: LedgerMap,
	cuts: readonly Cut[],
	stages: readonly number[],
	values: Values
): { count: number; share: number } {
	const planned = cuts.filter((cut) => stages.includes(cut.stage));
	return {
		count: planned.length,
		share: ledger(
			map,
			planned.map((cut) => ({ segmentId: cut.segmentId, atMm: cut.plannedAtMm ?? cut.atMm, stage: 0 })),
			[1],
			values
		).totalLoss
	};
}

/** What was really cut, by day, oldest first. */
export function sessionsOf(map: LedgerMap, plan: Pick<PlanInput, 'cuts'>, values: Values): Session[] {
	const byId = new Map(map.segments.map((segment) => [segment.id, segment]));
	const alone = (cut: Cut, atMm: number): number =>
		ledger(map, [{ segmentId: cut.segmentId, atMm, stage: 0 }], [1], values).totalLoss;
	const together = (cuts: readonly Cut[]): number =>
		ledger(
			map,
			cuts.map(({ segmentId, atMm }) => ({ segmentId, atMm, stage: 0 })),
			[1],
			values
		).totalLoss;
	const days = [...new Set(plan.cuts.flatMap((cut) => (cut.doneOn ? [cut.doneOn] : [])))].sort();
	return days.map((on) => {
		const done = plan.cuts.filter((cut) => cut.doneOn === on);
		const stages = [...new Set(done.map((cut) => cut.stage))].sort((a, b) => a - b);
		// As it was planned on the day: what is planned since rewrites nothing.
		const then =
			done.find((cut) => cut.ofPlanned !== null)?.ofPlanned ?? plannedOf(map, plan.cuts, stages, values);
		return {
			on,
			stages,
			cuts: done.flatMap((cut) => {
				const segment = byId.get(cut.segmentId);
				return segment ? [{ cut, segment, livingShare: alone(cut, cut.atMm) }] : [];
			}),
			livingShare: together(done),
			plannedShare: then.share,
			plannedCount: then.count,
			because: done.find((cut) => cut.because !== '')?.because ?? ''
		};
	});
}

/** A root that was held over, and what must happen before it is cut. */
export const carriedOverOutput = z.object({
	segmentId: z.string(),
	why: z.string().describe('Why it stayed'),
	first: z.string().describe('What must happen first; empty where only its day has to come'),
	fromOn: z.string().nullable().describe('Day from which it may be cut, where one is planned')
});
export type CarriedOver = z.infer<typeof carriedOverOutput>;

/**
 * Roots that were left, wait for a later stage, or cannot be cut yet; each with what must happen first.
 * @param gate whether growth is regained; null where no stage waits for it
 */
export function carryOver(
	map: LedgerMap,
	plan: Pick<PlanInput, 'cuts' | 'stageDates'>,
	gate: StageGate | null
): CarriedOver[] {
	const worked = plan.cuts.some((cut) => cut.state === 'done');
	const next = Math.min(...plan.cuts.filter((cut) => cut.state === 'planned').map((cut) => cut.stage), 99);
	return map.segments.flatMap((segment): CarriedOver[] => {
		const cut = plan.cuts.find((candidate) => candidate.segmentId === segment.id);
		if (cut?.state === 'done') return [];
		if (!segment.sourceKnown)
			return [
				{
					segmentId: segment.id,
					why: 'where it comes from is not known',
					first: 'trace its source',
					fromOn: null
				}
			];
		if (segment.seenToMm === 0)
			return [{ segmentId: segment.id, why: 'it lies in soil still', first: 'lay it open', fromOn: null }];
		if (cut?.state === 'left')
			return [
				{
					segmentId: segment.id,
					why: cut.note || 'left for now',
					first: 'settle what held it back',
					fromOn: null
				}
			];
		if (cut?.state !== 'planned' || (!worked && cut.stage === next)) return [];
		// The next stage waits as its gate says; those after it wait for what the one before took.
		const waits = gate?.stage === cut.stage ? gate.answer !== 'met' : cut.stage > next;
		return [
			{
				segmentId: segment.id,
				why: cut.whyThen || 'planned for later',
				first: waits ? 'growth regained' : '',
				fromOn: plan.stageDates[cut.stage] ?? null
			}
		];
	});
}
