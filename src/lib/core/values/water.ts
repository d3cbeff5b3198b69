import { placeKindNames, type PlaceKind } from '../climate/place';
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

/** What a potted tree draws, and what its mix gives. */
export const waterValues = {
	...placeDemand,
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
