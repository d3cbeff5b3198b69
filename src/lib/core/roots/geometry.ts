import { normaliseDeg } from '../circular/circular';
import type { CoursePoint, Segment } from './root-map';

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
