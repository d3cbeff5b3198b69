import { defineValues } from './define';

export const recoveryValues = defineValues({
	'verdict.rootFunction': {
		label: 'Root function that counts as re-established',
		value: 0.8,
		unit: 'share',
		mark: 'ours',
		min: 0.3,
		max: 1
	},
	'verdict.shootShareOfReference': {
		label: 'Shoot extension that counts, as a share of a healthy reference',
		value: 0.8,
		unit: 'share',
		mark: 'ours',
		min: 0.3,
		max: 1.2
	},
	'verdict.groundMonthsPerInch': {
		label: 'Time to establish in the ground, months per inch of caliper, temperate climate',
		value: 6,
		unit: 'months',
		mark: 'memory',
		source: 'Watson; Gilman, University of Florida',
		note: 'About 12 in cold climates, 3 to 4 in warm ones with irrigation.',
		min: 1,
		max: 24
	},
	'verdict.quietDays': {
		label: 'Without new dieback for',
		value: 180,
		unit: 'days',
		mark: 'ours',
		note: 'Stands for two flushes or one full season.',
		min: 60,
		max: 400
	},
	'expected.yearsToRegrow': {
		label: 'Growing seasons until nine tenths of the lost root function is back',
		value: 1.6,
		unit: 'seasons',
		mark: 'ours',
		min: 0.3,
		max: 6
	},
	'expected.bandSpread': {
		label: 'Half width of the band of expected root function, as a share of what was lost',
		value: 0.4,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'look.routineDays': {
		label: 'Days between looks when nothing is wrong',
		value: 30,
		unit: 'days',
		mark: 'ours',
		min: 7,
		max: 120
	},
	'look.overdueDays': {
		label: 'A tree without a look for this long is brought up',
		value: 60,
		unit: 'days',
		mark: 'ours',
		min: 14,
		max: 365
	},
	'firstBuds.weeksFrom': {
		label: 'First buds on a hardy tree, weeks after lifting, earliest',
		value: 4,
		unit: 'weeks',
		mark: 'trade',
		min: 1,
		max: 20
	},
	'firstBuds.weeksTo': {
		label: 'First buds on a hardy tree, weeks after lifting, latest',
		value: 6,
		unit: 'weeks',
		mark: 'trade',
		min: 1,
		max: 30
	}
});
