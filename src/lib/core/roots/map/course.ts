import { z } from 'zod';
import { measured } from '../../text/measured';
import { percent } from '../../text/percent';
import { arcCover, normaliseDeg, turnDeg } from '../../maths/circular';
import type { Values } from '../../values/values';
import { diameterAtMm, planPoint, type PlanPoint } from './geometry';
import { rootFlaws, type Obstacle, type RootFlaw, type RootMapInput, type Segment } from './root-map';

/** Where two roots cross, seen from above. */
export const crossingOutput = z.object({
	upperId: z.string(),
	lowerId: z.string(),
	upperAtMm: z.number().describe('Distance along the upper from its start, mm'),
	lowerAtMm: z.number().describe('Distance along the lower from its start, mm'),
	gapMm: z.number().describe('Soil between them, mm; 0 or less where they touch or grow into each other'),
	angleDeg: z.number().describe('Angle between them, 0–90°')
});
export type Crossing = z.infer<typeof crossingOutput>;

/** Edges of what is looked at from above, mm. */
interface Box {
	left: number;
	right: number;
	top: number;
	bottom: number;
}
const boxOf = (points: readonly PlanPoint[]): Box => {
	const box = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity };
	for (const { x, y } of points) {
		if (x < box.left) box.left = x;
		if (x > box.right) box.right = x;
		if (y < box.top) box.top = y;
		if (y > box.bottom) box.bottom = y;
	}
	return box;
};
const apart = (one: Box, other: Box): boolean =>
	one.right < other.left || other.right < one.left || one.bottom < other.top || other.bottom < one.top;

/** A stretch of a course between two of its points. */
interface Stretch {
	from: PlanPoint;
	to: PlanPoint;
	box: Box;
	fromDepthMm: number;
	toDepthMm: number;
	/** Along the course, mm. */
	beginsAtMm: number;
	lengthMm: number;
}

interface Line {
	segment: Segment;
	stretches: Stretch[];
	box: Box;
	lengthMm: number;
}

function lineOf(segment: Segment): Line {
	const { course } = segment;
	const points = course.map(planPoint);
	let lengthMm = 0;
	const stretches = course.slice(1).flatMap((end, i): Stretch[] => {
		const [start, from, to] = [course[i], points[i], points[i + 1]];
		if (!start || !from || !to) return [];
		const beginsAtMm = lengthMm;
		const own = Math.hypot(to.x - from.x, to.y - from.y, end.depthMm - start.depthMm);
		lengthMm += own;
		const depths = { fromDepthMm: start.depthMm, toDepthMm: end.depthMm };
		return [{ from, to, box: boxOf([from, to]), ...depths, beginsAtMm, lengthMm: own }];
	});
	return { segment, stretches, box: boxOf(points), lengthMm };
}

/** How far along two stretches meet, as shares of each; null where they do not. */
function meeting(a: PlanPoint, b: PlanPoint, c: PlanPoint, d: PlanPoint): { t: number; u: number } | null {
	const [rx, ry, sx, sy] = [b.x - a.x, b.y - a.y, d.x - c.x, d.y - c.y];
	const cross = rx * sy - ry * sx;
	if (Math.abs(cross) < 1e-9) return null;
	const t = ((c.x - a.x) * sy - (c.y - a.y) * sx) / cross;
	const u = ((c.x - a.x) * ry - (c.y - a.y) * rx) / cross;
	return t >= 0 && t <= 1 && u >= 0 && u <= 1 ? { t, u } : null;
}

/**
 * All crossings of a map: centre lines that cut each other seen from above, with the soil between them. A side root and
 * the root it leaves meet and do not cross.
 */
export function crossings(segments: readonly Segment[]): Crossing[] {
	const lines = segments.map(lineOf);
	const found: Crossing[] = [];
	for (const [i, one] of lines.entries())
		for (const other of lines.slice(i + 1)) {
			const [a, b] = [one.segment, other.segment];
			if (a.parentId === b.id || b.parentId === a.id) continue;
			if (apart(one.box, other.box)) continue;
			const crossing = firstCrossing(one, other);
			if (crossing) found.push(crossing);
		}
	return found;
}

function firstCrossing(one: Line, other: Line): Crossing | null {
	const near = other.stretches.filter(({ box }) => !apart(box, one.box));
	for (const own of one.stretches) {
		if (apart(own.box, other.box)) continue;
		for (const its of near) {
			if (apart(own.box, its.box)) continue;
			const met = meeting(own.from, own.to, its.from, its.to);
			if (met) return crossingAt([one, own, met.t], [other, its, met.u]);
		}
	}
	return null;
}

/** Two roots where they cross: each with its stretch, and how far along that, as a share. */
function crossingAt(one: [Line, Stretch, number], other: [Line, Stretch, number]): Crossing {
	const told = ([{ segment, lengthMm }, stretch, share]: [Line, Stretch, number]) => {
		const atMm = stretch.beginsAtMm + share * stretch.lengthMm;
		return {
			id: segment.id,
			atMm,
			depthMm: stretch.fromDepthMm + share * (stretch.toDepthMm - stretch.fromDepthMm),
			halfMm: diameterAtMm(segment, atMm, lengthMm) / 2,
			headingDeg: heading(stretch.from, stretch.to)
		};
	};
	const [a, b] = [told(one), told(other)];
	const [upper, lower] = a.depthMm <= b.depthMm ? [a, b] : [b, a];
	const turn = Math.abs(turnDeg(a.headingDeg, b.headingDeg));
	return {
		upperId: upper.id,
		lowerId: lower.id,
		upperAtMm: upper.atMm,
		lowerAtMm: lower.atMm,
		gapMm: lower.depthMm - upper.depthMm - a.halfMm - b.halfMm,
		angleDeg: turn > 90 ? 180 - turn : turn
	};
}

/** What a root runs into, seen from above: a kerb or wall that it crosses no deeper than it goes, a stone it enters. */
export function obstaclesMet(segment: Segment, obstacles: readonly Obstacle[]): Obstacle[] {
	const points = segment.course.map(planPoint);
	return obstacles.filter((obstacle) => {
		const line = obstacle.points.map(planPoint);
		const [first] = line;
		const round = obstacle.kind === 'stone' && first ? [...line, first] : line;
		return points.some((a, i) => {
			const [b, from, to] = [points[i + 1], segment.course[i], segment.course[i + 1]];
			if (!b || !from || !to || Math.min(from.depthMm, to.depthMm) > obstacle.toDepthMm) return false;
			return round.some((c, k) => {
				const d = round[k + 1];
				return d !== undefined && meeting(a, b, c, d) !== null;
			});
		});
	});
}

const heading = (a: PlanPoint, b: PlanPoint): number =>
	normaliseDeg((Math.atan2(b.x - a.x, a.y - b.y) * 180) / Math.PI);

/** How near a stretch comes to the middle of the trunk, mm. */
function nearestToMiddleMm(from: Segment['course'][number], to: Segment['course'][number]): number {
	const [a, b] = [planPoint(from), planPoint(to)];
	const [dx, dy] = [b.x - a.x, b.y - a.y];
	const length2 = dx * dx + dy * dy;
	const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, -(a.x * dx + a.y * dy) / length2));
	return Math.hypot(a.x + t * dx, a.y + t * dy);
}

/** Stretches that come nearer to the middle than this share of their nearer end pass under the trunk, not round it. */
const PASSES_UNDER = 0.35;

/**
 * How far a course turns round the trunk in all, degrees; positive clockwise. A stretch that passes under the trunk goes straight on
 * and turns nothing, though its bearing from the middle swings round.
 * @param counts which points lie where turning counts; both ends of a stretch must
 */
export function runsRoundDeg(
	course: Segment['course'],
	counts: (point: Segment['course'][number]) => boolean = () => true
): number {
	let turned = 0;
	for (const [index, point] of course.entries()) {
		const next = course[index + 1];
		if (!next || !counts(point) || !counts(next)) continue;
		if (nearestToMiddleMm(point, next) < PASSES_UNDER * Math.min(point.radiusMm, next.radiusMm)) continue;
		turned += turnDeg(point.azimuthDeg, next.azimuthDeg);
	}
	return turned;
}

/** A flaw that the course itself shows. */
export const computedFlawOutput = z.object({
	flaw: z.enum(rootFlaws),
	why: z.string().describe('What was computed, with its number')
});
export type ComputedFlaw = z.infer<typeof computedFlawOutput>;

const computed = new WeakMap<readonly Segment[], Map<Values, ReadonlyMap<string, ComputedFlaw[]>>>();

/**
 * What the courses of a map show by themselves, by root: circling, turned back, rising, crossing. Of two roots that
 * touch where they cross, the one that runs less outward is the one that crosses. Kept as long as the list of roots is.
 */
export function computedFlaws(
	segments: readonly Segment[],
	values: Values
): ReadonlyMap<string, ComputedFlaw[]> {
	const kept = computed.get(segments) ?? new Map<Values, ReadonlyMap<string, ComputedFlaw[]>>();
	computed.set(segments, kept);
	const before = kept.get(values);
	if (before) return before;
	const flaws = new Map<string, ComputedFlaw[]>();
	const note = (id: string, flaw: RootFlaw, why: string): void => {
		const list = flaws.get(id) ?? [];
		if (!list.some((other) => other.flaw === flaw)) flaws.set(id, [...list, { flaw, why }]);
	};
	const round = new Map(segments.map((segment) => [segment.id, Math.abs(runsRoundDeg(segment.course))]));
	for (const segment of segments) {
		const { course, id } = segment;
		const [start, end] = [course[0], course.at(-1)];
		if (!start || !end) continue;
		const widest = Math.max(...course.map((point) => point.radiusMm));
		const run = Math.abs(runsRoundDeg(course, (point) => point.radiusMm >= 0.8 * widest));
		const out = widest - start.radiusMm;
		if (run >= values['course.circlingDeg'] && out > segment.diameterStartMm)
			note(id, 'circling', `runs round for ${Math.round(run)}°`);
		if (out > 2 * segment.diameterStartMm && (widest - end.radiusMm) / out >= values['course.turnedBack'])
			note(id, 'turned-back', `comes ${percent((widest - end.radiusMm) / out)} of its way back`);
		const deepest = Math.max(...course.map((point) => point.depthMm));
		const rise = deepest - end.depthMm;
		if (rise >= Math.max(values['course.risesMm'], segment.diameterStartMm) && end.depthMm < start.depthMm)
			note(id, 'rising', `rises ${measured(rise, 'mm')}`);
	}
	const byId = new Map(segments.map((segment) => [segment.id, segment]));
	for (const crossing of crossings(segments)) {
		if (crossing.gapMm > values['contact.toleranceMm'] || crossing.angleDeg < values['course.crossingDeg'])
			continue;
		const [upper, lower] = [byId.get(crossing.upperId), byId.get(crossing.lowerId)];
		if (!upper || !lower) continue;
		const crosses = (round.get(upper.id) ?? 0) >= (round.get(lower.id) ?? 0) ? upper : lower;
		note(crosses.id, 'crossing', `touches another at ${Math.round(crossing.angleDeg)}°`);
	}
	kept.set(values, flaws);
	return flaws;
}

/** What the eye noted of a root, and what its course shows unless the eye saw otherwise. */
export const flawsOf = (
	segment: Segment,
	segments: readonly Segment[],
	values: Values
): { flaw: RootFlaw; why: string | null }[] => [
	...segment.flaws.map((flaw) => ({ flaw, why: null })),
	...(computedFlaws(segments, values).get(segment.id) ?? []).filter(
		({ flaw }) => !segment.flaws.includes(flaw) && !segment.seenOtherwise.includes(flaw)
	)
];

/** Share of the wall of a ball that roots run along, overlaps once. */
export function wallShare(map: Pick<RootMapInput, 'segments' | 'ballRadiusMm'>): number {
	const arcs = map.segments.flatMap(({ course, diameterStartMm }) =>
		course.flatMap((point, index) => {
			const next = course[index + 1];
			const near = map.ballRadiusMm - diameterStartMm;
			if (!next || Math.min(point.radiusMm, next.radiusMm) < Math.min(near, 0.9 * map.ballRadiusMm))
				return [];
			const turn = turnDeg(point.azimuthDeg, next.azimuthDeg);
			if (Math.abs(turn) < 1) return [];
			const [from, to] = turn > 0 ? [point, next] : [next, point];
			return [{ fromDeg: from.azimuthDeg, toDeg: to.azimuthDeg }];
		})
	);
	return arcCover(arcs);
}
