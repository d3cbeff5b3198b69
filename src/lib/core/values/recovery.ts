import { backupKindNames, type BackupKind } from '../recovery/backup';
import { defineValues, type WorkingValue } from './define';

const rates: Record<BackupKind, number> = {
	hardwood: 0.4,
	softwood: 0.35,
	root: 0.4,
	division: 0.8,
	layer: 0.75,
	graft: 0.5,
	seed: 0.4
};
const backupRates = Object.fromEntries(
	Object.entries(rates).map(([kind, value]): [string, WorkingValue] => [
		`backup.rate.${kind}`,
		{
			label: `Share that usually comes through: ${backupKindNames[kind as BackupKind]}`,
			value,
			unit: 'share',
			mark: 'ours',
			note: 'Differs widely by kind; ten of your own replace it.',
			min: 0.02,
			max: 0.98
		}
	])
) as Record<`backup.rate.${BackupKind}`, WorkingValue>;

/** What is seen on a tree: how often on one whose roots are whole, on one that has none, and how it bends between. */
const signs = {
	noBuds: ['no buds while its season is under way', 0.03, 0.88, 2],
	wilting: ['wilted or dropped leaves', 0.04, 0.64, 2],
	moving: ['a tree that moves or is loose', 0.05, 0.55, 1],
	whiteTips: ['white root tips', 0.9, 0.1, 1],
	smell: ['a smell of rot', 0.03, 0.53, 2],
	fallingLimit: ['living wood that went down since the last look', 0.05, 0.6, 1]
} as const;
export type RecoverySign = keyof typeof signs;
const signValues = Object.fromEntries(
	Object.entries(signs).flatMap(([sign, [label, whole, none, bend]]): [string, WorkingValue][] => [
		...(
			[
				['whole', whole, 'whole roots'],
				['none', none, 'no roots left']
			] as const
		).map(([state, value, words]): [string, WorkingValue] => [
			`forecast.seen.${sign}.${state}`,
			{
				label: `Seen with ${words}: ${label}`,
				value,
				unit: 'chance',
				mark: 'ours',
				min: 0.02,
				max: 0.98
			}
		]),
		[
			`forecast.seen.${sign}.bend`,
			{
				label: `How it bends between the two: ${label}`,
				value: bend,
				unit: '',
				mark: 'ours',
				note: 'Power of the roots that are missing. 1: in proportion; 2: only when much is missing.',
				min: 0.5,
				max: 4
			}
		]
	])
) as Record<`forecast.seen.${RecoverySign}.${'whole' | 'none' | 'bend'}`, WorkingValue>;

const again = {
	shoots: ['shoots', 10],
	dieback: ['the limit of living wood', 14],
	weight: ['its weight', 5],
	smell: ['its smell, after rot', 10],
	firmness: ['how firm it stands', 40],
	whiteTips: ['white root tips', 60],
	woundwood: ['woundwood', 150]
} as const;
const againValues = Object.fromEntries(
	Object.entries(again).map(([part, [label, value]]): [string, WorkingValue] => [
		`look.again.${part}`,
		{
			label: `A look asks again after ${label} when so many days have passed`,
			value,
			unit: 'days',
			mark: 'ours',
			min: 1,
			max: 400
		}
	])
) as Record<`look.again.${keyof typeof again}`, WorkingValue>;

export const recoveryValues = defineValues({
	...backupRates,
	...signValues,
	...againValues,
	'look.most': {
		label: 'A look asks at most for so many things',
		value: 7,
		unit: 'things',
		mark: 'ours',
		min: 3,
		max: 14
	},
	'look.budsUntil': {
		label: 'Buds are asked for until so much of the season is over',
		value: 0.4,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'look.leavesFrom': {
		label: 'Leaves are asked for when so much of the season is over',
		value: 0.05,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.9
	},
	'look.tipsFrom': {
		label: 'White root tips are asked for when so much of the season is over',
		value: 0.1,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.9
	},
	'look.edgeAfterDays': {
		label: 'Roots at the edge of the pot are asked for so long after the work',
		value: 240,
		unit: 'days',
		mark: 'ours',
		min: 30,
		max: 1000
	},
	'look.shootsFrom': {
		label: 'Shoots are asked for when so much of the season is over',
		value: 0.2,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.9
	},
	'forecast.failsAtOnce': {
		label: 'Of the trees that fail, so many do so from the work on',
		value: 0.4,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'forecast.failHalfFrom': {
		label: 'A tree that fails loses half of its roots in at least so many growing seasons',
		value: 0.15,
		unit: 'seasons',
		mark: 'ours',
		min: 0.02,
		max: 2
	},
	'forecast.failHalfTo': {
		label: 'and in at most so many',
		value: 0.7,
		unit: 'seasons',
		mark: 'ours',
		min: 0.05,
		max: 4
	},
	'forecast.fitness': {
		label: 'Root function that a tree which recovers comes to, in the mean',
		value: 0.95,
		unit: 'share',
		mark: 'ours',
		min: 0.6,
		max: 1
	},
	'forecast.fitnessSpread': {
		label: 'and how far trees differ in it (one deviation)',
		value: 0.08,
		unit: 'share',
		mark: 'ours',
		min: 0.01,
		max: 0.3
	},
	'forecast.beginSpread': {
		label: 'How far root function after the work is off what the cuts say (one deviation)',
		value: 0.12,
		unit: 'share',
		mark: 'ours',
		min: 0.01,
		max: 0.5
	},
	'forecast.wrongShare': {
		label: 'Readings that are simply wrong',
		value: 0.04,
		unit: 'share',
		mark: 'ours',
		min: 0.001,
		max: 0.3
	},
	'forecast.weighingsPower': {
		label: 'Weighings a month apart count so much of one that stands alone',
		value: 0.7,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'backup.certainty': {
		label: 'Cuttings are kept until one comes through with a certainty of',
		value: 0.95,
		unit: 'chance',
		mark: 'ours',
		min: 0.5,
		max: 0.999
	},
	'forecast.lossOdds': {
		label: 'Recovery: for all of the living roots taken',
		value: -2.4,
		unit: 'log-odds',
		mark: 'ours',
		note: 'A part of the roots counts in proportion.',
		min: -10,
		max: 0
	},
	'forecast.horizonDays': {
		label: 'Recovery is forecast for so many days after the work',
		value: 1095,
		unit: 'days',
		mark: 'ours',
		min: 180,
		max: 3650
	},
	'forecast.courses': {
		label: 'Courses that are simulated',
		value: 800,
		unit: 'courses',
		mark: 'ours',
		min: 100,
		max: 10_000
	},
	'forecast.paceSpread': {
		label: 'How far the pace of regrowth differs between trees (one deviation of its logarithm)',
		value: 0.4,
		unit: '',
		mark: 'ours',
		min: 0.05,
		max: 1.5
	},
	'forecast.failSeasons': {
		label: 'A tree that fails begins to within so many growing seasons',
		value: 1.2,
		unit: 'seasons',
		mark: 'ours',
		min: 0.1,
		max: 4
	},
	'forecast.coverBare': {
		label: 'Leaf cover that a tree whose roots do nothing still carries',
		value: 0.3,
		unit: 'share',
		mark: 'ours',
		note: 'Leaf cover is read as this and the rest in proportion to root function.',
		min: 0,
		max: 0.8
	},
	'forecast.weighingError': {
		label: 'Weighings tell root function no closer than (one deviation)',
		value: 0.08,
		unit: 'share',
		mark: 'ours',
		min: 0.01,
		max: 0.3
	},
	'forecast.budsFrom': {
		label: 'Buds tell of the roots when so much of the season is over',
		value: 0.15,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.6
	},
	'forecast.signsUntil': {
		label: 'and buds and leaves tell of them until',
		value: 0.85,
		unit: 'share',
		mark: 'ours',
		min: 0.5,
		max: 1
	},
	'forecast.rotChance': {
		label: 'Chance of rot in a tree of which dead roots were found',
		value: 0.5,
		unit: 'chance',
		mark: 'ours',
		note: 'Counts where the chance to live is judged on the day of the work.',
		min: 0,
		max: 1
	},
	'forecast.coverError': {
		label: 'How far leaf cover may be off for the roots a tree has (one deviation)',
		value: 0.14,
		unit: 'share',
		mark: 'ours',
		min: 0.02,
		max: 0.6
	},
	'forecast.shootError': {
		label: 'How far shoots against a reference may be off for the roots a tree has (one deviation)',
		value: 0.22,
		unit: 'share',
		mark: 'ours',
		min: 0.02,
		max: 0.8
	},
	'forecast.apartDays': {
		label: 'Looks count whole when they lie so many days apart',
		value: 30,
		unit: 'days',
		mark: 'ours',
		min: 1,
		max: 120
	},
	'outcomes.least': {
		label: 'Cases of one sort that carry a curve of outcomes',
		value: 10,
		unit: 'cases',
		mark: 'ours',
		note: 'No claim from five trees.',
		min: 5,
		max: 200
	},
	'outcomes.entangled': {
		label: 'Two factors are said to go together from Cramér’s V',
		value: 0.5,
		unit: '',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'review.repotYears': {
		label: 'A pot is asked after when the last planting is so old',
		value: 2,
		unit: 'years',
		mark: 'trade',
		min: 0.5,
		max: 10
	},
	'review.stagesDays': {
		label: 'Root stages due within so many days belong to the review',
		value: 200,
		unit: 'days',
		mark: 'ours',
		min: 30,
		max: 400
	},
	'decision.budsLateWeeks': {
		label: 'No buds so many weeks after the season began, or after the work: look closer',
		value: 8,
		unit: 'weeks',
		mark: 'trade',
		min: 3,
		max: 30
	},
	'decision.steadyShare': {
		label: 'A dieback limit is steady when two looks differ by less than',
		value: 0.03,
		unit: 'share',
		mark: 'ours',
		min: 0.005,
		max: 0.2
	},
	'decision.apartDays': {
		label: 'and lie at least so far apart',
		value: 14,
		unit: 'days',
		mark: 'ours',
		min: 3,
		max: 90
	},
	'decision.steadyMm': {
		label: 'For the forecast living wood went down when it lost more than counts as steady, and besides',
		value: 5,
		unit: 'mm',
		mark: 'ours',
		min: 0,
		max: 100
	},
	'decision.closerUnder': {
		label: 'Look closer when the probability is under',
		value: 0.5,
		unit: 'chance',
		mark: 'ours',
		min: 0.05,
		max: 0.95
	},
	'decision.closerDrop': {
		label: 'or fell since the look before by',
		value: 0.15,
		unit: 'chance',
		mark: 'ours',
		min: 0.02,
		max: 0.8
	},
	'decision.deadUnder': {
		label: 'Ask whether it is dead when the probability is under',
		value: 0.06,
		unit: 'chance',
		mark: 'ours',
		min: 0.005,
		max: 0.4
	},
	'decision.wetUnder': {
		label: 'Wilting is a matter of wet roots under a dryness of',
		value: 0.35,
		unit: 'share',
		mark: 'ours',
		min: 0.05,
		max: 0.6
	},
	'decision.dryOver': {
		label: 'and of water over a dryness of',
		value: 0.6,
		unit: 'share',
		mark: 'ours',
		min: 0.3,
		max: 0.95
	},
	'decision.growsShare': {
		label: 'It grows well with shoots, or cover, of at least',
		value: 0.7,
		unit: 'share',
		mark: 'ours',
		min: 0.2,
		max: 1
	},
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
	'look.readingError': {
		label: 'Two readings of one thing differ by so much without meaning anything',
		value: 0.15,
		unit: 'share',
		mark: 'ours',
		min: 0.01,
		max: 0.4
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
