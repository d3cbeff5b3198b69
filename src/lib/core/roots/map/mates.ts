import { crossings } from './course';
import { planPoint, polarOf, type PlanPoint } from './geometry';
import type { Stem } from './outline';
import type { RootMapInput, Segment } from './root-map';

/** A tree that stands in the same pot, with its own map. */
export interface PotMate {
	id: string;
	tag: string;
	name: string;
	map: RootMapInput;
}

/** What of a mate lies on this map, moved to where it stands. */
export interface MateOnMap {
	id: string;
	tag: string;
	name: string;
	stems: Stem[];
	segments: Segment[];
}

const middleInPot = (map: Pick<RootMapInput, 'inPot'>): PlanPoint =>
	map.inPot ? planPoint(map.inPot) : { x: 0, y: 0 };

/** Moves places of one map onto another whose middle stands elsewhere in the pot. */
function moved<T extends { azimuthDeg: number; radiusMm: number }>(point: T, by: PlanPoint): T {
	const at = planPoint(point);
	return { ...point, ...polarOf({ x: at.x + by.x, y: at.y + by.y }) };
}

/** Mates as they lie on a map: their stems and roots, seen from its middle. Those whose place is not known are left out. */
export function matesOn(own: Pick<RootMapInput, 'inPot'>, mates: readonly PotMate[]): MateOnMap[] {
	const here = middleInPot(own);
	return mates.flatMap(({ id, tag, name, map }) => {
		if (!map.inPot && !own.inPot) return [];
		const there = middleInPot(map);
		const by = { x: there.x - here.x, y: there.y - here.y };
		const stems = map.stems.length
			? map.stems
			: [
					{
						id: 'trunk',
						centre: { azimuthDeg: 0, radiusMm: 0 },
						outline: { shape: 'circle' as const, diameterMm: map.trunkDiameterMm },
						note: ''
					}
				];
		return [
			{
				id,
				tag,
				name,
				stems: stems.map((stem) => ({ ...stem, centre: moved(stem.centre, by) })),
				segments: map.segments.map((segment) => ({
					...segment,
					id: `${id}:${segment.id}`,
					parentId: segment.parentId === null ? null : `${id}:${segment.parentId}`,
					course: segment.course.map((point) => moved(point, by))
				}))
			}
		];
	});
}

/** Where roots of this map and of a mate touch or grow into each other, by mate. */
export function touchingMates(
	segments: readonly Segment[],
	mates: readonly MateOnMap[],
	toleranceMm: number
): { tag: string; segmentIds: string[] }[] {
	const own = new Set(segments.map((segment) => segment.id));
	return mates.flatMap((mate) => {
		const met = crossings([...segments, ...mate.segments]).flatMap((crossing) => {
			const [upper, lower] = [own.has(crossing.upperId), own.has(crossing.lowerId)];
			if (upper === lower || crossing.gapMm > toleranceMm) return [];
			return [upper ? crossing.upperId : crossing.lowerId];
		});
		return met.length > 0 ? [{ tag: mate.tag, segmentIds: [...new Set(met)] }] : [];
	});
}
