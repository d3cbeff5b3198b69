import { crossings } from './course';
import { courseLengthMm, diameterAtMm, planPoint, polarOf, type PlanPoint } from './geometry';
import { normaliseDeg } from '../../maths/circular';
import type { RootMapInput, Segment } from './root-map';
import { ribbon, ribbonAt } from './ribbon';

/** A root that crosses the one that is cut, seen in section from the side. */
export interface CrossingSeen {
	segmentId: string;
	/** Along the root that is cut, mm from its start. */
	alongMm: number;
	depthMm: number;
	radiusMm: number;
	/** It lies under the root that is cut. */
	under: boolean;
}

/** A cut close by, as whoever stands before that root sees it: the trunk above on the page, the root coming toward them. */
export interface CloseUp {
	/** Turned clockwise by so much against the map, degrees. */
	turnedDeg: number;
	/** All roots of the map, turned. */
	segments: Segment[];
	/** The one that is cut, turned. */
	segment: Segment;
	/** Where it is cut, turned, mm from the middle of the trunk. */
	place: PlanPoint;
	/** Middle and width of what is shown from above, mm. */
	middle: PlanPoint;
	widthMm: number;
	/** The root from the side, from its start out to the edge of what is shown. */
	profile: { alongMm: number; depthMm: number; radiusMm: number }[];
	crossing: CrossingSeen[];
}

/** Least width shown, and how many thicknesses of the root beside a cut [ours, only a drawing]. */
const LEAST_MM = 80;
const THICKNESSES = 9;
const OUTWARD = 0.12;

const turnPoint = ({ x, y }: PlanPoint, turnDeg: number): PlanPoint => {
	const { azimuthDeg, radiusMm } = polarOf({ x, y });
	return planPoint({ azimuthDeg: azimuthDeg + turnDeg, radiusMm });
};

/** Points of an outline, turned as the close-up is. */
export const turnRing = (ring: readonly PlanPoint[], turnDeg: number): PlanPoint[] =>
	ring.map((point) => turnPoint(point, turnDeg));

/**
 * The close-up of a cut.
 * @param atMm where it is cut, from the start of the root; 0 at its base
 * @returns null where the root is not on the map
 */
export function closeUp(
	map: Pick<RootMapInput, 'segments'>,
	segmentId: string,
	atMm: number
): CloseUp | null {
	const own = map.segments.find((segment) => segment.id === segmentId);
	const on = own && ribbonAt(ribbon(own), atMm);
	if (!own || !on) return null;
	const turnedDeg = normaliseDeg(180 - polarOf(on).azimuthDeg);
	const segments = map.segments.map((segment) => ({
		...segment,
		course: segment.course.map((point) => ({
			...point,
			azimuthDeg: normaliseDeg(point.azimuthDeg + turnedDeg)
		}))
	}));
	const segment = segments.find((one) => one.id === segmentId) ?? own;
	const place = turnPoint(on, turnedDeg);
	const start = planPoint(segment.course[0] ?? { azimuthDeg: 180, radiusMm: 0 });
	const apart = Math.hypot(place.x - start.x, place.y - start.y);
	const widthMm = Math.max(LEAST_MM, THICKNESSES * own.diameterStartMm, 2 * apart);
	const lengthMm = courseLengthMm(own.course);
	const profile = profileOf(own, lengthMm, widthMm);
	const crossing = crossings(map.segments).flatMap((one): CrossingSeen[] => {
		const under = one.upperId === segmentId;
		if (!under && one.lowerId !== segmentId) return [];
		const other = map.segments.find((candidate) => candidate.id === (under ? one.lowerId : one.upperId));
		const alongMm = under ? one.upperAtMm : one.lowerAtMm;
		if (!other || alongMm > widthMm) return [];
		const radiusMm =
			diameterAtMm(other, under ? one.lowerAtMm : one.upperAtMm, courseLengthMm(other.course)) / 2;
		const here = depthAt(own, alongMm) ?? 0;
		const away = one.gapMm + radiusMm + diameterAtMm(own, alongMm, lengthMm) / 2;
		return [{ segmentId: other.id, alongMm, depthMm: under ? here + away : here - away, radiusMm, under }];
	});
	return {
		turnedDeg,
		segments,
		segment,
		place,
		// A little outward, so that the trunk takes the upper part and what comes off is seen.
		middle: { x: (place.x + start.x) / 2, y: (place.y + start.y) / 2 + OUTWARD * widthMm },
		widthMm,
		profile,
		crossing
	};
}

/** Depth of a root at a length along it, mm; null beyond its end. */
function depthAt(segment: Segment, alongMm: number): number | null {
	let before = 0;
	for (const [i, point] of segment.course.entries()) {
		const next = segment.course[i + 1];
		if (!next) return alongMm <= before + 1e-6 ? point.depthMm : null;
		const length = courseLengthMm([point, next]);
		if (alongMm <= before + length)
			return point.depthMm + ((next.depthMm - point.depthMm) * (alongMm - before)) / (length || 1);
		before += length;
	}
	return null;
}

function profileOf(segment: Segment, lengthMm: number, widthMm: number): CloseUp['profile'] {
	const to = Math.min(lengthMm, widthMm);
	const corners = segment.course.map((_, i) => courseLengthMm(segment.course.slice(0, i + 1)));
	return [...new Set([...corners.filter((alongMm) => alongMm < to), to])].map((alongMm) => ({
		alongMm,
		depthMm: depthAt(segment, alongMm) ?? segment.course.at(-1)?.depthMm ?? 0,
		radiusMm: diameterAtMm(segment, alongMm, lengthMm) / 2
	}));
}
