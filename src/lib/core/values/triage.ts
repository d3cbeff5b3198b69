import { groupNames, groups, type Group } from '../vocabulary/kind';
import { defineValues, ours, type WorkingValue } from './define';

/** Chance that a fair tree lives through being lifted in its window. */
const lifting: Record<Group, number> = {
	deciduous: 0.85,
	'broadleaf-evergreen': 0.72,
	conifer: 0.65,
	tropical: 0.75,
	succulent: 0.88,
	ericaceous: 0.8,
	palm: 0.82
};
type LiftKey = `triage.lift.${Group}`;
const liftValues = Object.fromEntries(
	groups.map((group): [string, WorkingValue] => [
		`triage.lift.${group}`,
		ours(
			`Lives through lifting, fair tree in its window: ${groupNames[group]}`,
			lifting[group],
			'chance',
			[0.02, 0.99]
		)
	])
) as Record<LiftKey, WorkingValue>;

const effect = (label: string, number: number): WorkingValue => ours(label, number, 'log-odds', [-5, 5]);

export const triageValues = {
	...liftValues,
	...defineValues({
		'triage.treat': ours(
			'Lives through treatment where it stands, fair tree in its window',
			0.9,
			'chance',
			[0.02, 0.99]
		),
		'triage.vitality.strong': effect('Survival: strong today', 0.5),
		'triage.vitality.fair': effect('Survival: fair today', 0),
		'triage.vitality.weak': effect('Survival: weak today', -1),
		'triage.vitality.dying': effect('Survival: dying today', -2.2),
		'triage.season.in-window': effect('Survival: in its window', 0),
		'triage.season.shoulder': effect('Survival: on the shoulder of its window', -0.4),
		'triage.season.out-of-window': effect('Survival: out of its window', -1),
		'triage.pests.none': effect('Survival: no pests', 0),
		'triage.pests.unknown': effect('Survival: nobody looked for pests', -0.1),
		'triage.pests.leaf': effect('Survival: pests on leaf or twig', -0.3),
		'triage.pests.root': effect('Survival: pests at the root', -1.3),
		'triage.reserves.field-grown': effect('Survival: field-grown, with stores', 0.2),
		'triage.reserves.few-years-potted': effect('Survival: a few years in a pot', 0),
		'triage.reserves.long-potted': effect('Survival: long in a pot, or old and collected', -0.35),
		'triage.rot': effect('Survival: rot, for certain', -1.1),
		'triage.rot-unknown': ours(
			'Where nobody has looked, it is judged as if rot were there with a chance of',
			0.15,
			'chance',
			[0, 1]
		),
		'triage.roots-usual': ours(
			'Share of its absorbing roots that comes along in a usual lift',
			0.08,
			'share',
			[0.005, 1],
			{ mark: 'memory', source: '2 to 20 % by several studies: Watson & Himelick 1982, Gilman 1988' }
		),
		'triage.roots-unknown': ours(
			'Where it is not known how many roots come along, it is judged as if',
			0.05,
			'share',
			[0.002, 1]
		),
		'triage.scratch-unknown': effect('Survival: nobody has scratched a twig', -0.3),
		'lifting.people-most': ours(
			'More people than this do not fit round a ball: a machine',
			6,
			'people',
			[2, 20]
		),
		'triage.roots-slope': effect('Survival: for each doubling of the roots kept', 0.35),
		'triage.roots-most': ours(
			'Survival: roots kept count up to so many doublings either way',
			3,
			'doublings',
			[0.5, 8]
		),
		'lifting.endsAskedDays': ours(
			'After setting it, asked whether ragged ends were cut clean for',
			7,
			'days',
			[1, 60]
		),
		'lifting.reachLeast': ours(
			'Roots of an open-grown tree reach at least, from the trunk',
			2,
			'crown radii',
			[0.3, 8],
			{ mark: 'memory' }
		),
		'lifting.reachUsual': ours('Roots of an open-grown tree usually reach', 2.5, 'crown radii', [0.3, 8], {
			mark: 'memory'
		}),
		'lifting.reachMost': ours('Roots of an open-grown tree reach up to', 3, 'crown radii', [0.3, 8], {
			mark: 'memory'
		}),
		'lifting.reachHedge': ours('In a hedge or against a wall they reach', 0.5, 'crown radii', [0.1, 3]),
		'lifting.rootDepthMm': ours('Absorbing roots lie down to', 600, 'mm', [100, 2000]),
		'lifting.preparedLeast': ours(
			'Root-pruned or confined: the ball holds at least',
			1.5,
			'× as many',
			[1, 10]
		),
		'lifting.prepared': ours('Root-pruned or confined: the ball usually holds', 2.2, '× as many', [1, 10]),
		'lifting.preparedMost': ours('Root-pruned or confined: the ball holds up to', 3, '× as many', [1, 10]),
		'lifting.keptLeast': ours('A lift leaves at least', 0.005, 'share', [0, 0.2]),
		'lifting.mapSpread': ours('How unsure what a map says of a lift is', 0.4, 'of kept × lost', [0, 2]),
		'lifting.endMatchDeg': ours('A root of the log is one of the map within', 25, '°', [1, 90]),
		'lifting.endMatchThick': ours(
			'and where neither is thicker than so many times the other',
			2,
			'×',
			[1, 10]
		),
		'lifting.out-freeMinutes': ours('Roots out of the ground lose nothing for', 30, 'min', [0, 600]),
		'lifting.outUsualMinutes': ours('Out of the ground, where nobody noted how long', 60, 'min', [0, 20_000]),
		'lifting.outMostMinutes': ours('and it may have been up to', 480, 'min', [0, 20_000]),
		'lifting.dryHalfMinutes': ours(
			'Then, not wetted, half of the fine roots dry in',
			360,
			'min',
			[10, 20_000]
		),
		'lifting.wetHalfMinutes': ours('Then, kept wet and shaded, half of them in', 7200, 'min', [30, 200_000]),
		'triage.size-mm': ours('A trunk counts as large from', 150, 'mm', [20, 2000]),
		'triage.size': effect('Survival: for each doubling of a large trunk', -0.4),
		'triage.spread-base': ours('How unsure the chance is at best', 0.45, 'log-odds', [0.05, 3]),
		'triage.effectLeast': ours(
			'Before the work: what is known is named where it moves the chance by at least',
			0.005,
			'chance',
			[0, 0.1]
		),
		'triage.spread-unknown': ours('and for each thing not known', 0.35, 'log-odds', [0, 3]),
		'triage.go-from': ours('Go when the chance is at least', 0.6, 'chance', [0.1, 0.99]),
		'triage.leave-under': ours('Leave when the chance is under', 0.35, 'chance', [0.01, 0.9]),
		'triage.nurse-gain': ours('Nurse first when that adds at least', 0.1, 'chance', [0.01, 0.9]),
		'triage.backups-under': ours('Backups first when the chance may be under', 0.5, 'chance', [0, 1]),
		'triage.cutting-strikes': ours('A cutting or division takes', 0.4, 'chance', [0.02, 0.98]),
		'triage.backups-sure': ours('Backups enough that one takes, with', 0.95, 'chance', [0.5, 0.999]),
		'triage.new-look-days': ours('A decision asks for a new look after', 14, 'days', [1, 365]),
		'triage.person-kg': ours('Most one person lifts at best', 23, 'kg', [5, 60], {
			mark: 'published',
			source: 'Waters et al. 1993, revised NIOSH lifting equation, load constant'
		}),
		'changes.watch-days': ours('One thing at a time: watch after each change for', 21, 'days', [1, 365]),
		'lifting.trunks-least': ours(
			'Ball, field: at least so many times the base of the trunk',
			5,
			'×',
			[1, 20],
			{ mark: 'trade' }
		),
		'lifting.trunks-most': ours('Ball, field: up to so many times', 6, '×', [1, 20], { mark: 'trade' }),
		'lifting.second-ring-mm': ours('Second ring, dug outward for room', 250, 'mm', [0, 2000], {
			mark: 'ours'
		}),
		'lifting.body-gap-cm': ours('A ball is held so far from the body', 12, 'cm', [0, 40]),
		'lifting.hot-C': ours('A usual day warmer than this is too hot to lift', 27, '°C', [15, 45]),
		'lifting.travel-cm': ours('A ball is lifted up by', 60, 'cm', [0, 175]),
		'lifting.shape-least': ours('Ball: fullness of a half-ellipsoid', 2 / 3, 'of the cylinder', [0.3, 1]),
		'lifting.density-least': ours('Moist soil, light and organic', 1.3, 'kg/L', [0.5, 2.5]),
		'lifting.density': ours('Moist soil, usual', 1.76, 'kg/L', [0.5, 2.5], {
			mark: 'memory',
			source: '110 lb/ft³'
		}),
		'lifting.density-most': ours('Moist soil, wet clay', 1.9, 'kg/L', [0.5, 2.5])
	})
};
