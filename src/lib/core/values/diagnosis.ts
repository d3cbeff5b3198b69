import { conditionIds, conditions, type ConditionId } from '../diagnosis/conditions';
import { signIds, signs, type SignId } from '../diagnosis/signs';
import type { WorkingValue } from './define';

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

/** For each sign: how often it is seen with none of the causes (leak), and how often each cause alone brings it. */
const strengths: Record<SignId, readonly [leak: number, causes: Partial<Record<ConditionId, number>>]> = {
	'wilts-wet': [
		0.02,
		{
			'root-rot': 0.65,
			'sour-root-zone': 0.5,
			'stem-rot': 0.35,
			'recent-root-loss': 0.4,
			'over-potting': 0.15
		}
	],
	'wilts-dry': [0.03, { drought: 0.8, 'dry-core': 0.6, 'pot-bound': 0.25, 'recent-root-loss': 0.2 }],
	'sticky-leaves': [0.02, { pest: 0.6 }],
	'small-early-colour': [
		0.04,
		{
			'girdling-roots': 0.5,
			'buried-collar': 0.4,
			compaction: 0.5,
			'root-rot': 0.3,
			drought: 0.3,
			'pot-bound': 0.3
		}
	],
	'one-side-thin': [
		0.04,
		{ 'girdling-roots': 0.45, 'root-rot': 0.2, 'weather-injury': 0.2, compaction: 0.15 }
	],
	'yellow-between-veins': [
		0.05,
		{ 'salt-ph-nutrient': 0.75, 'collapsed-mix': 0.2, 'sour-root-zone': 0.2, 'root-rot': 0.15 }
	],
	'windward-burn': [0.03, { 'weather-injury': 0.7, drought: 0.15 }],
	'long-bare-shoots': [0.05, { 'low-light': 0.7 }],
	'growth-stopped': [
		0.05,
		{
			'root-rot': 0.5,
			'sour-root-zone': 0.35,
			'pot-bound': 0.4,
			'girdling-roots': 0.3,
			pest: 0.2,
			'recent-root-loss': 0.4
		}
	],
	'dieback-hollow': [
		0.04,
		{
			'root-rot': 0.4,
			'girdling-roots': 0.3,
			'buried-collar': 0.25,
			'weather-injury': 0.4,
			'stem-rot': 0.4,
			drought: 0.3,
			compaction: 0.25
		}
	],
	'spongy-stem': [0.005, { 'stem-rot': 0.8, 'root-rot': 0.15 }],
	brackets: [0.004, { 'root-rot': 0.35, 'stem-rot': 0.45 }],
	'leans-rocks': [
		0.04,
		{
			'girdling-roots': 0.3,
			'root-rot': 0.3,
			'recent-root-loss': 0.45,
			'over-potting': 0.1,
			'buried-collar': 0.1
		}
	],
	'no-flare': [0.06, { 'buried-collar': 0.9, 'girdling-roots': 0.2 }],
	'girdler-seen': [0.02, { 'girdling-roots': 0.85 }],
	'stays-wet': [
		0.03,
		{
			'root-rot': 0.6,
			'sour-root-zone': 0.65,
			'over-potting': 0.7,
			'collapsed-mix': 0.5,
			'recent-root-loss': 0.4,
			'low-light': 0.3
		}
	],
	'channels-through': [0.03, { 'dry-core': 0.8, 'pot-bound': 0.35 }],
	'water-stands': [
		0.03,
		{ compaction: 0.6, 'collapsed-mix': 0.55, 'sour-root-zone': 0.4, 'pot-bound': 0.2, 'dry-core': 0.2 }
	],
	'probe-stops': [0.05, { compaction: 0.85, drought: 0.2 }],
	'roots-out-of-holes': [0.05, { 'pot-bound': 0.75 }],
	'much-empty-mix': [0.06, { 'over-potting': 0.8, 'root-rot': 0.3, 'recent-root-loss': 0.35 }],
	'lump-squeezed': [0.05, { 'collapsed-mix': 0.8, 'sour-root-zone': 0.2 }],
	'decline-after-work': [
		0.04,
		{
			'recent-root-loss': 0.75,
			'over-potting': 0.3,
			'root-rot': 0.15,
			'dry-core': 0.15,
			'buried-collar': 0.1
		}
	],
	'sour-smell': [0.01, { 'sour-root-zone': 0.75, 'root-rot': 0.6, 'collapsed-mix': 0.2 }],
	'galls-wool': [0.01, { pest: 0.45 }],
	'solid-mat': [0.05, { 'pot-bound': 0.9 }],
	'roots-dark-soft': [0.01, { 'root-rot': 0.85, 'sour-root-zone': 0.45 }],
	'no-white-tips': [
		0.15,
		{
			'root-rot': 0.7,
			'sour-root-zone': 0.6,
			'recent-root-loss': 0.4,
			drought: 0.4,
			'dry-core': 0.3,
			pest: 0.2
		}
	]
};

const situations = ['potted', 'in-ground', 'just-lifted'] as const;
type SituationWord = (typeof situations)[number];

export type PriorKey = `diagnosis.prior.${ConditionId}.${SituationWord}`;
export type LeakKey = `diagnosis.leak.${SignId}`;
/** Only the pairs listed above exist; read them through `strengthOf`. */
type StrengthKey = `diagnosis.strength.${SignId}.${ConditionId}`;

const chance = (label: string, value: number): WorkingValue => ({
	label,
	value,
	unit: 'chance',
	mark: 'ours',
	min: 0,
	max: 0.99
});

const priorValues = Object.fromEntries(
	conditionIds.flatMap((condition) =>
		situations.map((situation, index) => [
			`diagnosis.prior.${condition}.${situation}`,
			chance(
				`How common: ${conditions[condition].label}, ${situation.replace('-', ' ')}`,
				priors[condition][index] ?? 0
			)
		])
	)
) as Record<PriorKey, WorkingValue>;

const leakValues = Object.fromEntries(
	signIds.map((sign) => [
		`diagnosis.leak.${sign}`,
		chance(`Seen without any of the causes: ${signs[sign].label}`, strengths[sign][0])
	])
) as Record<LeakKey, WorkingValue>;

const strengthValues = Object.fromEntries(
	signIds.flatMap((sign) =>
		Object.entries(strengths[sign][1]).map(([condition, value]) => [
			`diagnosis.strength.${sign}.${condition}`,
			chance(`${conditions[condition as ConditionId].label} alone brings: ${signs[sign].label}`, value)
		])
	)
) as Record<StrengthKey, WorkingValue>;

export const diagnosisValues = { ...priorValues, ...leakValues, ...strengthValues };

/** Chance that a condition alone brings a sign; 0 where the pair is not in the table. */
export const strengthOf = (
	values: Readonly<Record<string, number>>,
	sign: SignId,
	condition: ConditionId
): number => values[`diagnosis.strength.${sign}.${condition}`] ?? 0;
