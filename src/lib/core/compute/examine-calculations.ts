import { z } from 'zod';
import {
	changedTogether,
	factors,
	staggeredPlan,
	changedTogetherOutput,
	staggeredStepOutput
} from '../tree/changes';
import { actNow, actNowInput, actNowOutput } from '../examine/diagnosis/act-now';
import { adviceInput, adviceOutput, advise } from '../examine/diagnosis/advice';
import { conditionIds } from '../vocabulary/conditions';
import { diagnose, diagnosisInput, diagnosisOutput } from '../examine/diagnosis/diagnose';
import { compareLooks, comparedSignOutput } from '../examine/diagnosis/examination';
import { findingsSchema } from '../examine/diagnosis/finding';
import { cheapestCheck } from '../examine/diagnosis/neighbours';
import { nextCheckInput, nextCheckOutput, nextChecks } from '../examine/diagnosis/next-check';
import { referrals, referralOutput } from '../examine/diagnosis/referral';
import { signIds } from '../vocabulary/signs';
import { calendarDate, count, measure, oneOf } from '../vocabulary/fields';
import { ballMass, ballMassOutput } from '../examine/measuring/ball-mass';
import { ballReadings, ballSchools, ballSize, ballSizeOutput } from '../replant/lifting/ball-size';
import { liftCutRoots, soaks } from '../replant/lifting/lift';
import { liftKept, liftKeptOutput } from '../replant/lifting/lift-cost';
import { rootings } from '../replant/lifting/lift';
import { couplings, handling, liftLimit, liftLimitOutput, liftWays } from '../replant/lifting/niosh';
import { collarData, judgeCollar, collarOutput } from '../examine/measuring/collar';
import { diebackLimit, scratchTapData, diebackOutput } from '../examine/measuring/dieback';
import { impossibleCore, impossibleWeighing } from '../examine/measuring/impossible';
import { findingsOf, measurementInput } from '../examine/measuring/measurement';
import { drainGrade, drainTimeData, outflow, outflowData, outflowOutput } from '../examine/measuring/pouring';
import {
	nextSamplePlace,
	rootSample,
	rootSampleData,
	rootSampleOutput
} from '../examine/measuring/root-sample';
import { weighingData, weighPot, weighingOutput } from '../examine/measuring/weighing';
import { simulatedSoils, simulatePenetrometer } from '../simulate/penetrometer';
import { judgeCore, soilCoresData, coreOutput } from '../examine/soil/bulk-density';
import { infiltrationData, infiltrationRate, infiltrationOutput } from '../examine/soil/infiltration';
import { penetrometerData, resistanceProfile, resistanceProfileOutput } from '../examine/soil/penetrometer';
import {
	CSV_LENGTH_LIMIT,
	readPenetrometerCsv,
	penetrometerCsvOutput
} from '../examine/soil/penetrometer-csv';
import { feelAnswers, textureByFeel } from '../examine/soil/texture';
import { textureClasses, textures } from '../vocabulary/textures';
import { waterHeld, waterHeldOutput } from '../examine/soil/water-held';
import { situations } from '../vocabulary/words';
import { triageAdvice, triageLook, triageSubject, triageAdviceOutput } from '../examine/triage/triage';
import { calculation, type Calculation } from './calculation';

const number = z.number();
const grade = number.int().min(0);
const signId = z.enum(signIds as [string, ...string[]]);
const found = z.array(z.object({ signId, grade }));
const condition = () =>
	oneOf(conditionIds as [(typeof conditionIds)[number], ...(typeof conditionIds)[number][]]);

/** Calculations of the Examine stage. */
export const examineCalculations: readonly Calculation[] = [
	calculation(
		'diagnosis',
		'Chance of each condition from the signs found, leading combinations, and what speaks for and against',
		diagnosisInput,
		diagnosisOutput,
		({ findings, ...context }, values) => diagnose(context, findings, values)
	),
	calculation(
		'next-checks',
		'Checks not made yet, ranked by what they tell of causes that would change what is done, for their effort and harm',
		nextCheckInput,
		nextCheckOutput,
		({ findings, standing, ...context }, values) => nextChecks(context, findings, standing, values)
	),
	calculation(
		'advice',
		'What to do about each cause: act now, a quick check first, held back because it contradicts a likelier one, wait, or look further; and danger to people',
		adviceInput,
		adviceOutput,
		({ findings, standing, ...context }, values) =>
			advise(diagnose(context, findings, values), context, findings, standing, values)
	),
	calculation(
		'act-now',
		'Treating a condition today against waiting, both as expected losses',
		actNowInput,
		actNowOutput,
		({ conditionId, chance, ...standing }, values) => actNow(conditionId, chance, standing, values)
	),
	calculation(
		'compare-looks',
		'What changed from one look to the next',
		z.strictObject({ before: findingsSchema, after: findingsSchema }),
		z.object({
			signs: z.array(comparedSignOutput)
		}),
		({ before, after }) => ({ signs: compareLooks(before, after) })
	),
	calculation(
		'referral',
		'What of a large tree calls for a qualified arborist, and how soon',
		diagnosisInput.extend({
			trunkDiameterMm: measure(1, 3000, 'mm'),
			heightM: measure(0.02, 60, 'm').nullable().default(null)
		}),
		z.object({
			referrals: z.array(referralOutput)
		}),
		({ findings, trunkDiameterMm, heightM, ...context }, values) => ({
			referrals: referrals(
				{ situation: context.situation, trunkDiameterMm, heightM },
				findings,
				diagnose(context, findings, values),
				values
			)
		})
	),
	calculation(
		'neighbour-check',
		'The sign that tells most of one condition for its cost, in a tree of which nothing is known',
		z.strictObject({ conditionId: condition(), situation: oneOf(situations) }),
		z.object({ signId }),
		({ conditionId, situation }, values) => ({ signId: cheapestCheck(conditionId, situation, values) })
	),
	calculation(
		'measured-findings',
		'The signs that a reading of any tool speaks of',
		measurementInput.extend({ trunkDiameterMm: measure(1, 3000, 'mm').default(50) }),
		z.object({ findings: found }),
		({ raw, measuredOn, trunkDiameterMm }, values) => ({
			findings: findingsOf(raw, measuredOn, { trunkDiameterMm }, values)
		})
	),
	calculation(
		'root-sample',
		'Living share of a sample of roots with its interval, whether it decides, and where to draw the next root',
		rootSampleData,
		rootSampleOutput.extend({ next: z.object({ azimuthDeg: number, depthShare: number }) }),
		(sample, values) => ({
			...rootSample(sample, values),
			next: nextSamplePlace(sample.alive + sample.dead)
		})
	),
	calculation(
		'dieback-limit',
		'Height to which a stem lives, from scratches and taps, with its range and the next place to look',
		scratchTapData,
		diebackOutput,
		(map, values) => diebackLimit(map, values)
	),
	calculation(
		'pot-weighing',
		'Dryness of a pot by weight, and how it drinks against its neighbours',
		weighingData
			.safeExtend({ on: calendarDate() })
			.refine((input) => input.wateredOn <= input.on, {
				path: ['wateredOn'],
				error: 'must not be after the day of the weighing'
			})
			.superRefine((input, context) => {
				const found = impossibleWeighing(input);
				if (found) context.addIssue({ code: 'custom', path: found.path.split('.'), message: found.message });
			}),
		weighingOutput,
		({ on, ...weighing }, values) => weighPot(weighing, on, values)
	),
	calculation(
		'outflow',
		'Share that ran out of what was poured, and whether it channelled',
		outflowData,
		outflowOutput,
		(pour, values) => outflow(pour, values)
	),
	calculation(
		'drain-time',
		'Grade of standing water by minutes',
		drainTimeData,
		z.object({ grade }),
		(pour, values) => ({ grade: drainGrade(pour, values) })
	),
	calculation(
		'collar',
		'Flare, burial and the share of the trunk that roots lie across, before any mapping',
		collarData.extend({ trunkDiameterMm: measure(1, 3000, 'mm') }),
		collarOutput,
		({ trunkDiameterMm, ...collar }, values) => judgeCollar(collar, trunkDiameterMm, values)
	),
	calculation(
		'penetrometer-csv',
		'Readings of a penetrometer file, with what was left out and why',
		z.strictObject({
			text: z.string().max(CSV_LENGTH_LIMIT, { error: `must be at most ${CSV_LENGTH_LIMIT} characters` })
		}),
		penetrometerCsvOutput,
		({ text }) => readPenetrometerCsv(text)
	),
	calculation(
		'penetrometer-profile',
		'Resistance of soil by depth against the limits for roots',
		penetrometerData,
		resistanceProfileOutput,
		({ readings }, values) => resistanceProfile(readings, values)
	),
	calculation(
		'simulated-penetrometer',
		'Simulated: what a penetrometer would write on one of three soils, as CSV',
		z.strictObject({
			soil: oneOf(
				Object.keys(simulatedSoils) as [keyof typeof simulatedSoils, ...(keyof typeof simulatedSoils)[]]
			),
			seed: count(0, 4_294_967_295).default(1)
		}),
		z.object({ csv: z.string() }),
		({ soil, seed }) => ({ csv: simulatePenetrometer(simulatedSoils[soil], seed) })
	),
	calculation(
		'soil-cores',
		'Bulk density, porosity and air of soil cores, judged by texture',
		soilCoresData.superRefine(({ cores }, context) => {
			for (const [at, core] of cores.entries()) {
				const found = impossibleCore(core);
				if (found)
					context.addIssue({ code: 'custom', path: ['cores', at, found.path], message: found.message });
			}
		}),
		z.object({
			cores: z.array(coreOutput)
		}),
		({ cores, texture }, values) => ({ cores: cores.map((core) => judgeCore(core, texture, values)) })
	),
	calculation(
		'infiltration',
		'Steady rate of a single ring, its class, and Philip’s two terms',
		infiltrationData,
		infiltrationOutput,
		(ring, values) => infiltrationRate(ring, values)
	),
	calculation(
		'texture-by-feel',
		'Texture class from ball, ribbon and feel, with its typical sand and clay',
		feelAnswers,
		z.object({ texture: z.enum(textures), label: z.string(), sandPercent: number, clayPercent: number }),
		(answers) => {
			const texture = textureByFeel(answers);
			return { texture, ...textureClasses[texture] };
		}
	),
	calculation(
		'soil-water',
		'Water that a soil holds at wilting, field capacity and saturation, by texture (Saxton and Rawls 2006)',
		z
			.strictObject({
				sandPercent: measure(0, 100, '%'),
				clayPercent: measure(0, 60, '%'),
				organicPercent: measure(0, 8, '%').default(2.5)
			})
			.refine((soil) => soil.sandPercent + soil.clayPercent <= 100, {
				path: ['clayPercent'],
				error: 'must not make more than 100 % with the sand'
			}),
		waterHeldOutput,
		({ sandPercent, clayPercent, organicPercent }) => waterHeld(sandPercent, clayPercent, organicPercent)
	),
	calculation(
		'ball-mass',
		'Volume and mass of a root ball with its range, and people to lift it',
		z.strictObject({ diameterMm: measure(50, 10_000, 'mm'), depthMm: measure(30, 5000, 'mm') }),
		ballMassOutput,
		({ diameterMm, depthMm }, values) => ballMass(diameterMm, depthMm, values)
	),
	calculation(
		'ball-size',
		'Ball to dig for a trunk, by either school, with its least depth and the second ring',
		z.strictObject({
			trunkDiameterMm: measure(3, 1500, 'mm'),
			school: oneOf(ballSchools),
			reading: oneOf(ballReadings).default('across')
		}),
		ballSizeOutput,
		({ trunkDiameterMm, school, reading }, values) => ballSize(trunkDiameterMm, school, reading, values)
	),
	calculation(
		'lift-kept',
		'Share of the absorbing roots that came along of a lift, of what it had before, with its band',
		z.strictObject({
			trunkDiameterMm: measure(1, 3000, 'mm'),
			crownWidthMm: measure(20, 40_000, 'mm'),
			ballDiameterMm: measure(20, 10_000, 'mm'),
			ballDepthMm: measure(20, 5000, 'mm'),
			cutRoots: liftCutRoots,
			outMinutes: measure(0, 20_000, 'min').nullable().default(null),
			soak: oneOf(soaks).nullable().default(null),
			rooting: oneOf(rootings).nullable().default(null)
		}),
		liftKeptOutput,
		({ trunkDiameterMm, crownWidthMm, ...log }, values) =>
			liftKept(log, { trunkDiameterMm, crownWidthMm }, null, values)
	),
	calculation(
		'lift-limit',
		'What one person may lift (revised NIOSH equation), and how many a mass takes',
		z.strictObject({
			massKg: measure(0.1, 50_000, 'kg'),
			reachCm: measure(0, 200, 'cm'),
			startCm: measure(0, 250, 'cm'),
			travelCm: measure(0, 250, 'cm'),
			twistDeg: measure(0, 180, '°').default(0),
			coupling: oneOf(couplings).default('fair')
		}),
		liftLimitOutput.extend({
			people: number.nullable().describe('count; null where nobody can lift it so'),
			way: z.enum(liftWays)
		}),
		({ massKg, ...lift }, values) => {
			const limit = liftLimit(lift, values);
			const { people, way } = handling(massKg, limit.kg);
			return { ...limit, people: Number.isFinite(people) ? people : null, way };
		}
	),
	calculation(
		'triage',
		'Go, nurse first or leave, with reasons and the chance to live as a range',
		z.strictObject({ look: triageLook, subject: triageSubject }),
		triageAdviceOutput,
		({ look, subject }, values) => triageAdvice(look, subject, values)
	),
	calculation(
		'changed-together',
		'Changes whose effects cannot be told apart',
		z.strictObject({
			days: z
				.array(
					z.strictObject({ on: calendarDate(), factors: z.array(oneOf(factors)).min(1).max(factors.length) })
				)
				.max(2000)
		}),
		z.object({
			together: z.array(changedTogetherOutput)
		}),
		({ days }) => ({
			together: changedTogether(
				[...days].sort((a, b) => a.on.localeCompare(b.on)).map((day) => ({ ...day, notes: [] }))
			)
		})
	),
	calculation(
		'one-by-one',
		'Dates to change one thing at a time',
		z.strictObject({ factors: z.array(oneOf(factors)).min(1).max(factors.length), startOn: calendarDate() }),
		z.object({
			steps: z.array(staggeredStepOutput)
		}),
		({ factors: wanted, startOn }, values) => ({ steps: staggeredPlan(wanted, startOn, values) })
	)
];
