import { normaliseDeg } from '../circular/circular';
import type { Values } from '../values/values';
import type { CoursePoint, RootMap, Segment } from './root-map';

/** A point in plan, mm: x to azimuth 90°, y to azimuth 180° (down the page when 0° is up). */
export interface PlanPoint {
	x: number;
	y: number;
}

export const planPoint = ({
	azimuthDeg,
	radiusMm
}: Pick<CoursePoint, 'azimuthDeg' | 'radiusMm'>): PlanPoint => {
	const angle = (azimuthDeg * Math.PI) / 180;
	return { x: radiusMm * Math.sin(angle), y: -radiusMm * Math.cos(angle) };
};

export const polarOf = ({ x, y }: PlanPoint): { azimuthDeg: number; radiusMm: number } => ({
	azimuthDeg: normaliseDeg((Math.atan2(x, -y) * 180) / Math.PI),
	radiusMm: Math.hypot(x, y)
});

/** Length of a course seen from above and in depth, mm. */
export function courseLengthMm(course: readonly CoursePoint[]): number {
	let length = 0;
	for (const [index, point] of course.entries()) {
		const next = course[index + 1];
		if (!next) break;
		const a = planPoint(point);
		const b = planPoint(next);
		length += Math.hypot(b.x - a.x, b.y - a.y, next.depthMm - point.depthMm);
	}
	return length;
}

/** Thickness of a root at a distance from its start, mm. */
export function diameterAtMm(
	segment: Pick<Segment, 'diameterStartMm' | 'diameterEndMm'>,
	atMm: number,
	lengthMm: number
): number {
	const along = lengthMm > 0 ? Math.min(1, Math.max(0, atMm / lengthMm)) : 0;
	return segment.diameterStartMm + (segment.diameterEndMm - segment.diameterStartMm) * along;
}

function distanceToStretch(p: PlanPoint, a: PlanPoint, b: PlanPoint): number {
	const dx = b.x - a.x;
	const dy = b.y - a.y;
	const length2 = dx * dx + dy * dy;
	const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / length2));
	return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

/** The course without its first `skipMm`, in plan. */
function planBeyond(course: readonly CoursePoint[], skipMm: number): PlanPoint[] {
	const points = course.map(planPoint);
	const beyond: PlanPoint[] = [];
	let walked = 0;
	for (const [index, point] of points.entries()) {
		const next = points[index + 1];
		if (!next) break;
		const length = Math.hypot(next.x - point.x, next.y - point.y);
		if (walked + length > skipMm) {
			if (beyond.length === 0) {
				const t = length === 0 ? 0 : Math.max(0, (skipMm - walked) / length);
				beyond.push({ x: point.x + t * (next.x - point.x), y: point.y + t * (next.y - point.y) });
			}
			beyond.push(next);
		}
		walked += length;
	}
	return beyond;
}

/** A stretch of the trunk's outline, clockwise from one azimuth to another. */
export interface Arc {
	fromDeg: number;
	toDeg: number;
}

/**
 * Where a root lies against the trunk: within half its thickness plus the tolerance of its centre line, the stretch
 * where it leaves the trunk left out. Trunk taken as a circle; resolution 0.5°.
 * @returns share of the perimeter, 0 … 1, and the arcs touched
 */
export function contactArc(
	segment: Pick<Segment, 'course' | 'diameterStartMm' | 'parentId'>,
	trunkDiameterMm: number,
	toleranceMm: number
): { share: number; arcs: Arc[] } {
	const radius = trunkDiameterMm / 2;
	const reach = segment.diameterStartMm / 2 + toleranceMm;
	const line = planBeyond(
		segment.course,
		segment.parentId === null ? reach + segment.diameterStartMm / 2 : 0
	);
	const touches = (p: PlanPoint, limit: number): boolean =>
		line.some((a, i) => {
			const b = line[i + 1];
			return b !== undefined && distanceToStretch(p, a, b) <= limit;
		});
	if (!touches({ x: 0, y: 0 }, radius + reach)) return { share: 0, arcs: [] };
	const STEP_DEG = 0.5;
	const arcs: Arc[] = [];
	let touched = 0;
	for (let deg = 0; deg < 360; deg += STEP_DEG) {
		if (!touches(planPoint({ azimuthDeg: deg, radiusMm: radius }), reach)) continue;
		touched += STEP_DEG;
		const last = arcs.at(-1);
		if (last && last.toDeg === deg) last.toDeg = deg + STEP_DEG;
		else arcs.push({ fromDeg: deg, toDeg: deg + STEP_DEG });
	}
	return { share: touched / 360, arcs };
}

export const severities = ['none', 'watch', 'moderate', 'serious', 'critical'] as const;
export type Severity = (typeof severities)[number];

/** How bad a girdler is, from its contact with the trunk; a thick one goes up one class. */
export function girdlingSeverity(
	contactShare: number,
	diameterMm: number,
	trunkDiameterMm: number,
	values: Values
): Severity {
	if (contactShare <= 0.02) return 'none';
	const base =
		contactShare > values['girdling.criticalFrom']
			? 4
			: contactShare >= values['girdling.seriousFrom']
				? 3
				: contactShare >= values['girdling.watchBelow']
					? 2
					: 1;
	const thick = diameterMm > values['girdling.thickShareOfTrunk'] * trunkDiameterMm ? 1 : 0;
	return severities[Math.min(4, base + thick)] ?? 'critical';
}

/** Contact and severity of one root on its map; `none` unless it really lies against the trunk. */
export function girdlingOf(
	segment: Segment,
	map: Pick<RootMap, 'trunkDiameterMm'>,
	values: Values
): { contactShare: number; arcs: Arc[]; severity: Severity } {
	const { share: contactShare, arcs } = contactArc(
		segment,
		map.trunkDiameterMm,
		values['contact.toleranceMm']
	);
	return {
		contactShare,
		arcs,
		severity: girdlingSeverity(contactShare, segment.diameterStartMm, map.trunkDiameterMm, values)
	};
}
