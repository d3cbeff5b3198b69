import { wordsOf } from '../../vocabulary/words-of';
import { measured } from '../../text/measured';
import { z } from 'zod';
import { addDays } from '../../maths/calendar';
import { calendarDate, count, id, measure, note, oneOf, version } from '../../vocabulary/fields';
import type { DatedTask } from '../../vocabulary/task';
import type { Segment } from '../../roots/map/root-map';
import type { Values } from '../../values/values';
import { holeLayout, trenchLayout, type Hole, type Trench } from './loosening';
import { carbonateTests, sulphurDose, sulphurSoils, type SulphurDose } from './sulphur';

export const collarTools = ['hand', 'air'] as const;
export const collarToolNames: Record<(typeof collarTools)[number], string> = {
	hand: 'by hand: trowel, brush, wooden pick',
	air: 'air tool'
};
export const looseningNames = {
	trenches: 'radial trenches',
	holes: 'vertical holes'
};
export type LooseningMethod = keyof typeof looseningNames;
export const looseningMethods = wordsOf(looseningNames);

const outward = <T extends { innerM: number; outerM: number }>(ring: T): boolean => ring.outerM > ring.innerM;
const OUTWARD = { path: ['outerM'], error: 'must be further out than where it begins' };

/** What holds a tree in the ground upright. */
export const groundHoldingNames = {
	stakes: 'stakes and a tie',
	guys: 'guys'
} as const;
export const groundHoldings = wordsOf(groundHoldingNames);

/** Work in the ground round a tree. Distances are from the middle of the trunk. */
export const groundPlanInput = z
	.strictObject({
		plannedOn: calendarDate(),
		placeId: id().nullable().default(null).describe('Where it is planted; null leaves it where it is'),
		hole: z
			.strictObject({
				widthMm: measure(50, 20_000, 'mm'),
				depthMm: measure(30, 5000, 'mm'),
				ballDiameterMm: measure(20, 10_000, 'mm'),
				ballDepthMm: measure(20, 5000, 'mm'),
				drainMinutes: measure(0, 20_000, 'min')
					.describe('Minutes in which the second filling of a test hole empties')
					.nullable()
					.default(null)
			})
			.refine((hole) => hole.widthMm > hole.ballDiameterMm, {
				path: ['widthMm'],
				error: 'must be wider than the ball'
			})
			.nullable()
			.default(null)
			.describe('Planting hole'),
		holding: z
			.strictObject({ by: oneOf(groundHoldings) })
			.nullable()
			.default(null)
			.describe('What is put up to hold it upright'),
		collar: z
			.strictObject({
				openMm: measure(20, 5000, 'mm').describe('Opened so far from the bark'),
				depthMm: measure(10, 2000, 'mm'),
				tool: oneOf(collarTools)
			})
			.nullable()
			.default(null),
		loosening: z
			.strictObject({
				method: oneOf(looseningMethods),
				innerM: measure(0.1, 30, 'm'),
				outerM: measure(0.2, 40, 'm'),
				depthMm: measure(50, 1500, 'mm'),
				trenches: count(2, 36).default(8),
				widthMm: measure(20, 1500, 'mm').describe('Width of a trench or a hole'),
				spacingMm: measure(200, 5000, 'mm').default(600).describe('Between holes')
			})
			.refine(outward, OUTWARD)
			.nullable()
			.default(null),
		mulch: z
			.strictObject({
				innerM: measure(0.02, 30, 'm'),
				outerM: measure(0.1, 40, 'm'),
				depthMm: measure(10, 400, 'mm')
			})
			.refine(outward, OUTWARD)
			.nullable()
			.default(null),
		sulphur: z
			.strictObject({
				phNow: measure(3, 9.5, 'pH').nullable().describe('pH that was found; null until it was'),
				phAim: measure(4.5, 7, 'pH'),
				soil: oneOf(sulphurSoils),
				areaM2: measure(0.1, 10_000, 'm²'),
				carbonate: oneOf(carbonateTests).nullable().default(null)
			})
			.refine((plan) => plan.phNow !== null, {
				path: ['phNow'],
				error: 'is not known: measure it where the sulphur would go, or leave acidifying out'
			})
			.refine((plan) => plan.phNow === null || plan.phAim < plan.phNow, {
				path: ['phAim'],
				error: 'must be below the pH that was found; otherwise no sulphur is needed'
			})
			.nullable()
			.default(null),
		doneOn: calendarDate().nullable().default(null),
		note: note()
	})
	.refine(
		(plan) => plan.hole ?? plan.holding ?? plan.collar ?? plan.loosening ?? plan.mulch ?? plan.sulphur,
		{
			path: ['works'],
			error: 'must name at least one piece of work'
		}
	);
export type GroundPlanInput = z.infer<typeof groundPlanInput>;
export const groundPlanSchema = groundPlanInput.safeExtend({ id: id(), version: version() });
export type GroundPlan = z.infer<typeof groundPlanSchema>;

export interface GroundAmounts {
	/** Dug out, and put back round the ball; the flare stands too deep where the hole is deeper than the ball. */
	hole: { dugL: number; backfillL: number; tooDeepMm: number; hours: number } | null;
	collar: { soilL: number; hours: number } | null;
	loosening: {
		method: LooseningMethod;
		trenches: Trench[];
		holes: Hole[];
		/** Trenches or holes that structural roots leave no room for. */
		leftOut: number;
		count: number;
		soilL: number;
		compostL: number;
		hours: number;
	} | null;
	mulch: { litres: number } | null;
	sulphur: SulphurDose | null;
	hours: number;
}

/**
 * Counts, volumes and hours of work in the ground.
 * Collar: a ring π ((R + o)² − R²) · depth. Mulch: π (R² − r²) · depth.
 * @param trunkDiameterMm above the flare
 * @param segments roots mapped in the ground; structural ones are kept clear of
 */
export function groundAmounts(
	plan: Pick<
		GroundPlanInput,
		'plannedOn' | 'hole' | 'holding' | 'collar' | 'loosening' | 'mulch' | 'sulphur'
	>,
	trunkDiameterMm: number,
	segments: readonly Segment[],
	values: Values
): GroundAmounts {
	const { hole, holding, collar, loosening, mulch, sulphur, plannedOn } = plan;
	const ringL = (innerM: number, outerM: number, depthMm: number): number =>
		Math.PI * (outerM ** 2 - innerM ** 2) * depthMm;
	const cylinderL = (widthMm: number, depthMm: number): number =>
		(Math.PI * (widthMm / 2) ** 2 * depthMm) / 1e6;
	const dugL = hole ? cylinderL(hole.widthMm, hole.depthMm) : 0;
	const ballL = hole
		? cylinderL(hole.ballDiameterMm, Math.min(hole.depthMm, hole.ballDepthMm)) * values['pot.ballShape']
		: 0;
	const holeHours = dugL / values['hole.digLPerH'];
	const trunkM = trunkDiameterMm / 2000;
	const collarL = collar ? ringL(trunkM, trunkM + collar.openMm / 1000, collar.depthMm) : 0;
	const collarHours = collar
		? collarL / values[collar.tool === 'air' ? 'collar.airLPerH' : 'collar.handLPerH']
		: 0;
	const loose = loosening ? looseningAmounts(loosening, segments, values) : null;
	return {
		hole: hole
			? {
					dugL,
					backfillL: dugL - ballL,
					tooDeepMm: Math.max(0, hole.depthMm - hole.ballDepthMm),
					hours: holeHours
				}
			: null,
		collar: collar ? { soilL: collarL, hours: collarHours } : null,
		loosening: loose,
		mulch: mulch ? { litres: ringL(mulch.innerM, mulch.outerM, mulch.depthMm) } : null,
		sulphur:
			sulphur && sulphur.phNow !== null
				? sulphurDose({ ...sulphur, phNow: sulphur.phNow, startOn: plannedOn }, values)
				: null,
		hours: holeHours + (holding ? values['hole.holdMin'] / 60 : 0) + collarHours + (loose?.hours ?? 0)
	};
}

function looseningAmounts(
	loosening: NonNullable<GroundPlanInput['loosening']>,
	segments: readonly Segment[],
	values: Values
): NonNullable<GroundAmounts['loosening']> {
	const { method, innerM, outerM, depthMm, widthMm } = loosening;
	const ring = { innerMm: innerM * 1000, outerMm: outerM * 1000 };
	const trenches =
		method === 'trenches'
			? trenchLayout(segments, { ...ring, count: loosening.trenches, widthMm }, values)
			: [];
	const drilled =
		method === 'holes'
			? holeLayout(segments, { ...ring, spacingMm: loosening.spacingMm, holeMm: widthMm }, values)
			: { holes: [], leftOut: 0 };
	const dug = trenches.filter((trench) => !trench.skipped).length;
	const soilL =
		method === 'trenches'
			? (dug * (outerM - innerM) * widthMm * depthMm) / 1000
			: (drilled.holes.length * Math.PI * (widthMm / 2) ** 2 * depthMm) / 1e6;
	return {
		method,
		trenches,
		holes: drilled.holes,
		leftOut: method === 'trenches' ? trenches.length - dug : drilled.leftOut,
		count: method === 'trenches' ? dug : drilled.holes.length,
		soilL,
		compostL: soilL * values['loosen.compostShare'],
		hours:
			method === 'trenches'
				? soilL / values['loosen.trenchLPerH']
				: (drilled.holes.length * values['loosen.holeMin']) / 60
	};
}

/** The dated work that a plan asks for: the work itself until it is done, then looks, retests and doses. */
export function groundTasks(
	plan: GroundPlan,
	amounts: GroundAmounts,
	values: Values
): (DatedTask & { source: string })[] {
	const on = plan.doneOn ?? plan.plannedOn;
	const tasks: (DatedTask & { source: string })[] = [];
	const add = (rule: string, task: Omit<DatedTask, 'stage'>): void => {
		tasks.push({ ...task, stage: 'aftercare', source: `ground.${rule}@${plan.id}` });
	};
	if (plan.doneOn === null) {
		const works = [
			...(plan.hole ? ['plant in the ground'] : []),
			...(plan.holding ? [plan.holding.by === 'stakes' ? 'stake it' : 'guy it'] : []),
			...(plan.collar ? ['open the collar'] : []),
			...(amounts.loosening ? [`${amounts.loosening.count} ${amounts.loosening.method}`] : []),
			...(plan.mulch ? ['mulch'] : []),
			...(plan.sulphur ? ['first sulphur'] : [])
		];
		add('work', {
			kind: 'other',
			title: `Work in the ground: ${works.join(', ')}`.slice(0, 120),
			reason: 'As planned on the page of the ground works; services are located first.',
			mark: 'ours',
			fromOn: plan.plannedOn,
			toOn: addDays(plan.plannedOn, 14),
			minutes: Math.min(2000, Math.max(15, Math.round(amounts.hours * 60)))
		});
		return tasks;
	}
	if (plan.holding) {
		add('ties', {
			kind: 'other',
			title: 'See its ties: does one chafe, does it rock?',
			reason: `Held by ${groundHoldingNames[plan.holding.by]} since ${on}. A tie that chafes opens the bark, a slack one lets the ball rock and tears new roots.`,
			mark: 'trade',
			fromOn: addDays(on, values['hole.tiesEvery']),
			toOn: addDays(on, values['hole.tiesEvery'] + 14),
			minutes: 10
		});
		add('ties-off', {
			kind: 'other',
			title: 'Does it stand by itself? Then its ties come off',
			reason: `Held by ${groundHoldingNames[plan.holding.by]} since ${on}. Try first whether it rocks; a tie that is forgotten bites, and a stem that never moves stays weak.`,
			mark: 'trade',
			fromOn: addDays(on, values['hole.tiesOff']),
			toOn: addDays(on, values['hole.tiesOff'] + 28),
			minutes: 15
		});
	}
	if (plan.collar) {
		add('collar-60', {
			kind: 'collar',
			title: 'See the opened collar again',
			reason:
				'Soil washes back and girdlers under the first ones show; seen again at 60 days, then each year.',
			mark: 'trade',
			fromOn: addDays(on, values['aftercare.collarFrom']),
			toOn: addDays(on, values['aftercare.collarTo']),
			everyDays: values['aftercare.collarEvery'],
			minutes: 20
		});
	}
	if (plan.loosening)
		add('measure-again', {
			kind: 'look',
			title: 'Measure the soil where it was loosened',
			reason:
				'Loosened soil settles; measured in the same places and depths each time, it tells whether it stays open.',
			mark: 'ours',
			fromOn: addDays(on, values['loosen.lookDays']),
			toOn: addDays(on, values['loosen.lookDays'] + 30),
			minutes: 30
		});
	for (const [i, dose] of (amounts.sulphur?.doses ?? []).entries()) {
		if (i === 0) continue;
		add(`sulphur-${i + 1}`, {
			kind: 'feeding',
			title: `Test the pH, then dose ${i + 1} of ${amounts.sulphur?.doses.length ?? 0}`,
			reason: `Planned ${measured(dose.kg, 'kg')}; what the test finds rules, and the label.`,
			mark: 'published',
			fromOn: dose.retestOn ?? dose.on,
			toOn: addDays(dose.on, 14),
			minutes: 30
		});
	}
	return tasks;
}
