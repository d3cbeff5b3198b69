import { polygonContains } from 'd3-polygon';
import { inverse, determinant, Matrix } from 'ml-matrix';
import { Z95 } from '../../maths/normal';
import type { Values } from '../../values/values';
import type { Point2 } from './point';
import type { Rgba } from './raster';
import { wallClasses, type ShareRange, type wallReadOutput, type WallTold } from './wall-words';
import type { z } from 'zod';
import { colourAt, coloursOf, type Colours, type Rgb } from './root-colour';

/*
 * Roots on the wall of a ball or of a pit: how much of it shows white roots, brown roots, or none, by colours that a person touched once.
 */

/** What was read, and where. */
export interface WallRead extends z.infer<typeof wallReadOutput> {
	/** What each place was read as: its place among `wallClasses`, 3 unlike all, 255 beside the wall. */
	places: { width: number; height: number; stepPx: number; classes: Uint8Array };
}

/** Places of a wall that are read, at most. */
const READINGS = 400_000;
const UNLIKE = 3;
const BESIDE = 255;

/** A group of colours, which of the three it is, and how far a colour lies from it. */
interface Group {
	is: number;
	mean: readonly number[];
	back: number[][];
	logSize: number;
}
/** Colours about a touch vary by themselves, by the grain of the camera, and alike in all three by light and shade. */
const groupOf = (is: number, { mean, spread }: Colours, values: Values): Group => {
	const [grain, shade] = [values['picture.wallGrain'] ** 2, values['picture.wallShade'] ** 2];
	const wide = new Matrix(
		spread.map((row, i) => row.map((value, j) => value + shade + (i === j ? grain : 0)))
	);
	return { is, mean, back: inverse(wide).to2DArray(), logSize: Math.log(determinant(wide)) };
};
/** How far a colour lies from those of a group, squared and in deviations. */
function farFrom({ mean, back }: Group, rgb: Rgb): number {
	let far = 0;
	for (let i = 0; i < 3; i++)
		for (let j = 0; j < 3; j++)
			far += (back[i]?.[j] ?? 0) * ((rgb[i] ?? 0) - (mean[i] ?? 0)) * ((rgb[j] ?? 0) - (mean[j] ?? 0));
	return far;
}
/** The group in which a colour is likeliest, and how far it lies from it. */
function nearest(groups: readonly Group[], rgb: Rgb): { at: number; far: number } {
	let best = { at: -1, far: Infinity, size: Infinity };
	for (const [at, group] of groups.entries()) {
		const far = farFrom(group, rgb);
		if (far + group.logSize < best.size) best = { at, far, size: far + group.logSize };
	}
	return best;
}

/** The four corners of the square about a touch are left out: it is round. */
const LEFT_OUT = 1 / 2;

/** Colours about a place that was touched. */
function touchedColours(picture: Rgba, { x, y }: Point2, values: Values): Rgb[] {
	const round = Math.max(1, (values['picture.wallTouch'] * Math.max(picture.width, picture.height)) / 2);
	const steps = [-1, -0.5, 0, 0.5, 1];
	return steps.flatMap((u) =>
		steps.flatMap((v) => {
			const rgb = Math.abs(u * v) > LEFT_OUT ? null : colourAt(picture, x + u * round, y + v * round);
			return rgb ? [rgb] : [];
		})
	);
}

/** Places evenly within the edge, each as its one pixel shows it. */
function placesOf(picture: Rgba, edge: readonly Point2[]) {
	const { width, height } = picture;
	const round = edge.length >= 3 ? edge.map(({ x, y }): [number, number] => [x, y]) : null;
	const stepPx = Math.max(1, Math.ceil(Math.sqrt((width * height) / READINGS)));
	const [columns, rows] = [Math.floor(width / stepPx), Math.floor(height / stepPx)];
	const inside: { at: number; rgb: Rgb; x: number; y: number }[] = [];
	for (let y = 0; y < rows; y++)
		for (let x = 0; x < columns; x++) {
			const [px, py] = [(x + 0.5) * stepPx, (y + 0.5) * stepPx];
			if (round && !polygonContains(round, [px, py])) continue;
			const rgb = colourAt(picture, px, py);
			if (rgb) inside.push({ at: y * columns + x, rgb, x: px, y: py });
		}
	return { inside, columns, rows, stepPx };
}

/**
 * Roots on a wall: each place is of the touch whose colours make its own likeliest, lighter or darker by some shade.
 * @param picture as it is decoded
 * @returns null where one of the three was not touched, or the edge holds too little
 * @see Fisher 1936, Annals of Eugenics 7, 179–188 (colours as normal groups) · Cochran 1977, Sampling Techniques, chapter 6 (ratio of
 * clusters) · Kish 1965 (what a sample of neighbours is worth)
 */
export function wallRead(picture: Rgba, told: WallTold, values: Values): WallRead | null {
	// Each touch begins a group of its own: soil and the stones in it are both none.
	const touched = wallClasses.flatMap((one, is) =>
		told.touches[one].flatMap((at) => {
			const colours = touchedColours(picture, at, values);
			return colours.length < FEWEST_TOUCHED ? [] : [{ is, colours }];
		})
	);
	if (wallClasses.some((_, k) => !touched.some(({ is }) => is === k))) return null;
	const { inside, columns, rows, stepPx } = placesOf(picture, told.edge);
	if (inside.length < FEWEST) return null;
	const unlikeFrom = values['picture.wallUnlike'];
	const groups = touched.map(({ is, colours }) => groupOf(is, coloursOf(colours), values));
	const classOf = (rgb: Rgb): number => {
		const { at, far } = nearest(groups, rgb);
		return far > unlikeFrom ? UNLIKE : (groups[at]?.is ?? UNLIKE);
	};
	const mistaken = touched.map(
		({ is, colours }) => colours.filter((rgb) => classOf(rgb) !== is).length / colours.length
	);
	const seen = new Uint8Array(columns * rows).fill(BESIDE);
	for (const { at, rgb } of inside) seen[at] = classOf(rgb);
	withEdges(seen, picture, columns, stepPx);
	const blocks = blocksOf(inside, seen, values);
	const { share, worth } = ratioOf(
		blocks.map(({ counts }) => counts[0]),
		blocks.map(({ counts }) => counts[0] + counts[1]),
		values
	);
	const [white, whole] = [Math.round(share * worth), Math.round(worth)];
	return {
		shares: {
			white: rangeOf(blocks.map(({ counts, all }) => [counts[0], all])),
			brown: rangeOf(blocks.map(({ counts, all }) => [counts[1], all])),
			none: rangeOf(blocks.map(({ counts, all }) => [counts[2], all]))
		},
		unlike: inside.filter(({ at }) => seen[at] === UNLIKE).length / inside.length,
		mistaken: Math.max(...mistaken),
		sample: { white, brown: whole - white },
		places: { width: columns, height: rows, stepPx, classes: seen }
	};
}
const FEWEST_TOUCHED = 8;
const FEWEST = 400;

/**
 * The edge of a root is neither root nor soil: it mixes both, and a mix may be of the colour of something else, as of a stone. Each such
 * place becomes root where it is more like the root on its one side than what lies on its other.
 */
function withEdges(seen: Uint8Array, { width, data }: Rgba, columns: number, stepPx: number): void {
	const was = seen.slice();
	const pixelOf = (at: number): number => {
		const [x, y] = [at % columns, Math.floor(at / columns)];
		return 4 * (Math.floor((y + 0.5) * stepPx) * width + Math.floor((x + 0.5) * stepPx));
	};
	const apart = (a: number, b: number): number => {
		const [i, j] = [pixelOf(a), pixelOf(b)];
		let sum = 0;
		for (let c = 0; c < 3; c++) sum += ((data[i + c] ?? 0) - (data[j + c] ?? 0)) ** 2;
		return sum;
	};
	for (let at = 0; at < was.length; at++) {
		const own = was[at] ?? BESIDE;
		if (own === BESIDE) continue;
		for (const way of [1, columns, columns + 1, columns - 1])
			for (const to of [way, -way]) {
				const [root, other] = [was[at - to] ?? BESIDE, was[at + to] ?? BESIDE];
				const isEdge = root < 2 && root !== own && other !== root && other !== BESIDE;
				if (isEdge && apart(at, at - to) < apart(at, at + to)) seen[at] = root;
			}
	}
}

interface Block {
	counts: [number, number, number];
	all: number;
}
/** What was read, in blocks of one size over the wall. */
function blocksOf(
	inside: readonly { at: number; x: number; y: number }[],
	seen: Uint8Array,
	values: Values
): Block[] {
	const xs = inside.map(({ x }) => x);
	const ys = inside.map(({ y }) => y);
	const span = (list: readonly number[]): [number, number] => [
		list.reduce((a, b) => Math.min(a, b), Infinity),
		list.reduce((a, b) => Math.max(a, b), -Infinity)
	];
	const [[left, right], [top, foot]] = [span(xs), span(ys)];
	const side = Math.max(1, Math.max(right - left, foot - top) / values['picture.wallBlocks']);
	const blocks = new Map<string, Block>();
	for (const { at, x, y } of inside) {
		const name = `${Math.floor((x - left) / side)},${Math.floor((y - top) / side)}`;
		const block = blocks.get(name) ?? { counts: [0, 0, 0], all: 0 };
		const one = seen[at] ?? UNLIKE;
		if (one < UNLIKE) block.counts[one as 0 | 1 | 2]++;
		block.all++;
		blocks.set(name, block);
	}
	return [...blocks.values()];
}

/** A ratio of sums over blocks, its variance, and how many draws at random would tell as much. @see Cochran 1977, section 6.3 */
function ratioOf(
	parts: readonly number[],
	wholes: readonly number[],
	values: Values
): { share: number; worth: number } {
	const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
	const whole = sum(wholes);
	if (whole === 0) return { share: 0, worth: 0 };
	const share = sum(parts) / whole;
	// Blocks that show more than crumbs of roots; each tells at most as much as one root drawn.
	const telling = wholes.filter(
		(one) => one > values['picture.wallTelling'] * (whole / wholes.length)
	).length;
	const off = sum(parts.map((part, i) => (part - share * (wholes[i] ?? 0)) ** 2));
	const n = wholes.length;
	const variance = n > 1 ? (off * n) / ((n - 1) * whole ** 2) : Infinity;
	const worth = variance > 0 ? (share * (1 - share)) / variance : Infinity;
	return { share, worth: Math.min(telling, worth) };
}

/** A share over blocks, each by its size. */
function rangeOf(blocks: readonly (readonly [number, number])[]): ShareRange {
	const whole = blocks.reduce((sum, [, all]) => sum + all, 0);
	const share = blocks.reduce((sum, [part]) => sum + part, 0) / whole;
	const n = blocks.length;
	const off = blocks.reduce((sum, [part, all]) => sum + (part - share * all) ** 2, 0);
	const error = n > 1 ? (Z95 * Math.sqrt((off * n) / (n - 1))) / whole : 1;
	return { share, low: Math.max(0, share - error), high: Math.min(1, share + error) };
}

/** What each place of a wall was read as, to be laid over the picture: clear beside it. */
export function wallDrawn({ places: { width, height, classes } }: WallRead): Rgba {
	const data = new Uint8ClampedArray(4 * width * height);
	for (let i = 0; i < classes.length; i++) data.set(DRAWN[classes[i] ?? BESIDE] ?? CLEAR, 4 * i);
	return { width, height, data };
}
/** White roots light, brown ones a strong red-brown, soil dark, what is unlike all a plain grey. */
const DRAWN = [
	[255, 250, 235, 255],
	[201, 94, 42, 255],
	[38, 38, 36, 205],
	[140, 140, 140, 255]
] as const;
const CLEAR = [0, 0, 0, 0] as const;
