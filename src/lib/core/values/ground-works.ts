import { measuredPair } from '../text/measured';
import { defineValues, ours } from './define';

/** Works round a tree in the ground, the place it is to stand at, and the way to the vehicle. */
export const workValues = defineValues({
	'mulch.depthMm': ours('Depth of a mulch ring', 75, 'mm', [20, 200], {
		mark: 'trade',
		note: `Practice runs from ${measuredPair(50, ' to ', 100, 'mm')}, held off the trunk.`
	}),
	'mulch.offTrunkMm': ours('Mulch is held off the trunk by', 100, 'mm', [20, 1000], { mark: 'trade' }),
	'mulch.leastM': ours('A mulch ring over roots that grew there ends no nearer than', 1, 'm', [0.3, 5]),
	'mulch.mostM': ours('and no farther than', 2.5, 'm', [0.5, 15]),
	'mulch.holeDays': ours('A tree set in the ground has its roots in its hole for', 730, 'days', [60, 3000]),
	'hole.widthTimes': ours('Planting hole: so many times the width of the ball', 2, '×', [1.1, 5], {
		mark: 'memory',
		note: 'Two to three times, no deeper than the ball.'
	}),
	'hole.holdMin': ours('A tree is staked or guyed in', 30, 'min', [5, 600]),
	'hole.tiesEvery': ours('Ties of a tree set in the ground are seen after', 90, 'days', [14, 400], {
		mark: 'trade'
	}),
	'hole.tiesOff': ours('and may come off after', 365, 'days', [60, 1100], {
		mark: 'trade',
		note: 'After one season of growth, where it stands by itself.'
	}),
	'hole.digLPerH': ours('Soil dug by hand', 250, 'L/h', [20, 5000]),
	'collar.openMm': ours('A collar is opened so far from the bark', 400, 'mm', [50, 3000]),
	'collar.buriedMm': ours('Depth of soil over a collar where nobody measured it', 100, 'mm', [20, 1000]),
	'collar.underFlareMm': ours('and so far below the first roots', 50, 'mm', [0, 500]),
	'collar.handLPerH': ours('Soil moved from a collar by hand', 40, 'L/h', [2, 500]),
	'collar.airLPerH': ours('Soil moved from a collar with an air tool', 200, 'L/h', [10, 3000]),
	'loosen.trenchWidthMm': ours('Width of a radial trench', 200, 'mm', [50, 1000]),
	'loosen.trenchDepthMm': ours('Depth of a trench where no soil was measured', 300, 'mm', [100, 1000]),
	'loosen.mostDepthMm': ours('Trenches and holes go no deeper than', 500, 'mm', [100, 1500]),
	'loosen.underHardMm': ours('Loosened so far below the hard layer', 50, 'mm', [0, 300]),
	'loosen.clearMm': ours('Trenches and holes stay clear of structural roots by', 150, 'mm', [0, 2000]),
	'loosen.holeMm': ours('Width of a vertical hole', 75, 'mm', [20, 400], { mark: 'memory' }),
	'loosen.holeSpacingMm': ours('Holes stand so far apart', 600, 'mm', [200, 3000], { mark: 'memory' }),
	'loosen.compostShare': ours('Compost in what goes back into trenches and holes', 0.3, 'share', [0, 1]),
	'loosen.trenchLPerH': ours('Trench opened with an air tool', 250, 'L/h', [10, 5000]),
	'loosen.holeMin': ours('A hole takes', 4, 'min', [0.5, 60]),
	'loosen.lookDays': ours('Soil is measured again after', 180, 'days', [14, 1000]),
	'sulphur.mostAtOnce': ours('Most sulphur at one time', 50, 'g/m²', [5, 300], {
		mark: 'memory',
		note: 'Large doses are split; about 1 lb per 100 ft².'
	}),
	'sulphur.betweenDays': ours('Time between two doses, with a retest before each', 120, 'days', [30, 400], {
		mark: 'trade',
		note: 'It works over months.'
	}),
	'acid.phAim': ours('pH wanted for acid-loving plants', 5, 'pH', [4.5, 5.5], {
		mark: 'trade',
		note: '4.5 to 5.5.'
	}),
	'acid.reachM': ours('Acidified so far round the trunk, if nothing else is said', 1.5, 'm', [0.3, 10]),
	'site.groundHardierC': ours('In the ground roots stand colder than in a pot by', 6, '°C', [0, 20]),
	'site.coldMarginC': ours('A cold night nearer to the limit than this is warned of', 3, '°C', [0, 15]),
	'site.drainMin': ours(
		'Water stands in a test hole longer than this: drowned roots',
		720,
		'min',
		[30, 4320],
		{
			mark: 'memory'
		}
	),
	'site.waterFarM': ours('Further from water than this is easily forgotten', 30, 'm', [2, 500]),
	'kit.screenMm': ours('A screen over a drain hole is a square of', 60, 'mm', [10, 400]),
	'kit.wrapOverlap': ours('Overlap of the wrap', 0.2, 'share', [0, 1]),
	'kit.twineTurns': ours('Turns of twine round a ball', 6, 'turns', [1, 40]),
	'route.gateSpareMm': ours('Room wanted beside the ball in a gate', 100, 'mm', [0, 1000]),
	'route.carryFarM': ours('A carry longer than this wants a barrow or a rest', 20, 'm', [2, 500]),
	'route.treeKg': ours('Mass of the tree over that of its ball', 0.15, 'share', [0, 2])
});
