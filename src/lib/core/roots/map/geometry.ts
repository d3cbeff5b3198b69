import { normaliseDeg } from '../../maths/circular';
import { measure } from '../../vocabulary/fields';
import { z } from 'zod';

export const coursePointSchema = z.strictObject({
	azimuthDeg: measure(-360, 720, '°'),
	radiusMm: measure(0, 20_000, 'mm'),
	depthMm: measure(-1000, 5000, 'mm').describe('Below the flare; negative above')
});
export type CoursePoint = z.infer<typeof coursePointSchema>;

/** A point in plan, mm: x to azimuth 90°, y to azimuth 180° (down the page when 0° is up). */
export interface PlanPoint {
	x: number;
	y: number;
}

/** A place in plan from its direction and distance: x to the right, y down, mm. */
export const planPoint = ({
	azimuthDeg,
	radiusMm
}: Pick<CoursePoint, 'azimuthDeg' | 'radiusMm'>): PlanPoint => {
	const angle = (azimuthDeg * Math.PI) / 180;
	return { x: radiusMm * Math.sin(angle), y: -radiusMm * Math.cos(angle) };
};

/** Direction and distance of a place in plan. */
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
	segment: { diameterStartMm: number; diameterEndMm: number },
	atMm: number,
	lengthMm: number
): number {
	const along = lengthMm > 0 ? Math.min(1, Math.max(0, atMm / lengthMm)) : 0;
	return segment.diameterStartMm + (segment.diameterEndMm - segment.diameterStartMm) * along;
}

/** A point of the tree as it lies in the pot once the tree is tilted: along the tilt, and below the flare, mm. */
export interface Tilted {
	alongMm: number;
	depthMm: number;
}

/** Turns a point by the tilt about the flare; the side that the top goes to sinks. */
export function tilted(alongMm: number, depthMm: number, tiltDeg: number): Tilted {
	const [cos, sin] = [Math.cos((tiltDeg * Math.PI) / 180), Math.sin((tiltDeg * Math.PI) / 180)];
	return { alongMm: alongMm * cos - depthMm * sin, depthMm: depthMm * cos + alongMm * sin };
}
