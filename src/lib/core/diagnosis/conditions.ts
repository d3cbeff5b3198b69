/** What trees may have in common. */
export const sharedThings = ['batch', 'mix', 'watering', 'place'] as const;
export type SharedThing = (typeof sharedThings)[number];

/** What can be wrong with a tree in trouble; several may hold at once. */
export interface Condition {
	label: string;
	/** What follows from it, in one sentence. */
	meaning: string;
	/** Its treatment works at the roots, so that season counts. */
	atRoots: boolean;
	/** Through what it reaches other trees, if it does. */
	spreadsBy?: readonly SharedThing[];
}

export const conditions = {
	'root-rot': {
		label: 'Root rot',
		atRoots: true,
		meaning: 'Cut back to clean wood at once, in any season; new, airy mix.',
		spreadsBy: ['batch', 'mix', 'watering']
	},
	'sour-root-zone': {
		label: 'Sour, airless root zone',
		atRoots: false,
		meaning: 'Let air in: drain, tilt, water less, open the mix.',
		spreadsBy: ['mix', 'watering']
	},
	'girdling-roots': {
		label: 'Girdling roots',
		atRoots: true,
		meaning: 'Map the collar; free the trunk and anchors first.'
	},
	'buried-collar': {
		label: 'Buried collar',
		atRoots: false,
		meaning: 'Open the collar down to the flare by hand or with air.'
	},
	compaction: {
		label: 'Soil compaction',
		atRoots: false,
		meaning: 'Measure by depth, then loosen between the roots and mulch.'
	},
	'pot-bound': {
		label: 'Pot-bound, circling roots',
		atRoots: true,
		meaning: 'Open the ball in the window; reduce what circles.'
	},
	'collapsed-mix': {
		label: 'Collapsed or too fine mix',
		atRoots: true,
		meaning: 'Change the mix in the window; until then water less and from above.',
		spreadsBy: ['batch', 'mix']
	},
	'dry-core': {
		label: 'Dry core that sheds water',
		atRoots: false,
		meaning: 'Soak from below, twice, before judging anything else.',
		spreadsBy: ['mix', 'watering']
	},
	drought: {
		label: 'Drought',
		atRoots: false,
		meaning: 'Water the whole surface slowly; shade until leaves stand again.'
	},
	'over-potting': {
		label: 'Over-potting',
		atRoots: true,
		meaning: 'Water by weight; a smaller pot in the window.'
	},
	'weather-injury': {
		label: 'Cold, wind or heat injury',
		atRoots: false,
		meaning: 'Shelter now, cut nothing until the limit of dieback is clear.',
		spreadsBy: ['place', 'batch']
	},
	pest: {
		label: 'Sap-sucking or root-feeding pest',
		atRoots: false,
		meaning: 'Set it apart, wash it, look at its neighbours.',
		spreadsBy: ['place', 'batch']
	},
	'salt-ph-nutrient': {
		label: 'Salt, pH or nutrient trouble',
		atRoots: false,
		meaning: 'Flush, measure pH and conductivity before feeding anything.',
		spreadsBy: ['mix', 'watering']
	},
	'stem-rot': {
		label: 'Stem or crown rot',
		atRoots: false,
		meaning: 'Cut to firm tissue; a big tree goes to a qualified arborist.',
		spreadsBy: ['batch', 'watering']
	},
	'recent-root-loss': {
		label: 'Recent root loss',
		atRoots: false,
		meaning: 'Hold demand down: shade, shelter, humidity; water by weight.'
	},
	'low-light': {
		label: 'Too little light',
		atRoots: false,
		meaning: 'Move it in steps to more light.'
	}
} as const satisfies Record<string, Condition>;

export type ConditionId = keyof typeof conditions;
export const conditionIds = Object.keys(conditions) as ConditionId[];
export const conditionOf = (id: ConditionId): Condition => conditions[id];
