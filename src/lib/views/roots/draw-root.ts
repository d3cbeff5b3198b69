import type { PlanPoint } from '$core/roots/map/geometry';
import { ribbon, ribbonAt, ribbonOutline, type RibbonPoint } from '$core/roots/map/ribbon';
import type { Segment } from '$core/roots/map/root-map';

/** How the map lies on the page: pixels a millimetre, and −1 where the front is drawn at the foot. */
export interface MapScale {
	px: number;
	sign: 1 | -1;
}

/** A root ready to be drawn; paths and points in pixels. */
export interface DrawnRoot {
	segment: Segment;
	points: RibbonPoint[];
	sound: string;
	doubtful: string;
	dead: string;
	/** Not laid open: assumed, in soil still. */
	assumed: string;
	centre: string;
	tips: string[];
	end: PlanPoint;
	/** Where a knot is tied. */
	mark: PlanPoint;
	across: [PlanPoint, PlanPoint];
	disc: PlanPoint;
}

export const onPage = (point: PlanPoint, { px, sign }: MapScale): PlanPoint => ({
	x: point.x * px * sign,
	y: point.y * px * sign
});

export function pathOf(points: readonly PlanPoint[], scale: MapScale, closed = true): string {
	return (
		points
			.map((p, i) => {
				const q = onPage(p, scale);
				return `${i === 0 ? 'M' : 'L'}${q.x.toFixed(1)} ${q.y.toFixed(1)}`;
			})
			.join('') + (closed ? 'Z' : '')
	);
}

/** Stretches of a root by what is known of them, from its start outward, mm. */
export function stretchesOf(
	segment: Segment,
	lengthMm: number
): {
	sound: [number, number];
	doubtful: [number, number];
	dead: [number, number];
	assumed: [number, number];
} {
	const seen = Math.min(lengthMm, segment.seenToMm ?? lengthMm);
	const dead = Math.min(seen, segment.condition === 'dead' ? (segment.deadFromMm ?? 0) : lengthMm);
	const doubtful =
		segment.condition === 'sound'
			? dead
			: Math.min(dead, segment.doubtfulFromMm ?? (segment.condition === 'doubtful' ? 0 : dead));
	return { sound: [0, doubtful], doubtful: [doubtful, dead], dead: [dead, seen], assumed: [seen, lengthMm] };
}

/**
 * The drawing of a root: its stretches, its fine roots, and where a cut is struck across it.
 * @param cut where it is cut, or is to be; what was cut off is drawn as a broken line
 */
export function drawRoot(
	segment: Segment,
	scale: MapScale,
	cut: { atMm: number; done: boolean } | null = null
): DrawnRoot {
	const { px } = scale;
	const points = ribbon(segment);
	const total = points.at(-1)?.alongMm ?? 0;
	const stretches = stretchesOf(segment, total);
	const off = cut?.done && cut.atMm > 0 ? Math.min(total, cut.atMm) : total;
	const within = ([from, to]: [number, number]): [number, number] => [Math.min(from, off), Math.min(to, off)];
	const [sound, doubtful] = [within(stretches.sound), within(stretches.doubtful)];
	const dead: [number, number] = off < total ? [off, total] : stretches.dead;
	const assumed = within(stretches.assumed);
	const outline = ([from, to]: [number, number]): string =>
		to - from > 0.5 ? pathOf(ribbonOutline(points, from, to), scale) : '';
	const deadFrom = segment.condition === 'dead' ? (segment.deadFromMm ?? 0) : Infinity;
	const cutAt =
		cut !== null && cut.atMm > 0
			? Math.min(total, cut.atMm)
			: cut === null && deadFrom < Infinity && deadFrom > 0
				? deadFrom
				: Math.min(total * 0.5, segment.diameterStartMm * 1.1 + 10 / px);
	const place = ribbonAt(points, cutAt) ?? points[0];
	const reach = (place?.halfWidthMm ?? 4) + 7 / px;
	const tilt = 0.35;
	const along = place ? { x: -place.ny, y: place.nx } : { x: 0, y: 0 };
	const stroke = (side: 1 | -1): PlanPoint => ({
		x: (place?.x ?? 0) + side * reach * ((place?.nx ?? 0) + tilt * along.x),
		y: (place?.y ?? 0) + side * reach * ((place?.ny ?? 0) + tilt * along.y)
	});
	const end = points.at(-1) ?? { x: 0, y: 0 };
	const knot = ribbonAt(points, Math.min(total * 0.55, total)) ?? end;
	const beyond = {
		x: stroke(1).x + (place?.nx ?? 0) * (9 / px),
		y: stroke(1).y + (place?.ny ?? 0) * (9 / px)
	};
	return {
		segment,
		points,
		sound: outline(sound),
		doubtful: outline(doubtful),
		dead: outline(dead),
		assumed: outline(assumed),
		centre: pathOf(points, scale, false),
		tips: dead[1] > dead[0] || assumed[1] > assumed[0] ? [] : fineRoots(segment, points, scale),
		end: onPage(end, scale),
		mark: onPage(knot, scale),
		across: [onPage(stroke(1), scale), onPage(stroke(-1), scale)],
		disc: onPage(beyond, scale)
	};
}

/** A few wandering hairs at the end of a living root, more where it carries more fine roots. */
function fineRoots(segment: Segment, points: readonly RibbonPoint[], scale: MapScale): string[] {
	const end = points.at(-1);
	const before = points.at(-3);
	if (!end || !before || segment.fineScore === 0) return [];
	const heading = Math.atan2(end.y - before.y, end.x - before.x);
	const count = segment.fineScore + 1;
	const reach = (10 + 3 * segment.fineScore) / scale.px;
	return Array.from({ length: count }, (_, i) => {
		const spread = (i - (count - 1) / 2) * 0.42;
		const a = heading + spread;
		const b = heading + spread * 1.7 + (i % 2 ? 0.35 : -0.3);
		const mid = { x: end.x + Math.cos(a) * reach * 0.55, y: end.y + Math.sin(a) * reach * 0.55 };
		const tip = { x: mid.x + Math.cos(b) * reach * 0.5, y: mid.y + Math.sin(b) * reach * 0.5 };
		const [p, q, r] = [onPage(end, scale), onPage(mid, scale), onPage(tip, scale)];
		return `M${p.x.toFixed(1)} ${p.y.toFixed(1)}Q${q.x.toFixed(1)} ${q.y.toFixed(1)} ${r.x.toFixed(1)} ${r.y.toFixed(1)}`;
	});
}
