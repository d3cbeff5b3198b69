import { defineValues, type Mark, type WorkingValue } from './define';

const days = (label: string, value: number, mark: Mark = 'trade', note?: string): WorkingValue => ({
	label,
	value,
	unit: 'days',
	mark,
	note,
	min: 0,
	max: 730
});
const weeks = (label: string, value: number): WorkingValue => ({
	label,
	value,
	unit: 'weeks',
	mark: 'trade',
	min: 0,
	max: 26
});

const shelter = {
	deciduous: { label: 'Deciduous', least: 2, most: 4 },
	'broadleaf-evergreen': { label: 'Broadleaf evergreen', least: 3, most: 6 },
	conifer: { label: 'Conifer', least: 4, most: 8 },
	tropical: { label: 'Tropical', least: 3, most: 6 },
	succulent: { label: 'Succulent', least: 1, most: 3 },
	ericaceous: { label: 'Ericaceous', least: 2, most: 4 },
	palm: { label: 'Palm-like', least: 3, most: 6 }
} as const;
type ShelterKey = `aftercare.shelter.${keyof typeof shelter}.${'least' | 'most'}`;
const shelterValues = Object.fromEntries(
	Object.entries(shelter).flatMap(([group, { label, least, most }]) => [
		[`aftercare.shelter.${group}.least`, weeks(`${label}: shelter after root work at least`, least)],
		[`aftercare.shelter.${group}.most`, weeks(`${label}: shelter after root work at most`, most)]
	])
) as Record<ShelterKey, WorkingValue>;

export const aftercareValues = defineValues({
	'aftercare.lossCounts': {
		label: 'Shelter and cold are brought up when so much of the living root is gone',
		value: 0.02,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.5
	},
	'aftercare.lapsesDays': {
		label: 'Work of the days after root work is over for good when late by',
		value: 28,
		unit: 'days',
		mark: 'ours',
		min: 3,
		max: 365
	},
	'aftercare.lapsesSeasonDays': {
		label: 'Work of the season after root work is over for good when late by',
		value: 120,
		unit: 'days',
		mark: 'ours',
		min: 14,
		max: 730
	},
	'aftercare.muchCut': {
		label: 'A dry rest is at its longest when so much of the living root was cut',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'aftercare.crownExcess': {
		label: 'The crown is brought up when the roots left fall short of it by',
		value: 0.05,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.5
	},
	'aftercare.backupLoss': {
		label: 'Cuttings are brought up when so much of the living root goes',
		value: 0.3,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'release.hardenedDays': {
		label: 'A flush has hardened when shoots did not lengthen between two looks so far apart',
		value: 14,
		unit: 'days',
		mark: 'ours',
		min: 5,
		max: 60
	},
	'release.hardenedBy': {
		label: 'Shoots have stopped when they lengthened since by no more than',
		value: 0.05,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.5
	},
	'release.leavesOut': {
		label: 'Leaves are out from a crown in leaf of',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'aftercare.shelterOffFunction': {
		label: 'Shelter ends when root function is at least',
		value: 0.6,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1.1
	},
	'urgent.days': days('A look that says “act now” presses for', 60, 'ours'),
	'release.askAgainDays': days(
		'Seen not to be so yet, what work waits for is asked for again after',
		14,
		'ours'
	),
	'release.firmDays': days('Half the shelter is off and leaves stay firm for', 7, 'ours'),
	'aftercare.shelterLate': days('Shelter longer after work out of its window', 7, 'ours'),
	'aftercare.coldAheadDays': days(
		'A place for the winter is settled ahead of the first cold night',
		7,
		'ours'
	),
	...shelterValues,
	'aftercare.dryRestFleshyFrom': days('Fleshy plants: first water after cutting, earliest', 7),
	'aftercare.dryRestFleshyTo': days('Fleshy plants: first water after cutting, latest', 21),
	'aftercare.dryRestRotFrom': days('Fleshy plants after rot surgery: first water, earliest', 14),
	'aftercare.dryRestRotTo': days('Fleshy plants after rot surgery: first water, latest', 28),
	'aftercare.dryRestFrom': days('Woody roots kept dry first: first water, earliest', 4, 'ours'),
	'aftercare.dryRestTo': days('Woody roots kept dry first: first water, latest', 9, 'ours'),
	'aftercare.weighFrom': days('Weigh it after the first water, earliest', 5, 'ours'),
	'aftercare.weighTo': days('Weigh it after the first water, latest', 9, 'ours'),
	'aftercare.rotRecheckFrom': days('Smell again after rot was cut, earliest', 14, 'ours'),
	'aftercare.rotRecheckTo': days('Smell again after rot was cut, latest', 21, 'ours'),
	'aftercare.neighboursAgainFrom': days('Neighbours of a rotten one seen again, earliest', 28, 'ours'),
	'aftercare.neighboursAgainTo': days('Neighbours of a rotten one seen again, latest', 42, 'ours'),
	'aftercare.turnFrom': days('A pot is turned for light after', 28, 'ours'),
	'aftercare.turnEvery': days('A pot is turned for light every', 21, 'ours'),
	'aftercare.suckersFrom': days('Suckers looked for after root work, earliest', 300, 'ours'),
	'aftercare.suckersTo': days('Suckers looked for after root work, latest', 365, 'ours'),
	'aftercare.repotFrom': days('Is the pot filled? Asked after, earliest', 700),
	'aftercare.repotTo': days('Is the pot filled? Asked after, latest', 730),
	'aftercare.collarEvery': days('The collar is seen again every', 365),
	'aftercare.neighboursTo': days('Neighbours of a rotten one checked within', 7, 'ours'),
	'aftercare.feedSlow': days(
		'Conifers and ericaceous: feeding may begin after',
		300,
		'trade',
		'From next season.'
	),
	'aftercare.feedTender': days(
		'Tender kinds: feeding may begin after',
		60,
		'ours',
		'Trade practice: after new leaves.'
	),
	'aftercare.feedUsual': days(
		'Others: feeding may begin after',
		84,
		'ours',
		'Trade practice: after the first flush hardens.'
	),
	'aftercare.feedSpan': days('Time given for the question of feeding', 28, 'ours'),
	'aftercare.feedLatest': {
		label: 'Feeding is not begun when so much of the season is over',
		value: 0.7,
		unit: 'share',
		mark: 'trade',
		note: 'Growth that is fed late does not harden before the cold; it is asked in the next season.',
		min: 0.3,
		max: 1
	},
	'aftercare.restLeast': days('A tree rests where its seasons are so far apart', 30, 'ours'),
	'aftercare.evergreenBudsFrom': days('Dry-country evergreens: first buds, earliest', 60),
	'aftercare.evergreenBudsTo': days('Dry-country evergreens: first buds, latest', 90),
	'aftercare.clearGrowthFrom': days('Clear growth looked for, earliest', 63, 'trade', 'At about ten weeks.'),
	'aftercare.clearGrowthTo': days('Clear growth looked for, latest', 84, 'ours'),
	'aftercare.collarFrom': days('Collar seen again, earliest', 55, 'trade', 'At 60 days.'),
	'aftercare.collarTo': days('Collar seen again, latest', 70, 'ours'),
	'aftercare.arboristTo': days('Stability judged after a structural cut within', 14, 'ours'),
	'aftercare.stageSpan': days('Time given for the next root stage', 28, 'ours')
});
