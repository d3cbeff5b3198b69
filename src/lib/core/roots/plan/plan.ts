import { measure, calendarDate, count, id, note, oneOf, share, version } from '../../vocabulary/fields';
import { reserves, vigours } from '../../vocabulary/words';
import { woundTreatments } from './wound';
import { z } from 'zod';

/** Steepest angle a tree can be tried at. */
export const TILT_LIMIT_DEG = 60;

/** How a tree is to stand: the front, the angle it is tilted to, the root plane and the base under it. */
export const settingSchema = z.strictObject({
	frontDeg: measure(0, 360, '°').describe('Where the viewer stands'),
	tiltDeg: measure(0, TILT_LIMIT_DEG, '°').describe('How far the top is tilted'),
	tiltTowardDeg: measure(0, 360, '°').describe('Where the top is tilted to'),
	planeDepthMm: measure(-500, 1000, 'mm').describe('Soil surface to be, below the flare at the trunk'),
	baseDepthMm: measure(10, 5000, 'mm').describe('Flat underside to be, below the flare at the trunk'),
	thisTimeDeg: measure(0, TILT_LIMIT_DEG, '°').describe('What of the tilt is done this time')
});
export type Setting = z.infer<typeof settingSchema>;

export const tempers = ['gentle', 'usual', 'bold'] as const;
export type Temper = (typeof tempers)[number];

/** Most stages a plan may have. */
export const STAGE_LIMIT = 6;

export const cutSchema = z.strictObject({
	id: id(),
	segmentId: id(),
	atMm: measure(0, 20_000, 'mm').default(0),
	plannedAtMm: measure(0, 20_000, 'mm')
		.nullable()
		.default(null)
		.describe('Where it was planned, when it was cut elsewhere'),
	stage: count(0, STAGE_LIMIT - 1).describe('0 is now'),
	reason: note(300),
	state: oneOf(['planned', 'done', 'left']).default('planned'),
	doneOn: calendarDate().nullable().default(null),
	note: note(400),
	byOwner: z.boolean().default(false).describe('Set by hand, in just this stage; a proposal keeps it'),
	whyThen: note(300).default('').describe('Why in this stage and no earlier'),
	treatments: z
		.array(oneOf(woundTreatments))
		.max(woundTreatments.length)
		.default([])
		.describe('What was put on the wound'),
	ofPlanned: z
		.strictObject({ count: count(1, 400), share: share() })
		.nullable()
		.default(null)
		.describe('What its stages were planned to take when it was cut: how many roots, what living share'),
	because: note(300).default('').describe('Why it was cut against what stood against it that day')
});
export type Cut = z.infer<typeof cutSchema>;

/** Yes or no of the owner to a root, with its day and the way it came. */
export const consentSchema = z.strictObject({
	segmentId: id(),
	answer: oneOf(['yes', 'no']),
	on: calendarDate(),
	how: note(80).describe('By letter, by telephone, on the spot')
});
export type Consent = z.infer<typeof consentSchema>;

export const planInput = z
	.strictObject({
		temper: oneOf(tempers),
		vigour: oneOf(vigours),
		reserves: oneOf(reserves),
		stageDates: z.array(calendarDate()).min(1).max(STAGE_LIMIT).describe('Day on which each stage falls'),
		cuts: z.array(cutSchema).max(400),
		notBefore: z
			.array(z.strictObject({ segmentId: id(), stage: count(0, STAGE_LIMIT) }))
			.max(400)
			.default([])
			.describe('Roots that a proposal does not cut before a stage'),
		consents: z
			.array(consentSchema)
			.max(400)
			.default([])
			.describe('What the owner said of single roots, latest word each'),
		setting: settingSchema.nullable().default(null).describe('How it is to stand; null when not tried yet')
	})
	.superRefine((plan, context) => {
		const seen = new Set<string>();
		for (const [index, cut] of plan.cuts.entries()) {
			if (seen.has(cut.segmentId))
				context.addIssue({
					code: 'custom',
					path: ['cuts', index, 'segmentId'],
					message: 'must be cut at most once'
				});
			seen.add(cut.segmentId);
			if (cut.stage >= plan.stageDates.length)
				context.addIssue({
					code: 'custom',
					path: ['cuts', index, 'stage'],
					message: `must be from 0 to ${plan.stageDates.length - 1}, the stages of this plan`
				});
			if ((cut.state === 'done') !== (cut.doneOn !== null))
				context.addIssue({
					code: 'custom',
					path: ['cuts', index, 'doneOn'],
					message: 'must be set just when it is done'
				});
		}
	});
export type PlanInput = z.infer<typeof planInput>;
export const planSchema = planInput.safeExtend({ id: id(), version: version() });
export type Plan = z.infer<typeof planSchema>;

/** I, II, III … as stages are written. */
export const roman = (stage: number): string =>
	['I', 'II', 'III', 'IV', 'V', 'VI'][stage] ?? String(stage + 1);
