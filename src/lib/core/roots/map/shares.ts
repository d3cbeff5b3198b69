import type { Values } from '../../values/values';
import { courseLengthMm } from './geometry';
import type { Segment } from './root-map';

/** What each root carries, as shares of the whole map. */
export interface RootShares {
	/** Living absorbing share of each root's own tip, by segment id; sums to 1 over the map (or 0 when all is dead). */
	absorbing: ReadonlyMap<string, number>;
	/** Sound structural cross-section times class weight, mm², by segment id. */
	structuralMm2: ReadonlyMap<string, number>;
	/** Share of the absorbing roots mapped that is dead: what was lost before anything was cut. */
	deadShare: number;
	/** Side roots by the segment they leave. */
	children: ReadonlyMap<string, readonly Segment[]>;
}

const areaMm2 = (diameterMm: number): number => (Math.PI * diameterMm * diameterMm) / 4;

/** True when the root is dead at a distance from its start. */
const deadAt = (segment: Segment, atMm: number): boolean =>
	segment.condition === 'dead' && atMm >= (segment.deadFromMm ?? 0);

/**
 * Absorbing and structural shares by the pipe model: a root's cross-section is carried on to its side roots, what is
 * left feeds its own tip, weighted with the fine roots it carries. Dead tissue and all beyond it carries nothing.
 * Doubtful wood, and a root that is only assumed in the soil, counts as living when it is cut, and as nothing when it has
 * to hold.
 * @see Shinozaki et al. 1964, Jpn. J. Ecol. 14 (pipe model)
 */
export function rootShares(segments: readonly Segment[], values: Values): RootShares {
	const byId = new Map(segments.map((segment) => [segment.id, segment]));
	const children = new Map<string, Segment[]>();
	for (const segment of segments) {
		if (segment.parentId === null) continue;
		const siblings = children.get(segment.parentId);
		if (siblings) siblings.push(segment);
		else children.set(segment.parentId, [segment]);
	}
	const alive = new Map<string, boolean>();
	const isAlive = (segment: Segment): boolean => {
		const known = alive.get(segment.id);
		if (known !== undefined) return known;
		const parent = segment.parentId === null ? undefined : byId.get(segment.parentId);
		const result = !deadAt(segment, 0) && (!parent || (isAlive(parent) && !deadAt(parent, segment.attachMm)));
		alive.set(segment.id, result);
		return result;
	};

	const weight = new Map<string, number>();
	let total = 0;
	let dead = 0;
	const structuralMm2 = new Map<string, number>();
	for (const segment of segments) {
		const living = isAlive(segment);
		const sides = children.get(segment.id) ?? [];
		const carriedOn = sides.reduce((sum, side) => sum + areaMm2(side.diameterStartMm), 0);
		// A dead tip is weighed as if it had carried what it usually carries.
		const tip = Math.max(0, areaMm2(segment.diameterStartMm) - carriedOn) * segment.fineScore;
		const own = living && segment.condition !== 'dead' ? tip : 0;
		weight.set(segment.id, own);
		total += own;
		dead += tip - own;
		const holds = living && segment.condition === 'sound' && segment.seenToMm !== 0;
		structuralMm2.set(
			segment.id,
			holds ? areaMm2(segment.diameterStartMm) * values[`classWeight.${segment.rootClass}`] : 0
		);
	}
	const absorbing = new Map([...weight].map(([id, own]) => [id, total > 0 ? own / total : 0]));
	return { absorbing, structuralMm2, children, deadShare: total + dead > 0 ? dead / (total + dead) : 0 };
}

/** A cut: the root, and how far along it. */
export interface CutPlace {
	segmentId: string;
	atMm: number;
}

/** Whether a cut leaves so short a stub that the root is gone with it. */
const nearBase = (segment: Segment, atMm: number, values: Values): boolean =>
	atMm < values['cut.stubThicknesses'] * segment.diameterStartMm;

/**
 * Part of what a root absorbs by itself that lies beyond a place along it: fine roots stand the denser the farther out
 * [our own], so that a cut takes more than its share of the length. 1 at its base, 0 at its end and on a dead end.
 */
export function beyondShare(segment: Segment, atMm: number, values: Values): number {
	if (atMm <= 0 || nearBase(segment, atMm, values)) return deadAt(segment, atMm) && atMm > 0 ? 0 : 1;
	if (deadAt(segment, atMm)) return 0;
	const lengthMm = courseLengthMm(segment.course);
	return lengthMm > 0 ? Math.max(0, 1 - (atMm / lengthMm) ** values['roots.fineTowardTip']) : 1;
}

/**
 * Which roots go whole by a cut: the root itself where it is cut at its base, not where a part of it stays or only its dead end
 * comes off; and every side root that leaves beyond the cut, with all that hangs on it.
 */
export function removedBy(
	cut: CutPlace,
	segments: ReadonlyMap<string, Segment>,
	shares: RootShares,
	values: Values
): string[] {
	const root = segments.get(cut.segmentId);
	if (!root) return [];
	const removed: string[] = beyondShare(root, cut.atMm, values) < 1 ? [] : [root.id];
	const queue = (shares.children.get(root.id) ?? []).filter((side) => side.attachMm >= cut.atMm);
	for (let side = queue.pop(); side; side = queue.pop()) {
		removed.push(side.id);
		queue.push(...(shares.children.get(side.id) ?? []));
	}
	return removed;
}

/** A root that holds the tree: an anchor or a scaffold. */
export const isStructural = ({ rootClass }: Pick<Segment, 'rootClass'>): boolean =>
	rootClass === 'anchor' || rootClass === 'scaffold';

/** Nothing but a torn end speaks against it: the tear comes off, not the root. */
export const tornOnly = ({ condition, flaws }: Pick<Segment, 'condition' | 'flaws'>): boolean =>
	condition !== 'dead' &&
	flaws.includes('torn') &&
	flaws.every((flaw) => flaw === 'torn' || flaw === 'crowded' || flaw === 'too-thick');

/**
 * Where a root is cut when nothing else is said: at the edge of rot, behind a tear, otherwise at its base.
 * @returns mm along the root from where it begins
 */
export function usualCutPlace(segment: Segment, values: Values): number {
	if (segment.condition === 'dead') return segment.deadFromMm ?? 0;
	if (!tornOnly(segment)) return 0;
	const end = Math.min(courseLengthMm(segment.course), segment.seenToMm ?? Infinity);
	return Math.max(0, Math.round(end - values['cut.behindTearThicknesses'] * segment.diameterEndMm));
}
