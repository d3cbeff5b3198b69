import { measured, measuredPair } from '../text/measured';
import { defineValues, type WorkingValue } from './define';

const wanted = (what: string, end: string, value: number): WorkingValue => ({
	label: `Nursery mixes: ${what} ${end}`,
	value,
	unit: 'share',
	mark: 'memory',
	source: 'Yeager et al., Best Management Practices for nursery crops',
	min: 0,
	max: 0.95
});

export const replantValues = defineValues({
	'mix.leastOverCoarseMm': {
		label: 'Mix that is left above a coarse layer, at least',
		value: 10,
		unit: 'mm',
		mark: 'ours',
		min: 0,
		max: 200
	},
	'mix.slipRatio': {
		label: 'Grains over this share of the size of the coarser ones do not slip between them',
		value: 0.4,
		unit: 'share',
		mark: 'ours',
		min: 0.05,
		max: 1
	},
	'mix.lifeShare': {
		label: 'A component tells how long a mix lasts from this share of it on',
		value: 0.1,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'mix.insideMost': {
		label: 'Of the water that a bench test found at most so much is held inside the grains',
		value: 0.95,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 0.99
	},
	'mix.poreOfGrain': {
		label: 'Pores between grains, as a share of the fine end of their size',
		value: 0.4,
		unit: 'share',
		mark: 'ours',
		min: 0.05,
		max: 1
	},
	'mix.airFrom': wanted('air space', 'at least', 0.1),
	'mix.airTo': wanted('air space', 'at most', 0.3),
	'mix.waterFrom': wanted('water held', 'at least', 0.45),
	'mix.waterTo': wanted('water held', 'at most', 0.65),
	'mix.recoveringAirFrom': {
		label: 'Recovering roots: air space at least',
		value: 0.2,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.9
	},
	'mix.recoveringAirTo': {
		label: 'Recovering roots: air space at most',
		value: 0.35,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.9
	},
	'pot.crownDrag': {
		label: 'Drag of a leafy crown in the wind',
		value: 0.6,
		unit: 'factor',
		mark: 'memory',
		note: 'Crowns bend and close in strong wind; about 0.3 to 0.8.',
		min: 0.1,
		max: 1.5
	},
	'pot.crownShare': {
		label: 'Crown outline, where it was not measured: a square of this share of the height of the tree',
		value: 0.45,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1.5
	},
	'pot.crownMiddle': {
		label: 'Middle of the crown against the wind, as a share of the height of the tree',
		value: 0.6,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'pot.upSizeMm': {
		label: 'Normal step up: pot wider than the last by',
		value: 50,
		unit: 'mm',
		mark: 'trade',
		note: `${measured(25, 'mm')} all round.`,
		min: 0,
		max: 300
	},
	'pot.packedSizeMm': {
		label: 'Packed roots: pot wider than the last by',
		value: 90,
		unit: 'mm',
		mark: 'trade',
		note: `Practice runs from ${measuredPair(75, ' to ', 100, 'mm')}.`,
		min: 0,
		max: 300
	},
	'pot.afterRotSizeMm': {
		label: 'After rot or a hard reduction: pot wider than what is left of the roots by',
		value: 30,
		unit: 'mm',
		mark: 'ours',
		note: 'Trade practice: the pot follows the remaining roots, often the same or smaller.',
		min: 0,
		max: 200
	},
	'pot.hardReductionFrom': {
		label: 'Living root lost that counts as a hard reduction',
		value: 0.3,
		unit: 'share',
		mark: 'ours',
		min: 0.05,
		max: 0.9
	},
	'pot.headspaceMm': {
		label: 'Room left under the rim for watering',
		value: 20,
		unit: 'mm',
		mark: 'trade',
		note: `Practice runs from ${measuredPair(12, ' to ', 25, 'mm')}.`,
		min: 0,
		max: 100
	},
	'pot.coarseLayerMm': {
		label: 'Coarse layer at the bottom, where one is used',
		value: 25,
		unit: 'mm',
		mark: 'trade',
		note: 'Keeps holes clear; it does not drain the mix above it and costs rooting depth.',
		min: 0,
		max: 200
	},
	'pot.topLayerMm': {
		label: 'Top layer, where one is used',
		value: 10,
		unit: 'mm',
		mark: 'trade',
		min: 0,
		max: 100
	},
	'pot.ballDepthShare': {
		label: 'Depth of a ball nobody measured, of its width',
		value: 0.55,
		unit: 'share',
		mark: 'ours',
		min: 0.2,
		max: 1.2
	},
	'pot.crownNeeds': {
		label: 'Pot that nobody wrote down: at least so much for a square metre of crown',
		value: 30,
		unit: 'L/m²',
		mark: 'ours',
		min: 0,
		max: 200
	},
	'pot.ballShape': {
		label: 'Volume of a root ball over that of its enclosing cylinder',
		value: 0.8,
		unit: 'share',
		mark: 'ours',
		note: 'Between the half-ellipsoid (2/3) and the cylinder (1).',
		min: 0.5,
		max: 1
	},
	'pot.settling': {
		label: 'Extra mix for settling and fines that fall between coarse grains',
		value: 0.1,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.5
	},
	'pot.coarseKgL': {
		label: 'Drained coarse layer',
		value: 1.1,
		unit: 'kg/L',
		mark: 'ours',
		min: 0.2,
		max: 2.2
	},
	'pot.taperRound': {
		label: 'Proposed round pot: floor as a share of the rim',
		value: 0.82,
		unit: 'share',
		mark: 'ours',
		min: 0.4,
		max: 1
	},
	'pot.taperSquare': {
		label: 'Proposed rectangular pot: floor as a share of the rim',
		value: 0.9,
		unit: 'share',
		mark: 'ours',
		min: 0.4,
		max: 1
	},
	'pot.deepFactor': {
		label: 'Proposed deep pot: so many times the least depth',
		value: 1.4,
		unit: '×',
		mark: 'ours',
		min: 1,
		max: 4
	},
	'seat.moundMm': {
		label: 'Mound under the trunk, where one is made',
		value: 25,
		unit: 'mm',
		mark: 'trade',
		min: 0,
		max: 200
	},
	'seat.flareOverMm': {
		label: 'Flare over the rim, where it is set on a mound',
		value: 5,
		unit: 'mm',
		mark: 'ours',
		note: 'Practice: at or slightly above it.',
		min: 0,
		max: 100
	},
	'seat.moundCover': {
		label: 'Share of the surface that a mound covers',
		value: 0.8,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'seat.flareBelowMm': {
		label: 'Top of the ball under the rim, where it is set low',
		value: 25,
		unit: 'mm',
		mark: 'trade',
		min: 0,
		max: 150
	},
	'seat.holeMm': {
		label: 'Drain hole added to a tray',
		value: 25,
		unit: 'mm',
		mark: 'trade',
		min: 3,
		max: 100
	},
	'seat.openFloor': {
		label: 'Floor that should be open as drain holes',
		value: 0.03,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 0.5
	},
	'seat.wireApartDeg': {
		label: 'Wires stand at least so far apart',
		value: 50,
		unit: '°',
		mark: 'ours',
		min: 10,
		max: 180
	},
	'seat.wireReachShare': {
		label: 'A wire crosses its root at this share of its reach',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		min: 0.2,
		max: 0.95
	},
	'seat.holeAsideMm': {
		label: 'Wire holes lie so far to each side of the root',
		value: 25,
		unit: 'mm',
		mark: 'ours',
		min: 5,
		max: 200
	},
	'seat.holeFromEdgeMm': {
		label: 'Wire holes stay clear of the edge of the floor by',
		value: 20,
		unit: 'mm',
		mark: 'ours',
		min: 0,
		max: 200
	},
	'seat.wireExtra': {
		label: 'Extra wire for twisting',
		value: 0.35,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 2
	},
	'seat.stonesOffDays': {
		label: 'Steadying stones come off after',
		value: 120,
		unit: 'days',
		mark: 'ours',
		note: 'Practice: when it no longer rocks, usually after the first season.',
		min: 14,
		max: 800
	},
	'seat.tiesOffDays': {
		label: 'Ties are loosened or come off after',
		value: 365,
		unit: 'days',
		mark: 'ours',
		min: 30,
		max: 1500
	}
});
