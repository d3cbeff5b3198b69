import { defineValues, ours } from './define';

/** From pictures to lengths. */
export const pictureValues = defineValues({
	'picture.touchPx': ours(
		'Pictures: a touch under the glass is off on each axis by',
		0.8,
		'pixels of the screen',
		[0.2, 20]
	),
	'picture.focalShare': {
		label: 'Pictures: focal length of a camera, of the longer side of its picture',
		value: 0.72,
		unit: 'share',
		mark: 'memory',
		note: 'The main camera of most phones.',
		min: 0.3,
		max: 5
	},
	'picture.smallestShare': ours(
		'Pictures: what lies beside for its size is at least so wide, of the longer side of the picture',
		0.04,
		'share',
		[0.01, 0.5]
	),
	'picture.farShare': ours(
		'Pictures: a point is told while it is seen so large as this, of what lies beside for its size',
		0.2,
		'share',
		[0.02, 0.9]
	),
	'picture.cornerLeast': ours(
		'Pictures: a corner of a rectangle turns by at least so much of its area',
		0.02,
		'share of the area',
		[0.001, 0.5]
	),
	'picture.rimOffMost': ours(
		'Pictures: a place touched lies on the round rim within',
		0.05,
		'share of its radius',
		[0.005, 0.5]
	),
	'picture.rimGapMostDeg': ours(
		'Pictures: places touched on a rim leave no wider gap round it than',
		150,
		'degrees',
		[60, 300]
	),
	'picture.searchPx': ours(
		'Pictures: the card is looked for in a picture made so small, longer side',
		1600,
		'px',
		[400, 6000]
	),
	'picture.markerBits': ours(
		'Pictures: a marker of the card is known with so many of its 36 bits wrong',
		3,
		'bits',
		[0, 5]
	),
	'picture.cornerPx': ours('Pictures: a corner of a marker is found no better than to', 0.1, 'px', [0.01, 5]),
	'picture.cardOffMost': ours(
		'Pictures: the markers lie in one plane while their corners are off by less than this, of a marker',
		0.03,
		'share',
		[0.002, 0.3]
	),
	'picture.blurMost': ours(
		'Pictures: the card is sharp while black turns to white within this, of a marker',
		0.16,
		'share',
		[0.02, 0.5]
	),
	'picture.tiltMostDeg': ours(
		'Pictures: taken from the side, lengths are read up to',
		50,
		'degrees from straight',
		[10, 80]
	)
});
