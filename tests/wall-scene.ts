import type { WallClass, WallTold } from '$core/examine/pictures/wall-words';
import type { Point2 } from '$core/examine/pictures/plane';
import type { Rgba } from '$core/examine/pictures/raster';
import { seenBy, type Pinhole } from './pinhole';
import { dice, noise, photograph, soil } from './scene';

/* The wall of a ball with a known truth: roots of two colours in soil, each white with a given chance. Tests and the demo only. */

export interface WallScene {
	camera: Pinhole;
	/** Corners of the wall, px. */
	edge: Point2[];
	/** Places of each kind, px, in the order of how plainly they show it. */
	places: Record<WallClass, Point2[]>;
	/** Stones in the soil, px: none, and light. */
	stones: Point2[];
	/** What is where on the wall, mm from its middle. */
	classAt: (at: Point2) => WallClass;
	/** Share of the wall that each covers, and of its roots that are white. */
	truth: Record<WallClass, number>;
	draw(): Promise<Rgba>;
}

const HALF_MM = { x: 150, y: 110 };
const CELL_MM = 0.2;
const [COLUMNS, ROWS] = [(2 * HALF_MM.x) / CELL_MM, (2 * HALF_MM.y) / CELL_MM];
const cellOf = ({ x, y }: Point2): number => {
	const [u, v] = [Math.floor((x + HALF_MM.x) / CELL_MM), Math.floor((y + HALF_MM.y) / CELL_MM)];
	return u >= 0 && v >= 0 && u < COLUMNS && v < ROWS ? v * COLUMNS + u : -1;
};

/** A wall by its seed: so many roots, each white with a chance. */
export function wallSceneOf(seed: number, whiteShare: number, count = 45, widthPx = 2000): WallScene {
	const random = dice(seed * 104729 + 7);
	const between = (from: number, to: number): number => from + (to - from) * random();
	const camera: Pinhole = {
		tiltDeg: between(0, 15),
		towardDeg: between(0, 360),
		rollDeg: 0,
		distanceMm: 330,
		focalPx: 0.72 * widthPx,
		widthPx,
		heightPx: 0.75 * widthPx
	};
	camera.rollDeg = -camera.towardDeg;
	const roots = Array.from({ length: count }, () => {
		const middle = { x: between(-HALF_MM.x, HALF_MM.x), y: between(-HALF_MM.y, HALF_MM.y) };
		const turn = between(-0.9, 0.9);
		return {
			middle,
			along: { x: Math.sin(turn), y: Math.cos(turn) },
			halfMm: between(15, 60),
			wide: between(0.8, 2.6),
			bend: between(-0.004, 0.004),
			isWhite: random() < whiteShare
		};
	});
	// Drawn once into fine cells: which root lies in each, and how far from its middle line; the first drawn lies in front.
	const cells = new Int16Array(COLUMNS * ROWS).fill(-1);
	const offs = new Float32Array(COLUMNS * ROWS);
	for (const [name, root] of [...roots.entries()].reverse())
		for (let t = -root.halfMm; t < root.halfMm; t += CELL_MM / 2)
			for (let s = -root.wide; s < root.wide; s += CELL_MM / 2) {
				const across = s + root.bend * t * t;
				const cell = cellOf({
					x: root.middle.x + t * root.along.x + across * root.along.y,
					y: root.middle.y + t * root.along.y - across * root.along.x
				});
				if (cell < 0) continue;
				cells[cell] = name;
				offs[cell] = s / root.wide;
			}
	const rootAt = (at: Point2): { root: (typeof roots)[number]; off: number } | null => {
		const cell = cellOf(at);
		const root = roots[cells[cell] ?? -1];
		return root ? { root, off: offs[cell] ?? 0 } : null;
	};
	const classAt = (at: Point2): WallClass => {
		const found = rootAt(at);
		return found ? (found.root.isWhite ? 'white' : 'brown') : 'none';
	};
	const ground = soil(seed);
	const painted = (at: Point2): readonly [number, number, number] => {
		const found = rootAt(at);
		if (!found) return ground(at);
		// A round thing: lighter in its middle.
		const lit =
			(0.75 + 0.25 * Math.sqrt(1 - found.off ** 2)) * (0.85 + 0.3 * noise(at.x / 5, at.y / 5, seed + 9));
		const own = found.root.isWhite ? [0.86, 0.8, 0.66] : [0.36, 0.2, 0.09];
		return [(own[0] ?? 0) * lit, (own[1] ?? 0) * lit, (own[2] ?? 0) * lit];
	};
	const counts: Record<WallClass, number> = { white: 0, brown: 0, none: 0 };
	let all = 0;
	for (let x = -HALF_MM.x; x < HALF_MM.x; x += 0.5)
		for (let y = -HALF_MM.y; y < HALF_MM.y; y += 0.5) {
			counts[classAt({ x, y })]++;
			all++;
		}
	const of = (isWhite: boolean): Point2[] =>
		[...roots]
			.filter(
				(root) => root.isWhite === isWhite && Math.abs(root.middle.x) < 140 && Math.abs(root.middle.y) < 100
			)
			.filter(({ middle }) => classAt(middle) === (isWhite ? 'white' : 'brown'))
			.sort((a, b) => b.wide - a.wide)
			.map(({ middle }) => seenBy(camera, middle));
	const bare = Array.from({ length: 60 }, () => ({ x: between(-130, 130), y: between(-90, 90) })).filter(
		(at) =>
			[-4, 0, 4].every((dx) => [-4, 0, 4].every((dy) => classAt({ x: at.x + dx, y: at.y + dy }) === 'none'))
	);
	const stones: Point2[] = [];
	for (let x = -130; x < 130; x += 3)
		for (let y = -90; y < 90; y += 3)
			if (
				[-1.5, 0, 1.5].every((dx) =>
					[-1.5, 0, 1.5].every(
						(dy) =>
							classAt({ x: x + dx, y: y + dy }) === 'none' &&
							(ground({ x: x + dx, y: y + dy })[1] ?? 0) > 0.42
					)
				)
			)
				stones.push({ x, y });
	return {
		camera,
		edge: [
			[-1, -1],
			[1, -1],
			[1, 1],
			[-1, 1]
		].map(([u = 0, v = 0]) => seenBy(camera, { x: u * HALF_MM.x, y: v * HALF_MM.y })),
		places: { white: of(true), brown: of(false), none: bare.map((at) => seenBy(camera, at)) },
		stones: stones.map((at) => seenBy(camera, at)),
		classAt,
		truth: { white: counts.white / all, brown: counts.brown / all, none: counts.none / all },
		draw: () => photograph(camera, painted, { seed, blurPx: 1, grain: 4, shadow: 0.15, quality: 86 })
	};
}

/** What a person would touch: roots where they show plainly, soil, and a stone or two. */
export const wallTouches = (scene: WallScene): WallTold => ({
	edge: scene.edge,
	touches: {
		white: scene.places.white.slice(0, 3),
		brown: scene.places.brown.slice(0, 3),
		none: [
			...scene.places.none.slice(0, 2),
			...scene.stones.filter((_, i) => i % Math.ceil(scene.stones.length / 3) === 0)
		]
	}
});
