import { z } from 'zod';
import { calendarDate, count, id, measure, note, oneOf, share, version } from '../fields/fields';

export const budStates = ['none', 'swelling', 'open'] as const;
export const leafStates = ['turgid', 'wilted', 'scorched', 'yellow', 'dropped'] as const;
export const firmnesses = ['firm', 'moves', 'loose'] as const;

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
		lostCount: count(0, 5000).nullable().default(null).describe('Of a lot: how many have died so far'),
		note: note()
	})
	.refine(
		({ observedOn: _day, note: text, ...rest }) =>
			text !== '' || Object.values(rest).some((value) => value !== null),
		{ path: ['note'], error: 'must not be empty when nothing was measured' }
	);
export type ObservationInput = z.infer<typeof observationInput>;
export const observationSchema = observationInput.safeExtend({ id: id(), version: version() });
export type Observation = z.infer<typeof observationSchema>;

export type MeasureKey = 'leafCover' | 'shootExtensionMm' | 'diebackLimitMm' | 'weightKg';

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
		.sort((a, b) => (a.on < b.on ? -1 : 1));
