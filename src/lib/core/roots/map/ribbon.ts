import { planPoint, type PlanPoint } from './geometry';
import type { Segment } from './root-map';

/** A root as it is drawn from above: its centre line, smoothed, with its half width and length along it. */
export interface RibbonPoint extends PlanPoint {
	alongMm: number;
	halfWidthMm: number;
	/** Unit normal, to the left of the way outward. */
	nx: number;
	ny: number;
}

const STEPS = 6;

/** Centre line of a root, smoothed by a Catmull-Rom curve through its points, tapering between its two thicknesses. */
export function ribbon(
	segment: Pick<Segment, 'course' | 'diameterStartMm' | 'diameterEndMm'>
): RibbonPoint[] {
	const points = segment.course.map(planPoint);
	const smooth: PlanPoint[] = [];
	for (const [i, p1] of points.entries()) {
		const p2 = points[i + 1];
		if (!p2) {
			smooth.push(p1);
			break;
		}
		const p0 = points[i - 1] ?? p1;
		const p3 = points[i + 2] ?? p2;
		for (let step = 0; step < STEPS; step++) {
			const t = step / STEPS;
			smooth.push({ x: catmullRom(p0.x, p1.x, p2.x, p3.x, t), y: catmullRom(p0.y, p1.y, p2.y, p3.y, t) });
		}
	}
	const along = [0];
	for (let i = 1; i < smooth.length; i++) {
		const a = smooth[i - 1] ?? { x: 0, y: 0 };
		const b = smooth[i] ?? a;
		along.push((along[i - 1] ?? 0) + Math.hypot(b.x - a.x, b.y - a.y));
	}
	const total = along.at(-1) || 1;
	return smooth.map((point, i) => {
		const before = smooth[i - 1] ?? point;
		const after = smooth[i + 1] ?? point;
		const length = Math.hypot(after.x - before.x, after.y - before.y) || 1;
		const alongMm = along[i] ?? 0;
		return {
			...point,
			alongMm,
			halfWidthMm:
				(segment.diameterStartMm + (segment.diameterEndMm - segment.diameterStartMm) * (alongMm / total)) / 2,
			nx: (after.y - before.y) / length,
			ny: -(after.x - before.x) / length
		};
	});
}

const catmullRom = (p0: number, p1: number, p2: number, p3: number, t: number): number =>
	0.5 *
	(2 * p1 +
		(p2 - p0) * t +
		(2 * p0 - 5 * p1 + 4 * p2 - p3) * t * t +
		(3 * p1 - p0 - 3 * p2 + p3) * t * t * t);

/** The point at a length along a ribbon; the end when it is shorter. */
export function ribbonAt(points: readonly RibbonPoint[], alongMm: number): RibbonPoint | null {
	for (const [i, b] of points.entries()) {
		if (b.alongMm < alongMm) continue;
		const a = points[i - 1];
		if (!a) return b;
		const t = (alongMm - a.alongMm) / (b.alongMm - a.alongMm || 1);
		return {
			...b,
			alongMm,
			x: a.x + t * (b.x - a.x),
			y: a.y + t * (b.y - a.y),
			halfWidthMm: a.halfWidthMm + t * (b.halfWidthMm - a.halfWidthMm)
		};
	}
	return points.at(-1) ?? null;
}

/** Closed outline of a stretch of a ribbon, left side out and right side back. */
export function ribbonOutline(points: readonly RibbonPoint[], fromMm = 0, toMm = Infinity): PlanPoint[] {
	const inside = points.filter((point) => point.alongMm > fromMm && point.alongMm < toMm);
	const start = ribbonAt(points, fromMm);
	const end = ribbonAt(points, Math.min(toMm, points.at(-1)?.alongMm ?? 0));
	const stretch = [...(start ? [start] : []), ...inside, ...(end ? [end] : [])];
	const side = (sign: 1 | -1): PlanPoint[] =>
		stretch.map((p) => ({ x: p.x + sign * p.nx * p.halfWidthMm, y: p.y + sign * p.ny * p.halfWidthMm }));
	return [...side(1), ...side(-1).reverse()];
}
