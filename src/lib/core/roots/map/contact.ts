import { type Severity, girdlingSeverity } from '../../examine/measuring/girdling';
import { polygonContains } from 'd3-polygon';
import type { Values } from '../../values/values';
import { planPoint, type PlanPoint } from './geometry';
import { nearestBark, outlineRing, stemsOf, tapeDiameterMm, type Stem, type Trunk } from './outline';
import type { CoursePoint } from './geometry';
import type { Segment } from './root-map';

function distanceToStretch(p: PlanPoint, a: PlanPoint, b: PlanPoint): number {
	const dx = b.x - a.x;
	const dy = b.y - a.y;
	const length2 = dx * dx + dy * dy;
	const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / length2));
	return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

interface Stretch {
	from: PlanPoint & { depthMm: number };
	to: PlanPoint & { depthMm: number };
}

/** The stretches of a course without its first `skipMm`, seen from above, with their depths. */
function stretchesBeyond(course: readonly CoursePoint[], skipMm: number): Stretch[] {
	const points = course.map((point) => ({ ...planPoint(point), depthMm: point.depthMm }));
	const beyond: Stretch[] = [];
	let walked = 0;
	for (const [index, from] of points.entries()) {
		const to = points[index + 1];
		if (!to) break;
		const length = Math.hypot(to.x - from.x, to.y - from.y);
		if (walked + length > skipMm)
			beyond.push({
				from: between(from, to, length === 0 ? 0 : Math.max(0, (skipMm - walked) / length)),
				to
			});
		walked += length;
	}
	return beyond;
}

const between = (from: Stretch['from'], to: Stretch['to'], t: number): Stretch['from'] => ({
	x: from.x + t * (to.x - from.x),
	y: from.y + t * (to.y - from.y),
	depthMm: from.depthMm + t * (to.depthMm - from.depthMm)
});

/** The part of a stretch that lies no deeper than a level; null where all of it does. */
function notDeeper({ from, to }: Stretch, levelMm: number): Stretch | null {
	if (Math.min(from.depthMm, to.depthMm) > levelMm) return null;
	if (Math.max(from.depthMm, to.depthMm) <= levelMm) return { from, to };
	const at = between(from, to, (levelMm - from.depthMm) / (to.depthMm - from.depthMm));
	return from.depthMm <= levelMm ? { from, to: at } : { from: at, to };
}

/**
 * How deep under the flare there is trunk to lie against: above it the stem, buried or not; below it the root crown tapers off into
 * its roots, and deeper there is nothing but soil [our own].
 */
const trunkReachesMm = (stem: Stem, values: Values): number =>
	values['contact.trunkDepthShare'] * tapeDiameterMm(stem);

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
 * Where a root lies against the trunk, at a depth where there is trunk: what passes under it passes under it. Within half its thickness plus the tolerance of its centre line, the stretch
 * where it leaves the trunk left out. The outline is followed in 720 equal steps; of several stems the one that is
 * touched most counts.
 */
export function contactArc(
	segment: Pick<Segment, 'course' | 'diameterStartMm' | 'parentId'>,
	stems: readonly Stem[],
	values: Values
): Contact {
	const toleranceMm = values['contact.toleranceMm'];
	const reach = segment.diameterStartMm / 2 + toleranceMm;
	const whole = stretchesBeyond(
		segment.course,
		segment.parentId === null ? reach + segment.diameterStartMm / 2 : 0
	);
	let most: Contact = { share: 0, stem: null, stretches: [] };
	const all: PlanPoint[][] = [];
	for (const stem of stems) {
		const deepest = trunkReachesMm(stem, values) + reach;
		const line = whole.flatMap((stretch) => notDeeper(stretch, deepest) ?? []);
		const touches = (p: PlanPoint, limit: number): boolean =>
			line.some(({ from, to }) => distanceToStretch(p, from, to) <= limit);
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

const known = new WeakMap<Segment, { stems: readonly Stem[]; values: Values; contact: Contact }>();

/** Contact and severity of one root on its map; `none` unless it really lies against the trunk. */
export function girdlingOf(
	segment: Segment,
	map: Trunk,
	values: Values
): { contactShare: number; stretches: PlanPoint[][]; severity: Severity } {
	const stems = stemsOf(map);
	const before = known.get(segment);
	const contact =
		before?.stems === stems && before.values === values ? before.contact : contactArc(segment, stems, values);
	known.set(segment, { stems, values, contact });
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
export function liesAgainst(trunk: Trunk, point: CoursePoint, diameterMm: number, values: Values): boolean {
	const at = planPoint(point);
	const reach = diameterMm / 2 + values['contact.toleranceMm'];
	if (stemsOf(trunk).every((stem) => point.depthMm > trunkReachesMm(stem, values) + reach)) return false;
	return (
		nearestBark(trunk, at).distanceMm <= reach ||
		stemsOf(trunk).some((stem) =>
			polygonContains(
				outlineRing(stem).map(({ x, y }) => [x, y]),
				[at.x, at.y]
			)
		)
	);
}
