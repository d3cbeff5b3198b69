import { z } from 'zod';
import {
	daylightHours,
	extraterrestrialRadiation,
	hargreavesMm,
	usualEt0Mm
} from '../climate/evapotranspiration';
import { placeClimateInput, placeSchema } from '../vocabulary/place';
import { calendarDate, count, measure, oneOf, share } from '../vocabulary/fields';
import { groundAmounts, groundPlanInput } from '../replant/ground/ground-plan';
import { siteCheck, siteVerdict, siteAnswerOutput } from '../replant/ground/site-check';
import { carbonateTests, sulphurDose, sulphurSoils, sulphurDoseOutput } from '../replant/ground/sulphur';
import { kitList } from '../replant/kit/kit';
import { kindSchema } from '../vocabulary/kind';
import { judgeRoute, routeAnswerOutput, routeSchema } from '../replant/lifting/route';
import {
	benchTest,
	benchTestInput,
	bodyOf,
	mixReuse,
	mixTestOutput,
	newMix,
	pottingMix,
	weighTest,
	weighTestInput
} from '../replant/mixes/bench-test';
import { componentIds } from '../replant/mixes/components';
import { mixBody, mixParts, waterAndAir } from '../replant/mixes/retention';
import { ballOfSizes } from '../replant/pots/fit';
import { judgePot, potVerdicts, proposePots, type PotQuestion } from '../replant/pots/rank';
import { layerAmounts } from '../replant/pots/replant-plan';
import {
	extraHoles,
	heldWind,
	heldWindOutput,
	seatSchema,
	wireHoleOutput,
	wireHoles,
	wireLengthM,
	wireSchema,
	wiresOver
} from '../replant/pots/seat';
import { potSchema, potShapes } from '../replant/pots/volume';
import { rootMapInput, segmentSchema } from '../roots/map/root-map';
import { stockItemSchema } from '../replant/kit/stock';
import type { Values } from '../values/values';
import { dailyDemandL } from '../replant/pots/demand';
import { dryDown, steadyDays } from '../replant/pots/dry-down';
import { calculation, type Calculation } from './calculation';

const number = z.number();
const potTrial = {
	ballDiameterMm: measure(10, 4000, 'mm'),
	ballDepthMm: measure(5, 3000, 'mm'),
	mix: pottingMix,
	coarseLayerMm: measure(0, 1000, 'mm').default(0),
	coarseId: oneOf(componentIds).default('grit-coarse'),
	moundMm: measure(0, 500, 'mm').default(0),
	topLayerMm: measure(0, 300, 'mm').default(0),
	headspaceMm: measure(0, 300, 'mm').default(20),
	flareOverRimMm: measure(-300, 500, 'mm').default(-20),
	tiltDeg: measure(0, 60, '°').default(0),
	tiltTowardDeg: measure(0, 360, '°').default(0),
	wetnessTrigger: share(),
	et0Mm: measure(0, 20, 'mm'),
	crownWidthMm: measure(20, 40_000, 'mm'),
	inLeaf: z.boolean().default(true),
	rootFunction: share().default(1),
	heightM: measure(0.02, 60, 'm').nullable().default(null),
	largerWidthMm: measure(20, 4000, 'mm'),
	sameWidthMm: measure(20, 4000, 'mm'),
	othersBallHeldL: measure(0, 5000, 'L').default(0),
	othersCrownM2: measure(0, 400, 'm²').default(0)
};
const trialInput = z.strictObject(potTrial);
const questionOf = (
	{ othersBallHeldL, othersCrownM2, ...input }: z.infer<typeof trialInput>,
	values: Values
): PotQuestion => ({
	...input,
	others: {
		ballsL: othersBallHeldL / values['water.ballHeld'],
		ballHeldL: othersBallHeldL,
		crownM2: othersCrownM2
	},
	ball: ballOfSizes(input.ballDiameterMm, input.ballDepthMm, values['pot.ballShape']),
	standing: { tiltDeg: input.tiltDeg, tiltTowardDeg: input.tiltTowardDeg },
	days: steadyDays({ et0Mm: input.et0Mm, inLeaf: input.inLeaf })
});
const judgement = z.object({
	fits: z.boolean(),
	shaveEvenlyMm: number,
	shaveUnderMm: number,
	mixL: number,
	unrooted: number,
	waterL: number,
	airSpace: number,
	/** Null where nothing is drawn. */
	dryDownDays: number.nullable(),
	wetKg: number,
	tipsMs: number.nullable(),
	widerMm: number,
	verdict: z.enum(potVerdicts)
});
const judged = (
	pot: z.infer<typeof potSchema>,
	massKg: number | null,
	question: PotQuestion,
	values: Values
) => {
	const { fit, dryDownDays: days, ...rest } = judgePot(pot, massKg, question, values);
	return {
		...rest,
		fits: fit.fits,
		shaveEvenlyMm: fit.shaveEvenlyMm,
		shaveUnderMm: fit.shaveUnderMm,
		dryDownDays: Number.isFinite(days) ? days : null
	};
};

/** Calculations of Replant: lift, pots, mixes, ground. */
export const replantCalculations: readonly Calculation[] = [
	calculation(
		'evapotranspiration',
		'Reference evapotranspiration by Hargreaves, radiation on top of the air and day length (FAO-56)',
		z
			.strictObject({
				latitudeDeg: measure(-90, 90, '°'),
				on: calendarDate(),
				minC: measure(-60, 50, '°C'),
				maxC: measure(-60, 60, '°C')
			})
			.refine((day) => day.maxC >= day.minC, { path: ['maxC'], error: 'must not be below the minimum' }),
		z.object({ et0Mm: number, radiationMj: number, daylightHours: number }),
		({ latitudeDeg, on, ...day }) => ({
			et0Mm: hargreavesMm(day, latitudeDeg, on),
			radiationMj: extraterrestrialRadiation(latitudeDeg, on),
			daylightHours: daylightHours(latitudeDeg, on)
		})
	),
	calculation(
		'water-demand',
		'What a potted tree draws in a day at a place in its usual climate, and the days until it is to be watered',
		z.strictObject({
			place: placeClimateInput,
			on: calendarDate(),
			crownM2: measure(0, 400, 'm²'),
			rootFunction: share(),
			surfaceM2: measure(0, 20, 'm²'),
			waterL: measure(0, 5000, 'L'),
			wetnessTrigger: share()
		}),
		z.object({ et0Mm: number, transpirationL: number, evaporationL: number, days: number.nullable() }),
		({ place, on, waterL, wetnessTrigger, ...crown }, values) => {
			const et0Mm = usualEt0Mm(place, on, values);
			const demand = dailyDemandL({ et0Mm, ...crown }, values);
			const days = dryDown(
				{ rootedMostL: waterL, unrootedMostL: 0, surfaceM2: crown.surfaceM2, crownM2: crown.crownM2 },
				steadyDays({ et0Mm, inLeaf: true }),
				wetnessTrigger,
				crown.rootFunction,
				values
			);
			return { et0Mm, ...demand, days: Number.isFinite(days) ? days : null };
		}
	),
	calculation(
		'judge-pot',
		'One pot for a round ball: fit, air, water, days to dry, wet mass, tipping wind, by both schools of size',
		trialInput.extend({ pot: potSchema, massKg: measure(0.01, 5000, 'kg').nullable().default(null) }),
		judgement,
		({ pot, massKg, ...trial }, values) => judged(pot, massKg, questionOf(trial, values), values)
	),
	calculation(
		'propose-pots',
		'Sizes of pot to look for by rule, each judged: same or larger, shallow or deep',
		trialInput.extend({ shape: oneOf(potShapes).default('round') }),
		z.object({
			proposed: z.array(z.object({ name: z.string(), pot: z.looseObject({}), judged: judgement }))
		}),
		({ shape, ...trial }, values) => {
			const question = questionOf(trial, values);
			return {
				proposed: proposePots(question, shape, values).map(({ name, pot }) => ({
					name,
					pot,
					judged: judged(pot, null, question, values)
				}))
			};
		}
	),
	calculation(
		'bench-test',
		'Pores, water and air of a mix from the volumes of a bench test',
		benchTestInput,
		mixTestOutput,
		(input) => benchTest(input)
	),
	calculation(
		'mix-weighings',
		'Pores, water and air of a mix from two or three weighings',
		weighTestInput.safeExtend({ parts: mixParts }),
		mixTestOutput,
		({ parts, ...weights }, values) => weighTest(weights, mixBody(parts, values).porosity)
	),
	calculation(
		'measured-mix',
		'Water and air of a mix at another depth, from what was measured at one',
		z.strictObject({ mix: pottingMix, depthMm: measure(20, 3000, 'mm') }),
		z.object({ containerCapacity: number, airSpace: number, poreMm: number }),
		({ mix, depthMm }, values) => {
			const body = bodyOf(mix, values);
			const { containerCapacity, airSpace } = waterAndAir(
				body,
				{ depthMm },
				{ coarseLayerMm: 0, coarsePoreMm: 1 },
				depthMm
			);
			return { containerCapacity, airSpace, poreMm: body.poreMm };
		}
	),
	calculation(
		'tie-down',
		'Wires over structural roots, their holes and length, drain holes to add, and the wind before and after',
		z.strictObject({
			pot: potSchema,
			segments: z.array(segmentSchema).max(400),
			gone: z.array(z.string()).max(400).default([]),
			holes: count(0, 200).default(1),
			holeMm: measure(1, 300, 'mm').default(15),
			ballKg: measure(0.1, 20_000, 'kg'),
			ballWidthMm: measure(10, 4000, 'mm'),
			ballDepthMm: measure(5, 3000, 'mm'),
			totalKg: measure(0.1, 30_000, 'kg'),
			baseWidthMm: measure(20, 4000, 'mm'),
			crownAreaM2: measure(0.001, 400, 'm²'),
			crownMiddleM: measure(0.02, 60, 'm'),
			stoneKg: measure(0, 500, 'kg').default(0)
		}),
		heldWindOutput.extend({
			wires: z.array(wireSchema),
			holes: z.array(wireHoleOutput),
			wireM: number,
			extraHoles: number
		}),
		(input, values) => {
			const wires = wiresOver(input.segments, new Set(input.gone), values);
			return {
				wires,
				holes: wireHoles(wires, input.pot, values),
				wireM: wireLengthM(wires, input.pot, values),
				extraHoles: extraHoles(
					input.pot,
					{ count: input.holes, holeMm: input.holeMm },
					values['seat.holeMm'],
					values
				),
				...heldWind(
					{ massKg: input.ballKg, widthMm: input.ballWidthMm, depthMm: input.ballDepthMm },
					{ massKg: input.totalKg, ...input },
					input.stoneKg,
					values
				)
			};
		}
	),
	calculation(
		'lift-route',
		'Whether a ball goes through the gate, along the way and into the vehicle',
		z.strictObject({
			route: routeSchema,
			diameterMm: measure(20, 10_000, 'mm'),
			depthMm: measure(20, 5000, 'mm'),
			mostKg: measure(0.1, 50_000, 'kg'),
			heightM: measure(0.02, 60, 'm').nullable().default(null),
			way: z.string().max(60).default('by hand'),
			plantCount: count(1, 5000).default(1)
		}),
		z.object({ answers: z.array(routeAnswerOutput) }),
		({ route, ...ball }, values) => ({ answers: judgeRoute(route, ball, values) })
	),
	calculation(
		'site-check',
		'A place against the limits of a kind before a tree is set there: cold, season, light, wind, reach, drainage',
		z.strictObject({
			kind: kindSchema,
			place: placeSchema,
			inGround: z.boolean(),
			on: calendarDate(),
			drainMin: measure(0, 10_000, 'min').nullable().default(null),
			rootsCutOn: calendarDate().nullable().default(null),
			newShoots: z.boolean().default(false)
		}),
		z.object({
			answers: z.array(siteAnswerOutput),
			verdict: z.string()
		}),
		({ kind, place, inGround, on, drainMin, rootsCutOn, newShoots }, values) => {
			const answers = siteCheck(
				kind,
				place,
				{ inGround, today: on, drainMin, rootsCutOn, newShoots: newShoots ? 'out' : 'none' },
				values
			);
			return { answers, verdict: siteVerdict(answers) };
		}
	),
	calculation(
		'ground-works',
		'Planting hole, collar, trenches or holes clear of structural roots, mulch ring and sulphur: counts, volumes, hours',
		z.strictObject({
			plan: groundPlanInput,
			trunkDiameterMm: measure(1, 3000, 'mm'),
			map: rootMapInput.nullable().default(null)
		}),
		z.looseObject({ hours: number }),
		({ plan, trunkDiameterMm, map }, values) => ({
			...groundAmounts(plan, trunkDiameterMm, map?.frame === 'ground' ? map.segments : [], values)
		})
	),
	calculation(
		'sulphur-dose',
		'Elemental sulphur from one pH to another, split over time with retests',
		z.strictObject({
			phNow: measure(3, 9.5, 'pH'),
			phAim: measure(4.5, 7, 'pH'),
			soil: oneOf(sulphurSoils),
			areaM2: measure(0.1, 10_000, 'm²'),
			startOn: calendarDate(),
			carbonate: oneOf(carbonateTests)
				.nullable()
				.default(null)
				.describe('Vinegar on dry soil; null while nobody tried')
		}),
		sulphurDoseOutput,
		(input, values) => sulphurDose(input, values)
	),
	calculation(
		'kit-list',
		'Everything to have ready for a planting of one tree or a lot, against what is at hand',
		z.strictObject({
			plantCount: count(1, 5000).default(1),
			thickestMm: measure(0, 1000, 'mm').default(0),
			pot: potSchema,
			ballDiameterMm: measure(10, 4000, 'mm'),
			ballDepthMm: measure(5, 3000, 'mm'),
			coarseLayerMm: measure(0, 1000, 'mm').default(0),
			coarseId: oneOf(componentIds).default('grit-coarse'),
			topLayerMm: measure(0, 300, 'mm').default(0),
			topId: oneOf(componentIds).nullable().default(null),
			headspaceMm: measure(0, 300, 'mm').default(20),
			mix: pottingMix,
			reuse: mixReuse.default(newMix),
			seat: seatSchema.nullable().default(null),
			stock: z.array(stockItemSchema).max(500).default([])
		}),
		z.object({
			materials: z.array(
				z.looseObject({ item: z.string(), need: number, have: number, open: number, short: number })
			),
			tools: z.array(z.string()),
			protection: z.array(z.string()),
			usedCost: number,
			buyCost: number,
			unpriced: z.array(z.string())
		}),
		({ plantCount, thickestMm, stock, ...planting }, values) => {
			const { pots: _pots, ...kit } = kitList(
				{
					plantCount,
					thickestMm,
					planting: {
						...planting,
						amounts: layerAmounts({ ...planting, moundMm: planting.seat?.moundMm ?? 0 }, values),
						stockPot: null
					},
					lift: null,
					ground: null
				},
				stock,
				values
			);
			return { ...kit, materials: kit.materials.map((line) => ({ ...line })) };
		}
	)
];
