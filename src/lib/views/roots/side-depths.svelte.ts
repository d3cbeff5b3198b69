import type { Point2 } from '$core/examine/pictures/plane';
import { turnDeg } from '$core/maths/circular';
import {
	rootsAbout,
	seenFromSide,
	widthFromSide,
	type FromSide,
	type SeenFromSide
} from '$core/roots/map/depth-from-side';
import { barkRadiusMm } from '$core/roots/map/outline';
import type { RootMapInput, Segment } from '$core/roots/map/root-map';
import type { Picture } from '$core/take-in/picture';
import type { Values } from '$core/values/values';
import { PictureMeasure } from '$views/recovery/picture-measure.svelte';
import { newId } from './new-id';

/** The middle of a base that was touched. */
interface Touched {
	id: string;
	at: Point2;
	/** The root that the person says it is; undefined while it is the nearest, null for none of the map. */
	rootId?: string | null;
}
/** A base that was touched, as it is read. */
export interface SideBase extends Touched {
	/** Null where it is seen beside the trunk, or too far off. */
	seen: SeenFromSide | null;
	/** The roots of the map that it may be, the nearest first. */
	about: readonly Segment[];
	/** The one that it is taken for. */
	root: Segment | null;
}

/** Directions that a picture is taken from, degrees. */
export const FROM_DEG = [0, 45, 90, 135, 180, 225, 270, 315] as const;
/** Views that tell it. */
const viewDeg: Record<string, number> = { front: 0, left: 90, back: 180, right: 270 };

/** Depths of roots from a picture taken from the side: its plane, the two edges of the trunk at its flare, then the base of each root. */
export class SideDepths {
	readonly measure: PictureMeasure;
	/** The direction that it was taken from, degrees; null while nobody said. */
	fromDeg = $state<number | null>(null);
	/** Whether what lies beside for its size stands in line with the middle of the trunk, or against its bark in front. */
	stands = $state<'beside' | 'front'>('beside');
	edges = $state.raw<readonly Point2[]>([]);
	#touched = $state.raw<readonly Touched[]>([]);

	constructor(
		readonly picture: Picture,
		readonly map: RootMapInput,
		readonly values: Values,
		rimMm: number | null = null
	) {
		this.measure = new PictureMeasure(picture, values, rimMm);
		// In the ground its front is no direction of the compass.
		this.fromDeg = map.frame === 'container' ? (viewDeg[picture.view] ?? null) : null;
	}

	/** What is touched next in the picture. */
	readonly step = $derived.by((): 'wait' | 'size' | 'edges' | 'bases' => {
		if (this.measure.rectangle === 'card' && this.measure.card === null) return 'wait';
		if (!this.measure.plane) return 'size';
		return this.edges.length < 2 ? 'edges' : 'bases';
	});
	readonly #side = $derived.by((): FromSide | null => {
		const [a, b] = this.edges;
		const { plane } = this.measure;
		const { fromDeg } = this;
		if (!plane || !a || !b || fromDeg === null) return null;
		const inFrontMm = this.stands === 'front' ? barkRadiusMm(this.map, fromDeg) : 0;
		return { plane, edges: [a, b], fromDeg, inFrontMm, touchPx: this.measure.touchPx };
	});
	/** How wide the trunk is seen at its flare, and how wide the map has it there, mm. */
	readonly width = $derived.by((): { seenMm: number; mapMm: number } | null => {
		const side = this.#side;
		const seenMm = side && widthFromSide(side, this.values);
		if (!side || !seenMm) return null;
		const [right, left] = [-90, 90].map((by) => barkRadiusMm(this.map, side.fromDeg + by));
		return { seenMm, mapMm: (right ?? 0) + (left ?? 0) };
	});
	/** Whether the two are so far apart that something was touched amiss. */
	readonly widthIsOff = $derived.by(
		() =>
			this.width !== null &&
			Math.abs(Math.log(this.width.seenMm / this.width.mapMm)) >
				Math.log(1 + this.values['picture.flareWide'])
	);
	readonly bases = $derived.by((): readonly SideBase[] => {
		const side = this.#side;
		const read = this.#touched.map((one) => {
			const seen = side && seenFromSide(side, this.map, one.at, this.values);
			const about = seen ? rootsAbout(this.map.segments, seen.azimuthDeg, this.values) : [];
			return { ...one, seen, about };
		});
		// Each root is that of one base: what the person said first, then the nearest pairs.
		const rootOf = new Map<string, Segment | null>();
		for (const { id, rootId } of read)
			if (rootId !== undefined) rootOf.set(id, this.map.segments.find((root) => root.id === rootId) ?? null);
		const pairs = read
			.filter(({ id }) => !rootOf.has(id))
			.flatMap(({ id, seen, about }) =>
				about.map((root) => ({
					id,
					root,
					offDeg: Math.abs(turnDeg(seen?.azimuthDeg ?? 0, root.course[0]?.azimuthDeg ?? 0))
				}))
			)
			.sort((a, b) => a.offDeg - b.offDeg);
		for (const { id, root } of pairs)
			if (!rootOf.has(id) && ![...rootOf.values()].includes(root)) rootOf.set(id, root);
		return read.map((one) => ({ ...one, root: rootOf.get(one.id) ?? null }));
	});
	/** What there is to do now. */
	readonly says = $derived.by((): string => {
		if (this.step === 'wait' || this.step === 'size') return this.measure.says;
		if (this.step === 'edges')
			return this.edges.length === 0
				? 'Touch the left edge of the trunk, at its flare.'
				: 'Touch the right edge of the trunk, at the same height.';
		if (this.fromDeg === null) return 'Say where it was taken from: then it is known which roots these are.';
		return this.bases.length === 0
			? 'Touch the middle of each root where it leaves the trunk.'
			: 'Touch on, root by root, or put the depths on the map.';
	});

	/** A touch in the picture, px. */
	touch(at: Point2): void {
		if (this.step === 'wait') return;
		if (this.step === 'size') this.measure.touch(at);
		else if (this.step === 'edges') this.edges = [...this.edges, at];
		else this.#touched = [...this.#touched, { id: newId('b'), at }];
	}
	move(name: string, index: number, to: Point2): void {
		if (name === 'Corner') this.measure.move('corners', index, to);
		else if (name === 'Edge') this.edges = this.edges.map((at, i) => (i === index ? to : at));
		else this.#touched = this.#touched.map((one, i) => (i === index ? { ...one, at: to } : one));
	}
	back(): void {
		if (this.#touched.length > 0) this.#touched = this.#touched.slice(0, -1);
		else if (this.edges.length > 0) this.edges = this.edges.slice(0, -1);
		else this.measure.back();
	}
	get touched(): number {
		return this.measure.corners.length + this.edges.length + this.#touched.length;
	}
	/** Says which root one is; null for none of the map. */
	is(id: string, rootId: string | null): void {
		this.#touched = this.#touched.map((one) => (one.id === id ? { ...one, rootId } : one));
	}
	/** Depths for the map, each of another root. */
	readonly depths = $derived.by(() => {
		const told = new Map<string, { id: string; depthMm: number; errorMm: number }>();
		for (const { root, seen } of this.bases)
			if (root && seen && !told.has(root.id))
				told.set(root.id, { id: root.id, depthMm: seen.depthMm, errorMm: seen.errorMm });
		return [...told.values()];
	});
}
