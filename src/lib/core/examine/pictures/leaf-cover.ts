import { z } from 'zod';
import { polygonContains, polygonHull } from 'd3-polygon';
import { Z95 } from '../../maths/normal';
import type { Values } from '../../values/values';
import { greyPatch, card } from './card';
import { findCard } from './find-card';
import { backOf } from './flat';
import { otsu } from './otsu';
import { seenAt, type Homography, type Plane, type Point2 } from './plane';
import type { Rgba } from './raster';

/*
 * How much of a crown is leaf in a picture: what is greener than what lies between, within a loop round the crown.
 */

/** By what red, green and blue are multiplied so that grey is grey. */
export type Balance = readonly [number, number, number];
const AS_IT_IS: Balance = [1, 1, 1];

/**
 * What makes grey grey in a picture, by the patch of the printed card.
 * @param plane of the card, as it was found
 * @returns null where the patch does not show
 */
export function greyBalance(picture: Rgba, plane: Plane, values: Values): Balance | null {
	const toPx = backOf(plane.toMm);
	const patch = colourWithin(picture, toPx, greyPatch, values);
	// The same place of a card that lies the other way round is white.
	const other = colourWithin(
		picture,
		toPx,
		{
			...greyPatch,
			x: card.widthMm - greyPatch.x - greyPatch.widthMm,
			y: card.heightMm - greyPatch.y - greyPatch.heightMm
		},
		values
	);
	if (!patch || !other) return null;
	const [light, otherLight] = [patch, other].map(([r, g, b]) => r + g + b) as [number, number];
	const [r, g, b] = light < otherLight ? patch : other;
	if (
		Math.min(light, otherLight) > values['picture.greyDarker'] * Math.max(light, otherLight) ||
		Math.min(r, g, b) <= 0
	)
		return null;
	const mean = (r + g + b) / 3;
	return [mean / r, mean / g, mean / b];
}

function colourWithin(
	picture: Rgba,
	toPx: Homography,
	{ x, y, widthMm, heightMm }: typeof greyPatch,
	values: Values
): [number, number, number] | null {
	const steps = Array.from(
		{ length: 12 },
		(_, i) => 0.5 + values['picture.greyRead'] * ((i + 0.5) / 12 - 0.5)
	);
	const seen: [number, number, number][] = [];
	for (const v of steps)
		for (const u of steps) {
			const at = seenAt(toPx, { x: x + u * widthMm, y: y + v * heightMm });
			const [column, row] = [Math.floor(at.x), Math.floor(at.y)];
			if (!(column >= 0 && row >= 0 && column < picture.width && row < picture.height)) return null;
			const i = 4 * (row * picture.width + column);
			seen.push([picture.data[i] ?? 0, picture.data[i + 1] ?? 0, picture.data[i + 2] ?? 0]);
		}
	const middle = (channel: 0 | 1 | 2): number =>
		seen.map((one) => one[channel]).sort((a, b) => a - b)[seen.length >> 1] ?? 0;
	return [middle(0), middle(1), middle(2)];
}

/** What makes grey grey in a picture, by the printed card; null where it shows none. */
export function balanceOf(picture: Rgba, values: Values): Balance | null {
	const found = findCard(picture, values);
	return typeof found === 'string' ? null : greyBalance(picture, found.plane, values);
}

/** A picture with a loop round the crown, px, and what makes its grey grey; null where nothing tells it. */
export interface CrownPicture {
	picture: Rgba;
	loop: readonly Point2[];
	balance: Balance | null;
}

/** Places of a crown that are read, at most; fewer than so many say nothing. */
const READINGS = 60_000;
const FEWEST = 50;

interface CrownRead {
	/** Excess of green at each place that is light enough. */
	excess: Float32Array;
	/** Share of green in the light of each, and the light itself. */
	green: Float32Array;
	light: Float32Array;
	/** Share of the places that are too dark to tell. */
	dark: number;
}

/**
 * Excess of green at each place of a loop, in shares of its light: 2g − r − b.
 * @see Woebbecke et al. 1995, Transactions of the ASAE 38, 259–269
 */
function crownRead({ picture, loop, balance }: CrownPicture, values: Values, readings = READINGS): CrownRead {
	const { width, height, data } = picture;
	const [left, right] = [Math.min(...loop.map(({ x }) => x)), Math.max(...loop.map(({ x }) => x))];
	const [top, foot] = [Math.min(...loop.map(({ y }) => y)), Math.max(...loop.map(({ y }) => y))];
	const step = Math.max(1, Math.ceil(Math.sqrt(((right - left) * (foot - top)) / readings)));
	const [wr, wg, wb] = balance ?? AS_IT_IS;
	const excess: number[] = [];
	const green: number[] = [];
	const lights: number[] = [];
	const round = loop.map(({ x, y }): [number, number] => [x, y]);
	let dark = 0;
	for (let y = Math.max(0, Math.floor(top)); y < Math.min(height - step + 1, foot); y += step)
		for (let x = Math.max(0, Math.floor(left)); x < Math.min(width - step + 1, right); x += step) {
			if (!polygonContains(round, [x + step / 2, y + step / 2])) continue;
			let [r, g, b] = [0, 0, 0];
			for (let v = 0; v < step; v++)
				for (let u = 0; u < step; u++) {
					const i = 4 * ((y + v) * width + x + u);
					r += data[i] ?? 0;
					g += data[i + 1] ?? 0;
					b += data[i + 2] ?? 0;
				}
			if ((r + g + b) / (3 * 255 * step * step) < values['picture.leafDark']) {
				dark++;
				continue;
			}
			const light = wr * r + wg * g + wb * b;
			excess.push((2 * wg * g - wr * r - wb * b) / light);
			green.push((wg * g) / light);
			lights.push(light / (step * step));
		}
	return {
		excess: Float32Array.from(excess),
		green: Float32Array.from(green),
		light: Float32Array.from(lights),
		dark: dark / Math.max(1, dark + excess.length)
	};
}

/** Leaf in one picture of a crown. */
export const leafCoverOutput = z.object({
	cover: z.number().describe('Share of what the loop shows that is leaf, 0 to 1'),
	error: z.number().describe('Within so much of it the true share lies in 95 of 100'),
	greenness: z
		.number()
		.nullable()
		.describe('Share of green in the light of what is leaf: a third is grey; null where there is none'),
	dark: z.number().describe('Share of the loop that is too dark to tell, 0 to 1')
});
export type LeafCover = z.infer<typeof leafCoverOutput>;

/**
 * Leaf in one or several pictures of the same crown, in each told from what lies between by what it shows itself.
 * @param crowns each with its loop
 * @param offPx how far a loop may lie off in each, one deviation on each axis, px
 * @returns one for each, or null where a loop holds nothing that can be read
 * @see Woebbecke et al. 1995 (excess of green) · Otsu 1979 (threshold)
 */
export function leafCover(
	crowns: readonly CrownPicture[],
	offPx: readonly number[],
	values: Values
): LeafCover[] | null {
	const reads = crowns.map((crown) => crownRead(crown, values));
	if (reads.some(({ excess }) => excess.length < FEWEST)) return null;
	return reads.map((read, i) => {
		const crown = crowns[i];
		// Each by itself: leaves turn, and the light of two days is never quite the same.
		const parted = halfLeaf(read);
		// Where all is leaf, or none, the threshold would part light leaves from dark ones.
		const threshold = Math.min(
			values['picture.leafMost'],
			Math.max(values['picture.leafLeast'], parted?.threshold ?? 0)
		);
		const unsure = values['picture.leafUnsure'] * (parted?.between ?? 0);
		const cover = shareOver(read.excess, threshold);
		const ofThreshold =
			(shareOver(read.excess, threshold - unsure) - shareOver(read.excess, threshold + unsure)) / 2;
		const off = offPx[i] ?? 0;
		const ofLoop = crown && off > 0 ? loopOff(crown, off, threshold, cover, values) : 0;
		const ofDark = read.dark / 2;
		const leaf = read.green.filter((_, k) => (read.excess[k] ?? 0) > threshold);
		return {
			cover,
			error: Z95 * Math.hypot(values['picture.leafOff'], ofThreshold, ofLoop, ofDark),
			greenness: leaf.length > 0 ? leaf.reduce((sum, one) => sum + one, 0) / leaf.length : null,
			dark: read.dark
		};
	});
}

/**
 * The excess of green of a place that is half leaf, and how far leaf lies from what lies between. Otsu’s threshold parts the two; as light
 * mixes by its strength, a place half of a dark leaf and half of a light wall is less green than half way.
 */
function halfLeaf({ excess, light }: CrownRead): { threshold: number; between: number } | null {
	const parted = otsu(excess);
	if (!parted) return null;
	const counts: [number, number] = [0, 0];
	const lights: [number, number] = [0, 0];
	for (const [i, one] of excess.entries()) {
		const side = one > parted.threshold ? 1 : 0;
		counts[side]++;
		lights[side] += light[i] ?? 0;
	}
	const [low, high] = [lights[0] / Math.max(1, counts[0]), lights[1] / Math.max(1, counts[1])];
	return {
		threshold: (high * parted.highMean + low * parted.lowMean) / (high + low),
		between: parted.highMean - parted.lowMean
	};
}

const shareOver = (readings: Float32Array, threshold: number): number =>
	readings.reduce((sum, one) => sum + (one > threshold ? 1 : 0), 0) / readings.length;

/** How much the share changes as the loop lies off. */
function loopOff(crown: CrownPicture, off: number, threshold: number, cover: number, values: Values): number {
	const by = [
		[off, 0],
		[0, off]
	].map(([dx = 0, dy = 0]) => {
		const loop = crown.loop.map(({ x, y }) => ({ x: x + dx, y: y + dy }));
		const { excess } = crownRead({ ...crown, loop }, values);
		return excess.length > 0 ? shareOver(excess, threshold) - cover : 0;
	});
	return Math.hypot(...by);
}

/** Fields along the longer side of a picture in which a crown is looked for. */
const FIELDS = 64;
/**
 * A loop round the crown by itself: the largest patch of what is green in any of the pictures, with a hull about it.
 * @param crowns pictures of one view, each with what makes its grey grey and the way from its pixels to those of the last
 * @returns the loop in pixels of the last picture, or null where nothing is green
 */
export function crownLoop(
	crowns: readonly (Pick<CrownPicture, 'picture' | 'balance'> & { toLast: Homography | null })[],
	values: Values
): Point2[] | null {
	const last = crowns.at(-1)?.picture;
	if (!last) return null;
	const side = Math.max(last.width, last.height) / FIELDS;
	const [columns, rows] = [Math.ceil(last.width / side), Math.ceil(last.height / side)];
	const isLeaf = new Uint8Array(columns * rows);
	for (const { picture, balance, toLast } of crowns) {
		const back = toLast && backOf(toLast);
		for (let i = 0; i < isLeaf.length; i++) {
			const [left, top] = [(i % columns) * side, Math.floor(i / columns) * side];
			const field = [
				{ x: left, y: top },
				{ x: left + side, y: top },
				{ x: left + side, y: top + side },
				{ x: left, y: top + side }
			].map((at) => (back ? seenAt(back, at) : at));
			const { excess } = crownRead({ picture, balance, loop: field }, values, FIELD_READINGS);
			const threshold = (values['picture.leafLeast'] + values['picture.leafMost']) / 2;
			if (excess.length > 0 && shareOver(excess, threshold) > values['picture.crownField']) isLeaf[i] = 1;
		}
	}
	const patch = largestPatch(isLeaf, columns);
	const corners = patch.flatMap((i): [number, number][] =>
		[0, 1].flatMap((u) =>
			[0, 1].map((v): [number, number] => [((i % columns) + u) * side, (Math.floor(i / columns) + v) * side])
		)
	);
	return polygonHull(corners)?.map(([x, y]) => ({ x, y })) ?? null;
}
/** Places of one field that are read. */
const FIELD_READINGS = 100;

/** The largest patch of fields that touch each other, also at their corners or over a field between. */
function largestPatch(isLeaf: Uint8Array, columns: number): number[] {
	const seen = new Uint8Array(isLeaf.length);
	let largest: number[] = [];
	for (let from = 0; from < isLeaf.length; from++) {
		if (isLeaf[from] !== 1 || seen[from] === 1) continue;
		const patch = [from];
		seen[from] = 1;
		for (const at of patch)
			for (let v = -2; v <= 2; v++)
				for (let u = -2; u <= 2; u++) {
					const column = (at % columns) + u;
					const next = at + v * columns + u;
					if (column < 0 || column >= columns || isLeaf[next] !== 1 || seen[next] === 1) continue;
					seen[next] = 1;
					patch.push(next);
				}
		if (patch.length > largest.length) largest = patch;
	}
	return largest;
}
