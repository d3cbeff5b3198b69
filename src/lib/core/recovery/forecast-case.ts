import { z } from 'zod';
import { budStates, firmnesses, leafStates, smells } from '../examine/looks/seen-words';
import { calendarDate, measure, oneOf, share } from '../vocabulary/fields';
import { placeClimateInput } from '../vocabulary/place';
import type { PlaceClimate } from '../climate/normals';
import type { LookSeen } from './evidence';
import type { RootLoss } from './expected';

/** What the forecast is given of a tree. */
export interface RecoveryCase {
	/** Day of the last root work, or of taking in. */
	sinceOn: string;
	today: string;
	/** Log-odds of living through it, as judged at the work, and how unsure that is. */
	odds: number;
	oddsSpread: number;
	/** Root function expected on the day of the work, its loss counted. */
	begin: number;
	/** Losses after it, done and planned. */
	losses: readonly RootLoss[];
	place: PlaceClimate;
	tender: boolean;
	evergreen: boolean;
	looks: readonly LookSeen[];
	/** Root function by weighings, thinned so that they are apart. */
	functionSeen: readonly { on: string; phi: number; sd: number }[];
	/** What its shoots are read against, of a season, mm: a healthy reference’s, or its own before the work; null where there is neither. */
	healthyShootMm: number | null;
	/** Shoots of a healthy reference over a season, mm: as long as those, they say that roots are enough. Null or left out: none is known. */
	referenceShootMm?: number | null;
	/** Share of a whole crown that was in leaf, or would have been in its season, when it began: what was cut, burnt or dropped before is allowed for. Default 1. */
	crownAtStart?: number;
	/** Height of the living wood at the start, mm; null or left out where it is not known. */
	heightMm?: number | null;
}

/** The same as it is sent: of a calculation asked alone, or of a rehearsal. */
export const recoveryCaseInput = z.strictObject({
	sinceOn: calendarDate(),
	today: calendarDate(),
	odds: measure(-10, 10, 'log-odds').describe(
		'Log-odds of living through it, as judged at the work: ln(p / (1 − p))'
	),
	oddsSpread: measure(0, 5, 'log-odds').default(0.5).describe('How unsure these log-odds are, one deviation'),
	begin: share(),
	losses: z
		.array(z.strictObject({ on: calendarDate(), share: share() }))
		.max(50)
		.default([]),
	place: placeClimateInput,
	tender: z.boolean().default(false),
	evergreen: z.boolean().default(false),
	looks: z
		.array(
			z.strictObject({
				observedOn: calendarDate(),
				progress: share(),
				buds: oneOf(budStates).nullable().default(null),
				leafCover: share().nullable().default(null),
				leafState: oneOf(leafStates).nullable().default(null),
				shootExtensionMm: measure(0, 5000, 'mm').nullable().default(null),
				diebackLimitMm: measure(0, 60_000, 'mm').nullable().default(null),
				firmness: oneOf(firmnesses).nullable().default(null),
				whiteTips: z.boolean().nullable().default(null),
				smell: oneOf(smells).nullable().default(null)
			})
		)
		.max(500)
		.default([]),
	functionSeen: z
		.array(z.strictObject({ on: calendarDate(), phi: measure(0, 1.2, ''), sd: measure(0.001, 1, '') }))
		.max(500)
		.default([]),
	healthyShootMm: measure(1, 5000, 'mm')
		.nullable()
		.default(null)
		.describe(
			'What its shoots are read against: a healthy reference’s of a season, or its own before the work'
		),
	referenceShootMm: measure(1, 5000, 'mm')
		.nullable()
		.default(null)
		.describe(
			'Shoots of a healthy reference over a season: as long as those, they say that roots are enough'
		),
	crownAtStart: share()
		.default(1)
		.describe(
			'Share of a whole crown that it began with; what was cut, burnt or dropped before is allowed for'
		),
	heightMm: measure(1, 60_000, 'mm')
		.nullable()
		.default(null)
		.describe('Height of its living wood at the start, mm')
});
