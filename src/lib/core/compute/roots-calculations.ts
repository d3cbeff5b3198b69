import { z } from 'zod';
import { crownSupply, crownSupplyOutput } from '../aftercare/crown/crown';
import {
	crownCourse,
	crownShapes,
	heightForCrownShare,
	crownStageOutput
} from '../aftercare/crown/crown-course';
import { count, measure, oneOf, share } from '../vocabulary/fields';
import { groups } from '../vocabulary/kind';
import { observationSchema } from '../examine/looks/observation';
import { allowance, allowanceOutput } from '../roots/plan/allowance';
import { contactArc } from '../roots/map/contact';
import { girdlingSeverity, severities } from '../examine/measuring/girdling';
import {
	computedFlawOutput,
	computedFlaws,
	crossingOutput,
	crossings,
	obstaclesMet,
	wallShare
} from '../roots/map/course';
import { carriedOverOutput, carryOver, sessionsOf } from '../roots/plan/done';
import { differentFronts, frontOutput, rankFronts } from '../roots/setting/fronts';
import { anchorageWindowOutput, balanceOutput, ledger, stageLossOutput } from '../roots/plan/ledger';
import { combinedDiameterMm, STEM_LIMIT, stemSchema, stemsOf, tapeDiameterMm } from '../roots/map/outline';
import { cutSchema, planInput, tempers } from '../roots/plan/plan';
import { reductionPlan } from '../roots/plan/reduction/reduction-plan';
import { reductionPlanOutput, reductionPlanQuestion } from '../roots/plan/reduction/question';
import { coursePointSchema } from '../roots/map/geometry';
import { rootMapInput } from '../roots/map/root-map';
import {
	angleCostOutput,
	ballDepthOf,
	ballWedges,
	costOfAngle,
	splitTilt,
	stance,
	stanceOutput
} from '../roots/setting/setting';
import { settingSchema } from '../roots/plan/plan';
import { matesOn, touchingMates } from '../roots/map/mates';
import { rootShares } from '../roots/map/shares';
import { loadSolver } from '../roots/plan/solver';
import { stageGate, stageGateOutput } from '../roots/plan/stage-gate';
import { crownSchools, reserves, vigours } from '../vocabulary/words';
import { seasonFits } from '../climate/windows';
import { calculation, type Calculation } from './calculation';

const number = z.number();
const cutPlan = z.array(cutSchema.pick({ segmentId: true, atMm: true, stage: true })).max(400);
const mapInput = rootMapInput;
const allowances = z.array(share()).min(1).max(6);

/** Calculations of the roots: what is there, what a plan costs, how the tree is to stand. */
export const rootsCalculations: readonly Calculation[] = [
	calculation(
		'girdling',
		'Share of the trunk a root touches, and how serious that is',
		z.strictObject({
			course: z.array(coursePointSchema).min(2).max(60),
			diameterMm: measure(0.2, 1500, 'mm'),
			trunkDiameterMm: measure(1, 3000, 'mm').describe('Of a round trunk; with stems theirs counts'),
			stems: z.array(stemSchema).max(STEM_LIMIT).default([]),
			fromTrunk: z.boolean().default(true).describe('It leaves the trunk itself, so its base does not count')
		}),
		z.object({ contactShare: number, severity: z.enum(severities) }),
		({ course, diameterMm, trunkDiameterMm, stems, fromTrunk }, values) => {
			const { share: contactShare, stem } = contactArc(
				{ course, diameterStartMm: diameterMm, parentId: fromTrunk ? null : 'other' },
				stemsOf({ trunkDiameterMm, stems }),
				values
			);
			const against = stem ? tapeDiameterMm(stem) : trunkDiameterMm;
			return { contactShare, severity: girdlingSeverity(contactShare, diameterMm, against, values) };
		}
	),
	calculation(
		'stem-diameter',
		'Diameter of each stem as a tape gives it, and what several stems count together (BS 5837:2012)',
		z.strictObject({ stems: z.array(stemSchema).min(1).max(STEM_LIMIT) }),
		z.object({ tapeDiametersMm: z.array(number), combinedDiameterMm: number }),
		({ stems }) => ({
			tapeDiametersMm: stems.map(tapeDiameterMm),
			combinedDiameterMm: combinedDiameterMm(stems)
		})
	),
	calculation(
		'allowance',
		'Living absorbing share that may come off in one session, with its factors',
		z.strictObject({
			group: oneOf([...groups, 'landscape']),
			temper: oneOf(tempers),
			vigour: oneOf(vigours),
			reserves: oneOf(reserves),
			seasonFit: oneOf(seasonFits)
		}),
		allowanceOutput,
		(input, values) => allowance(input, values)
	),
	calculation(
		'root-ledger',
		'Living loss by stage against the allowance, anchorage by 120° window, balance before and after',
		z.strictObject({ map: mapInput, cuts: cutPlan, allowances }),
		z.object({
			stages: z.array(stageLossOutput),
			totalLoss: number,
			windows: z.array(anchorageWindowOutput),
			before: balanceOutput,
			after: balanceOutput,
			gone: z.array(z.string()),
			cutCost: z.record(z.string(), number),
			violations: z.array(z.string())
		}),
		({ map, cuts, allowances: allowed }, values) => {
			const { gone, cutCost, carried: _carried, least: _least, ...rest } = ledger(map, cuts, allowed, values);
			return { ...rest, gone: [...gone], cutCost: Object.fromEntries(cutCost) };
		}
	),
	calculation(
		'root-shares',
		'What each root carries of the living root by the pipe model, what holds, and the share found dead',
		z.strictObject({ map: mapInput }),
		z.object({
			absorbing: z.record(z.string(), number),
			structuralMm2: z.record(z.string(), number),
			deadShare: number
		}),
		({ map }, values) => {
			const { absorbing, structuralMm2, deadShare } = rootShares(map.segments, values);
			return {
				absorbing: Object.fromEntries(absorbing),
				structuralMm2: Object.fromEntries(structuralMm2),
				deadShare
			};
		}
	),
	calculation(
		'root-courses',
		'What the courses of roots show: crossings with the soil between them, circling, turned-back and rising roots, and the share of the ball wall that is run along',
		z.strictObject({ map: rootMapInput }),
		z.object({
			crossings: z.array(crossingOutput),
			flaws: z.record(z.string(), z.array(computedFlawOutput)),
			obstacles: z.record(z.string(), z.array(z.string())).describe('Names of what each root runs into'),
			wallShare: number
		}),
		({ map }, values) => ({
			crossings: crossings(map.segments),
			flaws: Object.fromEntries(computedFlaws(map.segments, values)),
			obstacles: Object.fromEntries(
				map.segments.flatMap((segment) => {
					const met = obstaclesMet(segment, map.obstacles);
					return met.length > 0 ? [[segment.id, met.map((obstacle) => obstacle.id)]] : [];
				})
			),
			wallShare: wallShare(map)
		})
	),
	calculation(
		'reduction-plan',
		'The best staged reduction of a root system within allowance and anchorage, with reasons and its proven gap',
		reductionPlanQuestion,
		reductionPlanOutput,
		async (input, values) => reductionPlan(input, await loadSolver(), values)
	),
	calculation(
		'crown-supply',
		'What the remaining roots can feed, and the crown share beyond it',
		z.strictObject({ remainingShare: share() }),
		crownSupplyOutput,
		({ remainingShare }, values) => crownSupply(remainingShare, values)
	),
	calculation(
		'cut-sessions',
		'What was cut by day against what was planned, and what is carried over with what must come first',
		z.strictObject({ map: mapInput, plan: planInput }),
		z.object({
			sessions: z.array(
				z.object({
					on: z.string(),
					stages: z.array(number),
					segmentIds: z.array(z.string()),
					livingShare: number,
					plannedShare: number,
					plannedCount: number
				})
			),
			carriedOver: z.array(carriedOverOutput)
		}),
		({ map, plan }, values) => ({
			sessions: sessionsOf(map, plan, values).map(({ cuts, ...session }) => ({
				...session,
				segmentIds: cuts.map(({ segment }) => segment.id)
			})),
			carriedOver: carryOver(map, plan, null)
		})
	),
	calculation(
		'shared-pot',
		'Roots of a tree that touch those of others in the same pot',
		z.strictObject({
			map: mapInput,
			others: z.array(z.strictObject({ tag: z.string().max(16), map: mapInput })).max(20)
		}),
		z.object({ touching: z.array(z.object({ tag: z.string(), segmentIds: z.array(z.string()) })) }),
		({ map, others }, values) => ({
			touching: touchingMates(
				map.segments,
				matesOn(
					map,
					others.map((other, i) => ({ ...other, id: `mate${i}`, name: other.tag }))
				),
				values['contact.toleranceMm']
			)
		})
	),
	calculation(
		'crown-course',
		'Supply of the roots and demand of the crown before and after each root stage, by either school',
		z.strictObject({ losses: allowances, school: oneOf(crownSchools) }),
		z.object({
			stages: z.array(crownStageOutput)
		}),
		({ losses, school }, values) => ({ stages: crownCourse(losses, school, values) })
	),
	calculation(
		'crown-height',
		'Share of the crown’s height to take off the top so that a share of its leaves goes',
		z.strictObject({ crownShare: share(), shape: oneOf(crownShapes) }),
		z.object({ heightShare: number }),
		({ crownShare, shape }) => ({ heightShare: heightForCrownShare(crownShare, shape) })
	),
	calculation(
		'stage-gate',
		'Whether growth is regained before a later root stage opens, by what was measured since the last',
		z.strictObject({
			cuts: z.array(cutSchema).max(400),
			observations: z.array(observationSchema).max(20_000),
			referenceShootMm: measure(0, 5000, 'mm').nullable().default(null),
			evergreen: z.boolean().default(false)
		}),
		z.object({
			gate: stageGateOutput.nullable()
		}),
		({ cuts, observations, referenceShootMm, evergreen }, values) => ({
			gate: stageGate({ cuts }, observations, referenceShootMm, evergreen, values)
		})
	),
	calculation(
		'fronts',
		'Sides to look at a tree from, ranked by flare, spread, gaps and lean, with reasons',
		z.strictObject({ map: mapInput, most: count(1, 24).default(3) }),
		z.object({
			fronts: z.array(frontOutput)
		}),
		({ map, most }, values) => ({ fronts: differentFronts(rankFronts(map, values), most) })
	),
	calculation(
		'planting-angle',
		'What an angle and a root plane cost: roots above and below, wedge to shave, whether it stands, what to leave for next time',
		z.strictObject({
			map: mapInput,
			setting: settingSchema,
			heightM: measure(0.02, 60, 'm').nullable().default(null),
			roomShare: share().describe('Living share that may still come off this time')
		}),
		angleCostOutput.extend({
			shavedL: number,
			aboveL: number,
			fillL: number,
			thisTimeDeg: number,
			nextTimeDeg: number,
			stance: stanceOutput.nullable()
		}),
		({ map, setting, heightM, roomShare }, values) => {
			const { out, livingShare } = costOfAngle(map, setting, values);
			const { shavedL, aboveL, fillL } = ballWedges(map.ballRadiusMm, ballDepthOf(map), setting);
			const { thisTimeDeg, nextTimeDeg } = splitTilt(map, setting, roomShare, values);
			return {
				out,
				livingShare,
				shavedL,
				aboveL,
				fillL,
				thisTimeDeg,
				nextTimeDeg,
				stance: stance(map, setting, heightM, values)
			};
		}
	)
];
