import type { ConditionId } from '../../src/lib/core/vocabulary/conditions';
import type { DiagnosisContext } from '../../src/lib/core/examine/diagnosis/context';
import type { SignId } from '../../src/lib/core/vocabulary/signs';

/**
 * Situations with the checks that a good practitioner would make next, any of which must stand among the first three. Our own
 * judgement, no source. `aside` ones were written after the numbers were set and took no part in setting them.
 */
export interface NextCheckCase {
	title: string;
	context: Partial<DiagnosisContext>;
	found: Partial<Record<SignId, number>>;
	/** At least so many of these among the first three. */
	wanted: SignId[];
	atLeast?: number;
	/** What must not come first. */
	notFirst?: SignId[];
	aside?: boolean;
}

export const nextCheckCases: readonly NextCheckCase[] = [
	{
		title: 'A pot that hardly dries',
		context: {},
		found: { 'stays-wet': 2 },
		wanted: ['sour-smell', 'holes-blocked', 'wilts-wet'],
		atLeast: 2,
		notFirst: ['dim-place']
	},
	{
		title: 'Water stands and the holes are shut',
		context: {},
		found: { 'water-stands': 2, 'holes-blocked': 1 },
		wanted: ['sour-smell', 'wilts-wet', 'stake-rotted']
	},
	{
		title: 'Shrivelled leaves, the pot light',
		context: {},
		found: { 'shrivelled-leaves': 1, 'pot-light': 1 },
		wanted: ['core-dry', 'mix-shrunk', 'water-beads', 'channels-through', 'wilts-dry'],
		atLeast: 2,
		notFirst: ['sour-smell']
	},
	{
		title: 'Wilts though it is wet',
		context: {},
		found: { 'wilts-wet': 1 },
		wanted: ['sour-smell', 'holes-blocked', 'spongy-stem']
	},
	{
		title: 'A lawn tree, thin and short of growth',
		context: { situation: 'in-ground' },
		found: { 'crown-thin': 1, 'short-shoots': 1 },
		wanted: ['no-flare', 'bark-groove', 'traffic', 'probe-stops'],
		atLeast: 2
	},
	{
		title: 'Sticky leaves',
		context: {},
		found: { 'sticky-leaves': 1 },
		wanted: ['insects-seen']
	},
	{
		title: 'Decline began right after the repot',
		context: { events: ['repotted'] },
		found: { 'decline-after-work': 1 },
		wanted: ['watered-as-before', 'pot-too-wide', 'leans-rocks']
	},
	{
		title: 'Newly bought, drops leaves',
		context: { events: ['bought'] },
		found: { 'leaf-drop': 1 },
		wanted: ['light-changed']
	},
	{
		title: 'No buds though its like are out: nothing is asked of leaves it has not',
		context: {},
		found: { 'buds-late': 1 },
		wanted: ['twigs-snap', 'no-green-bark'],
		notFirst: ['windward-burn']
	},
	{
		title: 'Post-like trunk in the lawn, one side thin',
		context: { situation: 'in-ground' },
		found: { 'no-flare': 2, 'one-side-thin': 1 },
		wanted: ['bark-groove', 'soil-heaped', 'girdler-seen', 'roots-above-flare'],
		aside: true
	},
	{
		title: 'A fleshy stump, soft at the foot',
		context: { group: 'succulent' },
		found: { 'spongy-stem': 1 },
		wanted: ['sour-smell', 'dark-under-bark', 'stem-bleeds', 'leans-rocks'],
		aside: true
	},
	{
		title: 'Brown tips and a white crust',
		context: {},
		found: { 'tip-burn': 1, 'white-crust': 1 },
		// Thirst browns tips too: feeling whether it is dry is as good a next step.
		wanted: ['fed-salted', 'conductivity-high', 'ph-off', 'yellow-between-veins', 'wilts-dry'],
		aside: true
	},
	{
		title: 'Bracket and thin crown on a park tree',
		context: { situation: 'in-ground', season: 'autumn' },
		found: { brackets: 1, 'crown-thin': 1 },
		wanted: ['stem-bleeds', 'white-fans', 'leans-rocks', 'dark-under-bark', 'spongy-stem'],
		aside: true
	}
];

/** What leads, or must not, at the edges. Our own judgement, no source. */
export const edgeCases: readonly {
	title: string;
	context: Partial<DiagnosisContext>;
	found: Partial<Record<SignId, number>>;
	leads?: ConditionId;
	under?: Partial<Record<ConditionId, number>>;
	over?: Partial<Record<ConditionId, number>>;
}[] = [
	{
		title: 'Drowned in a hot spell: no drought, no dry core',
		context: { events: ['hot-spell'] },
		found: { 'stays-wet': 2, 'water-stands': 2, 'wilts-wet': 1, 'holes-blocked': 1, 'sour-smell': 2 },
		leads: 'sour-root-zone',
		under: { drought: 0.1, 'dry-core': 0.15 }
	},
	{
		title: 'A dry core found in a wet pot still counts',
		context: {},
		found: { 'stays-wet': 1, 'core-dry': 1, 'dry-pockets': 1, 'channels-through': 1 },
		over: { 'dry-core': 0.6 }
	},
	{
		title: 'Black soft roots in a sour pot with shut holes',
		context: {},
		found: { 'roots-dark-soft': 1, 'sour-smell': 2, 'stays-wet': 2, 'holes-blocked': 1 },
		leads: 'root-rot'
	},
	{
		title: 'Bone dry, mix shrunk from the wall: not a collapsed mix',
		context: {},
		found: { 'mix-shrunk': 1, 'pot-light': 1 },
		leads: 'drought',
		under: { 'collapsed-mix': 0.15, 'sour-root-zone': 0.1 }
	},
	{
		title: 'Suckers and surface roots on a vine that always suckers',
		context: { situation: 'in-ground' },
		found: { suckers: 1, 'roots-rise': 1 },
		under: { 'girdling-roots': 0.25 }
	},
	{
		title: 'A lean alone does not make a girdler',
		context: {},
		found: { 'leans-rocks': 1 },
		under: { 'girdling-roots': 0.2 }
	},
	{
		title: 'Newly bought, drops leaves, white tips in half the pot',
		context: { events: ['bought'], group: 'broadleaf-evergreen' },
		found: { 'leaf-drop': 1, 'no-white-tips': 0, 'solid-mat': 0 },
		leads: 'not-used-to-place'
	},
	{
		title: 'No green at any height, twigs snap',
		context: { season: 'flush' },
		found: { 'no-green-bark': 2, 'twigs-snap': 1, 'dieback-hollow': 3 },
		leads: 'dead',
		over: { dead: 0.95 }
	},
	{
		title: 'Suckers show life, however dead the top',
		context: { season: 'flush' },
		found: { 'dieback-hollow': 3, 'buds-late': 1, suckers: 1 },
		under: { dead: 0.3 }
	},
	{
		title: 'Findings that no named cause explains',
		context: {},
		found: {
			'stress-crop': 1,
			'soil-sinks': 1,
			'holes-sawdust': 1,
			'bark-cracks': 1,
			'yellow-between-veins': 1,
			'one-side-thin': 1
		},
		leads: 'something-else'
	},
	{
		title: 'Gas along a line',
		context: { situation: 'in-ground' },
		found: { 'gas-smell': 1, 'beside-alike': 1 },
		leads: 'soil-gas'
	},
	{
		title: 'Branch after branch, a ring in the twig',
		context: { situation: 'in-ground' },
		found: { 'branch-by-branch': 1, 'ring-in-twig': 1 },
		leads: 'vascular-wilt'
	},
	{
		title: 'White fans under the bark',
		context: { situation: 'in-ground' },
		found: { 'white-fans': 1, 'crown-thin': 1, brackets: 1 },
		leads: 'root-killing-fungus'
	},
	{
		title: 'A hole that fills by itself after long rain',
		context: { situation: 'in-ground', events: ['long-rain'] },
		found: { 'hole-fills': 1, 'low-leaves-first': 1 },
		leads: 'rising-water',
		under: { drought: 0.05 }
	},
	{
		title: 'Strapped new growth on several kinds side by side',
		context: { situation: 'in-ground' },
		found: { 'twisted-growth': 1, 'beside-alike': 1 },
		leads: 'chemical-injury'
	},
	{
		title: 'A crack at the union, suckers below',
		context: {},
		found: { 'union-crack': 1, suckers: 1 },
		leads: 'graft-trouble'
	},
	{
		title: 'Shallow pot, dry within the day, not bound',
		context: {},
		found: { 'pot-shallow': 1, 'dries-fast': 1, 'solid-mat': 0 },
		leads: 'pot-too-small',
		under: { 'over-potting': 0.05 }
	},
	{
		title: 'Wet since the repot, watered as before, roots whole',
		context: { events: ['repotted'] },
		found: { 'decline-after-work': 1, 'stays-wet': 1, 'watered-as-before': 1, 'torn-roots': 0 },
		leads: 'repotted-too-early'
	},
	{
		title: 'One side dry, roots on one side, leans',
		context: {},
		found: { 'one-side-dry': 1, 'roots-one-side': 1, 'leans-rocks': 1 },
		leads: 'uneven-water'
	}
];
