import { backupKindNames, type BackupKind } from '../vocabulary/backup-kinds';
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

/**
 * What is seen on a tree, its steps from worst to best: how often on one that shows nothing of what a recovering tree shows, how
 * often on one that shows all of it, and how it bends between. The better the step, the more it must speak for the tree.
 */
const signs = {
	buds: {
		label: 'buds while the season is under way',
		bend: 2,
		steps: {
			none: ['no buds, and the season is under way', 0.88, 0.03],
			swelling: ['buds swell', 0.06, 0.15],
			open: ['buds open', 0.06, 0.82]
		}
	},
	leaves: {
		label: 'leaves',
		bend: 2,
		steps: {
			dropped: ['leaves dropped', 0.42, 0.012],
			wilted: ['leaves wilted', 0.3, 0.04],
			scorched: ['leaves scorched', 0.12, 0.04],
			yellow: ['leaves yellow', 0.1, 0.05],
			turgid: ['leaves turgid', 0.06, 0.858]
		}
	},
	firmness: {
		label: 'firmness',
		bend: 1,
		steps: {
			loose: ['moves at the base', 0.2, 0.01],
			moves: ['rocks a little', 0.35, 0.05],
			firm: ['stands firm', 0.45, 0.94]
		}
	},
	whiteTips: {
		label: 'white root tips',
		bend: 1,
		steps: { no: ['no white root tips', 0.9, 0.1], yes: ['white root tips', 0.1, 0.9] }
	},
	smell: {
		label: 'smell',
		bend: 2,
		steps: {
			sulphur: ['smells of sulphur', 0.2, 0.004],
			sour: ['smells sour', 0.23, 0.016],
			mouldy: ['smells mouldy', 0.1, 0.01],
			none: ['smells of nothing', 0.47, 0.97]
		}
	}
} as const satisfies Record<
	string,
	{
		label: string;
		bend: number;
		steps: Record<string, readonly [words: string, none: number, whole: number]>;
	}
>;
export type RecoverySign = keyof typeof signs;
type StepOf<S extends RecoverySign> = keyof (typeof signs)[S]['steps'] & string;
type StepKey = { [S in RecoverySign]: `forecast.seen.${S}.${StepOf<S>}` }[RecoverySign];
type StepValueKey = `${StepKey}.${'whole' | 'none'}`;
/** The working value of a step: how often it is seen on a tree that shows none, or all, of a recovery. */
export const stepKey = (sign: RecoverySign, step: string, state: 'whole' | 'none'): StepValueKey =>
	`forecast.seen.${sign}.${step}.${state}` as StepValueKey;

const signEntries = Object.entries(signs) as [
	RecoverySign,
	{ label: string; bend: number; steps: Record<string, readonly [string, number, number]> }
][];
/** Steps of each sign, worst first. */
export const signSteps = Object.fromEntries(
	signEntries.map(([sign, { steps }]) => [sign, Object.keys(steps)])
) as unknown as { [S in RecoverySign]: readonly StepOf<S>[] };
/** How each step is said. */
export const signNames = Object.fromEntries(
	signEntries.map(([sign, { steps }]) => [
		sign,
		Object.fromEntries(Object.entries(steps).map(([step, [words]]) => [step, words]))
	])
) as Record<RecoverySign, Record<string, string>>;
const signValues = Object.fromEntries(
	signEntries.flatMap(([sign, { label, bend, steps }]): [string, WorkingValue][] => [
		...Object.entries(steps).flatMap(([step, [words, none, whole]]) =>
			(
				[
					['none', none, 'a tree that shows no recovery'],
					['whole', whole, 'a tree that shows a full one']
				] as const
			).map(([state, value, on]): [string, WorkingValue] => [
				`forecast.seen.${sign}.${step}.${state}`,
				{ label: `Seen on ${on}: ${words}`, value, unit: 'chance', mark: 'ours', min: 0.001, max: 0.999 }
			])
		),
		[
			`forecast.seen.${sign}.bend`,
			{
				label: `How it bends between the two: ${label}`,
				value: bend,
				unit: '',
				mark: 'ours',
				note: 'Power of what is missing. 1: in proportion; 2: only when much is missing.',
				min: 0.5,
				max: 4
			}
		]
	])
) as Record<StepValueKey | `forecast.seen.${RecoverySign}.bend`, WorkingValue>;

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
	'evidence.strongOdds': {
		label: 'What was seen is said to speak strongly from this pull, in log-odds',
		value: 1.5,
		unit: '',
		mark: 'ours',
		note: '1.5 turns even into four and a half to one.',
		min: 0.1,
		max: 10
	},
	'evidence.slightOdds': {
		label: 'And only slightly under this one',
		value: 0.4,
		unit: '',
		mark: 'ours',
		note: '0.4 turns even into three to two.',
		min: 0,
		max: 5
	},
	'letter.fallsFromM': {
		label: 'A letter on a potted tree speaks of falling from this height',
		value: 2.5,
		unit: 'm',
		mark: 'ours',
		min: 0,
		max: 30
	},
	'letter.fallsFromTrunkMm': {
		label: 'Where nobody measured its height: from this trunk',
		value: 150,
		unit: 'mm',
		mark: 'ours',
		min: 0,
		max: 2000
	},
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
	'forecast.leavesTipping': {
		label: 'How fast a tree leaves the tipping point between going and recovering',
		value: 1.5,
		unit: '1/season',
		mark: 'ours',
		note: 'Log-odds of its standing multiply by e to this in a season: well under the point a tree dies within weeks.',
		min: 0.2,
		max: 20
	},
	'forecast.wavers': {
		label: 'How far its standing wavers in a season (one deviation of its log-odds)',
		value: 0.6,
		unit: '',
		mark: 'ours',
		min: 0.05,
		max: 4
	},
	'forecast.standingSpread': {
		label:
			'How far trees of the same odds stand apart on the day of the work (one deviation of the log-odds)',
		value: 1.4,
		unit: '',
		mark: 'ours',
		min: 0.2,
		max: 4
	},
	'forecast.restPace': {
		label: 'Outside the growing season things go at so much of the pace within it',
		value: 0.15,
		unit: 'share',
		mark: 'ours',
		min: 0.02,
		max: 1
	},
	'forecast.storesShow': {
		label: 'Right after the work a tree shows by its stores: power of its standing that is seen',
		value: 0.2,
		unit: '',
		mark: 'ours',
		note: '1 would be: it shows at once how it stands.',
		min: 0.05,
		max: 1
	},
	'forecast.storesSeasons': {
		label: 'and the stores are used up within some',
		value: 2,
		unit: 'seasons',
		mark: 'ours',
		min: 0.05,
		max: 3
	},
	'forecast.leastRoots': {
		label: 'A living tree keeps root function of at least',
		value: 0.02,
		unit: 'share',
		mark: 'ours',
		note: 'So that a bare-rooted tree or a cutting may still grow roots.',
		min: 0.001,
		max: 0.2
	},
	'forecast.coverAtFirst': {
		label: 'Leaf cover of a recovering tree soon after the work, of the crown it was left',
		value: 0.86,
		unit: 'share',
		mark: 'ours',
		min: 0.2,
		max: 1
	},
	'forecast.shootsAtFirst': {
		label: 'Shoots of a recovering tree soon after the work, of a healthy one’s',
		value: 0.6,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'forecast.functionAtFirst': {
		label: 'Root function of a recovering tree soon after the work',
		value: 0.45,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'forecast.crownPace': {
		label: 'Pace at which cover and shoots of a recovering tree come to be whole',
		value: 1.2,
		unit: '1/season',
		mark: 'ours',
		min: 0.1,
		max: 6
	},
	'forecast.coverBend': {
		label: 'Leaf cover follows what a tree shows by a power of',
		value: 0.5,
		unit: '',
		mark: 'ours',
		note: 'Under 1: leaves hold on longer than roots.',
		min: 0.1,
		max: 2
	},
	'forecast.bare.none': {
		label: 'No leaf at all in leaf time, on a tree that shows no recovery',
		value: 0.6,
		unit: 'chance',
		mark: 'ours',
		min: 0.05,
		max: 0.99
	},
	'forecast.bare.whole': {
		label: 'No leaf at all in leaf time, on a tree that shows a full one',
		value: 0.0005,
		unit: 'chance',
		mark: 'ours',
		min: 0.00001,
		max: 0.5
	},
	'forecast.coverReading': {
		label: 'Leaf cover is read no closer than (one deviation)',
		value: 0.05,
		unit: 'share',
		mark: 'ours',
		min: 0.01,
		max: 0.3
	},
	'forecast.functionSpread': {
		label: 'How far recovering trees differ in root function at one time (one deviation)',
		value: 0.15,
		unit: 'share',
		mark: 'ours',
		min: 0.02,
		max: 0.6
	},
	'forecast.shootAnyMm': {
		label: 'Without a reference, shoots of a season count as growth from',
		value: 100,
		unit: 'mm',
		mark: 'ours',
		min: 5,
		max: 1000
	},
	'forecast.limitKept': {
		label: 'A recovering tree usually keeps living wood to so much of its height or more',
		value: 0.7,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 0.95
	},
	'forecast.limitError': {
		label: 'and trees differ in it by (one deviation)',
		value: 0.2,
		unit: 'share',
		mark: 'ours',
		min: 0.02,
		max: 0.6
	},
	'forecast.unseenSpread': {
		label: 'What a year unseen adds to the doubt about the odds (one deviation)',
		value: 1.5,
		unit: 'log-odds',
		mark: 'ours',
		min: 0.1,
		max: 6
	},
	'forecast.unknownDays': {
		label: 'Without anything seen for so long, the chance counts as not known',
		value: 365,
		unit: 'days',
		mark: 'ours',
		min: 60,
		max: 1500
	},
	'forecast.deadUnder': {
		label: 'It is said to be dead when the chance is under',
		value: 0.03,
		unit: 'chance',
		mark: 'ours',
		min: 0.001,
		max: 0.2
	},
	'forecast.looksPower': {
		label: 'A look counts so much of one that stands alone',
		value: 0.4,
		unit: 'share',
		mark: 'ours',
		note: 'What is seen at one look, and at one tree, goes together.',
		min: 0.1,
		max: 1
	},
	'forecast.bandTail': {
		label: 'The band of the roots leaves out at each end',
		value: 0.08,
		unit: 'share',
		mark: 'ours',
		note: 'Looks count for less than if each stood alone, which widens it: with this it holds nine simulated trees of ten.',
		min: 0.01,
		max: 0.3
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
	'forecast.beginSpreadLeast': {
		label: 'Of how unsure the roots at the beginning are, this part stays where hardly any are left',
		value: 0.3,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'forecast.beginSpread': {
		label: 'How far root function after the work is off what the cuts say (one deviation, of itself)',
		value: 0.12,
		unit: 'share',
		mark: 'ours',
		min: 0.01,
		max: 0.5
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
	'backup.ownFrom': {
		label: 'The yard’s own share of cuttings that struck counts from',
		value: 10,
		unit: 'cuttings',
		mark: 'ours',
		min: 1,
		max: 500
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
	'forecast.paceSpread': {
		label: 'How far the pace of regrowth differs between trees (one deviation of its logarithm)',
		value: 0.4,
		unit: '',
		mark: 'ours',
		min: 0.05,
		max: 1.5
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
		value: 0.25,
		unit: 'share',
		mark: 'ours',
		min: 0.02,
		max: 0.6
	},
	'forecast.timeTold': {
		label: 'The chance is told in two parts where its roots are enough in time with less than',
		value: 0.9,
		unit: 'chance',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'forecast.shootRead': {
		label: 'Shoots against a healthy one’s are read no closer than (one deviation)',
		value: 0.15,
		unit: 'share',
		mark: 'ours',
		note: 'Counts where shoots as long as the verdict wants say that roots are enough.',
		min: 0.02,
		max: 1
	},
	'forecast.shootError': {
		label: 'How far shoots against a reference may be off for the roots a tree has (one deviation)',
		value: 0.35,
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
	'forecast.inLeaf': {
		label: 'A tree is read as in leaf from this share of its season’s leaves',
		value: 0.9,
		unit: 'share',
		mark: 'ours',
		min: 0.2,
		max: 1
	},
	'forecast.movedLeast': {
		label: 'What was seen is named when it moved the chance by at least',
		value: 0.05,
		unit: 'log-odds',
		mark: 'ours',
		min: 0,
		max: 2
	},
	'forecast.leastCrown': {
		label: 'Leaf cover is judged against a crown at the start of at least',
		value: 0.05,
		unit: 'share',
		mark: 'ours',
		min: 0.01,
		max: 0.5
	},
	'forecast.bareCrown': {
		label: 'It began bare when its crown was under',
		value: 0.2,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.9
	},
	'forecast.decisionDays': {
		label: 'A decision before the work speaks for it within',
		value: 60,
		unit: 'days',
		mark: 'ours',
		min: 1,
		max: 400
	},
	'forecast.coverDays': {
		label: 'Leaf cover before the work is known from a look within',
		value: 400,
		unit: 'days',
		mark: 'ours',
		min: 30,
		max: 1500
	},
	'forecast.weighApartDays': {
		label: 'Root function by weighings counts anew after',
		value: 25,
		unit: 'days',
		mark: 'ours',
		min: 1,
		max: 120
	},
	'season.leavesOutPace': {
		label: 'Leaves come out so many times as fast as the season runs',
		value: 7,
		unit: '×',
		mark: 'ours',
		note: 'At 7 all are out after a seventh of the season.',
		min: 1,
		max: 30
	},
	'season.leavesFallPace': {
		label: 'Leaves fall so many times as fast as the season runs out',
		value: 8,
		unit: '×',
		mark: 'ours',
		min: 1,
		max: 30
	},
	'season.shootsPace': {
		label: 'Shoots grow so many times as fast as the season runs',
		value: 1.7,
		unit: '×',
		mark: 'ours',
		note: 'Most of the growth comes early.',
		min: 1,
		max: 6
	},
	'season.aheadMost': {
		label: 'A warm season runs at most so many times as fast as the calendar',
		value: 1.6,
		unit: '×',
		mark: 'ours',
		min: 1,
		max: 4
	},
	'season.behindMost': {
		label: 'A cold season runs at least at this part of the pace of the calendar',
		value: 0.4,
		unit: '×',
		mark: 'ours',
		min: 0.05,
		max: 1
	},
	'season.measuredShare': {
		label: 'Warmth is counted when so much of the season was measured',
		value: 0.8,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
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
	'decision.budsEarlyDays': {
		label: 'Buds of this season may move so many days before it is counted from',
		value: 42,
		unit: 'days',
		mark: 'ours',
		min: 0,
		max: 120
	},
	'decision.wiltDays': {
		label: 'Wilting asks for a decision for so many days after it was seen',
		value: 21,
		unit: 'days',
		mark: 'ours',
		min: 1,
		max: 90
	},
	'decision.smellDays': {
		label: 'A sour, sulphurous or mouldy smell asks for a decision for so many days after it was smelt',
		value: 30,
		unit: 'days',
		mark: 'ours',
		min: 1,
		max: 365
	},
	'decision.steadyLeastMm': {
		label: 'or by no more than',
		value: 10,
		unit: 'mm',
		mark: 'ours',
		min: 0,
		max: 200
	},
	'decision.recutShare': {
		label: 'Cut back to living wood when it ends under so much of the height',
		value: 0.95,
		unit: 'share',
		mark: 'ours',
		min: 0.3,
		max: 1
	},
	'decision.deadMm': {
		label: 'No living wood to speak of: a limit of at most',
		value: 30,
		unit: 'mm',
		mark: 'ours',
		min: 0,
		max: 500
	},
	'decision.deadShare': {
		label: 'or of at most so much of the height',
		value: 0.03,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.3
	},
	'decision.deadLooks': {
		label: 'The forecast alone asks whether it is dead after so many looks',
		value: 2,
		unit: 'looks',
		mark: 'ours',
		min: 1,
		max: 10
	},
	'decision.letGrowDays': {
		label: 'Let it grow: not before so many days since the work',
		value: 120,
		unit: 'days',
		mark: 'ours',
		min: 14,
		max: 730
	},
	'decision.steadyMm': {
		label: 'Living wood went down when it lost more than counts as steady, and besides',
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
	'verdict.lookDays': {
		label: 'Verdict: the last look speaks of today for',
		value: 150,
		unit: 'days',
		mark: 'ours',
		note: 'Longer ago, how the tree stands is not known.',
		min: 14,
		max: 1000
	},
	'verdict.limitDays': {
		label: 'Verdict: a limit of living wood counts for',
		value: 400,
		unit: 'days',
		mark: 'ours',
		min: 60,
		max: 1500
	},
	'verdict.shootDays': {
		label: 'Verdict: shoots count for',
		value: 400,
		unit: 'days',
		mark: 'ours',
		note: 'A growing season and the winter after it.',
		min: 60,
		max: 1500
	},
	'verdict.weighedDays': {
		label: 'Verdict: weighings count for',
		value: 200,
		unit: 'days',
		mark: 'ours',
		min: 30,
		max: 1000
	},
	'verdict.edgeDays': {
		label: 'Verdict: roots at the edge count for',
		value: 900,
		unit: 'days',
		mark: 'ours',
		min: 60,
		max: 3000
	},
	'verdict.firmDays': {
		label: 'Verdict: that it stood firm counts for',
		value: 400,
		unit: 'days',
		mark: 'ours',
		min: 30,
		max: 1500
	},
	'verdict.coverLeast': {
		label: 'Verdict: leaf cover in leaf time at the last look, at least',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		min: 0.05,
		max: 1
	},
	'decision.waterKnownDays': {
		label: 'How wet a pot stands is known for so long after it was watered, weighed or felt',
		value: 21,
		unit: 'days',
		mark: 'ours',
		note: 'Beyond that it is reckoned only, and no advice on water rests on it.',
		min: 2,
		max: 90
	},
	'decision.growsDays': {
		label: '"It grows" rests on what was seen within',
		value: 90,
		unit: 'days',
		mark: 'ours',
		min: 14,
		max: 400
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
	'verdict.dugLoss': {
		label:
			'That time is for a tree that lost this share of its roots; one that stood and lost less serves the less',
		value: 0.9,
		unit: 'share',
		mark: 'ours',
		note: 'Of a tree that is dug most of the roots stay behind.',
		min: 0.3,
		max: 1
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
	'verdict.quietGrowthDays': {
		label: 'and of these in growth, or a whole season of its place where that is shorter',
		value: 120,
		unit: 'days',
		mark: 'ours',
		note: 'About two flushes: what would die back does so in growth.',
		min: 30,
		max: 365
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
