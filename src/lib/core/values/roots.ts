import { defineValues, type Mark, type WorkingValue } from './define';

const groups = {
	deciduous: { label: 'Deciduous broadleaf, dormant', shares: [0.25, 0.4, 0.6] },
	'broadleaf-evergreen': { label: 'Broadleaf evergreen', shares: [0.2, 0.33, 0.45] },
	conifer: { label: 'Conifer', shares: [0.15, 0.25, 0.35] },
	tropical: { label: 'Tropical woody, warm and growing', shares: [0.25, 0.35, 0.5] },
	succulent: { label: 'Succulent or fleshy-rooted', shares: [0.25, 0.5, 0.7] },
	ericaceous: { label: 'Ericaceous, fine shallow roots', shares: [0.2, 0.33, 0.4] },
	palm: { label: 'Palm-like monocot', shares: [0.3, 0.5, 0.75] },
	landscape: { label: 'Established landscape tree', shares: [0.1, 0.2, 0.25] }
} as const;
const tempers = ['gentle', 'usual', 'bold'] as const;

type AllowanceKey = `allowance.${keyof typeof groups}.${(typeof tempers)[number]}`;

const allowance = Object.fromEntries(
	Object.entries(groups).flatMap(([group, { label, shares }]) =>
		tempers.map((temper, index) => [
			`allowance.${group}.${temper}`,
			{
				label: `${label}, ${temper}: living absorbing share removed in one session`,
				value: shares[index] ?? 0,
				unit: 'share',
				mark: 'ours' as Mark,
				note: 'Leans on trade practice and memory.',
				min: 0,
				max: 0.9
			}
		])
	)
) as Record<AllowanceKey, WorkingValue>;

const factor = (label: string, value: number): WorkingValue => ({
	label,
	value,
	unit: 'factor',
	mark: 'ours',
	min: 0,
	max: 1.5
});

const points = (label: string, value: number): WorkingValue => ({
	label: `Plan: ${label}`,
	value,
	unit: 'points',
	mark: 'ours',
	note: 'Only their proportions count.',
	min: 0,
	max: 1000
});

export const rootValues = defineValues({
	...allowance,
	'vigour.strong': factor('Vigour strong: allowance times', 1),
	'vigour.fair': factor('Vigour fair: allowance times', 0.75),
	'vigour.weak': factor('Vigour weak: allowance times', 0.5),
	'season.in-window': factor('In the window: allowance times', 1),
	'season.shoulder': factor('Shoulder of the window: allowance times', 0.7),
	'season.out-of-window': factor('Out of the window: allowance times', 0.4),
	'reserves.field-grown': factor('Field-grown: allowance times', 1),
	'reserves.few-years-potted': factor('A few years in a pot: allowance times', 0.85),
	'reserves.long-potted': factor('Long in a pot, or old and collected: allowance times', 0.7),
	'classWeight.anchor': factor('Structural weight of an anchor', 1),
	'classWeight.scaffold': factor('Structural weight of a scaffold root', 0.8),
	'classWeight.secondary': factor('Structural weight of a secondary root', 0.2),
	'classWeight.feeder': factor('Structural weight of a feeder', 0),
	'anchorage.wantedShare': {
		label: 'Structural share to be left in every 120° window',
		value: 0.6,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'balance.little': {
		label: 'Roots stand a little one-sided from this length of their mean direction',
		value: 0.15,
		unit: '',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'balance.much': {
		label: 'Roots stand one-sided from this length of their mean direction',
		value: 0.4,
		unit: '',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'anchorage.windowDeg': {
		label: 'Width of the anchorage window',
		value: 120,
		unit: '°',
		mark: 'ours',
		min: 30,
		max: 360
	},
	'contact.toleranceMm': {
		label: 'A root closer to the trunk than this counts as touching it',
		value: 5,
		unit: 'mm',
		mark: 'ours',
		min: 0,
		max: 50
	},
	'contact.trunkDepthShare': {
		label: 'Under the flare there is trunk to lie against as deep as, of its thickness',
		value: 0.5,
		unit: '×',
		mark: 'ours',
		note: 'Deeper a root passes under it. Above the flare the stem counts, buried or not.',
		min: 0,
		max: 3
	},
	'girdling.touches': {
		label: 'Girdling: contact up to this share is none',
		value: 0.02,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.2
	},
	'girdling.watchBelow': {
		label: 'Girdling: contact below this share is only watched',
		value: 0.15,
		unit: 'share',
		mark: 'ours',
		note: 'Leans on memory of arboricultural classes.',
		min: 0,
		max: 1
	},
	'girdling.seriousFrom': {
		label: 'Girdling: serious from this contact share',
		value: 0.33,
		unit: 'share',
		mark: 'ours',
		note: 'Leans on memory of arboricultural classes.',
		min: 0,
		max: 1
	},
	'girdling.criticalFrom': {
		label: 'Girdling: critical from this contact share',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		note: 'Leans on memory of arboricultural classes.',
		min: 0,
		max: 1
	},
	'girdling.thickShareOfTrunk': {
		label: 'A girdler thicker than this share of the trunk goes up one class',
		value: 0.2,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'course.circlingDeg': {
		label: 'A root circles when it runs round for at least',
		value: 60,
		unit: '°',
		mark: 'ours',
		min: 20,
		max: 360
	},
	'course.turnedBack': {
		label: 'A root is turned back when it comes this share of its way back',
		value: 0.35,
		unit: 'share',
		mark: 'ours',
		min: 0.05,
		max: 1
	},
	'course.risesMm': {
		label: 'A root rises when it comes up by at least',
		value: 10,
		unit: 'mm',
		mark: 'ours',
		min: 1,
		max: 500
	},
	'course.crossingDeg': {
		label: 'Roots that touch cross from an angle of',
		value: 20,
		unit: '°',
		mark: 'ours',
		min: 1,
		max: 90
	},
	'cut.secateursMm': {
		label: 'Secateurs cut cleanly up to',
		value: 12,
		unit: 'mm',
		mark: 'ours',
		min: 2,
		max: 40
	},
	'cut.loppersMm': {
		label: 'Loppers cut cleanly up to; thicker is for a saw',
		value: 30,
		unit: 'mm',
		mark: 'ours',
		min: 5,
		max: 80
	},
	'stages.regrownShare': {
		label: 'Share of the lost roots grown back before the next stage',
		value: 0.6,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'plan.benefit.rot': points('Cutting rot back is worth', 100),
	'plan.benefit.girdling.critical': points('Freeing the trunk of a critical girdler is worth', 80),
	'plan.benefit.girdling.serious': points('of a serious girdler', 60),
	'plan.benefit.girdling.moderate': points('of a moderate girdler', 35),
	'plan.benefit.circling': points('Taking a circling or turned-back root off is worth', 20),
	'plan.benefit.course': points('a rising, descending, crossing or non-radial one', 9),
	'plan.benefit.torn': points('a torn end, cut clean behind the tear', 12),
	'plan.benefit.neatness': points('a crowded or too thick one', 4),
	'plan.stubShare': {
		label:
			'Cutting back to a side root is worth this share of cutting at the base, where the trouble lies beyond',
		value: 0.9,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'plan.laterStage': {
		label: 'What is done one stage later is worth this share',
		value: 0.8,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'plan.livingCost': points('Losing all living root costs', 120),
	'plan.structuralCost': points('Losing all structural root costs', 60),
	'stages.leastDaysApart': {
		label: 'Least time between two root stages',
		value: 300,
		unit: 'days',
		mark: 'ours',
		note: 'About one growing season to pay back the last one.',
		min: 30,
		max: 1500
	},
	'stages.regainedShoot': {
		label: 'A later stage opens when shoots are this share of the best before, or of the reference',
		value: 0.7,
		unit: 'share',
		mark: 'ours',
		note: 'That the tree must pay back the last stage first is trade practice; the number is ours.',
		min: 0,
		max: 2
	},
	'stages.regainedCover': {
		label: 'Where no shoots were measured: leaf cover that counts as growth regained',
		value: 0.85,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'cut.stubThicknesses': {
		label: 'A cut nearer the base than so many times its thickness takes a root whole',
		value: 2,
		unit: 'times',
		mark: 'ours',
		min: 0,
		max: 10
	},
	'cut.behindTearThicknesses': {
		label: 'A torn end is cut behind the tear by so many times its thickness there',
		value: 2,
		unit: 'times',
		mark: 'ours',
		min: 0.5,
		max: 10
	},
	'roots.fineTowardTip': {
		label:
			'How much denser fine roots stand toward the tip: what lies within a part of the length is that part to the power of',
		value: 1.5,
		unit: '',
		mark: 'ours',
		note: '1: evenly along the root. 2: a cut in the middle takes three quarters.',
		min: 1,
		max: 4
	},
	'stages.evergreenFell': {
		label: 'An evergreen has dropped leaves since a stage from a leaf cover lower by',
		value: 0.15,
		unit: 'share',
		mark: 'ours',
		min: 0.02,
		max: 0.5
	},
	'stages.most': {
		label: 'Most stages a proposal spreads the work over',
		value: 4,
		unit: 'stages',
		mark: 'ours',
		min: 1,
		max: 6
	},
	'crown.reserve': {
		label: 'Supply of the remaining roots is taken this much higher, for reserves',
		value: 1.15,
		unit: 'factor',
		mark: 'ours',
		min: 1,
		max: 2
	},
	'crown.takeMost': {
		label: 'Never more of the leaf area is taken at once than',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		note: 'What the roots cannot feed beyond it is held by shade and shelter.',
		min: 0,
		max: 0.9
	},
	'work.togetherDays': {
		label: 'A lift and the cuts that follow it count as one piece of work within',
		value: 30,
		unit: 'days',
		mark: 'ours',
		min: 0,
		max: 180
	},
	'work.liftCountsDays': {
		label: 'A lift decides the chance of a tree that is planted after it within',
		value: 120,
		unit: 'days',
		mark: 'ours',
		min: 0,
		max: 730
	},
	'landscape.trunkFromMm': {
		label: 'In the ground, a trunk this thick is judged as an established landscape tree',
		value: 200,
		unit: 'mm',
		mark: 'ours',
		min: 50,
		max: 2000
	},
	'class.anchor': {
		label: 'An anchor, where no class was said, has of the thickness of the trunk at least',
		value: 0.3,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'class.scaffold': {
		label: 'a scaffold root at least',
		value: 0.18,
		unit: 'share',
		mark: 'ours',
		min: 0.03,
		max: 0.9
	},
	'class.secondary': {
		label: 'a secondary root at least; what is thinner is a feeder',
		value: 0.06,
		unit: 'share',
		mark: 'ours',
		min: 0.005,
		max: 0.5
	},
	'ground.rpaFactor': {
		label: 'Root protection radius over stem diameter',
		value: 12,
		unit: '×',
		mark: 'published',
		source: 'BS 5837:2012',
		min: 1,
		max: 24
	},
	'ground.rpaCapM2': {
		label: 'Root protection area at most',
		value: 707,
		unit: 'm²',
		mark: 'published',
		source: 'BS 5837:2012',
		min: 50,
		max: 5000
	},
	'ground.srzLeastM': {
		label: 'Structural root zone radius at least',
		value: 1.5,
		unit: 'm',
		mark: 'published',
		source: 'AS 4970-2009',
		min: 0.5,
		max: 5
	},
	'ground.noCutTrunkDiameters': {
		label: 'No structural root cut nearer than this many trunk diameters without a qualified arborist',
		value: 3,
		unit: '×',
		mark: 'memory',
		source: 'ANSI A300 (Part 8)',
		min: 1,
		max: 10
	}
});
