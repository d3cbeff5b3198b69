import { polarOf, type PlanPoint } from './geometry';
import { ribbon, ribbonAt } from './ribbon';
import type { Segment } from './root-map';

/**
 * A side root of a root, half as thick as it is there: to where it was drawn, or off its middle and turned outward.
 * @param drawn where it leaves the root, mm along it, and where it was drawn to on the plane of the map
 * @returns null where the root has no length there
 */
export function sideRoot(
	parent: Segment,
	drawn: { attachMm: number; to: PlanPoint } | null,
	id: string
): Segment | null {
	const points = ribbon(parent);
	const lengthMm = points.at(-1)?.alongMm ?? 0;
	const attachMm = drawn?.attachMm ?? Math.round(lengthMm * 0.5);
	const from = ribbonAt(points, attachMm);
	if (!from) return null;
	const depthMm = parent.course[Math.floor(parent.course.length / 2)]?.depthMm ?? 0;
	// Along the root, turned by a third of a right angle away from its own line.
	const turn = Math.PI / 6;
	const along = drawn
		? Math.atan2(drawn.to.y - from.y, drawn.to.x - from.x)
		: Math.atan2(from.nx, -from.ny) + turn;
	const reachMm = drawn
		? Math.max(5, Math.hypot(drawn.to.x - from.x, drawn.to.y - from.y))
		: Math.max(20, lengthMm * 0.4);
	const point = (distanceMm: number) => ({
		...polarOf({ x: from.x + distanceMm * Math.cos(along), y: from.y + distanceMm * Math.sin(along) }),
		depthMm
	});
	return {
		...parent,
		id,
		parentId: parent.id,
		attachMm,
		rootClass: parent.rootClass === 'feeder' ? 'feeder' : 'secondary',
		condition: 'sound',
		deadFromMm: null,
		doubtfulFromMm: null,
		seenToMm: null,
		diameterStartMm: Math.max(0.5, Math.round(from.halfWidthMm * 10) / 10),
		diameterEndMm: 0.5,
		fineScore: 2,
		flaws: [],
		seenOtherwise: [],
		guessed: ['class', 'depth', ...(drawn ? [] : (['length'] as const))],
		sourceKnown: true,
		keep: false,
		measuredIn: null,
		depthIn: null,
		course: [point(0), point(reachMm / 2), point(reachMm)],
		note: ''
	};
}
