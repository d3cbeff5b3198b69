import { defineValues, ours } from './define';

/** From what is measured to the grade of a sign. */
export const measuringValues = defineValues({
	'measuring.dead-some': ours('Root sample: some are dead from', 0.1, 'share', [0.01, 0.9]),
	'measuring.dead-many': ours('Root sample: many are dead from', 1 / 3, 'share', [0.02, 0.95]),
	'measuring.sample-least': ours('Root sample: at least', 10, 'roots', [1, 200]),
	'measuring.sample-width': ours(
		'Root sample: narrow enough to decide from',
		0.2,
		'width of the interval',
		[0.02, 0.6]
	),
	'measuring.misread': ours('Scratch and tap: how often one reading is wrong', 0.08, 'chance', [0.001, 0.45]),
	'measuring.topShare': ours(
		'Scratch and tap: the top of the stem is this share of its height',
		0.03,
		'share of height',
		[0, 0.2]
	),
	'measuring.dieback-none': ours('Dieback: nothing to speak of under', 0.04, 'share of height', [0, 0.5]),
	'measuring.dieback-third': ours('Dieback: a third or more from', 1 / 3, 'share of height', [0.05, 0.9]),
	'measuring.dieback-base': ours(
		'Dieback: down to the base when no more lives than',
		0.06,
		'share of height',
		[0, 0.5]
	),
	'measuring.wound-below': ours(
		'Dieback: dead places within this of each other are one patch, when two living ones lie above by as much',
		0.1,
		'share of height',
		[0.01, 0.5]
	),
	'measuring.dieback-close': ours(
		'Dieback: the limit is close enough within',
		0.06,
		'share of height',
		[0.005, 0.5]
	),
	'measuring.slow-drinker': ours('Drinks slower than its neighbours under', 0.6, 'of their loss', [0.1, 1]),
	'measuring.hardly-drinks': ours('Hardly drinks under', 0.3, 'of their loss', [0.01, 0.9]),
	'measuring.neighbour-loss': ours(
		'Neighbours must have lost at least',
		0.03,
		'of their weight',
		[0.001, 0.5]
	),
	'measuring.light-pot': ours('A pot is light when it has dried by', 0.8, 'share', [0.3, 1]),
	'measuring.dries-fast-days': ours('It dries fast when it is light within', 1.5, 'days', [0.2, 10]),
	'measuring.outflow-least': ours('Outflow wanted, from', 0.1, 'of the water', [0, 0.5], { mark: 'trade' }),
	'measuring.outflow-most': ours('Outflow wanted, up to', 0.2, 'of the water', [0.05, 0.9], {
		mark: 'trade'
	}),
	'measuring.channelling': ours('Water channels through from an outflow of', 0.5, 'of the water', [0.2, 1]),
	'measuring.first-drip-s': ours('and a first drip within', 30, 's', [1, 600]),
	'measuring.no-channel-times': ours(
		'Water does not channel when no more runs out than the most that should, times',
		1.5,
		'times',
		[1, 5]
	),
	'measuring.sinks-min': ours('Water sinks at once within', 1, 'min', [0.05, 30]),
	'measuring.stands-min': ours('Water stands after', 10, 'min', [0.5, 600]),
	'measuring.mat-some': ours('Circling roots, many with gaps, from', 0.25, 'of the wall', [0.01, 0.9]),
	'measuring.mat-solid': ours('Circling roots, a solid mat, from', 0.7, 'of the wall', [0.05, 1]),
	'measuring.buried': ours('A collar is buried from', 50, 'mm', [5, 1000])
});
