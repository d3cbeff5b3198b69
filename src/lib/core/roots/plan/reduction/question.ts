import { z } from 'zod';
import { measured } from '../../../text/measured';
import { count, id, measure, share } from '../../../vocabulary/fields';
import { courseLengthMm } from '../../map/geometry';
import { rootMapInput } from '../../map/root-map';
import { STAGE_LIMIT } from '../plan';

const place = z.strictObject({
	segmentId: id(),
	atMm: measure(0, 20_000, 'mm').default(0),
	stage: count(0, STAGE_LIMIT - 1)
});

export const reductionPlanInput = z.strictObject({
	map: rootMapInput,
	allowances: z
		.array(share())
		.min(1, { error: 'must hold at least one stage' })
		.max(STAGE_LIMIT)
		.describe('Living share that each stage may remove'),
	done: z.array(place).max(400).default([]).describe('Cuts that were made'),
	wanted: z.array(place).max(400).default([]).describe('Cuts the owner wants, in just this stage'),
	notBefore: z
		.array(z.strictObject({ segmentId: id(), stage: count(0, STAGE_LIMIT) }))
		.max(400)
		.default([])
		.describe('Roots that are not to be cut before a stage'),
	keptBecause: z
		.array(z.strictObject({ segmentId: id(), because: z.string().min(1).max(200) }))
		.max(400)
		.default([])
		.describe('Why roots are kept, where it was not the person at the map who locked them'),
	seconds: measure(0.05, 60, 's').default(3).describe('Time to look for the best plan')
});
export type ReductionPlanInput = z.infer<typeof reductionPlanInput>;

/** The same as asked from outside: unknown roots, side roots beyond their parent, and wishes that contradict are refused by their field. */
export const reductionPlanQuestion = reductionPlanInput.superRefine((input, context) => {
	const { segments } = input.map;
	const byId = new Map(segments.map((segment) => [segment.id, segment]));
	const refuse = (path: (string | number)[], message: string): void =>
		context.addIssue({ code: 'custom', path, message });
	for (const [at, segment] of segments.entries()) {
		const parent = segment.parentId === null ? undefined : byId.get(segment.parentId);
		const lengthMm = parent ? courseLengthMm(parent.course) : Infinity;
		if (segment.attachMm > lengthMm + 1)
			refuse(
				['map', 'segments', at, 'attachMm'],
				`must be at most ${measured(Math.floor(lengthMm), 'mm')}, as long as the root it leaves`
			);
	}
	for (const list of ['done', 'wanted', 'notBefore'] as const)
		for (const [at, { segmentId }] of input[list].entries())
			if (!byId.has(segmentId)) refuse([list, at, 'segmentId'], 'must be a root of the map');
	const made = new Set(input.done.map((cut) => cut.segmentId));
	const earliest = new Map(input.notBefore.map((entry) => [entry.segmentId, entry.stage]));
	const stageOf = new Map<string, number>();
	for (const [at, { segmentId, atMm, stage }] of input.wanted.entries()) {
		const segment = byId.get(segmentId);
		if (!segment) continue;
		const field = (name: string): (string | number)[] => ['wanted', at, name];
		if (segment.keep) refuse(field('segmentId'), 'must not be a root that is locked to be kept');
		else if (!segment.sourceKnown)
			refuse(field('segmentId'), 'must not be a root whose source is unknown: trace it first');
		else if (segment.seenToMm === 0 || atMm > (segment.seenToMm ?? Infinity))
			refuse(field('atMm'), 'must not lie where the root is in soil still');
		if (made.has(segmentId)) refuse(field('segmentId'), 'must not be a root that was cut already');
		if (stage >= input.allowances.length)
			refuse(field('stage'), `must be under ${input.allowances.length}, the number of stages`);
		if (stage < (earliest.get(segmentId) ?? 0))
			refuse(
				field('stage'),
				`must not be before stage ${earliest.get(segmentId) ?? 0}, which notBefore says`
			);
		const other = stageOf.get(segmentId);
		if (other !== undefined && other !== stage) refuse(field('stage'), 'must be one stage for one root');
		stageOf.set(segmentId, stage);
	}
});

const plannedCut = z.object({
	segmentId: z.string(),
	atMm: z.number(),
	stage: z.number(),
	reason: z.string(),
	whyThen: z.string().describe('Why in this stage and no earlier'),
	livingShare: z.number()
});
const leftRoot = z.object({ segmentId: z.string(), reason: z.string(), because: z.string() });

export const reductionPlanOutput = z.object({
	cuts: z.array(plannedCut),
	left: z.array(leftRoot),
	unmet: z.array(z.string()).describe('What must be cut by a stage and cannot be'),
	give: z.array(z.string()).describe('What would have to give for it'),
	worth: z.number().describe('Points of the plan'),
	gap: z
		.number()
		.nullable()
		.describe('Proven: no plan is worth more by a larger share; 0 is optimal, null: nothing was proven'),
	how: z
		.enum(['best', 'near', 'greedy'])
		.describe(
			'best: proven optimal · near: proven within the gap · greedy: the time did not do for the solver; claim by claim in their order, checked but not optimised'
		)
});
export type ReductionPlan = z.infer<typeof reductionPlanOutput>;
