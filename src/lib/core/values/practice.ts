import { defineValues, ours } from './define';

/** How an invented tree answers who practises on it: our own numbers, all of them. What its faults cost is the diagnosis’s own. */
export const practiceNumbers = defineValues({
	'practice.days': ours('A practice tree is looked after for', 364, 'days', [56, 728]),
	'practice.healthy': ours('Practice trees that nothing ails', 0.1, 'share', [0, 0.9]),
	'practice.two': ours('and that two things ail at once', 0.35, 'share', [0, 1]),
	'practice.commonCounts': ours(
		'How much the usual frequency of a cause counts in drawing it: 0 all alike, 1 as usual',
		0.6,
		'power',
		[0, 1]
	),
	'practice.weakLooks': ours(
		'Trees that are looked through for one that ails of what its trainee judged badly',
		4,
		'trees',
		[1, 50]
	),
	'practice.perLoss': ours(
		'Log-odds that a share of its chance to live counts as',
		2.5,
		'log-odds for each unit of the logarithm',
		[1, 10]
	),
	'practice.eats': ours('Of that loss so much is living root', 0.5, 'share', [0, 1]),
	'practice.fadeDays': ours(
		'What only wants peace is half gone after so many days in peace',
		40,
		'days',
		[5, 400]
	),
	'practice.disturbed': ours('Disturbed meanwhile, it costs', 2, '×', [1, 10]),
	'practice.signsFrom': ours('A cause shows as long as so much of it is left', 0.35, 'share', [0.01, 1]),
	'practice.signDays': ours('A sign shows anew, or not, after', 28, 'days', [1, 365]),
	'practice.mendDays': ours('and so long after it was treated', 14, 'days', [0, 120]),
	'practice.wateringLeaves': ours('Of a core that sheds water each watering leaves', 0.7, 'share', [0, 1]),
	'practice.lossDays': ours('Roots cut or burnt leaves show for', 45, 'days', [5, 200]),
	'practice.minutes.treat': ours('Minutes that a treatment takes', 30, 'min', [1, 600]),
	'practice.minutes.roots': ours('Minutes to lay its roots bare and map them', 40, 'min', [1, 600]),
	'practice.rootsHarm': ours(
		'Chance to live lost by laying its roots bare, fair tree in its window',
		0.02,
		'share',
		[0, 0.5]
	),
	'practice.minuteWorth': ours(
		'Minutes of a person that weigh as much as the whole tree',
		20_000,
		'min',
		[500, 1_000_000]
	),
	'practice.takes.free': ours('Living root that goes with girdling roots taken off', 0.08, 'share', [0, 0.9]),
	'practice.takes.open': ours('and with a bound ball that is opened', 0.1, 'share', [0, 0.9]),
	'practice.waterTold': ours(
		'Water is named as what harmed it from so much of its odds',
		0.25,
		'log-odds',
		[0, 5]
	),
	'practice.stillWet': ours(
		'Water came while it was still wet at so much of the dryness its kind is watered at',
		0.5,
		'share',
		[0.05, 1]
	),
	'practice.turnedAt': ours(
		'The week in which it turned is told where it lost at least',
		0.08,
		'chance',
		[0.01, 0.5]
	),
	'practice.choiceLeast': ours('A choice is told where it moved the chance by', 0.02, 'chance', [0.001, 0.3])
});
