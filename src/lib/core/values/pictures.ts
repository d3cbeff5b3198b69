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
	'picture.reachMostMm': ours('Pictures: roots are read as far from the trunk as', 1500, 'mm', [100, 10_000]),
	'picture.flatPx': ours(
		'Pictures: turned to its plane, a picture has at most so many pixels to a side',
		720,
		'px',
		[200, 4000]
	),
	'picture.ridgeRound': {
		label: 'Pictures: a band is told from a blob while the bend along it is small against that across, β',
		value: 0.5,
		unit: 'share',
		mark: 'published',
		source: 'Frangi, Niessen, Vincken & Viergever 1998, MICCAI, LNCS 1496',
		min: 0.1,
		max: 2
	},
	'picture.ridgeBend': ours(
		'Pictures: a band is told from grain by a bend of the shade of about',
		0.25,
		'of how much lighter roots are',
		[0.02, 2]
	),
	'picture.contrastLeast': ours(
		'Pictures: roots are taken to be lighter than soil by at least',
		2,
		'times what soil varies',
		[0.5, 20]
	),
	'picture.rootLeastMm': ours('Pictures: roots are looked for from a thickness of', 3, 'mm', [0.5, 50]),
	'picture.showRoundMm': ours(
		'Pictures: a touch shows the colour of a root round it as far as',
		1.5,
		'mm',
		[0.2, 30]
	),
	'picture.colourGrain': ours('Pictures: colours of roots and soil vary by at least', 1, 'of 255', [0.2, 60]),
	'picture.soilSpread': ours(
		'Pictures: shades are spread so that those of soil vary by',
		16,
		'of 255',
		[4, 100]
	),
	'picture.coarsePx': ours(
		'Pictures: the colour of roots is looked for in a picture of so many pixels to a side',
		320,
		'px',
		[100, 2000]
	),
	'picture.rootMost': ours('Pictures: a root is offered up to a thickness of', 0.8, 'of the trunk', [0.1, 1]),
	'picture.stripReach': ours(
		'Pictures: the edge of a root is looked for as far from its middle as',
		2,
		'half widths',
		[1.2, 4]
	),
	'picture.stripSpread': ours(
		'Pictures: the edge of a root lies within about so much of where it is expected',
		0.4,
		'of its logarithm',
		[0.1, 2]
	),
	'picture.stripPull': ours(
		'Pictures: an edge that far off counts so much less',
		0.08,
		'of how much lighter roots are',
		[0, 2]
	),
	'picture.stripSmooth': ours(
		'Pictures: an edge that moves sideways between two places counts less, by the square of its steps, for each millimetre of a step',
		0.5,
		'of how much lighter roots are',
		[0, 20]
	),
	'picture.edgePx': ours('Pictures: the width of a root is read no better than to', 1.2, 'px', [0.05, 10]),
	'picture.heightOffMm': ours(
		'Pictures: a root lies so much nearer or farther than is said, one deviation',
		10,
		'mm',
		[0, 200]
	),
	'picture.besideMm': ours(
		'Pictures: seen from the side, a root begins no farther beside the trunk than',
		20,
		'mm',
		[1, 300]
	),
	'picture.heightSaidMm': ours(
		'Pictures: a depth that somebody said is off by, one deviation',
		4,
		'mm',
		[0, 100]
	),
	'picture.wallTouch': ours(
		'Pictures: a touch on a wall of roots shows a colour over',
		0.0025,
		'of the longer side of the picture',
		[0.0005, 0.1]
	),
	'picture.wallGrain': ours(
		'Pictures: colours of roots and soil on a wall vary by at least',
		8,
		'of 255',
		[0.5, 80]
	),
	'picture.wallShade': ours(
		'Pictures: colours on a wall are lighter or darker by shade, one deviation',
		10,
		'of 255',
		[0, 80]
	),
	'picture.wallTelling': ours(
		'Pictures: a part of a wall tells of its roots where it shows, of what such a part shows on average,',
		0.2,
		'share',
		[0.01, 1]
	),
	'picture.wallUnlike': {
		label: 'Pictures: a colour is unlike all that was touched from a distance, squared and in deviations, of',
		value: 16.27,
		unit: 'deviations squared',
		mark: 'published',
		source: 'χ² of 3 degrees, 1 of 1,000 beyond it, in every table of it',
		min: 3,
		max: 200
	},
	'picture.wallMistakenMost': ours(
		'Pictures: colours of a wall are told apart while of what was touched reads as another at most',
		0.15,
		'share',
		[0.01, 0.9]
	),
	'picture.wallBlocks': ours(
		'Pictures: a wall of roots is judged in blocks, so many along its longer side',
		8,
		'blocks',
		[2, 40]
	),
	'picture.flareOffMm': ours(
		'Pictures: from the side, flare and middle of a root are seen to within, one deviation',
		3,
		'mm',
		[0, 100]
	),
	'picture.flareWide': ours(
		'Pictures: from the side, the trunk is seen as wide as on the map to within',
		0.35,
		'share',
		[0.05, 3]
	),
	'picture.sideMatchDeg': ours(
		'Pictures: from the side, a root is taken for one of the map that leaves the trunk within',
		25,
		'degrees',
		[2, 90]
	),
	'picture.edgeWidths': ours(
		'Pictures: bark, shade and flare leave the width of a root open by',
		0.1,
		'of its thickness',
		[0, 1]
	),
	'picture.endPx': ours('Pictures: a place along a root that was traced is off by', 1, 'px', [0.05, 20]),
	'picture.endWidths': ours(
		'Pictures: where a root ends is told to within',
		0.3,
		'of its thickness',
		[0.05, 10]
	),
	'picture.endMm': ours('Pictures: where a root ends is told to within at least', 11, 'mm', [0, 200]),
	'picture.shadeLeast': ours(
		'Pictures: a root is lighter than soil along its middle by at least',
		0.45,
		'of how much lighter roots are',
		[0, 1]
	),
	'picture.pathLeast': ours(
		'Pictures: a way along a root costs about so much of one beside it',
		0.03,
		'share',
		[0.001, 1]
	),
	'picture.ridgeLeast': ours(
		'Pictures: a root is followed while it shows at least so much',
		0.12,
		'of 1',
		[0.01, 0.9]
	),
	'picture.seedLeast': ours(
		'Pictures: a root is looked for where it shows at least so much',
		0.3,
		'of 1',
		[0.01, 0.95]
	),
	'picture.widthSpread': ours(
		'Pictures: a root that is followed keeps its width within about',
		0.6,
		'of its logarithm',
		[0.1, 3]
	),
	'picture.gapWidths': ours('Pictures: a root is followed over a gap of', 1, 'of its thickness', [0, 10]),
	'picture.gapMm': ours('Pictures: a root is followed over a gap of at least', 12, 'mm', [0, 200]),
	'picture.stepLeast': ours(
		'Pictures: an edge is one where the shade steps by at least',
		0.15,
		'of how much lighter roots are',
		[0.01, 1]
	),
	'picture.seenLeast': ours(
		'Pictures: a root is offered where both its edges show along at least',
		0.6,
		'share of it',
		[0.1, 1]
	),
	'picture.offerLengthMm': ours('Pictures: a root is offered from a length of', 25, 'mm', [5, 500]),
	'picture.offerWidths': ours(
		'Pictures: a root is offered from a length of',
		2,
		'of its thickness',
		[0.5, 20]
	),
	'picture.offersMost': ours('Pictures: roots offered at once, at most', 60, 'roots', [5, 400]),
	'picture.ringsMm': ours('Pictures: roots are looked for beyond the bark at', 4, 'mm', [0.2, 60]),
	'picture.tiltMostDeg': ours(
		'Pictures: taken from the side, lengths are read up to',
		50,
		'degrees from straight',
		[10, 80]
	),
	'picture.likePx': ours(
		'Pictures: places found again are looked for in a picture with a longer side of',
		600,
		'px',
		[200, 4000]
	),
	'picture.likeMost': ours('Pictures: places looked for again, at most', 1000, 'places', [100, 6000]),
	'picture.likeNext': {
		label: 'Pictures: a place is found again where the next like it differs more, by',
		value: 0.8,
		unit: 'of the next',
		mark: 'published',
		source: 'Lowe 2004, International Journal of Computer Vision 60, section 7.1',
		min: 0.3,
		max: 1
	},
	'picture.likeBits': ours('Pictures: a place found again differs in at most', 72, 'of 256 pairs', [10, 128]),
	'picture.likeLeast': ours(
		'Pictures: two pictures are of one view from so many places found again',
		20,
		'places',
		[8, 400]
	),
	'picture.likeOff': ours(
		'Pictures: a place found again lies off by at most',
		0.008,
		'of the longer side',
		[0.001, 0.1]
	),
	'picture.likeSpread': ours(
		'Pictures: places found again spread over at least',
		0.12,
		'of the picture',
		[0.01, 0.9]
	),
	'picture.likeTurnDeg': ours('Pictures: of one view, turned by at most', 25, 'degrees', [2, 90]),
	'picture.likeSize': ours('Pictures: of one view, larger or smaller by at most', 1.6, 'times', [1.05, 4]),
	'picture.likeShared': ours('Pictures: of one view, they share at least', 0.6, 'of the picture', [0.1, 1]),
	'picture.leafLeast': ours(
		'Pictures: what is green is leaf from an excess of green of',
		0.04,
		'of its light',
		[0, 1]
	),
	'picture.leafMost': ours(
		'Pictures: what is green is leaf at the latest from an excess of green of',
		0.16,
		'of its light',
		[0.01, 2]
	),
	'picture.leafDark': ours('Pictures: darker than this tells no colour', 0.06, 'of full light', [0, 0.5]),
	'picture.leafUnsure': ours(
		'Pictures: where leaf begins is unsure by, of the way between leaf and what lies between',
		0.04,
		'share',
		[0, 1]
	),
	'picture.leafOff': ours('Pictures: leaf cover is told no better than to', 0.015, 'of the crown', [0, 0.2]),
	'picture.leafDays': ours('Pictures: a look tells of the leaves of a picture within', 10, 'days', [0, 60]),
	'picture.leafPaler': ours(
		'Pictures: leaves are paler or deeper from a difference in the share of green of',
		0.012,
		'of its light',
		[0.001, 0.2]
	),
	'picture.greyRead': ours(
		'Pictures: of the grey patch is read its middle, of its sides',
		0.6,
		'share',
		[0.1, 1]
	),
	'picture.greyDarker': ours(
		'Pictures: the grey patch shows where it is darker than the paper, at most',
		0.85,
		'of its light',
		[0.1, 1]
	),
	'picture.crownField': ours(
		'Pictures: a part of a picture belongs to the crown from so much leaf in it',
		0.15,
		'share',
		[0.01, 1]
	),
	'picture.darkSaid': ours('Pictures: what is too dark to tell is said from', 0.02, 'of the crown', [0, 1]),
	'picture.nearerSaid': ours(
		'Pictures: that the later was taken nearer or farther is said from',
		0.01,
		'of its size',
		[0, 1]
	)
});
