import {
	recentEventNames,
	recentEvents,
	seasonPhaseNames,
	seasonPhases,
	type RecentEvent,
	type SeasonPhase
} from '../diagnosis/context';
import { conditionIds, conditions, type ConditionId } from '../diagnosis/conditions';
import { procedureIds, procedures, type ProcedureId } from '../diagnosis/procedures';
import { gradeWord, signIds, signs, topGrade, type SignId } from '../diagnosis/signs';
import { groupNames, groups, type Group } from '../kinds/kind';
import { defineValues, type WorkingValue } from './define';

/** How common each condition is among trees brought in: potted, in the ground, just lifted. */
const priors: Record<ConditionId, readonly [number, number, number]> = {
	'root-rot': [0.12, 0.06, 0.05],
	'sour-root-zone': [0.15, 0.08, 0.04],
	'girdling-roots': [0.12, 0.15, 0.12],
	'buried-collar': [0.1, 0.22, 0.12],
	compaction: [0.03, 0.25, 0.06],
	'pot-bound': [0.25, 0.03, 0.04],
	'collapsed-mix': [0.15, 0.01, 0.02],
	'dry-core': [0.1, 0.02, 0.06],
	drought: [0.12, 0.12, 0.15],
	'over-potting': [0.08, 0.005, 0.03],
	'weather-injury': [0.1, 0.1, 0.12],
	pest: [0.1, 0.08, 0.06],
	'salt-ph-nutrient': [0.08, 0.08, 0.03],
	'stem-rot': [0.04, 0.06, 0.03],
	'recent-root-loss': [0.1, 0.06, 0.7],
	'low-light': [0.1, 0.04, 0.05]
};

/** By how much a group, a season or something that happened shifts the odds of a condition; 1 leaves them. */
export type Shift = Group | SeasonPhase | RecentEvent;
const shifts: Partial<Record<Shift, Partial<Record<ConditionId, number>>>> = {
	conifer: { 'root-rot': 1.2, 'low-light': 0.7 },
	tropical: { 'weather-injury': 1.6, 'low-light': 1.4 },
	succulent: { 'stem-rot': 3, 'root-rot': 1.4, drought: 0.4, 'pot-bound': 0.7, pest: 1.3 },
	ericaceous: { 'dry-core': 2, 'salt-ph-nutrient': 2.5, compaction: 1.3 },
	palm: { 'girdling-roots': 0.1, 'buried-collar': 0.5, 'salt-ph-nutrient': 1.6 },
	rest: { drought: 0.5, pest: 0.6, 'weather-injury': 1.5, 'low-light': 1.2 },
	flush: { drought: 0.8, 'weather-injury': 1.2 },
	summer: { drought: 1.5, 'weather-injury': 0.8, pest: 1.2 },
	autumn: { drought: 0.8, 'low-light': 1.1 },
	bought: { 'pot-bound': 1.8, pest: 1.6, 'weather-injury': 1.3, 'salt-ph-nutrient': 1.2, 'dry-core': 1.4 },
	repotted: {
		'recent-root-loss': 4,
		'over-potting': 3,
		'dry-core': 1.5,
		'pot-bound': 0.4,
		'collapsed-mix': 0.4
	},
	moved: { 'weather-injury': 1.8, 'low-light': 2, drought: 1.2 },
	dug: { 'recent-root-loss': 8, drought: 1.5, 'pot-bound': 0.5 },
	'cold-night': { 'weather-injury': 5, 'stem-rot': 1.3 },
	'hot-spell': { drought: 2.5, 'weather-injury': 1.8, 'dry-core': 1.5 },
	'long-rain': { 'sour-root-zone': 2.5, 'root-rot': 1.6, drought: 0.3, 'dry-core': 0.5 }
};

/** A chance for a plain sign; for a graded one, the chance of each grade or more, from 1 upward. */
type ByGrade = number | readonly number[];

/** For each sign: how often it is seen with none of the causes (leak), and how often each cause alone brings it. */
const strengths: Record<SignId, readonly [leak: ByGrade, causes: Partial<Record<ConditionId, ByGrade>>]> = {
	'wilts-wet': [
		0.02,
		{
			'root-rot': 0.65,
			'sour-root-zone': 0.5,
			'stem-rot': 0.35,
			'recent-root-loss': 0.4,
			'over-potting': 0.12
		}
	],
	'wilts-dry': [0.03, { drought: 0.8, 'dry-core': 0.6, 'pot-bound': 0.25, 'recent-root-loss': 0.15 }],
	'wilts-noon': [
		0.05,
		{
			'recent-root-loss': 0.5,
			drought: 0.45,
			'pot-bound': 0.4,
			'root-rot': 0.3,
			'girdling-roots': 0.2,
			'sour-root-zone': 0.2,
			'dry-core': 0.25
		}
	],
	'leaf-drop': [
		[0.08, 0.02],
		{
			'recent-root-loss': [0.5, 0.25],
			drought: [0.5, 0.25],
			'weather-injury': [0.5, 0.3],
			'low-light': [0.4, 0.12],
			'root-rot': [0.4, 0.2],
			'sour-root-zone': [0.35, 0.15],
			'dry-core': [0.35, 0.15],
			pest: [0.3, 0.1],
			'over-potting': [0.15, 0.05],
			'salt-ph-nutrient': [0.2, 0.05]
		}
	],
	'crown-thin': [
		[0.12, 0.02],
		{
			'root-rot': [0.5, 0.2],
			'girdling-roots': [0.45, 0.15],
			'buried-collar': [0.4, 0.12],
			compaction: [0.5, 0.15],
			'sour-root-zone': [0.3, 0.1],
			drought: [0.35, 0.12],
			pest: [0.3, 0.1],
			'low-light': [0.4, 0.1],
			'pot-bound': [0.3, 0.05],
			'stem-rot': [0.4, 0.15],
			'weather-injury': [0.35, 0.12],
			'recent-root-loss': [0.4, 0.15],
			'salt-ph-nutrient': [0.2, 0.05]
		}
	],
	'one-side-thin': [
		0.04,
		{
			'girdling-roots': 0.45,
			'root-rot': 0.2,
			'weather-injury': 0.25,
			compaction: 0.15,
			'recent-root-loss': 0.35,
			'stem-rot': 0.15
		}
	],
	'small-early-colour': [
		0.04,
		{
			'girdling-roots': 0.5,
			'buried-collar': 0.4,
			compaction: 0.5,
			'root-rot': 0.3,
			drought: 0.3,
			'pot-bound': 0.3,
			'sour-root-zone': 0.2
		}
	],
	'short-shoots': [
		[0.15, 0.04],
		{
			compaction: [0.6, 0.35],
			'pot-bound': [0.6, 0.3],
			'girdling-roots': [0.5, 0.25],
			'buried-collar': [0.4, 0.2],
			'root-rot': [0.5, 0.3],
			'sour-root-zone': [0.4, 0.2],
			drought: [0.4, 0.2],
			'recent-root-loss': [0.5, 0.3],
			'collapsed-mix': [0.4, 0.15],
			'salt-ph-nutrient': [0.2, 0.08]
		}
	],
	'growth-stopped': [
		0.05,
		{
			'root-rot': 0.5,
			'sour-root-zone': 0.35,
			'pot-bound': 0.35,
			'girdling-roots': 0.25,
			pest: 0.2,
			'recent-root-loss': 0.35,
			'dry-core': 0.2,
			'over-potting': 0.2
		}
	],
	'buds-late': [
		0.04,
		{
			'weather-injury': 0.4,
			'root-rot': 0.35,
			'recent-root-loss': 0.4,
			'sour-root-zone': 0.25,
			'stem-rot': 0.25,
			drought: 0.2
		}
	],
	'curled-new-leaf': [
		0.06,
		{
			pest: 0.35,
			'root-rot': 0.2,
			drought: 0.3,
			'recent-root-loss': 0.25,
			'weather-injury': 0.2,
			'sour-root-zone': 0.15
		}
	],
	'shrivelled-leaves': [
		0.03,
		{
			drought: 0.65,
			'dry-core': 0.5,
			'recent-root-loss': 0.3,
			'root-rot': 0.25,
			'pot-bound': 0.15,
			'stem-rot': 0.2
		}
	],
	'yellow-between-veins': [
		0.05,
		{ 'salt-ph-nutrient': 0.7, 'collapsed-mix': 0.15, 'sour-root-zone': 0.2, 'root-rot': 0.12 }
	],
	'yellow-all-over': [
		0.06,
		{
			'salt-ph-nutrient': 0.3,
			'pot-bound': 0.4,
			'sour-root-zone': 0.4,
			'collapsed-mix': 0.3,
			'low-light': 0.25,
			'root-rot': 0.3,
			'over-potting': 0.2
		}
	],
	'tip-burn': [
		0.08,
		{
			'salt-ph-nutrient': 0.6,
			drought: 0.4,
			'weather-injury': 0.35,
			'dry-core': 0.3,
			'recent-root-loss': 0.2,
			'root-rot': 0.15
		}
	],
	'windward-burn': [0.03, { 'weather-injury': 0.7, drought: 0.12 }],
	'after-cold': [0.01, { 'weather-injury': 0.6 }],
	'batch-failing': [
		0.03,
		{
			'weather-injury': 0.35,
			pest: 0.25,
			'salt-ph-nutrient': 0.15,
			'collapsed-mix': 0.15,
			'root-rot': 0.15,
			'sour-root-zone': 0.15
		}
	],
	'long-bare-shoots': [0.05, { 'low-light': 0.7 }],
	'inner-leaves-gone': [0.06, { 'low-light': 0.6, pest: 0.1, drought: 0.1 }],
	'sticky-leaves': [0.02, { pest: 0.6 }],
	'insects-seen': [[0.06, 0.01], { pest: [0.75, 0.5] }],
	'stress-crop': [
		0.04,
		{
			'girdling-roots': 0.2,
			drought: 0.2,
			compaction: 0.15,
			'buried-collar': 0.15,
			'root-rot': 0.15,
			'pot-bound': 0.15
		}
	],
	'dieback-hollow': [
		[0.12, 0.03, 0.006],
		{
			'root-rot': [0.5, 0.3, 0.12],
			'girdling-roots': [0.4, 0.2, 0.03],
			'buried-collar': [0.3, 0.15, 0.02],
			'weather-injury': [0.5, 0.25, 0.06],
			'stem-rot': [0.5, 0.35, 0.2],
			drought: [0.4, 0.2, 0.04],
			compaction: [0.35, 0.12, 0.01],
			'sour-root-zone': [0.35, 0.15, 0.03],
			'recent-root-loss': [0.45, 0.2, 0.05]
		}
	],
	'spongy-stem': [0.005, { 'stem-rot': 0.8, 'root-rot': 0.1 }],
	'stem-bleeds': [0.015, { 'stem-rot': 0.45, 'root-rot': 0.15, pest: 0.08 }],
	'dark-under-bark': [0.01, { 'stem-rot': 0.7, 'root-rot': 0.35, 'buried-collar': 0.12 }],
	'bark-cracks': [[0.06, 0.02], { 'weather-injury': [0.4, 0.15], 'stem-rot': [0.25, 0.15] }],
	'bark-scald': [0.02, { 'weather-injury': 0.4 }],
	suckers: [
		0.12,
		{
			'girdling-roots': 0.25,
			'stem-rot': 0.25,
			'buried-collar': 0.2,
			'root-rot': 0.2,
			'weather-injury': 0.25
		}
	],
	'holes-sawdust': [0.02, { pest: 0.3, 'stem-rot': 0.15 }],
	'nests-in-wood': [0.01, { 'stem-rot': 0.35, 'root-rot': 0.15 }],
	brackets: [0.004, { 'root-rot': 0.35, 'stem-rot': 0.45 }],
	'soil-lifted': [0.004, { 'root-rot': 0.2, 'recent-root-loss': 0.2, 'girdling-roots': 0.05 }],
	'leans-rocks': [
		[0.06, 0.02],
		{
			'girdling-roots': [0.3, 0.15],
			'root-rot': [0.4, 0.25],
			'recent-root-loss': [0.5, 0.25],
			'over-potting': [0.15, 0.03],
			'buried-collar': [0.1, 0.03],
			'stem-rot': [0.3, 0.2]
		}
	],
	'no-flare': [[0.15, 0.05], { 'buried-collar': [0.93, 0.8], 'girdling-roots': [0.2, 0.1] }],
	'soil-heaped': [0.1, { 'buried-collar': 0.6, 'stem-rot': 0.15 }],
	'bark-groove': [0.02, { 'girdling-roots': 0.7 }],
	'roots-above-flare': [0.03, { 'buried-collar': 0.65, 'girdling-roots': 0.15 }],
	'girdler-seen': [[0.06, 0.008, 0.002], { 'girdling-roots': [0.92, 0.75, 0.4] }],
	'collar-bark-dark': [0.02, { 'buried-collar': 0.35, 'stem-rot': 0.6, 'root-rot': 0.2 }],
	'roots-rise': [
		0.08,
		{ compaction: 0.45, 'buried-collar': 0.2, 'girdling-roots': 0.3, 'pot-bound': 0.1, 'sour-root-zone': 0.2 }
	],
	'stays-wet': [
		[0.08, 0.015],
		{
			'root-rot': [0.65, 0.35],
			'sour-root-zone': [0.75, 0.45],
			'over-potting': [0.8, 0.5],
			'collapsed-mix': [0.6, 0.3],
			'recent-root-loss': [0.45, 0.15],
			'low-light': [0.5, 0.15]
		}
	],
	'dries-fast': [0.05, { 'pot-bound': 0.7, 'dry-core': 0.5, drought: 0.2 }],
	'pot-light': [0.06, { drought: 0.8, 'dry-core': 0.8, 'pot-bound': 0.25 }],
	'channels-through': [0.03, { 'dry-core': 0.75, 'pot-bound': 0.25 }],
	'water-beads': [0.03, { 'dry-core': 0.65, drought: 0.1 }],
	'water-stands': [
		[0.12, 0.03],
		{
			compaction: [0.75, 0.5],
			'collapsed-mix': [0.75, 0.5],
			'sour-root-zone': [0.6, 0.35],
			'pot-bound': [0.3, 0.08],
			'dry-core': [0.25, 0.1]
		}
	],
	'dry-pockets': [0.04, { 'dry-core': 0.7, drought: 0.2, 'pot-bound': 0.2 }],
	'core-dry': [0.02, { 'dry-core': 0.8, drought: 0.1, 'pot-bound': 0.12 }],
	'holes-blocked': [0.03, { 'sour-root-zone': 0.5, 'collapsed-mix': 0.15 }],
	'moss-algae': [
		0.1,
		{ 'sour-root-zone': 0.45, 'collapsed-mix': 0.35, 'low-light': 0.25, 'over-potting': 0.15 }
	],
	'white-crust': [0.06, { 'salt-ph-nutrient': 0.6 }],
	'fed-salted': [0.1, { 'salt-ph-nutrient': 0.55 }],
	'conductivity-high': [0.03, { 'salt-ph-nutrient': 0.7 }],
	'ph-off': [0.06, { 'salt-ph-nutrient': 0.6 }],
	'probe-stops': [[0.12, 0.03], { compaction: [0.92, 0.75], drought: [0.4, 0.15] }],
	'dense-soil': [[0.12, 0.02], { compaction: [0.93, 0.65] }],
	traffic: [0.1, { compaction: 0.7 }],
	'trench-near': [0.03, { 'recent-root-loss': 0.45, compaction: 0.15 }],
	'roots-out-of-holes': [0.06, { 'pot-bound': 0.75 }],
	'much-empty-mix': [0.06, { 'over-potting': 0.75, 'root-rot': 0.3, 'recent-root-loss': 0.35 }],
	'pot-too-wide': [0.05, { 'over-potting': 0.8 }],
	'lump-squeezed': [[0.15, 0.04], { 'collapsed-mix': [0.88, 0.65], 'sour-root-zone': [0.35, 0.15] }],
	'mix-sunken': [0.06, { 'collapsed-mix': 0.6, 'sour-root-zone': 0.15 }],
	'soil-sinks': [0.05, { 'dry-core': 0.15, 'collapsed-mix': 0.2, 'recent-root-loss': 0.2 }],
	'dim-place': [0.06, { 'low-light': 0.75 }],
	'decline-after-work': [
		0.04,
		{
			'recent-root-loss': 0.75,
			'over-potting': 0.35,
			'root-rot': 0.12,
			'dry-core': 0.15,
			'buried-collar': 0.1,
			'weather-injury': 0.2,
			'low-light': 0.15
		}
	],
	'sour-smell': [
		[0.04, 0.008],
		{ 'sour-root-zone': [0.75, 0.5], 'root-rot': [0.6, 0.35], 'collapsed-mix': [0.2, 0.05] }
	],
	'stake-rotted': [0.03, { 'sour-root-zone': 0.4, 'root-rot': 0.15, 'collapsed-mix': 0.2 }],
	'galls-wool': [0.01, { pest: 0.4 }],
	'root-grubs': [0.02, { pest: 0.35 }],
	'solid-mat': [[0.25, 0.05], { 'pot-bound': [0.95, 0.88] }],
	'black-below': [0.02, { 'sour-root-zone': 0.55, 'root-rot': 0.25 }],
	'roots-dark-soft': [0.015, { 'root-rot': 0.88, 'sour-root-zone': 0.4 }],
	'roots-brittle': [0.03, { drought: 0.6, 'dry-core': 0.4, 'weather-injury': 0.2, 'recent-root-loss': 0.2 }],
	'roots-dead-share': [
		[0.1, 0.02],
		{
			'root-rot': [0.9, 0.6],
			'sour-root-zone': [0.6, 0.25],
			drought: [0.45, 0.2],
			'dry-core': [0.4, 0.1],
			'recent-root-loss': [0.3, 0.1],
			pest: [0.25, 0.05],
			'weather-injury': [0.25, 0.1]
		}
	],
	'torn-roots': [0.04, { 'recent-root-loss': 0.7 }],
	'no-white-tips': [
		0.15,
		{
			'root-rot': 0.7,
			'sour-root-zone': 0.6,
			'recent-root-loss': 0.45,
			drought: 0.45,
			'dry-core': 0.3,
			pest: 0.2,
			'weather-injury': 0.2
		}
	]
};

/**
 * What follows from leaving a condition alone and from treating it, as shares of the tree's chance to live:
 * lost in each month of waiting, lost by the treatment itself (in its window, or when it was the wrong one), and how much
 * of the harm of waiting the treatment averts.
 */
const treatment: Record<ConditionId, readonly [lossPerMonth: number, disturbance: number, averts: number]> = {
	'root-rot': [0.3, 0.06, 0.7],
	'sour-root-zone': [0.18, 0.03, 0.8],
	'girdling-roots': [0.02, 0.03, 0.8],
	'buried-collar': [0.008, 0.01, 0.8],
	compaction: [0.01, 0.01, 0.6],
	'pot-bound': [0.012, 0.04, 0.8],
	'collapsed-mix': [0.03, 0.05, 0.8],
	'dry-core': [0.2, 0.02, 0.9],
	drought: [0.35, 0.05, 0.9],
	'over-potting': [0.03, 0.04, 0.7],
	'weather-injury': [0.05, 0.02, 0.4],
	pest: [0.08, 0.02, 0.8],
	'salt-ph-nutrient': [0.05, 0.02, 0.8],
	'stem-rot': [0.3, 0.04, 0.5],
	'recent-root-loss': [0.12, 0.02, 0.5],
	'low-light': [0.04, 0.02, 0.9]
};

const situations = ['potted', 'in-ground', 'just-lifted'] as const;
type SituationWord = (typeof situations)[number];

export type PriorKey = `diagnosis.prior.${ConditionId}.${SituationWord}`;
export type LeakKey = `diagnosis.leak.${SignId}`;
export type MinutesKey = `diagnosis.minutes.${SignId}`;
export type HarmKey = `diagnosis.harm.${ProcedureId}`;
export type TreatmentKey = `diagnosis.${'loss' | 'disturbance' | 'averts'}.${ConditionId}`;
/** Only what is listed above exists; read it through `shiftOf`, `leakOf` and `strengthOf`. */
type SparseKey = `diagnosis.shift.${Shift}.${ConditionId}` | `diagnosis.strength.${string}`;

const ours = (label: string, value: number, unit: string, min: number, max: number): WorkingValue => ({
	label,
	value,
	unit,
	mark: 'ours',
	min,
	max
});
const chance = (label: string, value: number): WorkingValue => ours(label, value, 'chance', 0, 0.99);
const record = <K extends string>(entries: [string, WorkingValue][]): Record<K, WorkingValue> =>
	Object.fromEntries(entries) as Record<K, WorkingValue>;

const priorValues = record<PriorKey>(
	conditionIds.flatMap((condition) =>
		situations.map((situation, index): [string, WorkingValue] => [
			`diagnosis.prior.${condition}.${situation}`,
			chance(
				`How common: ${conditions[condition].label}, ${situation.replace('-', ' ')}`,
				priors[condition][index] ?? 0
			)
		])
	)
);

const shiftNames: Record<Shift, string> = { ...groupNames, ...seasonPhaseNames, ...recentEventNames };
const shiftValues = record<SparseKey>(
	[...groups, ...seasonPhases, ...recentEvents].flatMap((shift) =>
		Object.entries(shifts[shift] ?? {}).map(([condition, factor]): [string, WorkingValue] => [
			`diagnosis.shift.${shift}.${condition}`,
			ours(
				`${shiftNames[shift]}: odds of ${conditions[condition as ConditionId].label.toLowerCase()}`,
				factor,
				'×',
				0.01,
				100
			)
		])
	)
);

const atGrade = (value: ByGrade, grade: number): number =>
	typeof value === 'number' ? (grade === 1 ? value : 0) : (value[grade - 1] ?? 0);
/** A sign at a grade or more: the first grade has the plain name. */
const signKey = (sign: SignId, grade: number): string => (grade === 1 ? sign : `${sign}@${grade}`);
const gradesFrom1 = (sign: SignId): number[] => Array.from({ length: topGrade(sign) }, (_, i) => i + 1);
const seenAs = (sign: SignId, grade: number): string =>
	topGrade(sign) === 1 ? signs[sign].label : `${signs[sign].label}, ${gradeWord(sign, grade)}`;

const leakValues = record<LeakKey>(
	signIds.flatMap((sign) =>
		gradesFrom1(sign).map((grade): [string, WorkingValue] => [
			`diagnosis.leak.${signKey(sign, grade)}`,
			chance(`Seen without any of the causes: ${seenAs(sign, grade)}`, atGrade(strengths[sign][0], grade))
		])
	)
);

const strengthValues = record<SparseKey>(
	signIds.flatMap((sign) =>
		Object.entries(strengths[sign][1]).flatMap(([condition, value]) =>
			gradesFrom1(sign).map((grade): [string, WorkingValue] => [
				`diagnosis.strength.${signKey(sign, grade)}.${condition}`,
				chance(
					`${conditions[condition as ConditionId].label} alone brings: ${seenAs(sign, grade)}`,
					atGrade(value, grade)
				)
			])
		)
	)
);

const treatmentValues = record<TreatmentKey>(
	conditionIds.flatMap((condition): [string, WorkingValue][] => {
		const [loss, disturbance, averts] = treatment[condition];
		const { label } = conditions[condition];
		return [
			[
				`diagnosis.loss.${condition}`,
				ours(`${label}: chance to live lost in each month of waiting`, loss, 'share', 0, 1)
			],
			[
				`diagnosis.disturbance.${condition}`,
				ours(
					`${label}: chance to live lost by treating it, in its window where it is at the roots`,
					disturbance,
					'share',
					0,
					1
				)
			],
			[
				`diagnosis.averts.${condition}`,
				ours(`${label}: share of that loss which treatment averts`, averts, 'share', 0, 1)
			]
		];
	})
);

const minutesValues = record<MinutesKey>(
	signIds.map((sign) => [
		`diagnosis.minutes.${sign}`,
		ours(`Minutes to look for: ${signs[sign].label}`, signs[sign].minutes, 'min', 0.2, 240)
	])
);
const harmValues = record<HarmKey>(
	procedureIds.map((procedure) => [
		`diagnosis.harm.${procedure}`,
		ours(
			`Chance to live lost by ${procedures[procedure].label}, fair tree in its window`,
			procedures[procedure].harm,
			'share',
			0,
			1
		)
	])
);

const rules = defineValues({
	'diagnosis.flush-weeks': ours('First flush: weeks from the beginning of growth', 8, 'weeks', 0, 30),
	'diagnosis.ending-weeks': ours('Growth ending: last weeks of the growing season', 6, 'weeks', 0, 30),
	'diagnosis.harm-season.in-window': ours('Disturbance in the window counts', 1, '×', 0, 10),
	'diagnosis.harm-season.shoulder': ours('Disturbance on the shoulder of the window counts', 1.6, '×', 0, 10),
	'diagnosis.harm-season.out-of-window': ours('Disturbance out of the window counts', 2.5, '×', 0, 10),
	'diagnosis.harm-vigour.strong': ours('Disturbance of a strong tree counts', 0.7, '×', 0, 10),
	'diagnosis.harm-vigour.fair': ours('Disturbance of a fair tree counts', 1, '×', 0, 10),
	'diagnosis.harm-vigour.weak': ours('Disturbance of a weak tree counts', 2, '×', 0, 10),
	'diagnosis.harm-open-roots': ours('Looking at roots that lie open already counts', 0.2, '×', 0, 1),
	'diagnosis.minutes-for-a-life': ours(
		'Minutes of looking that weigh as much as the whole tree',
		2000,
		'min',
		10,
		1_000_000
	),
	'diagnosis.dying-speed': ours('Where it fails within weeks, waiting costs', 2.5, '×', 1, 20),
	'diagnosis.look-again-months': ours('Without a window to wait for, waiting means', 1, 'months', 0.1, 12),
	'diagnosis.serious-girdling': ours('Girdled over a third of the trunk, waiting costs', 3, '×', 1, 20),
	'diagnosis.measured-days': ours('A measurement counts in a look for', 14, 'days', 1, 365),
	'diagnosis.likely': ours('A cause is called likely from', 0.5, 'chance', 0.05, 0.99),
	'diagnosis.neighbours-from': ours(
		'Neighbours are listed when a cause that spreads stands above',
		0.4,
		'chance',
		0.01,
		0.99
	),
	'diagnosis.large-trunk-mm': ours('A standing tree is large from a trunk of', 200, 'mm', 20, 3000),
	'diagnosis.large-height-m': ours('or a height of', 8, 'm', 1, 60),
	'diagnosis.unusual-together': ours(
		'Findings are called unusual together when they are rarer by',
		4,
		'×',
		2,
		1_000_000
	)
});

export const diagnosisValues = {
	...priorValues,
	...shiftValues,
	...leakValues,
	...strengthValues,
	...treatmentValues,
	...minutesValues,
	...harmValues,
	...rules
};

type Numbers = Readonly<Record<string, number>>;

/** Chance that a condition alone brings a sign at a grade or more; 0 where the pair is not in the table. */
export function strengthOf(values: Numbers, sign: SignId, condition: ConditionId, grade = 1): number {
	let least = 1;
	// A higher grade is never likelier than a lower one, whatever an owner has put in.
	for (let g = 1; g <= grade; g++)
		least = Math.min(least, values[`diagnosis.strength.${signKey(sign, g)}.${condition}`] ?? 0);
	return least;
}

/** Chance that a sign is seen at a grade or more with none of the causes. */
export function leakOf(values: Numbers, sign: SignId, grade = 1): number {
	let least = 1;
	for (let g = 1; g <= grade; g++) least = Math.min(least, values[`diagnosis.leak.${signKey(sign, g)}`] ?? 0);
	return least;
}

/** Factor on the odds of a condition by a group, season or event; 1 where the pair is not in the table. */
export const shiftOf = (values: Numbers, shift: Shift, condition: ConditionId): number =>
	values[`diagnosis.shift.${shift}.${condition}`] ?? 1;

/** The keys behind one sign: its leaks, then what each condition does, as far as they exist. */
export const keysOfSign = (sign: SignId): string[] => {
	const grades = gradesFrom1(sign).map((grade) => signKey(sign, grade));
	return [
		...grades.map((key) => `diagnosis.leak.${key}`),
		...Object.keys(strengths[sign][1]).flatMap((condition) =>
			grades.map((key) => `diagnosis.strength.${key}.${condition}`)
		)
	];
};
