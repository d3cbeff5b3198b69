import { z } from 'zod';
import type { Values } from '../../values/values';
import { calendarDate, count, id, measure, note, oneOf, share, version } from '../../vocabulary/fields';
import { budStates, firmnesses, leafStates, pestAmounts, smells } from './seen-words';

/** One look. Whatever was not looked at stays null. */
export const observationInput = z
	.strictObject({
		observedOn: calendarDate(),
		buds: oneOf(budStates).nullable().default(null),
		leafCover: share().nullable().default(null).describe('Share of the crown in leaf'),
		leafState: oneOf(leafStates).nullable().default(null),
		shootExtensionMm: measure(0, 5000, 'mm')
			.nullable()
			.default(null)
			.describe('Mean length of this season’s shoots'),
		shootsMm: z
			.array(measure(0, 5000, 'mm'))
			.max(60, { error: 'must be at most 60 shoots' })
			.default([])
			.describe('Single shoots; their mean is kept beside'),
		healthyShootMm: measure(1, 5000, 'mm')
			.nullable()
			.default(null)
			.describe('Mean length of this season’s shoots of a healthy one of its kind near by'),
		diebackLimitMm: measure(0, 60_000, 'mm')
			.nullable()
			.default(null)
			.describe('Height above the soil up to which wood is alive'),
		weightKg: measure(0.01, 5000, 'kg').nullable().default(null),
		firmness: oneOf(firmnesses).nullable().default(null),
		whiteTips: z.boolean({ error: 'must be true or false' }).nullable().default(null),
		rootsAtEdge: z
			.boolean({ error: 'must be true or false' })
			.nullable()
			.default(null)
			.describe('Roots seen at the edge of the ball'),
		smell: oneOf(smells).nullable().default(null).describe('At the drain holes or the collar'),
		pests: oneOf(pestAmounts).nullable().default(null),
		suckers: count(0, 500).nullable().default(null),
		woundwoodMm: measure(0, 500, 'mm')
			.nullable()
			.default(null)
			.describe('Width of the woundwood at the largest cut'),
		sample: z
			.strictObject({ looked: count(1, 5000), alive: count(0, 5000) })
			.refine((sample) => sample.alive <= sample.looked, {
				path: ['alive'],
				error: 'must not be more than were looked at'
			})
			.nullable()
			.default(null)
			.describe('Of a lot: so many looked at, so many of them alive'),
		lostCount: count(0, 5000).nullable().default(null).describe('Of a lot: how many have died so far'),
		note: note()
	})
	.refine(
		// Asked of every look that is read: no copy is made of it.
		(look) => {
			if (look.note !== '' || look.shootsMm.length > 0) return true;
			for (const part in look)
				if (
					part !== 'observedOn' &&
					part !== 'note' &&
					part !== 'shootsMm' &&
					look[part as keyof typeof look] !== null
				)
					return true;
			return false;
		},
		{ path: ['note'], error: 'must not be empty when nothing was measured' }
	);
export type ObservationInput = z.infer<typeof observationInput>;
export const observationSchema = observationInput.safeExtend({ id: id(), version: version() });
export type Observation = z.infer<typeof observationSchema>;

/** A look in which nothing was looked at. */
export const nothingSeen: Omit<Observation, 'id' | 'version' | 'observedOn'> = {
	buds: null,
	leafCover: null,
	leafState: null,
	shootExtensionMm: null,
	shootsMm: [],
	healthyShootMm: null,
	diebackLimitMm: null,
	weightKg: null,
	firmness: null,
	whiteTips: null,
	rootsAtEdge: null,
	smell: null,
	pests: null,
	suckers: null,
	woundwoodMm: null,
	sample: null,
	lostCount: null,
	note: ''
};

export type MeasureKey =
	'leafCover' | 'shootExtensionMm' | 'diebackLimitMm' | 'weightKg' | 'woundwoodMm' | 'suckers';

/**
 * Whether living wood went down between two readings of its limit, by more than reading it twice differs.
 * @param beforeMm, nowMm heights up to which wood was alive, mm
 */
export const woodFell = (beforeMm: number, nowMm: number, values: Values): boolean =>
	nowMm < beforeMm * (1 - values['decision.steadyShare']) - values['decision.steadyMm'];

/** Mean and spread of single shoots; null of none. */
export function shootsMean(shootsMm: readonly number[]): { meanMm: number; sdMm: number | null } | null {
	const n = shootsMm.length;
	if (n === 0) return null;
	const meanMm = shootsMm.reduce((sum, mm) => sum + mm, 0) / n;
	return {
		meanMm,
		sdMm: n > 1 ? Math.sqrt(shootsMm.reduce((sum, mm) => sum + (mm - meanMm) ** 2, 0) / (n - 1)) : null
	};
}

/** Readings of one measure over time, oldest first; looks without it are left out. */
export const readingsOf = (
	observations: readonly Observation[],
	key: MeasureKey
): { on: string; value: number }[] =>
	observations
		.flatMap((look) => {
			const value = look[key];
			return value === null ? [] : [{ on: look.observedOn, value }];
		})
		.sort((a, b) => a.on.localeCompare(b.on));

/** A look with what only an examination tells: whether it wilted in wet or in dry soil. */
export type SeenLook = Observation & { wiltedIn?: 'wet' | 'dry' };
