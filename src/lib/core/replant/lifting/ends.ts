import { turnDeg } from '../../maths/circular';
import { courseLengthMm } from '../../roots/map/geometry';
import type { RootMap, Segment } from '../../roots/map/root-map';
import type { Values } from '../../values/values';
import type { LiftLog } from './lift';

/** An end of a root that the log of a lift names, where it lies on the map: at the edge of the ball. */
export interface LiftEnd {
	azimuthDeg: number;
	radiusMm: number;
	diameterMm: number;
	how: LiftLog['cutRoots'][number]['how'];
	/** The mapped root that ends there; null where the map has none like it. */
	segmentId: string | null;
}

/** Where a root comes nearest to the edge of a ball: its direction there, and its thickness. */
function atEdge(segment: Segment, radiusMm: number): { azimuthDeg: number; diameterMm: number } | null {
	const [first] = segment.course;
	if (!first) return null;
	let [at, best] = [0, first];
	for (const [i, point] of segment.course.entries())
		// Of places as near, the one farther along the root.
		if (Math.abs(point.radiusMm - radiusMm) <= Math.abs(best.radiusMm - radiusMm)) [at, best] = [i, point];
	const share = courseLengthMm(segment.course.slice(0, at + 1)) / Math.max(1, courseLengthMm(segment.course));
	return {
		azimuthDeg: best.azimuthDeg,
		diameterMm: segment.diameterStartMm + (segment.diameterEndMm - segment.diameterStartMm) * share
	};
}

/**
 * The ends that the log of a lift names, laid on a map: each goes to the mapped root nearest to it in direction that is about as thick,
 * one end a root; the others lie on the edge of the ball by themselves [our own].
 */
export function liftEnds(
	log: Pick<LiftLog, 'cutRoots' | 'ballDiameterMm'>,
	map: Pick<RootMap, 'segments'> | null,
	values: Values
): LiftEnd[] {
	const radiusMm = log.ballDiameterMm / 2;
	const pairs = log.cutRoots.flatMap((root, end) =>
		(map?.segments ?? []).flatMap((segment) => {
			const place = atEdge(segment, radiusMm);
			if (!place) return [];
			const apartDeg = Math.abs(turnDeg(place.azimuthDeg, root.azimuthDeg));
			const thickness = Math.max(root.diameterMm / place.diameterMm, place.diameterMm / root.diameterMm);
			return apartDeg <= values['lifting.endMatchDeg'] && thickness <= values['lifting.endMatchThick']
				? [
						{
							end,
							segmentId: segment.id,
							apart: apartDeg / values['lifting.endMatchDeg'] + Math.log(thickness)
						}
					]
				: [];
		})
	);
	const rootOf = new Map<number, string>();
	const taken = new Set<string>();
	for (const { end, segmentId } of pairs.sort((a, b) => a.apart - b.apart))
		if (!rootOf.has(end) && !taken.has(segmentId)) {
			rootOf.set(end, segmentId);
			taken.add(segmentId);
		}
	return log.cutRoots.map((root, end) => ({
		azimuthDeg: root.azimuthDeg,
		radiusMm,
		diameterMm: root.diameterMm,
		how: root.how,
		segmentId: rootOf.get(end) ?? null
	}));
}
