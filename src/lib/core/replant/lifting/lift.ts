import { wordsOf } from '../../vocabulary/words-of';
import { calendarDate, count, id, measure, note, oneOf, version } from '../../vocabulary/fields';
import { ballReadings, ballSchools } from './ball-size';
import { stepIds, type StepId } from './checklist';
import { routeSchema } from './route';
import { z } from 'zod';

/** How the roots lay where the tree stood. */
export const rootingNames = {
	open: 'open ground, nothing held them',
	'root-pruned': 'root-pruned or trenched before',
	pocket: 'in a pocket, on a slab or between stones',
	hedge: 'in a hedge or against a wall'
};
export type Rooting = keyof typeof rootingNames;
export const rootings = wordsOf(rootingNames);

export const cutWays = ['saw', 'loppers', 'secateurs', 'axe', 'torn'] as const;
export const cutWayNames: Record<(typeof cutWays)[number], string> = {
	saw: 'sawn',
	loppers: 'lopped',
	secateurs: 'snipped',
	axe: 'chopped with axe or spade, to be cut clean',
	torn: 'torn, to be cut clean'
};
export const soaks = ['none', 'wetted', 'stood-in-water'] as const;
export const soakNames: Record<(typeof soaks)[number], string> = {
	none: 'not wetted',
	wetted: 'kept wet and shaded',
	'stood-in-water': 'stood in water'
};

/** How a lifted tree is left until it is set. */
export const liftAfters = ['out', 'wrapped', 'heeled-in'] as const;
export const liftAfterNames: Record<(typeof liftAfters)[number], string> = {
	out: 'out of the ground still',
	wrapped: 'wrapped',
	'heeled-in': 'heeled in'
};

/** Roots that were cut or torn at the hole. */
export const liftCutRoots = z
	.array(
		z.strictObject({
			azimuthDeg: measure(0, 360, '°'),
			diameterMm: measure(1, 1000, 'mm'),
			how: oneOf(cutWays)
		})
	)
	.max(100, { error: 'must be at most 100 roots' })
	.default([]);

const ballSizes = ['ballDiameterMm', 'ballDepthMm'] as const;

/** What really happened at the hole. */
export const liftLog = z
	.strictObject({
		liftedOn: calendarDate(),
		ballDiameterMm: measure(20, 10_000, 'mm'),
		ballDepthMm: measure(20, 5000, 'mm'),
		massKg: measure(0.1, 20_000, 'kg').nullable().default(null).describe('Weighed; null when not'),
		cutRoots: liftCutRoots,
		outMinutes: measure(0, 20_000, 'min')
			.nullable()
			.default(null)
			.describe('From out of the ground to planted, wrapped or heeled in; null where nobody noted it'),
		soak: oneOf(soaks).nullable().default(null).describe('null where nobody noted it'),
		soakMinutes: measure(0, 10_000, 'min').default(0),
		rooting: oneOf(rootings).nullable().default(null).describe('How its roots lay; null when not looked at'),
		after: oneOf(liftAfters).default('out').describe('How it was left until it is set'),
		backfilled: z.boolean().default(false),
		assumed: z
			.array(oneOf(ballSizes))
			.max(2)
			.default([])
			.describe('Sizes as planned, that nobody measured once it was out'),
		corrected: count(1, 1_000_000)
			.optional()
			.describe('How often this log was put right since it was kept; left out: never'),
		note: note()
	})
	.refine((log) => log.soak === 'stood-in-water' || log.soakMinutes === 0, {
		path: ['soakMinutes'],
		error: 'must be 0 unless it stood in water'
	});
export type LiftLog = z.infer<typeof liftLog>;

/** A lift as planned, with its list ticked off, and its log once it was done. */
export const liftInput = z.strictObject({
	plannedOn: calendarDate(),
	school: oneOf(ballSchools),
	reading: oneOf(ballReadings),
	ballDiameterMm: measure(20, 10_000, 'mm'),
	ballDepthMm: measure(20, 5000, 'mm'),
	people: count(1, 100).default(1),
	route: routeSchema,
	ticks: z
		.array(oneOf(stepIds))
		.max(stepIds.length)
		.refine((list) => new Set(list).size === list.length, { error: 'must name each step once' }),
	log: liftLog.nullable().default(null)
});
export type LiftInput = z.infer<typeof liftInput>;
export const liftSchema = liftInput.extend({ id: id(), version: version() });
export type Lift = z.infer<typeof liftSchema>;

/** Steps of the list that were told before: with permission and protection known, and services located, nobody is asked again. */
export const stepsTold = (known: {
	permission: 'own' | 'written' | 'not-yet' | null;
	protectedSpecies: boolean | null;
	servicesLocated: boolean | null;
}): StepId[] => [
	...((known.permission === 'own' || known.permission === 'written') && known.protectedSpecies === false
		? (['permission'] as const)
		: []),
	...(known.servicesLocated === true ? (['services'] as const) : [])
];

/** What stops a lift before the first spade: each with what to do. */
export function liftStops(
	permission: 'own' | 'written' | 'not-yet',
	triage: { protectedSpecies: boolean | null; servicesLocated: boolean | null; pests: string } | null
): string[] {
	return [
		...(permission === 'not-yet' ? ['Permission is not given in writing yet.'] : []),
		...(triage?.protectedSpecies === true
			? ['Species or site is protected: the authority is asked first.']
			: []),
		...(triage?.servicesLocated === false ? ['Buried services are not located.'] : []),
		...(triage?.pests === 'root' ? ['Root pests were seen: do not lift, they travel along.'] : [])
	];
}
