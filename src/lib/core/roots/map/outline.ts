import { polygonArea, polygonLength } from 'd3-polygon';
import { z } from 'zod';
import { id, measure, note } from '../../vocabulary/fields';
import { planPoint, type PlanPoint } from './geometry';

/** Most stems of one map. */
export const STEM_LIMIT = 12;

const polarPoint = z.strictObject({
	azimuthDeg: measure(-360, 720, '°'),
	radiusMm: measure(0, 20_000, 'mm')
});
export type PolarPoint = z.infer<typeof polarPoint>;
export const polarPointSchema = polarPoint;

/** The trunk in section above the flare, around its own middle. */
export const outlineSchema = z.discriminatedUnion('shape', [
	z.strictObject({ shape: z.literal('circle'), diameterMm: measure(1, 3000, 'mm') }),
	z
		.strictObject({
			shape: z.literal('ellipse'),
			longMm: measure(1, 3000, 'mm'),
			shortMm: measure(1, 3000, 'mm'),
			longAzimuthDeg: measure(0, 360, '°').describe('Where the long axis points')
		})
		.refine((outline) => outline.shortMm <= outline.longMm, {
			path: ['shortMm'],
			error: 'must not be more than the long way across'
		}),
	z
		.strictObject({
			shape: z.literal('polygon'),
			points: z
				.array(polarPoint)
				.min(3, { error: 'must have at least three points' })
				.max(60, { error: 'must have at most 60 points' })
		})
		.refine((outline) => !selfCrosses(outline.points.map(planPoint)), {
			path: ['points'],
			error: 'must not cross itself: go round the trunk once, point after point'
		})
		.refine((outline) => Math.abs(polygonArea(pairs(outline.points.map(planPoint)))) >= 1, {
			path: ['points'],
			error: 'must enclose the trunk'
		})
]);
export type Outline = z.infer<typeof outlineSchema>;

export const stemSchema = z.strictObject({
	id: id(),
	centre: polarPoint.describe('Its middle, seen from the middle of the map'),
	outline: outlineSchema,
	note: note(120)
});
export type Stem = z.infer<typeof stemSchema>;

const pairs = (points: readonly PlanPoint[]): [number, number][] => points.map(({ x, y }) => [x, y]);

/** True where two stretches meet, touching included. */
function stretchesMeet(a: PlanPoint, b: PlanPoint, c: PlanPoint, d: PlanPoint): boolean {
	const side = (p: PlanPoint, q: PlanPoint, r: PlanPoint): number =>
		Math.sign((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x));
	const between = (p: PlanPoint, q: PlanPoint, r: PlanPoint): boolean =>
		Math.min(p.x, q.x) <= r.x &&
		r.x <= Math.max(p.x, q.x) &&
		Math.min(p.y, q.y) <= r.y &&
		r.y <= Math.max(p.y, q.y);
	const [s1, s2, s3, s4] = [side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)];
	if (s1 !== s2 && s3 !== s4) return true;
	return (
		(s1 === 0 && between(a, b, c)) ||
		(s2 === 0 && between(a, b, d)) ||
		(s3 === 0 && between(c, d, a)) ||
		(s4 === 0 && between(c, d, b))
	);
}

/** True for a closed outline two of whose sides meet elsewhere than at their shared corner. */
export function selfCrosses(points: readonly PlanPoint[]): boolean {
	const n = points.length;
	for (let i = 0; i < n; i++)
		for (let j = i + 2; j < n; j++) {
			if (i === 0 && j === n - 1) continue;
			const [a, b, c, d] = [points[i], points[(i + 1) % n], points[j], points[(j + 1) % n]];
			if (a && b && c && d && stretchesMeet(a, b, c, d)) return true;
		}
	return false;
}

const RING_POINTS = 720;
const rings = new WeakMap<Stem, readonly PlanPoint[]>();

/** The outline of a stem as points in equal steps round it, in plan, mm; 720 of them. */
export function outlineRing(stem: Stem): readonly PlanPoint[] {
	const known = rings.get(stem);
	if (known) return known;
	const middle = planPoint(stem.centre);
	const ring = evenly(corners(stem.outline), RING_POINTS).map(({ x, y }) => ({
		x: x + middle.x,
		y: y + middle.y
	}));
	rings.set(stem, ring);
	return ring;
}

/** Corners of an outline; a curve is followed closely. */
function corners(outline: Outline): PlanPoint[] {
	if (outline.shape === 'polygon') return outline.points.map(planPoint);
	const [long, short, turnDeg] =
		outline.shape === 'circle'
			? [outline.diameterMm / 2, outline.diameterMm / 2, 0]
			: [outline.longMm / 2, outline.shortMm / 2, outline.longAzimuthDeg];
	return Array.from({ length: RING_POINTS }, (_, i) => {
		const angle = (i * 2 * Math.PI) / RING_POINTS;
		const [along, across] = [long * Math.cos(angle), short * Math.sin(angle)];
		const turned = (turnDeg * Math.PI) / 180;
		return {
			x: along * Math.sin(turned) + across * Math.cos(turned),
			y: -along * Math.cos(turned) + across * Math.sin(turned)
		};
	});
}

/** A closed line in equal steps. */
function evenly(line: readonly PlanPoint[], count: number): PlanPoint[] {
	const lengths = line.map((a, i) => {
		const b = line[(i + 1) % line.length] ?? a;
		return Math.hypot(b.x - a.x, b.y - a.y);
	});
	const step = lengths.reduce((sum, length) => sum + length, 0) / count;
	const points: PlanPoint[] = [];
	let walked = 0;
	for (const [i, a] of line.entries()) {
		const b = line[(i + 1) % line.length] ?? a;
		const length = lengths[i] ?? 0;
		while (points.length < count && points.length * step <= walked + length + 1e-9) {
			const t = length === 0 ? 0 : (points.length * step - walked) / length;
			points.push({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });
		}
		walked += length;
	}
	return points;
}

/**
 * Way round a stem along its bark.
 * @returns mm
 */
export const perimeterMm = (stem: Stem): number => polygonLength(pairs(outlineRing(stem)));
/**
 * Area of a stem across.
 * @returns mm²
 */
export const areaMm2 = (stem: Stem): number => Math.abs(polygonArea(pairs(outlineRing(stem))));

/** Diameter as a tape gives it: the perimeter over π. */
export const tapeDiameterMm = (stem: Stem): number =>
	stem.outline.shape === 'circle' ? stem.outline.diameterMm : perimeterMm(stem) / Math.PI;

/**
 * One diameter for all stems: of two to five the root of the sum of squares, of more the mean times the root of
 * their number.
 * @see BS 5837:2012, 4.6.1 (combined stem diameter; from memory)
 * @example stems of 300 and 400 mm count as 500 mm
 */
export function combinedDiameterMm(stems: readonly Stem[]): number {
	const diameters = stems.map(tapeDiameterMm);
	const sum = (list: readonly number[]): number => list.reduce((total, each) => total + each, 0);
	return diameters.length > 5
		? (sum(diameters) / diameters.length) * Math.sqrt(diameters.length)
		: Math.sqrt(sum(diameters.map((each) => each * each)));
}

/** A map’s trunk: one of the thickness the tape gave, or stems with their outlines. */
export interface Trunk {
	trunkDiameterMm: number;
	stems?: readonly Stem[];
}

const round = new Map<number, readonly Stem[]>();

/** The stems of a map; where no outline was taken, one round trunk in the middle. */
export function stemsOf({ trunkDiameterMm, stems }: Trunk): readonly Stem[] {
	if (stems && stems.length > 0) return stems;
	const known = round.get(trunkDiameterMm);
	if (known) return known;
	const trunk: readonly Stem[] = [
		{
			id: 'trunk',
			centre: { azimuthDeg: 0, radiusMm: 0 },
			outline: { shape: 'circle', diameterMm: trunkDiameterMm },
			note: ''
		}
	];
	if (round.size > 50) round.clear();
	round.set(trunkDiameterMm, trunk);
	return trunk;
}

/** How far the bark is from the middle of the map in a direction, mm: the outermost stem counts; 0 where none stands. */
export function barkRadiusMm(trunk: Trunk, azimuthDeg: number): number {
	const [only, ...others] = stemsOf(trunk);
	if (only?.outline.shape === 'circle' && only.centre.radiusMm === 0 && others.length === 0)
		return only.outline.diameterMm / 2;
	const to = planPoint({ azimuthDeg, radiusMm: 1 });
	let farthest = 0;
	for (const stem of stemsOf(trunk)) {
		const ring = outlineRing(stem);
		for (const [i, a] of ring.entries()) {
			const b = ring[(i + 1) % ring.length] ?? a;
			// Where the ray from the middle meets the side a–b.
			const [dx, dy] = [b.x - a.x, b.y - a.y];
			const cross = to.x * dy - to.y * dx;
			if (Math.abs(cross) < 1e-12) continue;
			const along = (a.x * dy - a.y * dx) / cross;
			const share = (a.x * to.y - a.y * to.x) / cross;
			if (share >= 0 && share <= 1 && along > farthest) farthest = along;
		}
	}
	return farthest;
}

/** The place on the bark nearest to a point, over all stems; the point itself lies wherever it may. */
export function nearestBark(trunk: Trunk, point: PlanPoint): PlanPoint & { distanceMm: number } {
	let nearest = { x: 0, y: 0, distanceMm: Infinity };
	for (const stem of stemsOf(trunk)) {
		const { outline, centre } = stem;
		if (outline.shape === 'circle') {
			const middle = planPoint(centre);
			const away = Math.hypot(point.x - middle.x, point.y - middle.y);
			const radius = outline.diameterMm / 2;
			const [ux, uy] = away === 0 ? [0, -1] : [(point.x - middle.x) / away, (point.y - middle.y) / away];
			const distanceMm = Math.abs(away - radius);
			if (distanceMm < nearest.distanceMm)
				nearest = { x: middle.x + radius * ux, y: middle.y + radius * uy, distanceMm };
			continue;
		}
		for (const { x, y } of outlineRing(stem)) {
			const distanceMm = Math.hypot(point.x - x, point.y - y);
			if (distanceMm < nearest.distanceMm) nearest = { x, y, distanceMm };
		}
	}
	return nearest;
}
