import { measured } from '../text/measured';
import { defineValues } from './define';

export const climateValues = defineValues({
	'place.heightWithinKm': {
		label: 'Height of the nearest town stands for that of a position no farther off than this',
		value: 30,
		unit: 'km',
		mark: 'ours',
		min: 0,
		max: 500
	},
	'climate.annualMeanAtEquatorC': {
		label: 'Stand-in climate: annual mean at the equator',
		value: 27,
		unit: '°C',
		mark: 'ours',
		note: 'Only where a place has no monthly means of its own.',
		min: 15,
		max: 35
	},
	'climate.meanDropPerDegC': {
		label: 'Stand-in climate: annual mean falls per degree of latitude by',
		value: 0.34,
		unit: '°C/°',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'climate.swingPerDegC': {
		label: 'Stand-in climate: summer-to-mean swing per degree of latitude',
		value: 0.165,
		unit: '°C/°',
		mark: 'ours',
		min: 0,
		max: 0.5
	},
	'climate.lapseCPerKm': {
		label: 'Cooling with height',
		value: 6.5,
		unit: '°C/km',
		mark: 'published',
		source: 'ICAO Standard Atmosphere, 1993',
		min: 3,
		max: 10
	},
	'climate.nightBelowMeanC': {
		label: 'A usual night lies below the daily mean by',
		value: 5,
		unit: '°C',
		mark: 'ours',
		min: 1,
		max: 15
	},
	'climate.coldNightBelowMeanC': {
		label: 'A cold night of the month lies below the daily mean by',
		value: 9,
		unit: '°C',
		mark: 'ours',
		min: 2,
		max: 25
	},
	'season.hardyGrowthFromC': {
		label: 'Hardy kinds grow when the daily mean is at least',
		value: 8,
		unit: '°C',
		mark: 'ours',
		min: 0,
		max: 15
	},
	'season.leaflessUnderHours': {
		label: 'Where it never turns cold, deciduous kinds stand bare in days shorter than',
		value: 10.2,
		unit: 'hours',
		mark: 'ours',
		note: 'Elsewhere the season by warmth decides.',
		min: 0,
		max: 14
	},
	'season.tenderGrowthFromC': {
		label: 'Tender kinds grow when the daily mean is at least',
		value: 16,
		unit: '°C',
		mark: 'ours',
		note: `Trade practice wants nights of at least ${measured(15, '°C')} for tender kinds.`,
		min: 10,
		max: 25
	},
	'season.springBeforeDays': {
		label: 'Early-spring window opens before growth begins by',
		value: 21,
		unit: 'days',
		mark: 'ours',
		note: 'Trade practice put into numbers by us.',
		min: 0,
		max: 120
	},
	'season.springAfterDays': {
		label: 'Early-spring window closes after growth begins by',
		value: 14,
		unit: 'days',
		mark: 'ours',
		note: 'Trade practice put into numbers by us.',
		min: 0,
		max: 120
	},
	'season.leafFallDays': {
		label: 'Leafless window opens after growth ends by',
		value: 14,
		unit: 'days',
		mark: 'ours',
		note: 'Trade practice put into numbers by us.',
		min: 0,
		max: 120
	},
	'season.budSwellDays': {
		label: 'Leafless window closes before growth begins by',
		value: 7,
		unit: 'days',
		mark: 'ours',
		note: 'Trade practice put into numbers by us.',
		min: 0,
		max: 120
	},
	'season.autumnFromDays': {
		label: 'Early-autumn window opens before growth ends by',
		value: 56,
		unit: 'days',
		mark: 'ours',
		note: 'Trade practice put into numbers by us.',
		min: 0,
		max: 120
	},
	'season.autumnToDays': {
		label: 'Early-autumn window closes before growth ends by',
		value: 21,
		unit: 'days',
		mark: 'ours',
		note: 'Trade practice put into numbers by us.',
		min: 0,
		max: 120
	},
	'season.warmAfterDays': {
		label: 'Warm-growth window opens after growth begins by',
		value: 28,
		unit: 'days',
		mark: 'ours',
		note: 'Trade practice put into numbers by us.',
		min: 0,
		max: 120
	},
	'season.warmBeforeEndDays': {
		label: 'Warm-growth window closes before growth ends by',
		value: 70,
		unit: 'days',
		mark: 'ours',
		note: 'Trade practice put into numbers by us.',
		min: 0,
		max: 120
	},
	'season.shoulderDays': {
		label: 'Shoulder on either side of a lifting window',
		value: 21,
		unit: 'days',
		mark: 'ours',
		min: 0,
		max: 60
	},
	'shelter.coldFrameC': {
		label: 'A cold frame is warmer at night by',
		value: 3,
		unit: '°C',
		mark: 'ours',
		min: 0,
		max: 10
	},
	'shelter.greenhouseC': {
		label: 'An unheated greenhouse is warmer at night by',
		value: 4,
		unit: '°C',
		mark: 'ours',
		min: 0,
		max: 12
	},
	'shelter.indoorsC': {
		label: 'Indoors, the temperature held when none is given',
		value: 16,
		unit: '°C',
		mark: 'ours',
		min: 0,
		max: 30
	},
	'cold.marginC': {
		label: 'Warn when a night comes this close to a tree’s coldest temperature',
		value: 2,
		unit: '°C',
		mark: 'ours',
		min: 0,
		max: 10
	},
	'cold.coverReachM': {
		label: 'Tallest tree in the ground that fleece is laid over',
		value: 2.5,
		unit: 'm',
		mark: 'ours',
		min: 0.5,
		max: 8
	},
	'cold.tenderCutC': {
		label: 'Tender trees with fresh cuts are kept from nights under',
		value: 5,
		unit: '°C',
		mark: 'ours',
		min: 0,
		max: 15
	},
	'cold.cutRootsMinimumC': {
		label: 'Freshly cut roots of hardy trees are kept above',
		value: 0,
		unit: '°C',
		mark: 'trade',
		min: -10,
		max: 15
	},
	'cold.shootsTenderDays': {
		label: 'New shoots count as tender for so long after buds were seen open',
		value: 60,
		unit: 'days',
		mark: 'ours',
		min: 7,
		max: 365
	},
	'cold.budsSeenDays': {
		label: 'In spring, buds that were seen closed may have opened after',
		value: 21,
		unit: 'days',
		mark: 'ours',
		min: 1,
		max: 90
	},
	'cold.cutRootsDays': {
		label: 'Roots count as freshly cut for so many days of growth',
		value: 60,
		unit: 'days',
		mark: 'ours',
		min: 7,
		max: 365
	}
});
