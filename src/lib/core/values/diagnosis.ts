import { midSentence } from '../text/mid-sentence';
import {
	recentEventNames,
	recentEvents,
	seasonPhaseNames,
	seasonPhases,
	type RecentEvent,
	type SeasonPhase
} from '../vocabulary/season-and-events';
import { conditionIds, conditions, type ConditionId } from '../vocabulary/conditions';
import { procedureIds, procedures, type ProcedureId } from '../vocabulary/procedures';
import { gradeWord, signIds, signs, topGrade, type SignId } from '../vocabulary/signs';
import { worldPartNames, type WorldPart } from '../vocabulary/world-parts';
import { groupNames, groups, type Group } from '../vocabulary/kind';
import { defineValues, type WorkingValue, ours } from './define';

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
	'low-light': [0.1, 0.04, 0.05],
	'not-used-to-place': [0.06, 0.02, 0.04],
	'pot-too-small': [0.06, 0.002, 0.01],
	'uneven-water': [0.05, 0.02, 0.04],
	'repotted-too-early': [0.03, 0.002, 0.02],
	'graft-trouble': [0.01, 0.02, 0.01],
	'chemical-injury': [0.015, 0.03, 0.01],
	'vascular-wilt': [0.01, 0.02, 0.01],
	'root-killing-fungus': [0.005, 0.025, 0.01],
	'rising-water': [0.002, 0.03, 0.01],
	'soil-gas': [0, 0.004, 0],
	dead: [0.03, 0.03, 0.04],
	'something-else': [0.05, 0.05, 0.05]
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
	bought: {
		'not-used-to-place': 8,
		'pot-bound': 1.8,
		pest: 1.6,
		'weather-injury': 1.3,
		'salt-ph-nutrient': 1.2,
		'dry-core': 1.4
	},
	repotted: {
		'repotted-too-early': 10,
		'pot-too-small': 0.3,
		'recent-root-loss': 4,
		'over-potting': 3,
		'dry-core': 1.5,
		'pot-bound': 0.4,
		'collapsed-mix': 0.4
	},
	moved: { 'not-used-to-place': 5, 'weather-injury': 1.8, 'low-light': 2, drought: 1.2 },
	dug: { 'recent-root-loss': 8, drought: 1.5, 'pot-bound': 0.5 },
	'cold-night': { 'weather-injury': 5, 'stem-rot': 1.3 },
	'hot-spell': { 'pot-too-small': 1.5, drought: 2.5, 'weather-injury': 1.8, 'dry-core': 1.5 },
	'long-rain': { 'rising-water': 3, 'sour-root-zone': 2.5, 'root-rot': 1.6, drought: 0.3, 'dry-core': 0.5 }
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
		0.18,
		{
			'stem-rot': 0.25,
			'root-rot': 0.22,
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
			'girdling-roots': [0.1, 0.04],
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
	'roots-rise': [0.15, { compaction: 0.45, 'buried-collar': 0.2, 'sour-root-zone': 0.2 }],
	'stays-wet': [
		[0.08, 0.015],
		{
			'root-rot': [0.75, 0.45],
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
	'holes-blocked': [0.03, { 'sour-root-zone': 0.5, 'root-rot': 0.3, 'collapsed-mix': 0.15 }],
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
	'mix-shrunk': [0.03, { 'dry-core': 0.5, drought: 0.45, 'pot-bound': 0.1 }],
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
		{ 'sour-root-zone': [0.75, 0.45], 'root-rot': [0.75, 0.45], 'collapsed-mix': [0.2, 0.05] }
	],
	'stake-rotted': [0.03, { 'sour-root-zone': 0.4, 'root-rot': 0.15, 'collapsed-mix': 0.2 }],
	'galls-wool': [0.01, { pest: 0.4 }],
	'root-grubs': [0.02, { pest: 0.35 }],
	'solid-mat': [[0.25, 0.05], { 'pot-bound': [0.95, 0.88] }],
	'black-below': [0.02, { 'sour-root-zone': 0.55, 'root-rot': 0.25 }],
	'roots-dark-soft': [0.01, { 'root-rot': 0.92, 'sour-root-zone': 0.05 }],
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
	'branch-by-branch': [0.02, {}],
	'low-leaves-first': [0.08, {}],
	'twisted-growth': [0.02, {}],
	'beside-alike': [0.02, {}],
	'sprayed-near': [0.04, {}],
	'no-green-bark': [[0.03, 0.004], {}],
	'twigs-snap': [0.02, {}],
	'ring-in-twig': [0.01, {}],
	'union-crack': [0.02, {}],
	'white-fans': [0.004, {}],
	bootlaces: [0.01, {}],
	'watered-as-before': [0.15, {}],
	'pot-shallow': [0.06, {}],
	'one-side-dry': [0.04, {}],
	'gas-smell': [0.002, {}],
	'hole-fills': [0.02, {}],
	'light-changed': [0.08, {}],
	'roots-one-side': [0.05, {}],
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

/** The same by condition, where that reads better. */
const byCondition: Partial<Record<ConditionId, Partial<Record<SignId, ByGrade>>>> = {
	'not-used-to-place': {
		'leaf-drop': [0.7, 0.3],
		'light-changed': 0.6,
		'decline-after-work': 0.5,
		'inner-leaves-gone': 0.3,
		'growth-stopped': 0.25,
		'yellow-all-over': 0.15
	},
	'pot-too-small': {
		'pot-shallow': 0.8,
		'dries-fast': 0.7,
		'wilts-noon': 0.4,
		'wilts-dry': 0.3,
		'pot-light': 0.25,
		'short-shoots': [0.5, 0.2],
		'growth-stopped': 0.35,
		'leans-rocks': [0.2, 0.05]
	},
	'uneven-water': {
		'one-side-dry': 0.75,
		'roots-one-side': 0.55,
		'dry-pockets': 0.45,
		'one-side-thin': 0.4,
		'leans-rocks': [0.3, 0.1]
	},
	'repotted-too-early': {
		'decline-after-work': 0.75,
		'watered-as-before': 0.6,
		'stays-wet': [0.7, 0.35],
		'much-empty-mix': 0.5,
		'growth-stopped': 0.35,
		'wilts-wet': 0.2,
		'leaf-drop': [0.3, 0.1]
	},
	'graft-trouble': {
		'union-crack': 0.75,
		suckers: 0.5,
		'dieback-hollow': [0.4, 0.25, 0.03],
		'one-side-thin': 0.3,
		'crown-thin': [0.3, 0.1],
		'leans-rocks': [0.1, 0.03]
	},
	'chemical-injury': {
		'twisted-growth': 0.7,
		'beside-alike': 0.6,
		'sprayed-near': 0.75,
		'curled-new-leaf': 0.5,
		'tip-burn': 0.3,
		'yellow-between-veins': 0.2,
		'leaf-drop': [0.3, 0.15],
		'windward-burn': 0.2
	},
	'vascular-wilt': {
		'branch-by-branch': 0.75,
		'ring-in-twig': 0.75,
		'one-side-thin': 0.5,
		'dieback-hollow': [0.6, 0.35, 0.08],
		'leaf-drop': [0.3, 0.15],
		'wilts-wet': 0.35,
		'yellow-all-over': 0.2
	},
	'root-killing-fungus': {
		'white-fans': 0.8,
		bootlaces: 0.6,
		brackets: 0.45,
		'stem-bleeds': 0.4,
		'dark-under-bark': 0.5,
		'crown-thin': [0.5, 0.2],
		'dieback-hollow': [0.5, 0.3, 0.1],
		'beside-alike': 0.2,
		'small-early-colour': 0.3,
		'no-white-tips': 0.4
	},
	'rising-water': {
		'hole-fills': 0.85,
		'low-leaves-first': 0.5,
		'water-stands': [0.5, 0.3],
		'sour-smell': [0.5, 0.25],
		'beside-alike': 0.35,
		'wilts-wet': 0.5,
		'yellow-all-over': 0.35,
		'moss-algae': 0.35,
		'no-white-tips': 0.4
	},
	'soil-gas': {
		'gas-smell': 0.8,
		'beside-alike': 0.7,
		'sour-smell': [0.3, 0.15],
		'crown-thin': [0.5, 0.25],
		'leaf-drop': [0.5, 0.3],
		'dieback-hollow': [0.4, 0.2, 0.05]
	},
	dead: {
		'no-green-bark': [0.97, 0.85],
		'twigs-snap': 0.95,
		'dieback-hollow': [0.98, 0.96, 0.9],
		'crown-thin': [0.97, 0.95],
		'leaf-drop': [0.6, 0.5],
		'buds-late': 0.95,
		'roots-brittle': 0.7,
		'no-white-tips': 0.97,
		'roots-dead-share': [0.97, 0.95],
		'stays-wet': [0.4, 0.2]
	}
};
for (const [condition, found] of Object.entries(byCondition))
	for (const [sign, value] of Object.entries(found))
		(strengths[sign as SignId][1] as Record<string, ByGrade>)[condition] = value;

/**
 * Opposites. A root zone is wet, dry or neither, tight, roomy or as usual, a tree alive or dead: causes of the one are rare in the
 * other (odds), and its signs seldom show there (share that still does). A wet, sour pot is not in drought unless a dry pocket was
 * found; what shows life is not dead.
 */
const wrongWorld: Partial<Record<WorldPart, Partial<Record<ConditionId, number>>>> = {
	even: {
		drought: 0.2,
		'dry-core': 0.6,
		'sour-root-zone': 0.25,
		'over-potting': 0.5,
		'rising-water': 0.25,
		'repotted-too-early': 0.5,
		'pot-too-small': 0.7
	},
	wet: {
		drought: 0.03,
		'dry-core': 0.12,
		'pot-too-small': 0.15,
		'root-rot': 2,
		'sour-root-zone': 3,
		'over-potting': 2.5,
		'rising-water': 4,
		'repotted-too-early': 2
	},
	dry: {
		'sour-root-zone': 0.05,
		'over-potting': 0.06,
		'rising-water': 0.05,
		'repotted-too-early': 0.08,
		'root-rot': 0.4,
		'collapsed-mix': 0.3,
		drought: 4,
		'dry-core': 3
	},
	tight: { 'over-potting': 0.05, 'repotted-too-early': 0.3, 'pot-bound': 3, 'pot-too-small': 2 },
	roomy: { 'pot-bound': 0.06, 'pot-too-small': 0.05, 'over-potting': 3, 'repotted-too-early': 1.5 }
};
const hidden: Partial<Record<WorldPart, Partial<Record<SignId, number>>>> = {
	even: {
		'stays-wet': 0.4,
		'wilts-wet': 0.4,
		'water-stands': 0.7,
		'holes-blocked': 0.6,
		'sour-smell': 0.5,
		'hole-fills': 0.3,
		'pot-light': 0.5,
		'wilts-dry': 0.35,
		'dries-fast': 0.6,
		'mix-shrunk': 0.5
	},
	dry: {
		'stays-wet': 0.06,
		'wilts-wet': 0.06,
		'water-stands': 0.35,
		'holes-blocked': 0.35,
		'sour-smell': 0.12,
		'stake-rotted': 0.35,
		'moss-algae': 0.4,
		'black-below': 0.35,
		'hole-fills': 0.08,
		'roots-dark-soft': 0.5
	},
	wet: {
		'pot-light': 0.08,
		'wilts-dry': 0.12,
		'dries-fast': 0.1,
		'core-dry': 0.5,
		'dry-pockets': 0.7,
		'one-side-dry': 0.7,
		'channels-through': 0.3,
		'water-beads': 0.3,
		'mix-shrunk': 0.12,
		'roots-brittle': 0.3
	},
	tight: { 'much-empty-mix': 0.08, 'pot-too-wide': 0.2 },
	roomy: { 'solid-mat': 0.2, 'roots-out-of-holes': 0.25, 'pot-shallow': 0.1 },
	dead: {
		'wilts-noon': 0.02,
		'curled-new-leaf': 0.03,
		'long-bare-shoots': 0.1,
		'yellow-between-veins': 0.05,
		'yellow-all-over': 0.1,
		'growth-stopped': 0.2,
		suckers: 0.08,
		'sticky-leaves': 0.1,
		'wilts-wet': 0.3,
		'small-early-colour': 0.1,
		'inner-leaves-gone': 0.1
	}
};

/** What is seen of a cause that has no name here: anything, a little. By grade. */
const unnamed = [0.22, 0.1, 0.04] as const;
/** Signs that hardly come of anything but what is named. */
const telling: readonly SignId[] = [
	'no-green-bark',
	'twigs-snap',
	'gas-smell',
	'white-fans',
	'bootlaces',
	'ring-in-twig',
	'hole-fills',
	'union-crack',
	'roots-dark-soft',
	'no-flare',
	'girdler-seen',
	'solid-mat',
	'sour-smell',
	'pot-shallow',
	'watered-as-before',
	'twisted-growth'
];
for (const sign of signIds.filter((id) => !telling.includes(id)))
	(strengths[sign][1] as Record<string, ByGrade>)['something-else'] = Array.from(
		{ length: topGrade(sign) },
		(_, i) => unnamed[i] ?? 0.02
	);

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
	'low-light': [0.04, 0.02, 0.9],
	'not-used-to-place': [0.02, 0.01, 0.3],
	'pot-too-small': [0.015, 0.04, 0.8],
	'uneven-water': [0.03, 0.01, 0.8],
	'repotted-too-early': [0.1, 0.02, 0.6],
	'graft-trouble': [0.04, 0.02, 0.3],
	'chemical-injury': [0.1, 0.02, 0.4],
	'vascular-wilt': [0.2, 0.03, 0.3],
	'root-killing-fungus': [0.1, 0.02, 0.2],
	'rising-water': [0.12, 0.04, 0.6],
	'soil-gas': [0.3, 0.01, 0.5],
	dead: [0, 0.05, 0],
	'something-else': [0.03, 0.05, 0]
};

const situations = ['potted', 'in-ground', 'just-lifted'] as const;
type SituationWord = (typeof situations)[number];

export type PriorKey = `diagnosis.prior.${ConditionId}.${SituationWord}`;
export type LeakKey = `diagnosis.leak.${SignId}`;
export type MinutesKey = `diagnosis.minutes.${SignId}`;
export type HarmKey = `diagnosis.harm.${ProcedureId}`;
export type TreatmentKey = `diagnosis.${'loss' | 'disturbance' | 'averts'}.${ConditionId}`;
/** Only what is listed above exists; read it through `shiftOf`, `leakOf` and `strengthOf`. */
type SparseKey =
	| `diagnosis.shift.${Shift}.${ConditionId}`
	| `diagnosis.strength.${string}`
	| `diagnosis.shows.${SignId}.${WorldPart}`
	| `diagnosis.odds.${ConditionId}.${WorldPart}`;

const chance = (label: string, value: number): WorkingValue => ours(label, value, 'chance', [0, 0.99]);
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
				`${shiftNames[shift]}: odds of ${midSentence(conditions[condition as ConditionId].label)}`,
				factor,
				'×',
				[0.01, 100]
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

const worldValues = record<SparseKey>([
	...Object.entries(hidden).flatMap(([part, signsHidden]) =>
		Object.entries(signsHidden).map(([sign, share]): [string, WorkingValue] => [
			`diagnosis.shows.${sign}.${part}`,
			ours(
				`Still shows where it is ${worldPartNames[part as WorldPart]}: ${signs[sign as SignId].label}`,
				share,
				'share',
				[0.001, 1]
			)
		])
	),
	...Object.entries(wrongWorld).flatMap(([part, causes]) =>
		Object.entries(causes).map(([condition, factor]): [string, WorkingValue] => [
			`diagnosis.odds.${condition}.${part}`,
			ours(
				`Where it is ${worldPartNames[part as WorldPart]}: odds of ${midSentence(conditions[condition as ConditionId].label)}`,
				factor,
				'×',
				[0.001, 100]
			)
		])
	)
]);

const treatmentValues = record<TreatmentKey>(
	conditionIds.flatMap((condition): [string, WorkingValue][] => {
		const [loss, disturbance, averts] = treatment[condition];
		const { label } = conditions[condition];
		return [
			[
				`diagnosis.loss.${condition}`,
				ours(`${label}: chance to live lost in each month of waiting`, loss, 'share', [0, 1])
			],
			[
				`diagnosis.disturbance.${condition}`,
				ours(
					`${label}: chance to live lost by treating it, in its window where it is at the roots`,
					disturbance,
					'share',
					[0, 1]
				)
			],
			[
				`diagnosis.averts.${condition}`,
				ours(`${label}: share of that loss which treatment averts`, averts, 'share', [0, 1])
			]
		];
	})
);

const minutesValues = record<MinutesKey>(
	signIds.map((sign) => [
		`diagnosis.minutes.${sign}`,
		ours(`Minutes to look for: ${signs[sign].label}`, signs[sign].minutes, 'min', [0.2, 240])
	])
);
const harmValues = record<HarmKey>(
	procedureIds.map((procedure) => [
		`diagnosis.harm.${procedure}`,
		ours(
			`Chance to live lost by ${procedures[procedure].label}, fair tree in its window`,
			procedures[procedure].harm,
			'share',
			[0, 1]
		)
	])
);

const rules = defineValues({
	'diagnosis.flush-weeks': ours('First flush: weeks from the beginning of growth', 8, 'weeks', [0, 30]),
	'diagnosis.ending-weeks': ours('Growth ending: last weeks of the growing season', 6, 'weeks', [0, 30]),
	'diagnosis.harm-season.in-window': ours('Disturbance in the window counts', 1, '×', [0, 10]),
	'diagnosis.harm-season.shoulder': ours(
		'Disturbance on the shoulder of the window counts',
		1.6,
		'×',
		[0, 10]
	),
	'diagnosis.harm-season.out-of-window': ours('Disturbance out of the window counts', 2.5, '×', [0, 10]),
	'diagnosis.harm-vigour.strong': ours('Disturbance of a strong tree counts', 0.7, '×', [0, 10]),
	'diagnosis.harm-vigour.fair': ours('Disturbance of a fair tree counts', 1, '×', [0, 10]),
	'diagnosis.harm-vigour.weak': ours('Disturbance of a weak tree counts', 2, '×', [0, 10]),
	'diagnosis.harm-open-roots': ours('Looking at roots that lie open already counts', 0.2, '×', [0, 1]),
	'diagnosis.minutes-for-a-life': ours(
		'Minutes of looking that weigh as much as the whole tree',
		2000,
		'min',
		[10, 1_000_000]
	),
	'diagnosis.dying-speed': ours('Where it fails within weeks, waiting costs', 2.5, '×', [1, 20]),
	'diagnosis.look-again-months': ours('Without a window to wait for, waiting means', 1, 'months', [0.1, 12]),
	'diagnosis.serious-girdling': ours('Girdled over a third of the trunk, waiting costs', 3, '×', [1, 20]),
	'diagnosis.measured-days': ours('A measurement counts in a look for', 14, 'days', [1, 365]),
	'diagnosis.mapped-circling': ours(
		'Roots of a map that circle, from which many do so',
		0.3,
		'share',
		[0.05, 1]
	),
	'diagnosis.world.wet': ours('Trees in trouble whose root zone stands wet', 0.3, 'share', [0.01, 0.49]),
	'diagnosis.world.dry': ours('and dry', 0.2, 'share', [0.01, 0.49]),
	'diagnosis.world.tight': ours('Trees in trouble whose roots are tight', 0.3, 'share', [0.01, 0.49]),
	'diagnosis.world.roomy': ours('and whose pot is far too roomy', 0.12, 'share', [0.01, 0.49]),
	'diagnosis.unraised-counts': ours(
		'Where signs were found, knowing of a cause that none of them speaks for counts',
		0.05,
		'share',
		[0, 1]
	),
	'diagnosis.dead-from': ours(
		'A tree is taken for dead, and looked at once more, from',
		0.85,
		'chance',
		[0.5, 0.99]
	),
	'diagnosis.dead-asked': ours('Whether it is dead is asked from a chance of', 0.1, 'chance', [0.01, 0.9]),
	'diagnosis.answer-rare': ours(
		'An answer that would change what is done makes a cause worth asking after from a chance of',
		0.02,
		'chance',
		[0, 0.5]
	),
	'diagnosis.open-from': ours(
		'A cause that the findings speak for is open from a chance of',
		0.1,
		'chance',
		[0, 0.9]
	),
	'diagnosis.settled-from': ours('A cause is settled over a chance of', 0.97, 'chance', [0.5, 1]),
	'diagnosis.dead-stake': ours('Knowing whether it is dead counts as if it saved', 0.2, 'share', [0.01, 1]),
	'diagnosis.danger-from': ours('Danger to people is said from a chance of', 0.08, 'chance', [0.001, 0.9]),
	'diagnosis.settled-counts': ours(
		'Knowing better of a cause that one would act on either way counts',
		0.75,
		'share',
		[0, 1]
	),
	'diagnosis.least-stake': ours(
		'Knowing of any cause counts as if acting on it saved at least, in a month',
		0.02,
		'share',
		[0.001, 0.5]
	),
	'diagnosis.raised': ours(
		'What was found counts as speaking for a cause when it multiplies its odds by',
		1.5,
		'×',
		[1, 100]
	),
	'diagnosis.recentDays': ours(
		'What its records tell of the last weeks counts as recent for',
		60,
		'days',
		[7, 365]
	),
	'diagnosis.carryDays': ours(
		'A look begins from the one before when that is no older than',
		730,
		'days',
		[0, 3650]
	),
	'diagnosis.carryPower': ours(
		'What the look before found counts on with this part of its weight, since the same thing seen twice is not two',
		0.5,
		'share',
		[0, 1]
	),
	'diagnosis.carryLeast': ours(
		'What it found is passed over where it moves odds by less than',
		0.1,
		'log-odds',
		[0, 1]
	),
	'diagnosis.reasonLeast': ours(
		'A sign is named as a reason where it moves odds by at least',
		0.05,
		'log-odds',
		[0, 1]
	),
	'diagnosis.carryHalfDays': ours('and half of that is left after', 180, 'days', [7, 3650]),
	'diagnosis.treatedLeft': ours(
		'Of a cause treated at the roots, work there since leaves of it',
		0.4,
		'share',
		[0, 1]
	),
	'diagnosis.quick-minutes': ours(
		'A check comes before acting when it takes no longer than',
		5,
		'min',
		[0.5, 60]
	),
	'diagnosis.quick-harm': ours('and harms no more than', 0.003, 'share', [0, 0.1]),
	'diagnosis.quick-turns': ours(
		'and an answer that would change what is done is as likely as',
		0.1,
		'chance',
		[0.01, 0.9]
	),
	'diagnosis.quick-bits': ours(
		'Before roots are touched for a cause likelier not so, a check counts from',
		0.03,
		'bit',
		[0.001, 1]
	),
	'diagnosis.sound-signs': ours(
		'Nothing is said to be found from so many signs looked for',
		6,
		'signs',
		[1, 60]
	),
	'diagnosis.sound-under': ours('and no cause above', 0.25, 'chance', [0.02, 0.9]),
	'diagnosis.likely': ours('A cause is called likely from', 0.5, 'chance', [0.05, 0.99]),
	'diagnosis.neighbours-from': ours(
		'Neighbours are listed when a cause that spreads stands above',
		0.4,
		'chance',
		[0.01, 0.99]
	),
	'diagnosis.large-trunk-mm': ours('A standing tree is large from a trunk of', 200, 'mm', [20, 3000]),
	'diagnosis.large-height-m': ours('or a height of', 8, 'm', [1, 60]),
	'diagnosis.referral-rot': ours(
		'An arborist has to see a large tree when rot is as likely as',
		0.5,
		'chance',
		[0.05, 0.99]
	),
	'diagnosis.rare-world': ours(
		'A cause is rare in a state of soil or water when its odds there are under',
		0.2,
		'×',
		[0, 1]
	),
	'diagnosis.unusual-together': ours(
		'Findings are called unusual together when they are rarer by',
		4,
		'×',
		[2, 1_000_000]
	)
});

export const diagnosisValues = {
	...priorValues,
	...shiftValues,
	...leakValues,
	...strengthValues,
	...worldValues,
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

/** Share of a sign that still shows in a part of a world; 1 where the pair is not in the table. */
export const worldShows = (values: Numbers, sign: SignId, part: WorldPart): number =>
	values[`diagnosis.shows.${sign}.${part}`] ?? 1;

/** Factor on the odds of a condition in a part of a world; 1 where the pair is not in the table. */
export const worldFactor = (values: Numbers, condition: ConditionId, part: WorldPart): number =>
	values[`diagnosis.odds.${condition}.${part}`] ?? 1;

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
