import { polygonContains } from 'd3-polygon';
import type { Values } from '../values/values';
import { planPoint, type PlanPoint } from './geometry';
import { nearestBark, outlineRing, stemsOf, tapeDiameterMm, type Stem, type Trunk } from './outline';
import type { CoursePoint, Segment } from './root-map';

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

/** Where a root lies against the trunk. */
export interface Contact {
	/** Share of the perimeter of the stem it touches most, 0 … 1. */
	share: number;
	/** The stem; null where it touches none. */
	stem: Stem | null;
	/** What is touched, as lines along the outline. */
	stretches: PlanPoint[][];
}

/**
 * Where a root lies against the trunk: within half its thickness plus the tolerance of its centre line, the stretch
 * where it leaves the trunk left out. The outline is followed in 720 equal steps; of several stems the one that is
 * touched most counts.
 */
export function contactArc(
	segment: Pick<Segment, 'course' | 'diameterStartMm' | 'parentId'>,
	stems: readonly Stem[],
	toleranceMm: number
): Contact {
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
	let most: Contact = { share: 0, stem: null, stretches: [] };
	const all: PlanPoint[][] = [];
	for (const stem of stems) {
		const ring = outlineRing(stem);
		const middle = planPoint(stem.centre);
		const widest = Math.max(...ring.map(({ x, y }) => Math.hypot(x - middle.x, y - middle.y)));
		if (!touches(middle, widest + reach)) continue;
		const stretches: PlanPoint[][] = [];
		let touched = 0;
		let open = false;
		for (const point of ring) {
			const meets = touches(point, reach);
			if (meets) {
				touched++;
				if (open) stretches.at(-1)?.push(point);
				else stretches.push([point]);
			}
			open = meets;
		}
		all.push(...stretches);
		const share = touched / ring.length;
		if (share > most.share) most = { share, stem, stretches: [] };
	}
	return { ...most, stretches: all };
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

const known = new WeakMap<Segment, { stems: readonly Stem[]; toleranceMm: number; contact: Contact }>();

/** Contact and severity of one root on its map; `none` unless it really lies against the trunk. */
export function girdlingOf(
	segment: Segment,
	map: Trunk,
	values: Values
): { contactShare: number; stretches: PlanPoint[][]; severity: Severity } {
	const [stems, toleranceMm] = [stemsOf(map), values['contact.toleranceMm']];
	const before = known.get(segment);
	const contact =
		before?.stems === stems && before.toleranceMm === toleranceMm
			? before.contact
			: contactArc(segment, stems, toleranceMm);
	known.set(segment, { stems, toleranceMm, contact });
	return {
		contactShare: contact.share,
		stretches: contact.stretches,
		severity: girdlingSeverity(
			contact.share,
			segment.diameterStartMm,
			contact.stem ? tapeDiameterMm(contact.stem) : map.trunkDiameterMm,
			values
		)
	};
}

/** True where a point of a course lies as near to the bark as a root of this thickness that touches it, or within a stem. */
export function liesAgainst(
	trunk: Trunk,
	point: CoursePoint,
	diameterMm: number,
	toleranceMm: number
): boolean {
	const at = planPoint(point);
	return (
		nearestBark(trunk, at).distanceMm <= diameterMm / 2 + toleranceMm ||
		stemsOf(trunk).some((stem) =>
			polygonContains(
				outlineRing(stem).map(({ x, y }) => [x, y]),
				[at.x, at.y]
			)
		)
	);
}
