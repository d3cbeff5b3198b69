/** What can be wrong with a tree in trouble; several may hold at once. */
export interface Condition {
	label: string;
	/** What follows from it, in one sentence. */
	meaning: string;
	/** True when it may be treated in any season. */
	urgent: boolean;
}

export const conditions = {
	'root-rot': {
		label: 'Root rot',
		meaning: 'Cut back to clean wood at once, in any season; new, airy mix.',
		urgent: true
	},
	'sour-root-zone': {
		label: 'Sour, airless root zone',
		meaning: 'Let air in: drain, tilt, water less, open the mix.',
		urgent: true
	},
	'girdling-roots': {
		label: 'Girdling roots',
		meaning: 'Map the collar; free the trunk and anchors first.',
		urgent: true
	},
	'buried-collar': {
		label: 'Buried collar',
		meaning: 'Open the collar down to the flare by hand or with air.',
		urgent: false
	},
	compaction: {
		label: 'Soil compaction',
		meaning: 'Measure by depth, then loosen between the roots and mulch.',
		urgent: false
	},
	'pot-bound': {
		label: 'Pot-bound, circling roots',
		meaning: 'Open the ball in the window; reduce what circles.',
		urgent: false
	},
	'collapsed-mix': {
		label: 'Collapsed or too fine mix',
		meaning: 'Change the mix in the window; until then water less and from above.',
		urgent: false
	},
	'dry-core': {
		label: 'Dry core that sheds water',
		meaning: 'Soak from below, twice, before judging anything else.',
		urgent: true
	},
	drought: {
		label: 'Drought',
		meaning: 'Water the whole surface slowly; shade until leaves stand again.',
		urgent: true
	},
	'over-potting': {
		label: 'Over-potting',
		meaning: 'Water by weight; a smaller pot in the window.',
		urgent: false
	},
	'weather-injury': {
		label: 'Cold, wind or heat injury',
		meaning: 'Shelter now, cut nothing until the limit of dieback is clear.',
		urgent: false
	},
	pest: {
		label: 'Sap-sucking or root-feeding pest',
		meaning: 'Set it apart, wash it, look at its neighbours.',
		urgent: true
	},
	'salt-ph-nutrient': {
		label: 'Salt, pH or nutrient trouble',
		meaning: 'Flush, measure pH and conductivity before feeding anything.',
		urgent: false
	},
	'stem-rot': {
		label: 'Stem or crown rot',
		meaning: 'Cut to firm tissue; a big tree goes to a qualified arborist.',
		urgent: true
	},
	'recent-root-loss': {
		label: 'Recent root loss',
		meaning: 'Hold demand down: shade, shelter, humidity; water by weight.',
		urgent: false
	},
	'low-light': { label: 'Too little light', meaning: 'Move it in steps to more light.', urgent: false }
} as const satisfies Record<string, Condition>;

export type ConditionId = keyof typeof conditions;
export const conditionIds = Object.keys(conditions) as ConditionId[];
export const conditionOf = (id: ConditionId): Condition => conditions[id];
