import type { Group } from './kind';
import type { Situation } from './words';
import type { ProcedureId } from './procedures';

export const signParts = ['crown', 'stem', 'collar', 'pot and soil', 'roots'] as const;
export type SignPart = (typeof signParts)[number];

/** Something that can be looked for. Order runs from the least to the most invasive. */
export interface Sign {
	label: string;
	/** How to look, in one sentence. */
	how: string;
	/** How to look at a tree in the ground, where that is another way. */
	howInGround?: string;
	/** With what. */
	tool: string;
	part: SignPart;
	/** What has to be done to the tree to see it; its harm is paid once for all signs seen that way. */
	procedure: ProcedureId;
	/** Minutes of looking, as shipped; the one in force is a working value. */
	minutes: number;
	situations: readonly Situation[];
	/** Words for its grades from 0, what is sound, upward; a plain sign has two, "not there" and "seen". */
	grades?: readonly string[];
	/** Signs that can hardly be true of one tree on one day together with this one. */
	opposes?: readonly string[];
	/** Only a tree in leaf can show it. */
	needsLeaf?: boolean;
}

const anywhere = ['potted', 'in-ground', 'just-lifted'] as const;
const potted = ['potted'] as const;
const ground = ['in-ground'] as const;

export const signs = {
	'wilts-wet': {
		needsLeaf: true,
		label: 'Wilts while the soil is wet',
		how: 'Look at the leaves, then feel two knuckles deep.',
		tool: 'eyes and a finger',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere,
		opposes: ['wilts-dry']
	},
	'wilts-dry': {
		needsLeaf: true,
		label: 'Wilts while the soil is dry',
		how: 'Look at the leaves, then lift the pot or feel the soil.',
		howInGround: 'Look at the leaves, then feel the soil a hand deep.',
		tool: 'eyes and a finger',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'wilts-noon': {
		needsLeaf: true,
		label: 'Wilts at midday and stands again by morning',
		how: 'Look at the hottest hour and again early next day.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 3,
		situations: anywhere
	},
	'leaf-drop': {
		needsLeaf: true,
		label: 'Drops leaves out of season',
		how: 'Count what lies under it against what hangs.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere,
		grades: ['none', 'some', 'many']
	},
	'crown-thin': {
		needsLeaf: true,
		label: 'Crown thin all over',
		how: 'Stand back; how much sky shows against one of its kind.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere,
		grades: ['full', 'a third thin', 'more than half bare']
	},
	'one-side-thin': {
		needsLeaf: true,
		label: 'Crown thin on one side',
		how: 'Stand back and walk round it.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 2,
		situations: anywhere
	},
	'small-early-colour': {
		needsLeaf: true,
		label: 'Small leaves, early autumn colour',
		how: 'Compare with the same kind nearby.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'short-shoots': {
		label: 'Shoots shorter than last year’s',
		how: 'Measure three shoots between the ring scars of the last two years.',
		tool: 'a rule',
		part: 'crown',
		procedure: 'look',
		minutes: 3,
		situations: anywhere,
		grades: ['as last year', 'about half', 'hardly any']
	},
	'growth-stopped': {
		label: 'Growth stopped after a strong flush',
		how: 'Look at the last shoots: did they stop at once, are their tips hard?',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 2,
		situations: anywhere
	},
	'buds-late': {
		label: 'No buds move though its like are out',
		how: 'Compare with the same kind at the same place.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'curled-new-leaf': {
		needsLeaf: true,
		label: 'Leaf on the new shoot curls',
		how: 'Look at the youngest leaves only.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'shrivelled-leaves': {
		needsLeaf: true,
		label: 'Leaves shrivelled or rolled, still green',
		how: 'Roll a leaf between two fingers.',
		tool: 'fingers',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'yellow-between-veins': {
		needsLeaf: true,
		label: 'Yellow between green veins',
		how: 'Look at new and old leaves against the light.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'yellow-all-over': {
		needsLeaf: true,
		label: 'Pale or yellow all over, oldest leaves first',
		how: 'Compare old and new leaves.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'tip-burn': {
		needsLeaf: true,
		label: 'Brown tips and edges on many leaves',
		how: 'Look at the edges of old leaves, all round.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'windward-burn': {
		needsLeaf: true,
		label: 'Brown on the windward or the sunny side only',
		how: 'Note the side; stand where the wind comes from.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'after-cold': {
		needsLeaf: true,
		label: 'Black or glassy leaves within days of a cold night',
		how: 'Look up the last cold night; look at the others of the batch.',
		tool: 'eyes and the log',
		part: 'crown',
		procedure: 'look',
		minutes: 2,
		situations: anywhere
	},
	'batch-failing': {
		label: 'Others of its batch fail the same way',
		how: 'Look at three of the same delivery.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 3,
		situations: anywhere
	},
	'branch-by-branch': {
		needsLeaf: true,
		label: 'Wilts one branch after another',
		how: 'Look which branches hang, and which hung last week.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'low-leaves-first': {
		needsLeaf: true,
		label: 'Lowest leaves go first',
		how: 'Compare the lowest with the highest leaves.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'twisted-growth': {
		needsLeaf: true,
		label: 'New growth twisted, cupped or like straps',
		how: 'Look at the youngest leaves; lay one beside a sound one.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'beside-alike': {
		label: 'Other kinds beside it fail the same way, along a line or an edge',
		how: 'Walk on along the hedge, kerb or bench.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 2,
		situations: anywhere
	},
	'sprayed-near': {
		label: 'Weedkiller or another chemical used near it lately',
		how: 'Ask, next door too.',
		tool: 'asking',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'long-bare-shoots': {
		label: 'Long bare shoots reaching for light',
		how: 'Look at the distance between leaves.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'inner-leaves-gone': {
		needsLeaf: true,
		label: 'Inner leaves fallen, all growth to one side of the light',
		how: 'Look into the crown from below.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'sticky-leaves': {
		needsLeaf: true,
		label: 'Sticky or sooty leaves',
		how: 'Rub a leaf; look under it and along the veins.',
		tool: 'fingers',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'insects-seen': {
		label: 'Insects, scale or webs on leaves and twigs',
		how: 'Look under ten leaves, or along ten twigs while it is bare, with a lens; tap a twig over paper.',
		tool: 'a lens, white paper',
		part: 'crown',
		procedure: 'look',
		minutes: 3,
		situations: anywhere,
		grades: ['none', 'few', 'many']
	},
	'stress-crop': {
		label: 'Far more seed or flower than usual',
		how: 'Compare with other years.',
		tool: 'eyes',
		part: 'crown',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'dieback-hollow': {
		label: 'Twigs dead from the tips down',
		how: 'Scratch upward from the base; knock on thick wood.',
		tool: 'thumbnail, knuckle',
		part: 'stem',
		procedure: 'scratch',
		minutes: 3,
		situations: anywhere,
		grades: ['none', 'tips only', 'a third or more', 'down to the base']
	},
	'no-green-bark': {
		label: 'No green under the bark',
		how: 'Scratch from the top down to the flare, on four sides.',
		tool: 'thumbnail or knife',
		part: 'stem',
		procedure: 'scratch',
		minutes: 3,
		situations: anywhere,
		grades: ['green somewhere', 'none above the soil', 'none at the flare either']
	},
	'twigs-snap': {
		label: 'Twigs snap dry all over, no bud is plump',
		how: 'Bend twigs on all sides; press buds.',
		tool: 'fingers',
		part: 'stem',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'ring-in-twig': {
		label: 'Brown ring or streaks in a sliced twig',
		how: 'Slice a wilting twig across and along.',
		tool: 'a knife',
		part: 'stem',
		procedure: 'scratch',
		minutes: 2,
		situations: anywhere
	},
	'union-crack': {
		label: 'Swelling, step or crack at the graft union',
		how: 'Look and tap all round the union, where there is one.',
		tool: 'eyes, knuckle',
		part: 'stem',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'spongy-stem': {
		label: 'Stem or base spongy',
		how: 'Press with a thumb all round.',
		tool: 'thumb',
		part: 'stem',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'stem-bleeds': {
		label: 'Bark wet, dark or oozing',
		how: 'Look up and down the stem on a dry day.',
		tool: 'eyes',
		part: 'stem',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'dark-under-bark': {
		label: 'Brown under the bark at the base',
		how: 'Scratch a thumbnail’s width at the base, on two sides.',
		tool: 'thumbnail or knife',
		part: 'stem',
		procedure: 'scratch',
		minutes: 2,
		situations: anywhere
	},
	'bark-cracks': {
		label: 'Long cracks in the bark or the stem',
		how: 'Look all round the stem, sunny side first.',
		tool: 'eyes',
		part: 'stem',
		procedure: 'look',
		minutes: 1,
		situations: anywhere,
		grades: ['none', 'in the bark', 'into the wood']
	},
	'bark-scald': {
		label: 'Bark flat, dry and loose on the sunny side',
		how: 'Tap and press the sunny side.',
		tool: 'knuckle',
		part: 'stem',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	suckers: {
		label: 'Suckers from the base or the stem',
		how: 'Look at the foot and along the stem.',
		tool: 'eyes',
		part: 'stem',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'holes-sawdust': {
		label: 'Holes or sawdust in bark',
		how: 'Look at the foot and in forks.',
		tool: 'eyes',
		part: 'stem',
		procedure: 'look',
		minutes: 2,
		situations: anywhere
	},
	'nests-in-wood': {
		label: 'Ants, beetles or nests in stem or root wood',
		how: 'Look where wood is open.',
		tool: 'eyes, a torch',
		part: 'stem',
		procedure: 'look',
		minutes: 2,
		situations: anywhere
	},
	brackets: {
		label: 'Fungus brackets or toadstools at the base',
		how: 'Walk round the foot of the trunk.',
		tool: 'eyes',
		part: 'collar',
		procedure: 'look',
		minutes: 2,
		situations: ground
	},
	'soil-lifted': {
		label: 'Soil cracked or lifted on one side',
		how: 'Walk a circle round the foot, a trunk’s height away and near.',
		tool: 'eyes',
		part: 'collar',
		procedure: 'look',
		minutes: 2,
		situations: ground
	},
	'leans-rocks': {
		label: 'Leans, or rocks in its soil',
		how: 'Push gently at breast height or at the first branch; watch the soil.',
		tool: 'a hand',
		part: 'collar',
		procedure: 'look',
		minutes: 1,
		situations: anywhere,
		grades: ['firm', 'rocks a little', 'moves at the base']
	},
	'no-flare': {
		label: 'No flare: trunk goes in like a post',
		how: 'Look at the foot of the trunk from all sides.',
		tool: 'eyes',
		part: 'collar',
		procedure: 'look',
		minutes: 1,
		situations: anywhere,
		grades: ['flare all round', 'on one side', 'none seen']
	},
	'soil-heaped': {
		label: 'Soil, turf or mulch heaped against the trunk',
		how: 'Look where bark meets the ground.',
		tool: 'eyes',
		part: 'collar',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'bark-groove': {
		label: 'Groove, bulge or flat side at the foot',
		how: 'Run a hand round the trunk just above the ground.',
		tool: 'a hand',
		part: 'collar',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'roots-above-flare': {
		label: 'Roots from the trunk above the flare',
		how: 'Brush the soil away by hand.',
		tool: 'a hand brush',
		part: 'collar',
		procedure: 'open-collar',
		minutes: 5,
		situations: anywhere
	},
	'girdler-seen': {
		label: 'Root across the trunk',
		how: 'Brush the soil from the collar and follow what lies against the bark.',
		tool: 'a hand brush, a blunt stick',
		part: 'collar',
		procedure: 'open-collar',
		minutes: 5,
		situations: anywhere,
		grades: ['none', 'under a third of the trunk', 'a third to a half', 'over half']
	},
	'collar-bark-dark': {
		label: 'Bark dark, wet or loose where it was buried',
		how: 'Open the collar and press the bark.',
		tool: 'a hand brush, thumb',
		part: 'collar',
		procedure: 'open-collar',
		minutes: 5,
		situations: anywhere
	},
	'white-fans': {
		label: 'White fans under the bark at the base',
		how: 'Lift a flap of dead bark at the collar; smell for mushroom.',
		tool: 'a knife',
		part: 'collar',
		procedure: 'open-collar',
		minutes: 4,
		situations: anywhere
	},
	bootlaces: {
		label: 'Dark bootlaces in the soil or under bark',
		how: 'Look under loose bark and a hand deep along a root.',
		tool: 'a hand fork',
		part: 'collar',
		procedure: 'open-collar',
		minutes: 5,
		situations: anywhere
	},
	'roots-rise': {
		label: 'Roots lie on the surface, rise or turn back',
		how: 'Look and feel in a circle round the foot.',
		tool: 'eyes',
		part: 'collar',
		procedure: 'look',
		minutes: 2,
		situations: anywhere
	},
	'stays-wet': {
		label: 'Stays wet while its neighbours dry',
		how: 'Weigh or lift it and two neighbours on the same day.',
		tool: 'hands or a scale',
		part: 'pot and soil',
		procedure: 'weigh',
		minutes: 3,
		situations: potted,
		grades: ['as the others', 'slower', 'hardly dries'],
		opposes: ['dries-fast', 'pot-light']
	},
	'watered-as-before': {
		label: 'Watered as often as before it was repotted',
		how: 'Compare the dates in the log.',
		tool: 'the log',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: potted
	},
	'dries-fast': {
		label: 'Dry again within a day',
		how: 'Weigh or lift it the day after water.',
		tool: 'hands or a scale',
		part: 'pot and soil',
		procedure: 'weigh',
		minutes: 3,
		situations: potted
	},
	'pot-light': {
		label: 'The pot is light for its size',
		how: 'Lift it; compare with the weight after water.',
		tool: 'hands or a scale',
		part: 'pot and soil',
		procedure: 'weigh',
		minutes: 1,
		situations: potted
	},
	'channels-through': {
		label: 'Water runs straight through, the pot stays light',
		how: 'Pour slowly; lift before and after.',
		tool: 'a can, a scale',
		part: 'pot and soil',
		procedure: 'pour',
		minutes: 4,
		situations: potted
	},
	'water-beads': {
		label: 'Water beads or runs off the surface',
		how: 'Pour a cupful slowly on the middle.',
		tool: 'a cup',
		part: 'pot and soil',
		procedure: 'pour',
		minutes: 1,
		situations: anywhere
	},
	'water-stands': {
		label: 'Water stands on the surface',
		how: 'Pour a can of water and time it.',
		tool: 'a can, a watch',
		part: 'pot and soil',
		procedure: 'pour',
		minutes: 5,
		situations: anywhere,
		grades: ['sinks at once', 'slowly', 'stands'],
		opposes: ['channels-through']
	},
	'dry-pockets': {
		label: 'Dry pockets while the rest is moist',
		how: 'Push a wooden stick down at five places; draw and feel it.',
		tool: 'a thin wooden stick',
		part: 'pot and soil',
		procedure: 'probe',
		minutes: 3,
		situations: anywhere
	},
	'one-side-dry': {
		label: 'One side of the ball dry, the other moist',
		how: 'Push a stick in at four sides.',
		tool: 'a thin wooden stick',
		part: 'pot and soil',
		procedure: 'probe',
		minutes: 2,
		situations: anywhere
	},
	'core-dry': {
		label: 'Middle dry, outside moist',
		how: 'Push a stick into the very middle of the ball.',
		tool: 'a thin wooden stick',
		part: 'pot and soil',
		procedure: 'probe',
		minutes: 2,
		situations: anywhere
	},
	'holes-blocked': {
		label: 'Drain holes shut, or a full saucer under it',
		how: 'Tip it and look under; poke the holes.',
		tool: 'eyes, a wire',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: potted
	},
	'moss-algae': {
		label: 'Moss, algae or liverwort thick on the soil',
		how: 'Look at the surface and the rim.',
		tool: 'eyes',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'white-crust': {
		label: 'White crust on soil, rim or holes',
		how: 'Look at the rim and under the pot.',
		howInGround: 'Look at the soil under the crown when it has been dry for days.',
		tool: 'eyes',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'fed-salted': {
		label: 'Strong feed, road salt or hard water lately',
		how: 'Ask, and look up the log.',
		tool: 'the log',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'conductivity-high': {
		label: 'Run-off conductivity high',
		how: 'Catch the first run-off and dip a meter.',
		tool: 'a conductivity meter',
		part: 'pot and soil',
		procedure: 'pour',
		minutes: 5,
		situations: potted
	},
	'ph-off': {
		label: 'pH outside what it likes',
		how: 'Shake soil with distilled water, dip a strip.',
		tool: 'a pH strip or meter',
		part: 'pot and soil',
		procedure: 'probe',
		minutes: 6,
		situations: anywhere
	},
	'probe-stops': {
		label: 'A rod meets hard soil',
		how: 'Push a thin steel rod at five places.',
		tool: 'a thin steel rod',
		part: 'pot and soil',
		procedure: 'probe',
		minutes: 5,
		situations: ground,
		grades: ['goes in', 'stiff', 'stops within a hand’s depth']
	},
	'dense-soil': {
		label: 'Soil dense in the core ring',
		how: 'Take a ring, dry and weigh it.',
		tool: 'a ring, an oven, a scale',
		part: 'pot and soil',
		procedure: 'core',
		minutes: 30,
		situations: ground,
		grades: ['loose', 'dense', 'roots cannot enter']
	},
	traffic: {
		label: 'Feet, wheels or building over the roots',
		how: 'Look for tracks, paths, stored material; ask.',
		tool: 'eyes',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: ground
	},
	'trench-near': {
		label: 'A trench, kerb or dig within its roots',
		how: 'Look for new edges and filled strips; ask.',
		tool: 'eyes',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 2,
		situations: ground
	},
	'gas-smell': {
		label: 'Smell of gas or bad eggs, bare ground with dark soil',
		how: 'Notice it in passing; do not bend down to it and do not dig.',
		tool: 'a nose',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: ground
	},
	'hole-fills': {
		label: 'A test hole fills with water by itself',
		how: 'Dig a spade deep beside the roots; look again after a day.',
		tool: 'a spade',
		part: 'pot and soil',
		procedure: 'probe',
		minutes: 10,
		situations: ground
	},
	'roots-out-of-holes': {
		label: 'Roots out of the holes',
		how: 'Tip the pot and look under it.',
		tool: 'eyes',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: potted
	},
	'much-empty-mix': {
		label: 'Much mix without roots in it',
		how: 'Push a stick down by the wall; feel for roots.',
		tool: 'a thin wooden stick',
		part: 'pot and soil',
		procedure: 'probe',
		minutes: 2,
		situations: potted,
		opposes: ['roots-out-of-holes']
	},
	'pot-too-wide': {
		label: 'Pot far wider than the crown or the old ball',
		how: 'Measure the pot and the ball it came with.',
		tool: 'a rule',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: potted
	},
	'pot-shallow': {
		label: 'Pot small or shallow for its kind and crown',
		how: 'Measure the pot against the crown and the ball.',
		tool: 'a rule',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: potted,
		opposes: ['pot-too-wide']
	},
	'lump-squeezed': {
		label: 'Mix stays a lump when squeezed',
		how: 'Squeeze a damp handful and open the hand.',
		tool: 'a hand',
		part: 'pot and soil',
		procedure: 'probe',
		minutes: 1,
		situations: potted,
		grades: ['crumbles', 'holds, then breaks', 'stays a lump']
	},
	'mix-sunken': {
		label: 'Mix sunken or slimy',
		how: 'Look at the rim and press the surface.',
		tool: 'eyes',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: potted
	},
	'mix-shrunk': {
		label: 'Mix hard and shrunk from the wall',
		how: 'Look for a gap along the wall; press the surface.',
		tool: 'eyes',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: potted,
		opposes: ['mix-sunken']
	},
	'soil-sinks': {
		label: 'Soil sinks in places after water',
		how: 'Water and look for hollows.',
		tool: 'a can',
		part: 'pot and soil',
		procedure: 'pour',
		minutes: 3,
		situations: anywhere
	},
	'dim-place': {
		label: 'The place is dim for its kind',
		how: 'Read a paper at noon without a lamp; count hours of sun.',
		tool: 'eyes, a light meter',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'light-changed': {
		label: 'The light was other where it came from',
		how: 'Ask where it stood and for how long; compare.',
		tool: 'asking',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'decline-after-work': {
		label: 'Decline began right after potting or moving',
		how: 'Compare the dates.',
		tool: 'the log',
		part: 'pot and soil',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'sour-smell': {
		label: 'Sour or sulphur smell from the root zone',
		how: 'Smell at the drain holes or a fresh hole in the soil.',
		tool: 'a nose',
		part: 'roots',
		procedure: 'look',
		minutes: 1,
		situations: anywhere,
		grades: ['none', 'faint', 'strong']
	},
	'stake-rotted': {
		label: 'A wooden stake or label rotten within months',
		how: 'Draw it out and look at its foot.',
		tool: 'a hand',
		part: 'roots',
		procedure: 'look',
		minutes: 1,
		situations: anywhere
	},
	'galls-wool': {
		label: 'Galls or white wool on roots or at the base',
		how: 'Open a little at the edge of the ball.',
		howInGround: 'Open the soil a little at the foot of the trunk.',
		tool: 'a stick, a lens',
		part: 'roots',
		procedure: 'open-edge',
		minutes: 3,
		situations: anywhere
	},
	'root-grubs': {
		label: 'Grubs or gnawed roots',
		how: 'Open a little at the edge of the ball.',
		howInGround: 'Open the soil a little at the foot of the trunk.',
		tool: 'a stick',
		part: 'roots',
		procedure: 'open-edge',
		minutes: 3,
		situations: anywhere
	},
	'solid-mat': {
		label: 'Roots circle the wall of the ball',
		how: 'Slide it out and look at the side and base.',
		tool: 'two hands',
		part: 'roots',
		procedure: 'unpot',
		minutes: 8,
		situations: potted,
		grades: ['loose', 'many, with gaps', 'a solid mat'],
		opposes: ['much-empty-mix']
	},
	'black-below': {
		label: 'Black roots low down, white ones above',
		how: 'Slide it out and look from below.',
		tool: 'two hands',
		part: 'roots',
		procedure: 'unpot',
		minutes: 8,
		situations: potted
	},
	'roots-one-side': {
		label: 'Roots on one side only',
		how: 'Look at the edge of the ball all round.',
		howInGround: 'Open the soil a little at the foot of the trunk, all round.',
		tool: 'eyes',
		part: 'roots',
		procedure: 'open-edge',
		minutes: 4,
		situations: anywhere
	},
	'roots-dark-soft': {
		label: 'Roots dark and soft, bark slips',
		how: 'Pull gently at three roots; cut one.',
		tool: 'a knife',
		part: 'roots',
		procedure: 'open-edge',
		minutes: 6,
		situations: anywhere
	},
	'roots-brittle': {
		label: 'Roots dry and brittle, no smell',
		how: 'Bend three thin roots.',
		tool: 'fingers',
		part: 'roots',
		procedure: 'open-edge',
		minutes: 5,
		situations: anywhere
	},
	'roots-dead-share': {
		label: 'Share of roots that are dead',
		how: 'Take twenty at random, count dead and alive.',
		tool: 'a knife, the sample keys',
		part: 'roots',
		procedure: 'sample',
		minutes: 10,
		situations: anywhere,
		grades: ['under a tenth', 'a tenth to a third', 'over a third']
	},
	'torn-roots': {
		label: 'Torn or freshly cut thick roots',
		how: 'Look at the edge of the ball for open ends.',
		howInGround: 'Look along the edge of what was dug there for open ends.',
		tool: 'eyes',
		part: 'roots',
		procedure: 'open-edge',
		minutes: 5,
		situations: anywhere
	},
	'no-white-tips': {
		label: 'No white root tips anywhere',
		how: 'Look at the edge of the ball in the growing season.',
		howInGround: 'Open the soil a little under the edge of the crown, in the growing season.',
		tool: 'eyes',
		part: 'roots',
		procedure: 'open-edge',
		minutes: 4,
		situations: anywhere
	}
} as const satisfies Record<string, Sign>;

export type SignId = keyof typeof signs;
export const signIds = Object.keys(signs) as SignId[];
/** Whether a word names a sign. */
export const isSignId = (word: string): word is SignId => Object.hasOwn(signs, word);
/** All that is told of a sign. */
export const signOf = (id: SignId): Sign => signs[id];
/** How to look for a sign at a tree as it stands, in one sentence. */
export const howToLook = (id: SignId, situation: Situation): string => {
	const { how, howInGround } = signOf(id);
	return situation === 'in-ground' ? (howInGround ?? how) : how;
};
/** Whether a sign can show at a tree that stands so. */
export const signApplies = (id: SignId, situation: Situation): boolean =>
	(signs[id].situations as readonly Situation[]).includes(situation);

/** Whether a tree can show a sign now: one without leaves shows nothing of leaves. */
export const signShows = (
	id: SignId,
	{
		situation,
		group,
		season,
		bareAtRest
	}: {
		situation: Situation;
		group?: Group | null;
		season?: string | null;
		/** Left out: as its group does. */
		bareAtRest?: boolean | undefined;
	},
	findings: readonly { signId: SignId; grade: number }[] = []
): boolean => {
	if (!signApplies(id, situation)) return false;
	if (!signOf(id).needsLeaf) return true;
	const grade = (sign: SignId): number => findings.find((finding) => finding.signId === sign)?.grade ?? 0;
	const bare =
		((bareAtRest ?? group === 'deciduous') && season === 'rest') ||
		grade('no-green-bark') > 0 ||
		grade('twigs-snap') > 0 ||
		grade('buds-late') > 0 ||
		grade('dieback-hollow') === 3;
	return !bare;
};

const plainGrades = ['not there', 'seen'] as const;
/** Words for the grades of a sign, from 0 upward; at least two. */
export const gradesOf = (id: SignId): readonly string[] => signOf(id).grades ?? plainGrades;
/** Highest grade of a sign: 1 for a plain one. */
export const topGrade = (id: SignId): number => gradesOf(id).length - 1;
/** What a grade of a sign is called; a grade beyond the last is read as the last. */
export const gradeWord = (id: SignId, grade: number): string =>
	gradesOf(id)[Math.min(grade, topGrade(id))] ?? '';

/** Eight signs for a first look of under a minute, by situation: nothing is opened, nothing is harmed. */
const firstLook: Record<Situation, readonly SignId[]> = {
	potted: [
		'wilts-wet',
		'pot-light',
		'sour-smell',
		'dieback-hollow',
		'sticky-leaves',
		'roots-out-of-holes',
		'leans-rocks',
		'decline-after-work'
	],
	'in-ground': [
		'crown-thin',
		'no-flare',
		'dieback-hollow',
		'bark-groove',
		'leans-rocks',
		'traffic',
		'brackets',
		'insects-seen'
	],
	'just-lifted': [
		'wilts-wet',
		'wilts-dry',
		'dieback-hollow',
		'torn-roots',
		'leans-rocks',
		'no-flare',
		'sticky-leaves',
		'sour-smell'
	]
};

/** What is looked at in place of leaves while there are none. */
const bareLook: Record<Situation, readonly SignId[]> = {
	potted: ['twigs-snap', 'holes-blocked'],
	'in-ground': ['twigs-snap'],
	'just-lifted': ['twigs-snap', 'bark-groove', 'no-green-bark']
};

/** The signs of a first look at a tree as it stands now: of one without leaves nothing is asked about leaves. */
export function firstLookOf(context: Parameters<typeof signShows>[1]): SignId[] {
	const all = firstLook[context.situation];
	const shown = all.filter((id) => signShows(id, context));
	return [...shown, ...bareLook[context.situation].slice(0, all.length - shown.length)];
}
