import type { Place } from '../../vocabulary/place';
import type { Kind } from '../../vocabulary/kind';
import type { Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import { consentOf } from './consent';
import { STAGE_LIMIT, type Cut, type PlanInput, type Temper } from './plan';
import { reductionPlanInput, type ReductionPlan, type ReductionPlanInput } from './reduction/question';
import type { RootMapInput, Segment } from '../map/root-map';
import { isStructural } from '../map/shares';
import { stageDates } from './stage-dates';
import { planStanding } from './plan-standing';

/** Whose roots they are, and where and when. */
export interface ProposalSubject {
	tree: Pick<Tree, 'situation' | 'trunkDiameterMm'>;
	kind: Kind;
	place: Place;
	today: string;
	/** A referral is open: no structural root is proposed until it is settled. */
	held?: boolean;
}

/** What is asked of the planner for one temper: the dates of its stages, and its question. */
export interface Proposal {
	temper: Temper;
	stageDates: string[];
	question: ReductionPlanInput;
}

/**
 * The question to the planner: as many stages as may be, on the days they would fall on, each with its allowance; what
 * was cut stays, what was set by hand is wanted.
 * @param plan the plan as it stands
 */
export function proposalFor(
	{ tree, kind, place, today, held = false }: ProposalSubject,
	map: RootMapInput,
	plan: PlanInput,
	temper: Temper,
	values: Values
): Proposal {
	const done = plan.cuts.filter((cut) => cut.state === 'done');
	const worked = done.length > 0 ? Math.max(...done.map((cut) => cut.stage)) + 1 : 0;
	const [first = today, ...others] = plan.stageDates.slice(0, worked);
	const count = Math.min(STAGE_LIMIT, Math.max(values['stages.most'], plan.stageDates.length));
	const dates = stageDates({ kind, place }, { begun: [first, ...others], count, today }, values);
	const { allowances } = planStanding(
		{ tree, kind },
		place,
		map,
		{ ...plan, temper, stageDates: dates, cuts: done },
		values
	);
	const cutAlready = new Set(done.map((cut) => cut.segmentId));
	const holds = (segment: Segment): boolean => held && isStructural(segment) && !cutAlready.has(segment.id);
	const heldIds = new Set(map.segments.filter(holds).map((segment) => segment.id));
	const places = (cuts: readonly Cut[]) =>
		cuts.map(({ segmentId, atMm, stage }) => ({ segmentId, atMm, stage }));
	return {
		temper,
		stageDates: dates,
		question: reductionPlanInput.parse({
			map: {
				...map,
				segments: map.segments.map((segment) => (holds(segment) ? { ...segment, keep: true } : segment))
			},
			allowances: allowances.map((allowance) => allowance.share),
			done: places(done),
			wanted: places(
				plan.cuts.filter((cut) => cut.state === 'planned' && cut.byOwner && !heldIds.has(cut.segmentId))
			),
			keptBecause: map.segments.flatMap((segment) => {
				const because = holds(segment)
					? 'an arborist has to look at this tree before any structural root is cut'
					: segment.keep && consentOf(plan, segment.id)?.answer === 'no'
						? 'the owner said no to it'
						: null;
				return because === null ? [] : [{ segmentId: segment.id, because }];
			}),
			notBefore: plan.notBefore.filter((entry) =>
				map.segments.some((segment) => segment.id === entry.segmentId)
			),
			seconds: 1
		})
	};
}

/**
 * A plan with what the planner proposes; what was cut, and what was set by hand and fits, stays as it is.
 * @param newId makes the identity of a new cut
 */
export function planFrom(
	plan: PlanInput,
	{ temper, stageDates: dates }: Proposal,
	proposed: ReductionPlan,
	newId: () => string
): PlanInput {
	const done = plan.cuts.filter((cut) => cut.state === 'done');
	const planned = proposed.cuts.map((cut): Cut => {
		const own = plan.cuts.find((before) => before.segmentId === cut.segmentId && before.byOwner);
		return {
			id: own?.id ?? newId(),
			segmentId: cut.segmentId,
			atMm: cut.atMm,
			plannedAtMm: null,
			stage: cut.stage,
			reason: cut.reason.slice(0, 300),
			state: 'planned',
			doneOn: null,
			note: own?.note ?? '',
			byOwner: own !== undefined,
			whyThen: cut.whyThen.slice(0, 300),
			treatments: [],
			ofPlanned: null,
			because: ''
		};
	});
	const cuts = [...done, ...planned];
	const last = Math.max(0, ...cuts.map((cut) => cut.stage));
	return { ...plan, temper, cuts, stageDates: dates.slice(0, last + 1) };
}
