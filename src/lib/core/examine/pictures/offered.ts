import type { Values } from '../../values/values';
import { flatMm, flatPx, showsPlace } from './flat';
import { lengthThrough, type Point2 } from './point';
import { cellOf, COURSE_POINTS, measuredAlong, type ReadyPicture, type TracedRoot } from './traced';

/** A root that is offered: read from the picture without a touch. */
export interface OfferedRoot extends TracedRoot {
	/** The one that it leaves, by its place in the list; null for the trunk. */
	parent: number | null;
	/** How far along that one it leaves, mm. */
	attachMm: number;
}

/** Where a band begins, px of the flat picture, and which way it goes. */
interface Seed {
	at: Point2;
	way: Point2;
	halfPx: number;
	strength: number;
}

/** How much a band at a pixel goes a way, 0 … 1. */
const goes = ({ ridges }: ReadyPicture, cell: number, way: Point2): number => {
	const angle = ridges.angle[cell] ?? 0;
	return (Math.cos(angle) * way.x + Math.sin(angle) * way.y) ** 2;
};

/** Bands that cross the places of a line at all, strongest of their neighbourhood. */
function seedsAlong(
	ready: ReadyPicture,
	places: readonly { at: Point2; way: Point2 }[],
	values: Values
): Seed[] {
	const { ridges } = ready;
	const seeds = places.map(({ at, way }) => {
		const cell = cellOf(ready, at);
		const angle = ridges.angle[cell] ?? 0;
		const along = { x: Math.cos(angle), y: Math.sin(angle) };
		const outward = along.x * way.x + along.y * way.y >= 0 ? 1 : -1;
		return {
			at,
			way: { x: along.x * outward, y: along.y * outward },
			halfPx: ridges.halfWidthPx[cell] ?? 0,
			strength: (ridges.strength[cell] ?? 0) * goes(ready, cell, way)
		};
	});
	return seeds.filter(
		(seed) =>
			seed.strength > values['picture.seedLeast'] &&
			!seeds.some(
				(other) =>
					other !== seed &&
					Math.hypot(other.at.x - seed.at.x, other.at.y - seed.at.y) < Math.max(seed.halfPx, other.halfPx) &&
					(other.strength > seed.strength ||
						(other.strength === seed.strength && seeds.indexOf(other) < seeds.indexOf(seed)))
			)
	);
}

/** Follows a band from where it begins, as long as it shows. */
function followed(
	ready: ReadyPicture,
	seed: Seed,
	stop: (at: Point2) => boolean,
	values: Values
): { line: Point2[]; halvesPx: number[] } {
	const { ridges } = ready;
	let { at, way, halfPx } = seed;
	const line = [at];
	const halvesPx = [halfPx];
	let gap = 0;
	let kept = 1;
	for (let steps = 0; steps < 2 * ready.flat.sidePx; steps++) {
		const step = Math.max(1.5, Math.min(6, 0.6 * halfPx));
		const square = { x: -way.y, y: way.x };
		const next = { x: at.x + step * way.x, y: at.y + step * way.y };
		const reach = 0.6 * halfPx + 1;
		let [best, off, cellOfBest] = [0, 0, -1];
		for (let o = -reach; o <= reach; o += Math.max(0.5, reach / 8)) {
			const cell = cellOf(ready, { x: next.x + o * square.x, y: next.y + o * square.y });
			if (cell < 0) continue;
			const other = Math.log((ridges.halfWidthPx[cell] ?? 1) / halfPx) / values['picture.widthSpread'];
			const score =
				(ridges.strength[cell] ?? 0) *
				goes(ready, cell, way) *
				Math.exp(-((o / (reach + 1)) ** 2) - other ** 2);
			if (score > best) [best, off, cellOfBest] = [score, o, cell];
		}
		if (cellOf(ready, next) < 0 || stop(next)) break;
		if (best < values['picture.ridgeLeast']) {
			gap += step;
			if (
				gap > Math.max(values['picture.gapWidths'] * 2 * halfPx, values['picture.gapMm'] / ready.flat.mmPerPx)
			)
				break;
			at = next;
		} else {
			gap = 0;
			at = { x: next.x + off * square.x, y: next.y + off * square.y };
			const angle = ridges.angle[cellOfBest] ?? 0;
			const along = { x: Math.cos(angle), y: Math.sin(angle) };
			const same = along.x * way.x + along.y * way.y >= 0 ? 1 : -1;
			const [x, y] = [
				0.75 * way.x + 0.25 * same * along.x + (0.1 * off * square.x) / step,
				0.75 * way.y + 0.25 * same * along.y + (0.1 * off * square.y) / step
			];
			const long = Math.hypot(x, y) || 1;
			way = { x: x / long, y: y / long };
			halfPx = 0.85 * halfPx + 0.15 * (ridges.halfWidthPx[cellOfBest] ?? halfPx);
			kept = line.length + 1;
		}
		line.push(at);
		halvesPx.push(halfPx);
	}
	return { line: line.slice(0, kept), halvesPx: halvesPx.slice(0, kept) };
}

/** Cells that a band covers. */
function paint(taken: Int16Array, ready: ReadyPicture, root: TracedRoot, name: number): void {
	const { flat } = ready;
	const { course } = root;
	for (let i = 1; i < course.length; i++) {
		const [a, b] = [course[i - 1], course[i]];
		if (!a || !b) continue;
		const steps = Math.max(1, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / flat.mmPerPx));
		for (let k = 0; k <= steps; k++) {
			const t = (i - 1 + k / steps) / (course.length - 1);
			const half = (root.diameterStartMm * (1 - t) + root.diameterEndMm * t) / 2 / flat.mmPerPx + 1;
			const { x, y } = flatPx(flat, {
				x: a.x + ((b.x - a.x) * k) / steps,
				y: a.y + ((b.y - a.y) * k) / steps
			});
			for (let v = Math.floor(y - half); v <= y + half; v++)
				for (let u = Math.floor(x - half); u <= x + half; u++)
					if (
						(u - x) ** 2 + (v - y) ** 2 <= half * half &&
						u >= 0 &&
						v >= 0 &&
						u < flat.sidePx &&
						v < flat.sidePx
					)
						taken[v * flat.sidePx + u] = name;
		}
	}
}

/**
 * All bands that begin at the trunk, and those that leave them, thickest first.
 * @param barkMm how far the bark lies from the middle of the trunk in a direction, degrees
 * @param only how many at most, and whether those that leave others are looked for
 * @returns each after the one it leaves
 */
export function offeredRoots(
	ready: ReadyPicture,
	barkMm: (azimuthDeg: number) => number,
	values: Values,
	only: { most: number; sides: boolean } = { most: values['picture.offersMost'], sides: true }
): OfferedRoot[] {
	const { flat } = ready;
	const taken = new Int16Array(flat.sidePx ** 2).fill(-1);
	/** Ways that were followed already, whether they came to be a root or not. */
	const tried = new Uint8Array(flat.sidePx ** 2);
	const inTrunk = (at: Point2): boolean => {
		const { x, y } = flatMm(flat, at);
		return Math.hypot(x, y) < barkMm((Math.atan2(x, -y) * 180) / Math.PI);
	};
	const shows = (at: Point2): boolean => showsPlace(ready.laid, flatMm(flat, at), ready.grey);
	const found: OfferedRoot[] = [];
	const take = (seed: Seed, from: Point2, parent: number | null, attachMm: number): void => {
		const name = found.length;
		const start = taken[cellOf(ready, seed.at)] ?? -1;
		if (start >= 0 || found.length >= only.most || tried[cellOf(ready, seed.at)] === 1) return;
		let along = 0;
		const { line, halvesPx } = followed(
			ready,
			seed,
			(at) => {
				// Alongside a root that is told already it is that one; across it the way goes on.
				const other = taken[cellOf(ready, at)] ?? -1;
				along = other >= 0 ? along + 1 : 0;
				return inTrunk(at) || !shows(at) || along > Math.max(4, 2.5 * seed.halfPx);
			},
			values
		);
		for (const at of line) tried[cellOf(ready, at)] = 1;
		// From the bark; a side root from where it comes out of its own.
		const whole = [...(parent === null ? [from] : []), ...line.map((at) => flatMm(flat, at))];
		if (line.length < 3 || lengthThrough(whole) < values['picture.offerLengthMm']) return;
		const halves = halvesPx.map((half) => half * flat.mmPerPx);
		const stepMm = lengthThrough(whole) / (whole.length - 1);
		const traced = measuredAlong(
			ready,
			whole,
			(alongMm) => halves[Math.max(0, Math.min(halves.length - 1, Math.round(alongMm / stepMm)))] ?? 1,
			values
		);
		if (!traced) return;
		const { stations, ...root } = traced;
		const seen =
			stations.filter(
				({ stepLeft, stepRight }) => Math.min(stepLeft, stepRight) > values['picture.stepLeast']
			).length / stations.length;
		// Between two roots side by side lies soil.
		const isOne =
			stations.filter(({ shade }) => shade > values['picture.shadeLeast']).length >
			values['picture.seenLeast'] * stations.length;
		if (
			!isOne ||
			seen < values['picture.seenLeast'] ||
			root.lengthMm <
				Math.max(values['picture.offerLengthMm'], values['picture.offerWidths'] * root.diameterStartMm) ||
			root.diameterStartMm < values['picture.rootLeastMm'] ||
			root.diameterStartMm > values['picture.rootMost'] * ready.trunkDiameterMm
		)
			return;
		const led = parent === null ? root : ledFrom(from, root);
		found.push({ ...led, parent, attachMm });
		paint(taken, ready, root, name);
	};

	for (const seed of trunkSeeds(ready, barkMm, values).slice(0, 4 * only.most)) {
		const base = baseOf(ready, seed, barkMm);
		if (base) take(seed, flatMm(flat, base), null, 0);
	}
	for (let parent = 0; only.sides && parent < found.length; parent++) {
		const of = found[parent];
		if (!of || depthOf(found, parent) >= 2) continue;
		for (const { seed, from, attachMm } of sideSeeds(ready, of, values)) take(seed, from, parent, attachMm);
	}
	return found;
}

/** A root told from where it came out of another, from the middle of that one on. */
const ledFrom = (from: Point2, root: TracedRoot): TracedRoot => {
	const [first] = root.course;
	const more = first ? Math.hypot(first.x - from.x, first.y - from.y) : 0;
	return {
		...root,
		course: [from, ...root.course.slice(root.course.length < COURSE_POINTS ? 0 : 1)],
		lengthMm: root.lengthMm + more
	};
};

const depthOf = (found: readonly OfferedRoot[], at: number): number => {
	const parent = found[at]?.parent ?? null;
	return parent === null ? 0 : 1 + depthOf(found, parent);
};

/** Bands that begin at the trunk, thickest first. */
function trunkSeeds(ready: ReadyPicture, barkMm: (azimuthDeg: number) => number, values: Values): Seed[] {
	const { flat } = ready;
	// Farther out too: seen at a slant, the trunk hides the bases behind it.
	const places = [1, 2, 3, 5, 8, 12, 16].map((i) => i * values['picture.ringsMm']);
	const all = places.flatMap((beyond) => {
		const stepDeg = Math.max(0.2, ((flat.mmPerPx / (barkMm(0) + beyond)) * 180) / Math.PI);
		const ring = Array.from({ length: Math.floor(360 / stepDeg) }, (_, i) => {
			const deg = i * stepDeg;
			const [s, c] = [Math.sin((deg * Math.PI) / 180), Math.cos((deg * Math.PI) / 180)];
			const far = barkMm(deg) + beyond;
			return { at: flatPx(flat, { x: far * s, y: -far * c }), way: { x: s, y: -c } };
		});
		return seedsAlong(ready, ring, values);
	});
	return all.sort((a, b) => b.halfPx * b.strength - a.halfPx * a.strength);
}

/** Where a band that was first seen beyond the bark leaves it; null where it points past the trunk. */
function baseOf(
	ready: ReadyPicture,
	{ at, way }: Seed,
	barkMm: (azimuthDeg: number) => number
): Point2 | null {
	const { flat } = ready;
	for (let back = 0; back < flat.sidePx; back++) {
		const place = { x: at.x - back * way.x, y: at.y - back * way.y };
		const { x, y } = flatMm(flat, place);
		const far = Math.hypot(x, y);
		if (far <= barkMm((Math.atan2(x, -y) * 180) / Math.PI)) return place;
		// Past its nearest to the middle it will not meet the trunk any more.
		if (x * way.x + y * way.y < 0) return null;
	}
	return null;
}

/** Bands that leave a root on either side. */
function sideSeeds(
	ready: ReadyPicture,
	of: OfferedRoot,
	values: Values
): { seed: Seed; from: Point2; attachMm: number }[] {
	const { flat } = ready;
	const long = of.lengthMm;
	const points: { at: Point2; way: Point2; halfMm: number; alongMm: number }[] = [];
	let far = 0;
	for (let i = 1; i < of.course.length; i++) {
		const [a, b] = [of.course[i - 1], of.course[i]];
		if (!a || !b) continue;
		const part = Math.hypot(b.x - a.x, b.y - a.y);
		const way = { x: (b.x - a.x) / part, y: (b.y - a.y) / part };
		for (let t = 0; t < part; t += flat.mmPerPx) {
			const alongMm = far + t;
			const halfMm = (of.diameterStartMm + ((of.diameterEndMm - of.diameterStartMm) * alongMm) / long) / 2;
			points.push({ at: { x: a.x + t * way.x, y: a.y + t * way.y }, way, halfMm, alongMm });
		}
		far += part;
	}
	const out = values['picture.ringsMm'];
	return ([-1, 1] as const).flatMap((side) => {
		const places = points.map(({ at, way, halfMm }) => {
			const square = { x: -way.y * side, y: way.x * side };
			const beside = halfMm + out;
			return { at: flatPx(flat, { x: at.x + beside * square.x, y: at.y + beside * square.y }), way: square };
		});
		return seedsAlong(ready, places, values).flatMap((seed) => {
			const at = flatMm(flat, seed.at);
			// Back along its own way to the middle of the root that it leaves.
			const nearest = points.reduce<{ point: (typeof points)[number]; off: number } | null>((best, point) => {
				const [dx, dy] = [point.at.x - at.x, point.at.y - at.y];
				const off =
					Math.abs(dx * seed.way.y - dy * seed.way.x) + (dx * seed.way.x + dy * seed.way.y > 0 ? 1e6 : 0);
				return best === null || off < best.off ? { point, off } : best;
			}, null);
			if (!nearest || nearest.off > 1e5) return [];
			const { point } = nearest;
			return [{ seed, from: point.at, attachMm: point.alongMm }];
		});
	});
}
