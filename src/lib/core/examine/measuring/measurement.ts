import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { addDays } from '../../maths/calendar';
import type { Finding } from '../diagnosis/finding';
import { signApplies, type SignId } from '../../vocabulary/signs';
import { calendarDate, id, measure, note, version } from '../../vocabulary/fields';
import { judgeCore, soilCoresData, type DensityJudgement } from '../soil/bulk-density';
import { infiltrationData, infiltrationRate } from '../soil/infiltration';
import { penetrometerData, resistanceProfile } from '../soil/penetrometer';
import { feelAnswers } from '../soil/texture';
import type { Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import { collarData, judgeCollar } from './collar';
import { diebackLimit, scratchTapData } from './dieback';
import { matGrade, slideTestData, squeezeGrade, squeezeTestData } from './hand-tests';
import { moistureData } from './moisture';
import { drainGrade, drainTimeData, outflow, outflowData } from './pouring';
import { rootSample, rootSampleData } from './root-sample';
import { weighingData, weighPot } from './weighing';

/** Tools, in the order in which they are reached for. */
export const toolNames = {
	weighing: 'Weigh',
	moisture: 'Feel or probe',
	outflow: 'Outflow',
	'drain-time': 'Drain time',
	'squeeze-test': 'Squeeze test',
	'scratch-tap': 'Scratch and tap',
	collar: 'Collar',
	'root-sample': 'Root sample',
	'slide-test': 'Slide test',
	texture: 'Texture by feel',
	penetrometer: 'Penetrometer',
	'soil-cores': 'Soil cores',
	infiltration: 'Infiltration ring'
};
export type Tool = keyof typeof toolNames;
export const tools = wordsOf(toolNames);
/** Tools that look at the soil in the ground. */
export const soilTools = [
	'texture',
	'penetrometer',
	'soil-cores',
	'infiltration'
] as const satisfies readonly Tool[];

/** Tools that want a pot: it is weighed, poured through, squeezed out of or slid off. */
const potTools: readonly Tool[] = ['weighing', 'outflow', 'drain-time', 'squeeze-test', 'slide-test'];
/** The tools that can be used on a tree as it stands. */
export const toolsFitting = (of: readonly Tool[], situation: Tree['situation']): Tool[] =>
	situation === 'potted' ? [...of] : of.filter((tool) => !potTools.includes(tool));

const textureData = feelAnswers.extend({
	organicPercent: measure(0, 8, '%').default(2.5).describe('Organic matter by mass, where known')
});

/** What was read, by tool: raw, as the hand or the instrument gave it. */
export const rawReading = z.discriminatedUnion(
	'tool',
	[
		weighingData.safeExtend({ tool: z.literal('weighing') }),
		moistureData.safeExtend({ tool: z.literal('moisture') }),
		outflowData.safeExtend({ tool: z.literal('outflow') }),
		drainTimeData.extend({ tool: z.literal('drain-time') }),
		squeezeTestData.extend({ tool: z.literal('squeeze-test') }),
		scratchTapData.safeExtend({ tool: z.literal('scratch-tap') }),
		collarData.extend({ tool: z.literal('collar') }),
		rootSampleData.safeExtend({ tool: z.literal('root-sample') }),
		slideTestData.extend({ tool: z.literal('slide-test') }),
		textureData.extend({ tool: z.literal('texture') }),
		penetrometerData.extend({ tool: z.literal('penetrometer') }),
		soilCoresData.extend({ tool: z.literal('soil-cores') }),
		infiltrationData.extend({ tool: z.literal('infiltration') })
	],
	{ error: `must name its tool, one of: ${tools.join(', ')}` }
);
export type RawReading = z.infer<typeof rawReading>;
export type RawReadingOf<T extends Tool> = Extract<RawReading, { tool: T }>;

export const measurementInput = z.strictObject({ measuredOn: calendarDate(), note: note(), raw: rawReading });
export type MeasurementInput = z.infer<typeof measurementInput>;
export const measurementSchema = measurementInput.extend({ id: id(), version: version() });
export type Measurement = z.infer<typeof measurementSchema>;

/** A sign as a reading shows it. */
export type Found = Pick<Finding, 'signId' | 'grade'>;

const some = (signId: SignId, grade: number | null): Found[] => (grade === null ? [] : [{ signId, grade }]);
const yes = (signId: SignId, present: boolean | null): Found[] =>
	present === null ? [] : [{ signId, grade: present ? 1 : 0 }];
const densityGrades: Record<DensityJudgement, number> = { ideal: 0, fair: 0, affects: 1, restricts: 2 };

/**
 * The signs that a reading speaks of, with their grades. Nothing is found where the reading does not decide.
 * @param on day of the reading
 */
export function findingsOf(
	raw: RawReading,
	on: string,
	tree: Pick<Tree, 'trunkDiameterMm'>,
	values: Values
): Found[] {
	switch (raw.tool) {
		case 'root-sample':
			return some('roots-dead-share', rootSample(raw, values).grade);
		case 'scratch-tap': {
			const { grade, next } = diebackLimit(raw, values);
			// A single scratch says little; the limit counts once it is found or the map has a few points.
			return next === null || raw.points.length >= 4 ? some('dieback-hollow', grade) : [];
		}
		case 'weighing': {
			const { staysWetGrade, light, driesFast } = weighPot(raw, on, values);
			return [
				...some('stays-wet', staysWetGrade),
				...yes('pot-light', light),
				...yes('dries-fast', driesFast)
			];
		}
		case 'outflow':
			return some('channels-through', outflow(raw, values).channels);
		case 'drain-time':
			return some('water-stands', drainGrade(raw, values));
		case 'slide-test':
			return [
				...some('solid-mat', matGrade(raw, values)),
				...yes('roots-out-of-holes', raw.outOfHoles),
				...(raw.result === 'crumbles' ? yes('much-empty-mix', true) : [])
			];
		case 'squeeze-test':
			return some('lump-squeezed', squeezeGrade(raw));
		case 'collar': {
			const { girdlerGrade, flareGrade } = judgeCollar(raw, tree.trunkDiameterMm, values);
			return [
				...some('no-flare', flareGrade),
				...some('girdler-seen', girdlerGrade),
				...yes('soil-heaped', raw.heaped),
				...yes('roots-above-flare', raw.rootsAboveFlare)
			];
		}
		case 'penetrometer': {
			const { bands } = resistanceProfile(raw.readings, values);
			const rooted = bands.filter((band) => band.fromMm < values['soil.root-depth']);
			const stops = rooted.some(
				(band) => band.hardness === 'stops' && band.fromMm < values['soil.hand-depth']
			);
			const hard = rooted.some((band) => band.hardness !== 'open');
			// Dry soil reads harder than it is to a root in spring: only its openness counts.
			if (raw.moisture === 'dry' && hard) return [];
			return some('probe-stops', stops ? 2 : hard ? 1 : 0);
		}
		case 'soil-cores':
			return some(
				'dense-soil',
				Math.max(
					...raw.cores.map((core) =>
						core.fromMm < values['soil.root-depth']
							? densityGrades[judgeCore(core, raw.texture, values).judgement]
							: 0
					)
				)
			);
		case 'infiltration': {
			const { class: rate } = infiltrationRate(raw, values);
			return some(
				'water-stands',
				rate === 'very slow' || rate === 'slow' ? 2 : rate === 'moderately slow' ? 1 : 0
			);
		}
		// How damp it is today is no sign of illness: it corrects the water of the pot.
		case 'moisture':
		case 'texture':
			return [];
	}
}

/**
 * What the measurements of the last days say on a day: for each sign the latest one, with the measurement that says so.
 */
export function measuredFindings(
	measurements: readonly Measurement[],
	on: string,
	tree: Pick<Tree, 'trunkDiameterMm' | 'situation'>,
	values: Values
): Finding[] {
	const oldest = addDays(on, -Math.round(values['diagnosis.measured-days']));
	const latest = new Map<SignId, Finding>();
	for (const measurement of [...measurements].sort((a, b) => a.measuredOn.localeCompare(b.measuredOn))) {
		if (measurement.measuredOn > on || measurement.measuredOn < oldest) continue;
		for (const { signId, grade } of findingsOf(measurement.raw, measurement.measuredOn, tree, values))
			if (signApplies(signId, tree.situation))
				latest.set(signId, { signId, grade, measuredBy: measurement.id });
	}
	return [...latest.values()];
}

const toolOfSign: Partial<Record<SignId, Tool>> = {
	'roots-dead-share': 'root-sample',
	'dieback-hollow': 'scratch-tap',
	'stays-wet': 'weighing',
	'pot-light': 'weighing',
	'dries-fast': 'weighing',
	'channels-through': 'outflow',
	'water-stands': 'drain-time',
	'solid-mat': 'slide-test',
	'roots-out-of-holes': 'slide-test',
	'much-empty-mix': 'slide-test',
	'lump-squeezed': 'squeeze-test',
	'no-flare': 'collar',
	'girdler-seen': 'collar',
	'soil-heaped': 'collar',
	'roots-above-flare': 'collar',
	'probe-stops': 'penetrometer',
	'dense-soil': 'soil-cores'
};
/** The tool that measures a sign of a tree as it stands; null for what is only looked at. */
export function toolFor(sign: SignId, situation: Tree['situation']): Tool | null {
	const tool = sign === 'water-stands' && situation === 'in-ground' ? 'infiltration' : toolOfSign[sign];
	return tool && toolsFitting([tool], situation).length > 0 ? tool : null;
}
/** Whether a word names a tool. */
export const isTool = (word: unknown): word is Tool => (tools as readonly unknown[]).includes(word);
