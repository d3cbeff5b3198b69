import { z } from 'zod';
import { calendarDate, count, measure, oneOf, share } from '../vocabulary/fields';
import { placeInput } from '../vocabulary/place';
import {
	brierScore,
	brierSkill,
	reliability,
	reliabilityBinOutput
} from '../recovery/outcomes/forecast-score';
import { kaplanMeier, medianDays, survivalStepOutput } from '../recovery/outcomes/kaplan-meier';
import { backupKinds } from '../vocabulary/backup-kinds';
import { worthKeeping, worthKeepingOutput } from '../recovery/backup';
import { decisionsDue, dueDecisionOutput } from '../recovery/decisions';
import { recoveryForecast, recoveryForecastOutput } from '../recovery/forecast';
import { recoveryCaseInput } from '../recovery/forecast-case';
import { fitGrowth } from '../recovery/growth-curve';
import { observationSchema } from '../examine/looks/observation';
import { seasonPoint, seasonsOf, seasonPointOutput } from '../recovery/season';
import { calculation, type Calculation } from './calculation';

const number = z.number();

/** Calculations of Recovery: forecast, decisions, growth, outcomes. */
export const recoveryCalculations: readonly Calculation[] = [
	calculation(
		'recovery-forecast',
		'Probability of re-establishment, its path and what moved it, and the course of the roots',
		recoveryCaseInput,
		recoveryForecastOutput,
		(input, values) => recoveryForecast(input, values)
	),
	calculation(
		'recovery-decisions',
		'What is to be decided now, with evidence and what to check first',
		z.strictObject({
			today: calendarDate(),
			sinceOn: calendarDate(),
			worked: z.boolean().default(true).describe('It was worked on that day; false: it came then'),
			seasonBeganOn: calendarDate().nullable().default(null),
			inSeason: z.boolean(),
			evergreen: z.boolean().default(false),
			potted: z.boolean().default(true),
			tender: z.boolean().default(false),
			heightMm: measure(1, 60_000, 'mm').nullable().default(null),
			observations: z.array(observationSchema).max(20_000),
			probability: share().nullable().default(null),
			probabilityBefore: share().nullable().default(null),
			dryness: share().nullable().default(null),
			stagesLeft: count(0, 6).default(0),
			referenceShootMm: measure(0, 5000, 'mm').nullable().default(null),
			reEstablished: z.boolean().default(false),
			outOn: calendarDate()
				.nullable()
				.default(null)
				.describe('Its roots are in the air, or wrapped, since; null where it stands or is heeled in')
		}),
		z.object({
			due: z.array(dueDecisionOutput)
		}),
		(input, values) => ({ due: decisionsDue({ ...input, gate: null }, values) })
	),
	calculation(
		'season-point',
		'How far the growing season of a place is on a day, by the calendar, and seasons since a day',
		z.strictObject({
			place: placeInput,
			tender: z.boolean().default(false),
			sinceOn: calendarDate(),
			on: calendarDate()
		}),
		seasonPointOutput,
		({ place, tender, sinceOn, on }, values) =>
			seasonPoint(seasonsOf(place, tender, sinceOn, on, values), on, sinceOn, [], values)
	),
	calculation(
		'growth-curve',
		'Logistic growth curve by least squares, with standard errors',
		z.strictObject({
			points: z
				.array(z.strictObject({ time: measure(0, 100_000, ''), size: measure(0, 1_000_000, '') }))
				.min(4)
				.max(2000)
		}),
		z.object({
			asymptote: number.nullable(),
			midpoint: number.nullable(),
			scale: number.nullable(),
			errors: z.object({ asymptote: number, midpoint: number, scale: number }).nullable(),
			sigma: number.nullable()
		}),
		({ points }) => {
			const curve = fitGrowth(points);
			return {
				asymptote: curve?.asymptote ?? null,
				midpoint: curve?.midpoint ?? null,
				scale: curve?.scale ?? null,
				errors: curve?.errors ?? null,
				sigma: curve?.sigma ?? null
			};
		}
	),
	calculation(
		'kaplan-meier',
		'Share for which something has not happened by a day, with intervals and numbers at risk',
		z.strictObject({
			follows: z
				.array(z.strictObject({ days: measure(0, 20_000, 'days'), happened: z.boolean() }))
				.min(1)
				.max(5000)
		}),
		z.object({
			steps: z.array(survivalStepOutput),
			medianDays: number.nullable()
		}),
		({ follows }) => {
			const steps = kaplanMeier(follows);
			return { steps, medianDays: medianDays(steps) };
		}
	),
	calculation(
		'forecast-score',
		'Brier score, skill and reliability of forecasts against what came',
		z.strictObject({
			said: z
				.array(z.strictObject({ probability: share(), happened: z.boolean() }))
				.min(1)
				.max(20_000)
		}),
		z.object({
			brier: number.nullable(),
			skill: number.nullable(),
			bins: z.array(reliabilityBinOutput)
		}),
		({ said }) => ({ brier: brierScore(said), skill: brierSkill(said), bins: reliability(said) })
	),
	calculation(
		'backups-worth-keeping',
		'How many cuttings or divisions make it sure that one comes through',
		z
			.strictObject({
				kind: oneOf(backupKinds),
				struck: count(0, 100_000).default(0),
				known: count(0, 100_000).default(0)
			})
			.refine((input) => input.struck <= input.known, {
				path: ['struck'],
				error: 'must not be more than those whose fate is known'
			}),
		worthKeepingOutput,
		({ kind, ...record }, values) => worthKeeping(kind, record, values)
	)
];
