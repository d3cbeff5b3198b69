import { z } from 'zod';
import { aftercareTasks, proposedTaskOutput } from '../aftercare/tasks/rules';
import { circularSummary, rayleigh, sectorShares, widestGap } from '../maths/circular';
import { growingSeason, nightTemperature, nightTemperatureOutput } from '../climate/normals';
import { placeClimateInput } from '../vocabulary/place';
import { nextWindowDay, rootWorkWindows, seasonFit, seasonFits } from '../climate/windows';
import { examineCalculations } from './examine-calculations';
import { replantCalculations } from './replant-calculations';
import { rootsCalculations } from './roots-calculations';
import { calendarDate, count, measure, oneOf, share } from '../vocabulary/fields';
import { rootProtectionArea, rootProtectionAreaOutput, structuralRootZoneRadiusM } from '../roots/plan/zones';
import { groups, liftingWindows } from '../vocabulary/kind';
import { componentIds } from '../replant/mixes/components';
import { componentLitres, componentLitresOutput } from '../replant/mixes/mixes';
import { mixFoundOutput, reachMix } from '../replant/mixes/reach';
import { mixBody, mixPart, mixParts, waterAndAir, waterAndAirOutput } from '../replant/mixes/retention';
import {
	layerAmounts,
	plantingInput,
	sizeAdvice,
	sizeAdviceOutput,
	layerAmountsOutput
} from '../replant/pots/replant-plan';
import { ballOfSizes, fitInPot, fitOutput } from '../replant/pots/fit';
import { potSchema, potVolumeL } from '../replant/pots/volume';
import { tippingWindMs } from '../replant/pots/wind';
import { expectedRootFunction, functionPointOutput } from '../recovery/expected';
import { observationSchema } from '../examine/looks/observation';
import { verdict, verdictOutput } from '../recovery/verdict';
import { stageDates } from '../roots/plan/stage-dates';
import { intervalOutput, wilsonInterval } from '../maths/wilson';
import { crownSchools, situations, waterSchools } from '../vocabulary/words';
import { pictureCalculations } from './picture-calculations';
import { recoveryCalculations } from './recovery-calculations';
import { practiceCalculations } from './practice-calculations';
import { rehearseCalculations } from './rehearse-calculations';
import { weatherCalculations } from './weather-calculations';
import { calculation, type Calculation } from './calculation';

const number = z.number();
const span = z.object({ from: z.string(), to: z.string() });
const azimuth = () => measure(-360, 720, '°');
const kindSeason = z.strictObject({
	group: oneOf(groups),
	coldestC: measure(-60, 30, '°C'),
	liftingWindow: oneOf(liftingWindows)
});
const layerInput = {
	coarseLayerMm: measure(0, 1000, 'mm').default(0),
	coarseGrainMm: measure(0.5, 100, 'mm').default(8).describe('Fine end of the grains of the coarse layer'),
	fillMm: measure(10, 3000, 'mm').describe('Height of the fill above the floor')
};

/** Every calculation of the core, in the order of the work. */
export const calculations: readonly Calculation[] = [
	...examineCalculations,
	calculation(
		'wilson-interval',
		'Wilson score interval for a share of living roots in a sample',
		z
			.strictObject({
				successes: count(0, 1_000_000),
				trials: count(1, 1_000_000),
				z: measure(0.1, 6, '(normal quantile)').default(1.959963984540054)
			})
			.refine((input) => input.successes <= input.trials, {
				path: ['successes'],
				error: 'must not be more than the trials'
			}),
		intervalOutput,
		({ successes, trials, z: quantile }) => wilsonInterval(successes, trials, quantile)
	),
	calculation(
		'circular-statistics',
		'Mean direction, resultant length, Rayleigh R and z, widest gap and 45° sectors of weighted directions',
		z.strictObject({
			directions: z
				.array(z.strictObject({ azimuthDeg: azimuth(), weight: measure(0, 1e9, '').default(1) }))
				.min(1)
				.max(2000)
		}),
		z.object({
			meanDeg: number.nullable(),
			resultantLength: number,
			rayleighR: number,
			rayleighZ: number,
			gapDeg: number,
			gapFromDeg: number,
			sectors: z.array(number)
		}),
		({ directions }) => {
			const azimuths = directions.map((direction) => direction.azimuthDeg);
			const test = rayleigh(directions);
			const gap = widestGap(azimuths);
			return {
				...circularSummary(directions),
				rayleighR: test.r,
				rayleighZ: test.z,
				gapDeg: gap.widthDeg,
				gapFromDeg: gap.fromDeg,
				sectors: sectorShares(directions)
			};
		}
	),
	...rootsCalculations,
	...replantCalculations,
	calculation(
		'root-protection-area',
		'Root protection area of a standing tree (BS 5837:2012)',
		z.strictObject({ stemDiameterM: measure(0.01, 5, 'm') }),
		rootProtectionAreaOutput,
		({ stemDiameterM }, values) => rootProtectionArea(stemDiameterM, values)
	),
	calculation(
		'structural-root-zone',
		'Structural root zone radius of a standing tree (AS 4970-2009)',
		z.strictObject({ diameterAboveFlareM: measure(0.01, 5, 'm') }),
		z.object({ radiusM: number }),
		({ diameterAboveFlareM }, values) => ({ radiusM: structuralRootZoneRadiusM(diameterAboveFlareM, values) })
	),
	calculation(
		'season-window',
		'Windows for root work on a kind at a place, how a date stands to them, and the next day',
		z.strictObject({ kind: kindSeason, place: placeClimateInput, on: calendarDate() }),
		z.object({
			fit: z.enum(seasonFits),
			next: z.string().nullable(),
			windows: z.array(span),
			growingSeason: span.nullable()
		}),
		({ kind, place, on }, values) => ({
			fit: seasonFit(kind, place, on, values),
			next: nextWindowDay(kind, place, on, values),
			windows: rootWorkWindows(kind, place, Number(on.slice(0, 4)), values),
			growingSeason: growingSeason(
				place,
				kind.coldestC >= 0 || kind.group === 'tropical',
				Number(on.slice(0, 4)),
				values
			)
		})
	),
	calculation(
		'stage-dates',
		'Days on which root stages fall: in the windows of a kind at a place, with the least time between',
		z.strictObject({
			kind: kindSeason,
			place: placeClimateInput,
			firstOn: calendarDate(),
			count: count(1, 6)
		}),
		z.object({ dates: z.array(z.string()) }),
		({ kind, place, firstOn, count: stages }, values) => ({
			dates: stageDates({ kind, place }, { begun: [firstOn], count: stages, today: firstOn }, values)
		})
	),
	calculation(
		'night-temperature',
		'A usual and a cold night of the season at a place, from its usual climate',
		z.strictObject({ place: placeClimateInput, on: calendarDate() }),
		nightTemperatureOutput,
		({ place, on }, values) => nightTemperature(place, on, values)
	),
	calculation(
		'pot-volume',
		'Litres in a pot between two heights above its floor',
		z.strictObject({
			pot: potSchema,
			fromMm: measure(0, 3000, 'mm').default(0),
			toMm: measure(0, 3000, 'mm').optional()
		}),
		z.object({ litres: number }),
		({ pot, fromMm, toMm }) => ({ litres: potVolumeL(pot, fromMm, toMm) })
	),
	calculation(
		'pot-size',
		'Width of pot to look for, by the trade’s size rules',
		z.strictObject({
			ballDiameterMm: measure(10, 4000, 'mm'),
			livingLoss: share().default(0),
			rot: z.boolean().default(false),
			packed: z.boolean().default(false)
		}),
		sizeAdviceOutput,
		({ ballDiameterMm, livingLoss, rot, packed }, values) =>
			sizeAdvice(ballDiameterMm, livingLoss, { rot, packed }, values)
	),
	calculation(
		'layer-amounts',
		'Litres of each layer around a ball in a pot, and what does not fit',
		plantingInput
			.pick({
				pot: true,
				ballDiameterMm: true,
				ballDepthMm: true,
				coarseLayerMm: true,
				topLayerMm: true,
				headspaceMm: true
			})
			.extend({ moundMm: measure(0, 400, 'mm').default(0) }),
		layerAmountsOutput,
		(input, values) => layerAmounts(input, values)
	),
	calculation(
		'pot-fit',
		'Whether a round ball, turned to its planting angle, goes into a pot: room all round, where it binds, the least to shave',
		z.strictObject({
			pot: potSchema,
			ballDiameterMm: measure(10, 4000, 'mm'),
			ballDepthMm: measure(5, 3000, 'mm'),
			fullness: measure(0.3, 0.98, 'of the cylinder').default(0.8),
			tiltDeg: measure(0, 60, '°').default(0),
			tiltTowardDeg: measure(0, 360, '°').default(0),
			flareOverRimMm: measure(-300, 500, 'mm').default(0),
			floorMm: measure(0, 1000, 'mm').default(0).describe('Top of the coarse layer')
		}),
		fitOutput,
		({ pot, ballDiameterMm, ballDepthMm, fullness, ...standing }) =>
			fitInPot(ballOfSizes(ballDiameterMm, ballDepthMm, fullness), pot, standing)
	),
	calculation(
		'tipping-wind',
		'Wind at which a free-standing pot tips over the edge of its base',
		z.strictObject({
			massKg: measure(0.1, 20_000, 'kg'),
			baseWidthMm: measure(20, 4000, 'mm'),
			crownAreaM2: measure(0.001, 400, 'm²'),
			crownMiddleM: measure(0.02, 60, 'm')
		}),
		z.object({ windMs: number }),
		(input, values) => ({ windMs: tippingWindMs(input, values) })
	),
	calculation(
		'mix-components',
		'Litres of each component to measure out for a mix, which is less than their sum',
		z.strictObject({ parts: mixParts, litres: measure(0, 100_000, 'L') }),
		z.object({
			components: z.array(componentLitresOutput)
		}),
		({ parts, litres }, values) => ({ components: componentLitres(parts, litres, values) })
	),
	calculation(
		'mix-water-air',
		'Water and air of a mix by depth in a pot that was watered through and has drained',
		z.strictObject({ parts: mixParts, pot: potSchema, ...layerInput }),
		waterAndAirOutput.extend({ yield: number, ph: number }),
		({ parts, pot, coarseLayerMm, coarseGrainMm, fillMm }, values) => {
			const body = mixBody(parts, values);
			const coarsePoreMm = coarseGrainMm * values['mix.poreOfGrain'];
			return {
				...waterAndAir(body, pot, { coarseLayerMm, coarsePoreMm }, Math.min(fillMm, pot.heightMm)),
				yield: body.yield,
				ph: body.ph
			};
		}
	),
	calculation(
		'reach-mix',
		'The mix of what is at hand that comes nearest to a wanted air space and water in a pot',
		z.strictObject({
			stock: z.array(oneOf(componentIds)).min(1).max(6),
			begin: z.array(mixPart).max(12).default([]),
			pot: potSchema,
			...layerInput,
			airFrom: share(),
			airTo: share(),
			waterFrom: share().default(0),
			waterTo: share().default(1),
			prefer: oneOf(['change', 'cost']).default('change'),
			pricePerL: z.partialRecord(z.enum(componentIds), measure(0, 10_000, '')).default({})
		}),
		z.object({
			found: z.array(mixFoundOutput)
		}),
		({ stock, begin, pot, coarseLayerMm, coarseGrainMm, fillMm, prefer, pricePerL, ...wish }, values) => ({
			found: reachMix(
				stock,
				wish,
				{
					pot,
					layer: { coarseLayerMm, coarsePoreMm: coarseGrainMm * values['mix.poreOfGrain'] },
					fillMm: Math.min(fillMm, pot.heightMm)
				},
				values,
				{ begin, prefer, pricePerL }
			)
		})
	),
	...weatherCalculations,
	...recoveryCalculations,
	calculation(
		'aftercare-tasks',
		'The aftercare a piece of root work asks for, dated, with reasons and marks',
		z.strictObject({
			workOn: calendarDate(),
			group: oneOf(groups),
			tender: z.boolean(),
			coldestC: measure(-60, 30, '°C'),
			inGround: z.boolean(),
			livingLoss: share(),
			lifted: z.boolean().default(false),
			rotWasCut: z.boolean(),
			structuralCut: z.boolean(),
			tooHeavy: z.boolean().default(false).describe('Its pot is too heavy for a scale'),
			collarWork: z.boolean(),
			seasonFit: oneOf(seasonFits),
			crownSchool: oneOf(crownSchools),
			waterSchool: oneOf(waterSchools),
			crownExcess: share(),
			nextStageOn: calendarDate().nullable(),
			plantCount: count(1, 5000),
			suckers: z.boolean().default(false),
			crownTaken: share().default(0).describe('Share of its crown cut since the work, 0 to 1'),
			inLeaf: z.boolean().default(true),
			leafOutOn: calendarDate().nullable().default(null),
			feedSeasonOn: calendarDate().nullable().default(null),
			budsOn: calendarDate().nullable().default(null),
			coldLimitC: measure(-60, 30, '°C').default(0),
			coldFromOn: calendarDate().nullable().default(null)
		}),
		z.object({
			tasks: z.array(proposedTaskOutput)
		}),
		(input, values) => ({ tasks: aftercareTasks(input, values) })
	),
	calculation(
		'expected-root-function',
		'Expected root function over time from what was cut, with its band',
		z
			.strictObject({
				losses: z.array(z.strictObject({ on: calendarDate(), share: share() })).max(50),
				place: placeClimateInput,
				tender: z.boolean(),
				from: calendarDate(),
				to: calendarDate(),
				stepDays: count(1, 365).default(14)
			})
			.refine((input) => input.to >= input.from, { path: ['to'], error: 'must not be before the first day' })
			.refine((input) => Number(input.to.slice(0, 4)) - Number(input.from.slice(0, 4)) <= 20, {
				path: ['to'],
				error: 'must lie within 20 years of the first day'
			}),
		z.object({ points: z.array(functionPointOutput) }),
		({ losses, place, from, to, stepDays }, values) => ({
			points: expectedRootFunction(losses, place, { from, to, stepDays }, values)
		})
	),
	calculation(
		'verdict',
		'The criteria for re-established: each met, not met or unknown, with the evidence',
		z.strictObject({
			today: calendarDate(),
			situation: oneOf(situations),
			trunkDiameterMm: measure(1, 3000, 'mm'),
			sinceOn: calendarDate(),
			worked: z.boolean().default(true).describe('It was worked on that day; false: it came then'),
			observations: z.array(observationSchema).max(20_000),
			referenceShootMm: measure(0, 5000, 'mm').nullable(),
			rootFunction: z
				.strictObject({ phi: measure(0, 1.2, ''), low: measure(0, 1.2, ''), high: measure(0, 1.2, '') })
				.nullable()
				.default(null),
			openAlarms: count(0, 5000),
			unanswered: count(0, 5000).default(0),
			stagesLeft: count(0, 6),
			leaflessOn: z
				.array(calendarDate())
				.max(20_000)
				.default([])
				.describe('Looks at which its kind bears no leaves anyway'),
			leaflessNow: z
				.boolean()
				.optional()
				.describe(
					'Whether it bears none today either, or bore none until lately; left out: as at its last look'
				),
			weighedOn: calendarDate()
				.nullable()
				.default(null)
				.describe('Last weighing behind the root function; null: today'),
			seasons: z
				.array(z.strictObject({ from: calendarDate(), to: calendarDate() }))
				.max(100)
				.optional()
				.describe('Growing seasons of its place; left out, every day counts as one of growth')
		}),
		verdictOutput,
		(input, values) => verdict(input, values)
	),
	...pictureCalculations,
	...rehearseCalculations,
	...practiceCalculations
];

export const calculationByName = new Map(calculations.map((entry) => [entry.name, entry]));
