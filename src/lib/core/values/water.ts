import { measured } from '../text/measured';
import { placeKindNames, type PlaceKind } from '../vocabulary/place';
import { defineValues, type WorkingValue } from './define';

const demands: Record<PlaceKind, number> = {
	open: 1,
	garden: 1,
	shade: 0.6,
	'cold-frame': 0.7,
	greenhouse: 0.8,
	heated: 0.7,
	indoors: 0.35
};
const placeDemand = Object.fromEntries(
	Object.entries(demands).map(([kind, value]): [string, WorkingValue] => [
		`place.demand.${kind}`,
		{
			label: `Evaporation against the open: ${placeKindNames[kind as PlaceKind]}`,
			value,
			unit: 'factor',
			mark: 'ours',
			note: 'Less sun and wind; weighing knows better.',
			min: 0.05,
			max: 2
		}
	])
) as Record<`place.demand.${PlaceKind}`, WorkingValue>;

const throughs = (what: string, table: Record<PlaceKind, number>, key: string, note: string) =>
	Object.fromEntries(
		Object.entries(table).map(([kind, value]): [string, WorkingValue] => [
			`${key}.${kind}`,
			{
				label: `${what}: ${placeKindNames[kind as PlaceKind]}`,
				value,
				unit: 'factor',
				mark: 'ours',
				note,
				min: 0,
				max: 1.5
			}
		])
	);
const placeRain = throughs(
	'Rain that reaches the pot',
	{ open: 1, garden: 1, shade: 0.7, 'cold-frame': 0.1, greenhouse: 0, heated: 0, indoors: 0 },
	'place.rain',
	'A crown sheds some of it too.'
) as Record<`place.rain.${PlaceKind}`, WorkingValue>;
const placeWind = throughs(
	'Wind against the open',
	{ open: 1, garden: 0.8, shade: 0.6, 'cold-frame': 0.1, greenhouse: 0.1, heated: 0.1, indoors: 0.05 },
	'place.wind',
	'Gusts are let through alike.'
) as Record<`place.wind.${PlaceKind}`, WorkingValue>;

/** What a potted tree draws, and what its mix gives. */
export const waterValues = {
	...placeDemand,
	...placeRain,
	...placeWind,
	...defineValues({
		'water.crownFactor': {
			label: 'Water a full crown draws, over reference evapotranspiration on the ground it covers',
			value: 1.1,
			unit: 'factor',
			mark: 'ours',
			note: 'A free-standing crown catches sun and wind from all sides. Weighing knows better.',
			min: 0.1,
			max: 4
		},
		'water.surfaceFactor': {
			label: 'Evaporation from open mix, over reference evapotranspiration',
			value: 0.35,
			unit: 'factor',
			mark: 'ours',
			min: 0,
			max: 1.2
		},
		'water.insideDrawn': {
			label: 'Water inside the grains that roots can draw',
			value: 0.5,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.ballHeld': {
			label: 'Water a root ball holds that roots can draw',
			value: 0.25,
			unit: 'share of its volume',
			mark: 'ours',
			note: 'Between sandy loam and clay loam.',
			min: 0.02,
			max: 0.7
		},
		'water.crownPerTrunk': {
			label: 'Width of the crown where the height is not taken: so many trunks',
			value: 12,
			unit: '×',
			mark: 'ours',
			min: 2,
			max: 60
		},
		'water.crossing': {
			label:
				'Water that crosses in a day from the wetter to the drier part of the mix, of what would even them out',
			value: 0.25,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.rootInDegreeDays': {
			label: `Warmth over ${measured(7, '°C')} in which roots fill two thirds of new mix`,
			value: 1200,
			unit: '°C days',
			mark: 'ours',
			min: 100,
			max: 6000
		},
		'water.sparingFrom': {
			label: 'Water round the roots only while more of the water than this lies in mix without roots',
			value: 0.6,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.outflow': {
			label: 'Share that should run through at a watering',
			value: 0.15,
			unit: 'share',
			mark: 'trade',
			note: 'A tenth to a fifth.',
			min: 0,
			max: 0.5
		},
		'water.felt.wet': {
			label: 'Dryness of a pot that feels wet',
			value: 0.08,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.felt.damp': {
			label: 'Dryness of a pot that feels damp',
			value: 0.35,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.felt.drying': {
			label: 'Dryness of a pot that feels as if it were drying',
			value: 0.6,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.felt.dry': {
			label: 'Dryness of a pot that feels dry',
			value: 0.85,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.feltError': {
			label: 'Error of dryness as it is felt (one deviation)',
			value: 0.15,
			unit: 'share',
			mark: 'ours',
			min: 0.01,
			max: 0.5
		},
		'water.probeError': {
			label: 'Error of dryness by a probe (one deviation)',
			value: 0.1,
			unit: 'share',
			mark: 'ours',
			note: 'A probe reads one spot.',
			min: 0.01,
			max: 0.5
		},
		'water.probeFull': {
			label: 'A probe in drained potting mix reads',
			value: 0.42,
			unit: 'share of the volume',
			mark: 'ours',
			note: 'Until it was read often enough to know its own.',
			min: 0.1,
			max: 0.9
		},
		'water.probeDry': {
			label: 'A probe in dry potting mix reads',
			value: 0.08,
			unit: 'share of the volume',
			mark: 'ours',
			min: 0,
			max: 0.4
		},
		'water.probeOften': {
			label: 'Days of readings after which the wettest counts as drained',
			value: 5,
			unit: 'days',
			mark: 'ours',
			min: 2,
			max: 60
		},
		'water.probeMoves': {
			label: 'Probe: its wettest is drained soil only when it lies above dry by',
			value: 0.05,
			unit: 'of the volume',
			mark: 'ours',
			min: 0,
			max: 0.5
		},
		'water.pairsEnough': {
			label: 'Weighings: pairs that can be relied on',
			value: 3,
			unit: 'pairs',
			mark: 'ours',
			min: 1,
			max: 20
		},
		'water.weighedUpToKg': {
			label: 'A pot that is reckoned heavier than this is felt, not weighed',
			value: 60,
			unit: 'kg',
			mark: 'ours',
			note: 'About what two people set on a scale by hand. One that was weighed as it stands goes on being weighed.',
			min: 5,
			max: 2000
		},
		'water.weighAgainDays': {
			label: 'Weighings: the last pair is old after',
			value: 21,
			unit: 'days',
			mark: 'ours',
			min: 3,
			max: 200
		},
		'water.wideBand': {
			label: 'Weighings: the band of root function is wide from',
			value: 0.5,
			unit: 'share',
			mark: 'ours',
			min: 0.05,
			max: 1.5
		},
		'water.weightTimes': {
			label:
				'A weight is asked for again from so many times, or such a part of, what the pot is known to weigh',
			value: 4,
			unit: 'times',
			mark: 'ours',
			min: 1.5,
			max: 50
		},
		'water.rainRememberedDays': {
			label: 'Rain is remembered without being written down for',
			value: 4,
			unit: 'days',
			mark: 'ours',
			min: 0,
			max: 60
		},
		'water.takesUpTimes': {
			label: 'A pot is asked for again where its weights say that it holds so many times the water reckoned',
			value: 1.5,
			unit: 'times',
			mark: 'ours',
			min: 1.05,
			max: 10
		},
		'water.weightOffKg': {
			label:
				'Weights before and after are asked for again where they gain more than what stayed of the water by',
			value: 0.5,
			unit: 'kg',
			mark: 'ours',
			min: 0.05,
			max: 20
		},
		'water.scaleError': {
			label: 'Error of dryness by weight (one deviation)',
			value: 0.05,
			unit: 'share',
			mark: 'ours',
			min: 0.005,
			max: 0.5
		},
		'water.scaleRise': {
			label: 'A scale saw water when its weight rose by this much of what the pot holds',
			value: 0.1,
			unit: 'share',
			mark: 'ours',
			min: 0.01,
			max: 0.8
		},
		'water.ranOutError': {
			label: 'Error of dryness after water that ran through (one deviation)',
			value: 0.04,
			unit: 'share',
			mark: 'ours',
			min: 0.005,
			max: 0.5
		},
		'water.ranOutFull': {
			label: 'Water that ran out means a full pot where the balance has it this wet too, dryness',
			value: 0.2,
			unit: 'share',
			mark: 'ours',
			note: 'Water may run through a dry ball beside the roots.',
			min: 0,
			max: 1
		},
		'water.unmeasuredError': {
			label: 'Error of dryness after water that nobody measured (one deviation)',
			value: 0.12,
			unit: 'share',
			mark: 'ours',
			min: 0.005,
			max: 0.5
		},
		'water.firstWordDays': {
			label: 'A pot is followed from its planting when its water was first spoken of within',
			value: 30,
			unit: 'days',
			mark: 'ours',
			min: 1,
			max: 365
		},
		'water.beginError': {
			label: 'Error of dryness before anything was poured, weighed or felt (one deviation)',
			value: 0.3,
			unit: 'share',
			mark: 'ours',
			min: 0.01,
			max: 0.5
		},
		'water.groundFree': {
			label: 'Share of the water in its ground that a tree draws freely',
			value: 0.5,
			unit: 'share',
			mark: 'published',
			source: 'Allen et al. 1998, FAO-56, table 22',
			note: '0.5 for many fruit trees.',
			min: 0.1,
			max: 0.9
		},
		'water.groundHeld': {
			label: 'Water the ground holds that roots can draw, where its texture was not felt',
			value: 0.14,
			unit: 'share of the volume',
			mark: 'ours',
			note: 'As a loam; the texture tool replaces it.',
			min: 0.02,
			max: 0.4
		},
		'water.lawnTree': {
			label: 'Root zone of a tree grown in the ground: so many trunks from the middle',
			value: 12,
			unit: '×',
			mark: 'published',
			source: 'BS 5837:2012',
			note: 'As its root protection area.',
			min: 3,
			max: 40
		},
		'water.lawnMostM': {
			label: 'Root zone of a tree grown in the ground: at most, from the middle',
			value: 15,
			unit: 'm',
			mark: 'published',
			source: 'BS 5837:2012',
			note: 'The same standard caps its root protection area there.',
			min: 2,
			max: 60
		},
		'water.lawnLeastM': {
			label: 'Root zone of a tree grown in the ground: at least, from the middle',
			value: 0.3,
			unit: 'm',
			mark: 'ours',
			min: 0.05,
			max: 2
		},
		'water.lawnDepthMm': {
			label: 'Depth of most roots in the ground',
			value: 600,
			unit: 'mm',
			mark: 'memory',
			min: 150,
			max: 2000
		},
		'water.bareDays': {
			label: 'Buds that are not open yet: bare for so long after that look',
			value: 10,
			unit: 'days',
			mark: 'ours',
			min: 0,
			max: 60
		},
		'water.bareBackDays': {
			label: 'Buds that are not open tell of bare twigs for so long from the beginning of the season',
			value: 75,
			unit: 'days',
			mark: 'ours',
			min: 0,
			max: 200
		},
		'water.grassMulched': {
			label: 'Grass over the roots drinks so much of a whole lawn where mulch lies',
			value: 0.5,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.crownOverRoots': {
			label: 'The crown counts for at most so much of the ground its roots lie in',
			value: 1.5,
			unit: 'ratio',
			mark: 'ours',
			min: 0.5,
			max: 5
		},
		'water.unknownRainError': {
			label: 'What a day of rain that nobody measured adds to the error of dry ground (one deviation)',
			value: 0.05,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 0.5
		},
		'water.rainKnown': {
			label: 'Dry ground is only said where rain was measured on so many of the days',
			value: 0.5,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'water.groundHurt': {
			label: 'A tree grown in the ground is brought up for water under this root function',
			value: 0.85,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1.2
		},
		'water.frozenUnderC': {
			label: 'A ball freezes through when days in a row stay, in the mean, under',
			value: -1.5,
			unit: '°C',
			mark: 'ours',
			min: -15,
			max: 0
		},
		'water.frozenDays': {
			label: 'so many of them; as many over freezing thaw it',
			value: 3,
			unit: 'days',
			mark: 'ours',
			min: 1,
			max: 20
		},
		'rootFunction.few': {
			label: 'Few roots, for guards and for watering sparingly, under a root function of',
			value: 0.6,
			unit: 'share',
			mark: 'ours',
			min: 0.1,
			max: 0.95
		},
		'rootFunction.most': {
			label: 'Root function is held to at most',
			value: 1.2,
			unit: 'share',
			mark: 'ours',
			note: '1 is what the crown would drink with whole roots.',
			min: 1,
			max: 2
		},
		'rootFunction.perDegreeDay': {
			label: `Growth of root function, for each degree day over ${measured(7, '°C')}`,
			value: 0.0016,
			unit: '1/°C day',
			mark: 'ours',
			min: 0,
			max: 0.02
		},
		'rootFunction.drift': {
			label: 'What may happen to root function in a day, unseen (one deviation)',
			value: 0.012,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 0.2
		},
		'rootFunction.lossSpread': {
			label: 'How far the loss by a cut may be off, of that loss',
			value: 0.4,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'rootFunction.beginSpread': {
			label: 'How far root function may be off before anything was weighed (one deviation)',
			value: 0.2,
			unit: 'share',
			mark: 'ours',
			min: 0.01,
			max: 1
		},
		'rootFunction.scaleKg': {
			label: 'Error of a weighing (one deviation)',
			value: 0.03,
			unit: 'kg',
			mark: 'ours',
			min: 0.001,
			max: 5
		},
		'rootFunction.unmeasuredRainMm': {
			label: 'Rain that may have fallen, between two weighings, on a day that nobody measured',
			value: 2,
			unit: 'mm',
			mark: 'ours',
			note: `Some ${measured(700, 'mm')} a year are ${measured(2, 'mm')} a day.`,
			min: 0,
			max: 30
		},
		'rootFunction.tellsLeast': {
			label:
				'A pair of weighings that would count for less than this, against what is known before it, is passed over',
			value: 0.1,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 0.9
		},
		'rootFunction.demandError': {
			label: 'Error of the demand over some days (one deviation)',
			value: 0.15,
			unit: 'share',
			mark: 'ours',
			min: 0,
			max: 1
		},
		'rootFunction.fallDays': {
			label: 'Root function is compared with that of so many days ago',
			value: 21,
			unit: 'days',
			mark: 'ours',
			min: 5,
			max: 120
		},
		'rootFunction.neighbourFall': {
			label: 'Neighbours count as drinking less too when half of them fell by this much',
			value: 0.1,
			unit: 'share',
			mark: 'ours',
			min: 0.01,
			max: 0.9
		},
		'degreeDays.rootBaseC': {
			label: 'Roots grow over',
			value: 7,
			unit: '°C',
			mark: 'ours',
			min: 0,
			max: 18
		},
		'degreeDays.shootBaseC': {
			label: 'Shoots grow over',
			value: 5,
			unit: '°C',
			mark: 'ours',
			min: 0,
			max: 18
		},
		'weather.hoursLeast': {
			label: 'Hours with a reading of a station that make a day',
			value: 18,
			unit: 'hours',
			mark: 'ours',
			min: 1,
			max: 24
		},
		'weather.readingOldestDays': {
			label: 'Readings of a device from longer ago are refused: its clock is lost',
			value: 400,
			unit: 'days',
			mark: 'ours',
			note: 'Nothing older is reckoned with. A clock that lost its battery begins in 1970 or 2000.',
			min: 7,
			max: 3650
		},
		'weather.airHoursLeast': {
			label: 'Hours with a reading of an air sensor that make a day',
			value: 6,
			unit: 'hours',
			mark: 'ours',
			note: 'Better than a neighbouring station, though a night may be missed.',
			min: 1,
			max: 24
		},
		'weather.stationWithinDeg': {
			label: 'A place without weather of its own takes that of a station no further than',
			value: 0.5,
			unit: '°',
			mark: 'ours',
			note: 'Half a degree of latitude is some fifty kilometres.',
			min: 0,
			max: 5
		},
		'weather.offDays': {
			label: 'A day without weather follows the last measured day for so long',
			value: 20,
			unit: 'days',
			mark: 'ours',
			min: 0,
			max: 60
		},
		'weather.offFadesDays': {
			label: 'What it follows fades to a third in',
			value: 5,
			unit: 'days',
			mark: 'ours',
			note: 'Beyond the last measured day the climate of the place is taken, moved by how far that day was off it.',
			min: 1,
			max: 30
		},
		'weather.bridgeDays': {
			label: 'Longest gap in the weather that is bridged by its neighbours',
			value: 3,
			unit: 'days',
			mark: 'ours',
			min: 0,
			max: 14
		},
		'weather.disagreeC': {
			label: 'Two stations disagree when they differ by more than',
			value: 4,
			unit: '°C',
			mark: 'ours',
			min: 0.5,
			max: 20
		},
		'guard.heatC': {
			label: 'A day warmer than this is warned of',
			value: 32,
			unit: '°C',
			mark: 'ours',
			min: 20,
			max: 50
		},
		'guard.freshHeatC': {
			label: 'and for a tree with fewer than 0.6 of its roots',
			value: 27,
			unit: '°C',
			mark: 'ours',
			min: 15,
			max: 45
		},
		'guard.gustMs': {
			label: 'Gusts over this are warned of',
			value: 17,
			unit: 'm/s',
			mark: 'memory',
			note: 'About a gale.',
			min: 5,
			max: 60
		},
		'guard.vpdKpa': {
			label: 'Vapour pressure deficit over this stresses a tree with few roots',
			value: 1.2,
			unit: 'kPa',
			mark: 'ours',
			min: 0.3,
			max: 5
		},
		'guard.workDays': {
			label: 'Days ahead that are looked at before root work is begun',
			value: 4,
			unit: 'days',
			mark: 'ours',
			min: 1,
			max: 10
		},
		'guard.shootsC': {
			label: 'Tender new shoots of a hardy kind are kept above',
			value: 0,
			unit: '°C',
			mark: 'trade',
			min: -10,
			max: 10
		},
		'pot.dryDownLeastDays': {
			label: 'A pot that is dry sooner than this is too small for its tree',
			value: 1.5,
			unit: 'days',
			mark: 'ours',
			min: 0.2,
			max: 10
		},
		'pot.dryDownWatchDays': {
			label: 'A pot that stays wet longer than this is watched',
			value: 7,
			unit: 'days',
			mark: 'ours',
			min: 1,
			max: 60
		},
		'pot.dryDownMostDays': {
			label: 'A pot that stays wet longer than this is too large for its roots',
			value: 10,
			unit: 'days',
			mark: 'ours',
			min: 2,
			max: 90
		}
	})
};
