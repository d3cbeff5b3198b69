import { defineValues, ours } from './define';

/** What a tree is played through when a year of it is rehearsed: our own numbers, all of them; the yard's own years teach better. */
export const rehearseValues = defineValues({
	'rehearse.futures': ours('Futures that plans are played through', 405, 'futures', [81, 4050], {
		note: 'Each has its own weather, luck and truth about the tree; all plans go through the same ones.'
	}),
	'rehearse.days': ours('A rehearsal reaches so far', 730, 'days', [60, 1095]),
	'rehearse.hardlyHeldWorth': ours(
		'What a tree is worth that stands but is not re-established by then',
		0.7,
		'of one that is',
		[0, 1]
	),
	'rehearse.apart': ours(
		'In one future a plan is better from a chance that is higher by',
		0.02,
		'chance',
		[0.001, 0.2]
	),
	'rehearse.sure': ours(
		'Plans differ when the mean gap is more than so many of its errors',
		2,
		'errors',
		[0.5, 5]
	),
	'rehearse.gapLeast': ours('and more than', 0.01, 'chance', [0, 0.2]),
	'rehearse.findsLeast': ours('Finding out is worth naming from', 0.005, 'chance', [0.0005, 0.2]),
	'rehearse.diesLeast': ours('A cause of death is told from a chance of', 0.01, 'chance', [0, 0.5]),
	'rehearse.showsAt': ours(
		'What kills a tree shows when so much of its harm is done',
		0.5,
		'share',
		[0.05, 0.95]
	),

	'rehearse.demandSpread': ours(
		'How far a crown’s demand is off what is reckoned (one deviation)',
		0.15,
		'share',
		[0, 0.6]
	),
	'rehearse.holdSpread': ours(
		'How far a mix holds more or less than is reckoned (one deviation)',
		0.12,
		'share',
		[0, 0.6]
	),
	'rehearse.guessedSpread': ours(
		'Where nobody wrote down what it stands in, both are off by (one deviation)',
		0.4,
		'share',
		[0, 1]
	),
	'rehearse.guessedDryDays': ours(
		'Where nobody measured its crown, its pot is taken to last on a usual day of growth for',
		2.5,
		'days',
		[0.2, 30]
	),
	'rehearse.handBias': ours(
		'A hand takes a pot for drier or wetter than it is, by (one deviation)',
		0.06,
		'dryness',
		[0, 0.4]
	),
	'rehearse.misses': ours('Visits that do not take place', 0.05, 'share', [0, 0.9]),
	'rehearse.heeds': ours('Warnings of cold or heat that are acted on in time', 0.95, 'share', [0, 1]),

	'rehearse.dryFrom': ours(
		'Dryness hurts from so far between the dryness at which it is watered and dry',
		0.5,
		'share',
		[0, 0.99]
	),
	'rehearse.dryDays': ours('Days dry in a row that it bears', 1, 'days', [0, 30]),
	'rehearse.usualDayMm': ours('A day of so much evaporation counts whole', 4, 'mm', [0.5, 12]),
	'rehearse.leaflessDry': ours(
		'Dryness hurts a tree without leaves so much of one in leaf',
		0.15,
		'share',
		[0, 1]
	),
	'rehearse.dryOdds': ours('A whole day dry in leaf', -0.12, 'log-odds', [-5, 0]),
	'rehearse.dryEats': ours('and the roots that die of it', 0.02, 'share', [0, 0.5]),
	'rehearse.airlessUnknown': ours(
		'Where nobody has looked, its mix has lost its air with a chance of',
		0.08,
		'chance',
		[0, 1]
	),
	'rehearse.collapsedAir': ours(
		'Air that is left in a mix that has collapsed or gone sour',
		0.2,
		'of what it had',
		[0, 1]
	),
	'rehearse.airLeast': ours(
		'Air that roots want in a mix, of a kind that is never let dry',
		0.08,
		'share of volume',
		[0, 0.5]
	),
	'rehearse.airByTrigger': ours(
		'and more for one that wants to dry out wholly',
		0.2,
		'share of volume',
		[0, 0.6]
	),
	'rehearse.wetDays': ours('Days without air that roots bear', 5, 'days', [0, 60]),
	'rehearse.wetWarmC': ours('Warmth at which a day without air counts whole', 15, '°C', [8, 30]),
	'rehearse.wetColdC': ours('and at which it does not count', 4, '°C', [-5, 8]),
	'rehearse.wetOdds': ours('A whole day without air', -0.08, 'log-odds', [-5, 0]),
	'rehearse.wetEats': ours('and the roots that die of it', 0.015, 'share', [0, 0.5]),
	'rehearse.coldOdds': ours('A night under its limit, for each degree', -0.25, 'log-odds', [-5, 0]),
	'rehearse.coldMost': ours('and at the most', -3, 'log-odds', [-20, 0]),
	'rehearse.coldEats': ours('Roots that die in such a night, for each degree', 0.02, 'share', [0, 0.5]),
	'rehearse.outAgain': ours(
		'Carried in, it comes out again after so many nights that are mild enough',
		7,
		'nights',
		[1, 60]
	),
	'rehearse.shootsTender': ours('Shoots are tender for the first part of a season', 0.2, 'share', [0, 1]),
	'rehearse.heatOdds': ours(
		'A day over its limit of heat, for each degree, of leaves that no roots feed',
		-0.1,
		'log-odds',
		[-2, 0]
	),
	'rehearse.leafBearsMm': ours('Water that leaves can go short of in a day without harm', 2.5, 'mm', [0, 10]),
	'rehearse.thirstOdds': ours('Each further millimetre in a day', -0.02, 'log-odds', [-2, 0]),
	'rehearse.shadeDemand': ours('Under shade cloth its demand is', 0.6, 'of the open', [0.1, 1]),
	'rehearse.shadeDays': ours('Shade stays over it after work', 60, 'days', [7, 365]),
	'rehearse.shadeCools': ours('and keeps the heat of a day down by', 3, '°C', [0, 12]),
	'rehearse.shadeSlows': ours('Roots grow slower under shade by', 0.1, 'share', [0, 0.9]),

	'rehearse.rotHasTaken': ours(
		'Where there is rot, it has taken so much of the roots already',
		0.35,
		'share',
		[0, 0.95]
	),
	'rehearse.airlessHasTaken': ours('and a mix without air', 0.25, 'share', [0, 0.95]),
	'rehearse.rotOdds': ours('Rot that goes on for a season', -1.6, 'log-odds', [-20, 0]),
	'rehearse.rotEats': ours('Roots that rot takes in a season', 0.35, 'share', [0, 0.99]),
	'rehearse.rotWet': ours('Rot goes on so much faster in a mix without air', 1, 'times more', [0, 10]),
	'rehearse.rotBack': ours('Of what rot costs in chance, cutting it out gives back', 0.6, 'share', [0, 1]),
	'rehearse.treatFrom': ours(
		'Cutting back to sound wood is proposed from a chance of rot of',
		0.1,
		'chance',
		[0, 1]
	),
	'rehearse.treatShare': ours(
		'Living root that goes where rot is cut back and no plan says how much',
		0.15,
		'share',
		[0, 0.9]
	),
	'rehearse.treatClears': ours('Rot that is cleared then', 0.75, 'share', [0, 1]),
	'rehearse.girdledOdds': ours('A season with its trunk girdled all round', -1.2, 'log-odds', [-20, 0]),
	'rehearse.seasonAt': ours(
		'Work out of its window costs what such a lift does from a loss of',
		0.3,
		'share',
		[0.02, 1]
	),
	'rehearse.callusDays': ours('Cut roots of a fleshy kind want to be dry for', 7, 'days', [0, 60]),
	'rehearse.callusOdds': ours('Watered before that, after a hard cut', -0.6, 'log-odds', [-5, 0]),
	'rehearse.replantOdds': ours('A replanting that nothing else asked for', -0.15, 'log-odds', [-5, 0]),
	'rehearse.crownSlows': ours(
		'Roots grow slower by the share of the crown that is taken, times',
		0.6,
		'',
		[0, 1]
	),
	'rehearse.dryGrows': ours('A dry ball grows roots at', 0.2, 'of the pace', [0, 1]),
	'rehearse.wetGrows': ours('and one without air at', 0.1, 'of the pace', [0, 1]),
	'rehearse.waitDays': ours('To wait with root work is to wait for', 365, 'days', [60, 730]),
	'rehearse.stageRoots': ours(
		'A later root stage waits until root function is back to',
		0.6,
		'share',
		[0, 1]
	),
	'rehearse.restDays': ours('Dry first: no water for', 10, 'days', [1, 120]),

	'rehearse.habitDays': ours(
		'Weather measured on so many days counts as much as the climate of a place',
		120,
		'days',
		[7, 3650]
	),
	'rehearse.minutes.water': ours('Time for a watering', 5, 'min', [0, 240]),
	'rehearse.minutes.look': ours('and for a look', 10, 'min', [0, 240]),
	'rehearse.minutes.roots': ours('for root work, each time', 90, 'min', [0, 2000]),
	'rehearse.minutes.replant': ours('for a replanting', 60, 'min', [0, 2000]),
	'rehearse.minutes.shelter': ours('for carrying it in or covering it, each time', 8, 'min', [0, 240]),
	'rehearse.minutes.backup': ours('for each cutting', 6, 'min', [0, 240]),
	'rehearse.lookEvery': ours('It is looked at every', 14, 'days', [1, 120])
});
