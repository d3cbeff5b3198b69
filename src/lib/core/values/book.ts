import { defineValues } from './define';

/** What entries of the field book cost and rule out. */
export const bookValues = defineValues({
	'book.matShare': {
		label: 'Bound ball: share of its absorbing roots that lie in the mat at wall and base',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'book.matShareLeast': {
		label: 'Bound ball: the same, at least',
		value: 0.3,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'book.matShareMost': {
		label: 'Bound ball: the same, at most',
		value: 0.7,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'book.matMm': {
		label: 'Bound ball: thickness of the mat',
		value: 20,
		unit: 'mm',
		mark: 'ours',
		min: 2,
		max: 200
	},
	'book.matRun': {
		label: 'Bound ball: how far round a root of the mat runs',
		value: 0.15,
		unit: 'of a round',
		mark: 'ours',
		min: 0.01,
		max: 3
	},
	'book.sparedSide': {
		label: 'Ball shaved with one side spared: share of its side that is left',
		value: 0.25,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.9
	},
	'book.taskSpanDays': {
		label: 'Work that the field book brings up: days it may take',
		value: 7,
		unit: 'days',
		mark: 'ours',
		min: 1,
		max: 60
	},
	'book.weedPreventerDays': {
		label: 'Weed preventer is spoken against this long after roots were cut',
		value: 90,
		unit: 'days',
		mark: 'memory',
		note: 'Several inhibit root tips; the label says how long.',
		min: 0,
		max: 400
	},
	'book.phApartDays': {
		label: 'Lime and sulphur are spoken against within',
		value: 120,
		unit: 'days',
		mark: 'ours',
		note: 'Each undoes the other.',
		min: 0,
		max: 800
	}
});
