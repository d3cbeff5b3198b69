import type { Situation } from '../tree/tree';

/** Something that can be looked for. Order runs from the least to the most invasive. */
export interface Sign {
	label: string;
	/** How to look, with what. */
	how: string;
	part: 'crown' | 'stem' | 'collar' | 'pot and soil' | 'roots';
	minutes: number;
	situations: readonly Situation[];
}

const anywhere = ['potted', 'in-ground', 'just-lifted'] as const;
const potted = ['potted'] as const;
const ground = ['in-ground'] as const;

export const signs = {
	'wilts-wet': {
		label: 'Wilts while the soil is wet',
		how: 'Look at the leaves, then feel two knuckles deep.',
		part: 'crown',
		minutes: 1,
		situations: anywhere
	},
	'wilts-dry': {
		label: 'Wilts while the soil is dry',
		how: 'Look at the leaves, then lift the pot or feel the soil.',
		part: 'crown',
		minutes: 1,
		situations: anywhere
	},
	'sticky-leaves': {
		label: 'Sticky leaves',
		how: 'Rub a leaf; look under it and along the veins.',
		part: 'crown',
		minutes: 1,
		situations: anywhere
	},
	'small-early-colour': {
		label: 'Small leaves, early autumn colour',
		how: 'Compare with the same kind nearby.',
		part: 'crown',
		minutes: 1,
		situations: anywhere
	},
	'one-side-thin': {
		label: 'Crown thin on one side',
		how: 'Stand back and walk round it.',
		part: 'crown',
		minutes: 2,
		situations: anywhere
	},
	'yellow-between-veins': {
		label: 'Yellow between the veins, or white crust on the soil',
		how: 'Look at new and old leaves, and at the rim of the pot.',
		part: 'crown',
		minutes: 1,
		situations: anywhere
	},
	'windward-burn': {
		label: 'Brown on the windward side, or after a cold or hot spell',
		how: 'Note the side; look up the last cold night.',
		part: 'crown',
		minutes: 1,
		situations: anywhere
	},
	'long-bare-shoots': {
		label: 'Long bare shoots reaching for light',
		how: 'Look at the distance between leaves.',
		part: 'crown',
		minutes: 1,
		situations: anywhere
	},
	'growth-stopped': {
		label: 'Growth stopped after a strong flush',
		how: 'Measure the last shoots; are their tips hard?',
		part: 'crown',
		minutes: 2,
		situations: anywhere
	},
	'dieback-hollow': {
		label: 'Twigs dead, bark loose, hollow knock',
		how: 'Scratch upward from the base; tap with a knuckle.',
		part: 'stem',
		minutes: 3,
		situations: anywhere
	},
	'spongy-stem': {
		label: 'Stem or base spongy',
		how: 'Press with a thumb all round.',
		part: 'stem',
		minutes: 1,
		situations: anywhere
	},
	brackets: {
		label: 'Fungus brackets at the base',
		how: 'Walk round the foot of the trunk.',
		part: 'collar',
		minutes: 2,
		situations: ground
	},
	'leans-rocks': {
		label: 'Leans, or rocks in its soil',
		how: 'Push gently at breast height or at the first branch.',
		part: 'collar',
		minutes: 1,
		situations: anywhere
	},
	'no-flare': {
		label: 'No flare: trunk goes in like a post',
		how: 'Look at the foot of the trunk from all sides.',
		part: 'collar',
		minutes: 1,
		situations: anywhere
	},
	'girdler-seen': {
		label: 'Root across the trunk, or a groove or bulge in the bark',
		how: 'Brush the soil from the collar with a hand brush.',
		part: 'collar',
		minutes: 5,
		situations: anywhere
	},
	'stays-wet': {
		label: 'Stays wet while its neighbours dry',
		how: 'Weigh or lift it and two neighbours on the same day.',
		part: 'pot and soil',
		minutes: 3,
		situations: potted
	},
	'channels-through': {
		label: 'Water runs straight through, the pot stays light',
		how: 'Pour slowly; lift before and after.',
		part: 'pot and soil',
		minutes: 4,
		situations: potted
	},
	'water-stands': {
		label: 'Water stands on the surface',
		how: 'Pour a can of water and time it.',
		part: 'pot and soil',
		minutes: 5,
		situations: anywhere
	},
	'probe-stops': {
		label: 'A rod stops within a hand’s depth',
		how: 'Push a thin steel rod at five places.',
		part: 'pot and soil',
		minutes: 5,
		situations: ground
	},
	'roots-out-of-holes': {
		label: 'Roots out of the holes, will not slide out',
		how: 'Tip the pot and look under it.',
		part: 'pot and soil',
		minutes: 1,
		situations: potted
	},
	'much-empty-mix': {
		label: 'Much mix without roots in it',
		how: 'Push a stick down by the wall; feel for roots.',
		part: 'pot and soil',
		minutes: 2,
		situations: potted
	},
	'lump-squeezed': {
		label: 'Mix stays a lump when squeezed',
		how: 'Squeeze a damp handful and open the hand.',
		part: 'pot and soil',
		minutes: 1,
		situations: potted
	},
	'decline-after-work': {
		label: 'Decline began right after potting or moving',
		how: 'Compare the dates.',
		part: 'pot and soil',
		minutes: 1,
		situations: anywhere
	},
	'sour-smell': {
		label: 'Sour or sulphur smell from the root zone',
		how: 'Smell at the drain holes or a fresh hole in the soil.',
		part: 'roots',
		minutes: 1,
		situations: anywhere
	},
	'galls-wool': {
		label: 'Galls or white wool on roots or at the base',
		how: 'Open a little at the edge of the ball.',
		part: 'roots',
		minutes: 3,
		situations: anywhere
	},
	'solid-mat': {
		label: 'A solid mat of circling roots',
		how: 'Slide it out and look at the side of the ball.',
		part: 'roots',
		minutes: 8,
		situations: potted
	},
	'roots-dark-soft': {
		label: 'Roots dark and soft, bark slips',
		how: 'Pull gently at three roots; cut one.',
		part: 'roots',
		minutes: 8,
		situations: anywhere
	},
	'no-white-tips': {
		label: 'No white root tips anywhere',
		how: 'Look at the edge of the ball in the growing season.',
		part: 'roots',
		minutes: 8,
		situations: anywhere
	}
} as const satisfies Record<string, Sign>;

export type SignId = keyof typeof signs;
export const signIds = Object.keys(signs) as SignId[];
export const signOf = (id: SignId): Sign => signs[id];
export const signApplies = (id: SignId, situation: Situation): boolean =>
	(signs[id].situations as readonly Situation[]).includes(situation);
