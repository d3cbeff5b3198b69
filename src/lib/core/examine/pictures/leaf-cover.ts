import { polygonContains } from 'd3-polygon';
import { Z95 } from '../../maths/normal';
import type { Values } from '../../values/values';
import { greyPatch, card } from './card';
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

/** The middle of the grey patch that is read, of its sides. */
const READ = 0.6;
/** The patch is printed so much darker than the white beside it, at least. */
const DARKER = 0.85;

/**
 * What makes grey grey in a picture, by the patch of the printed card.
 * @param plane of the card, as it was found
 * @returns null where the patch does not show
 */
export function greyBalance(picture: Rgba, plane: Plane): Balance | null {
	const toPx = backOf(plane.toMm);
	const patch = colourWithin(picture, toPx, greyPatch);
	// The same place of a card that lies the other way round is white.
	const other = colourWithin(picture, toPx, {
		...greyPatch,
		x: card.widthMm - greyPatch.x - greyPatch.widthMm,
		y: card.heightMm - greyPatch.y - greyPatch.heightMm
	});
	if (!patch || !other) return null;
	const [light, otherLight] = [patch, other].map(([r, g, b]) => r + g + b) as [number, number];
	const [r, g, b] = light < otherLight ? patch : other;
	if (Math.min(light, otherLight) > DARKER * Math.max(light, otherLight) || Math.min(r, g, b) <= 0) return null;
	const mean = (r + g + b) / 3;
	return [mean / r, mean / g, mean / b];
}

function colourWithin(
	picture: Rgba,
	toPx: Homography,
	{ x, y, widthMm, heightMm }: typeof greyPatch
): [number, number, number] | null {
	const steps = Array.from({ length: 12 }, (_, i) => 0.5 + READ * ((i + 0.5) / 12 - 0.5));
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

/** A picture with a loop round the crown, px, and what makes its grey grey; null where nothing tells it. */
export interface CrownPicture {
	picture: Rgba;
	loop: readonly Point2[];
	balance: Balance | null;
}

/** Places of a crown that are read, at most. */
const READINGS = 60_000;

interface CrownRead {
	/** Excess of green at each place that is light enough. */
	excess: Float32Array;
	/** Share of green in the light of each. */
	green: Float32Array;
	/** Share of the places that are too dark to tell. */
	dark: number;
}

/**
 * Excess of green at each place of a loop, in shares of its light: 2g − r − b.
 * @see Woebbecke et al. 1995, Transactions of the ASAE 38, 259–269
 */
function crownRead({ picture, loop, balance }: CrownPicture, values: Values): CrownRead {
	const { width, height, data } = picture;
	const [left, right] = [Math.min(...loop.map(({ x }) => x)), Math.max(...loop.map(({ x }) => x))];
	const [top, foot] = [Math.min(...loop.map(({ y }) => y)), Math.max(...loop.map(({ y }) => y))];
	const step = Math.max(1, Math.ceil(Math.sqrt(((right - left) * (foot - top)) / READINGS)));
	const [wr, wg, wb] = balance ?? AS_IT_IS;
	const excess: number[] = [];
	const green: number[] = [];
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
		}
	return {
		excess: Float32Array.from(excess),
		green: Float32Array.from(green),
		dark: dark / Math.max(1, dark + excess.length)
	};
}

/** Leaf in one picture of a crown. */
export interface LeafCover {
	/** Share of what the loop shows that is leaf. */
	cover: number;
	/** Within so much of it the true share lies in 95 of 100. */
	error: number;
	/** Share of green in the light of what is leaf: a third is grey; null where there is none. */
	greenness: number | null;
	/** Share of the loop that is too dark to tell. */
	dark: number;
}

/**
 * Leaf in one or several pictures of the same crown, told from what lies between by one threshold for all of them.
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
	if (reads.some(({ excess }) => excess.length < 50)) return null;
	const all = Float32Array.from(reads.flatMap(({ excess }) => [...excess]));
	const parted = otsu(all);
	// Where all is leaf, or none, the threshold would part light leaves from dark ones.
	const threshold = Math.min(
		values['picture.leafMost'],
		Math.max(values['picture.leafLeast'], parted?.threshold ?? 0)
	);
	const unsure = values['picture.leafUnsure'] * (parted ? parted.highMean - parted.lowMean : 0);
	return reads.map((read, i) => {
		const crown = crowns[i];
		const cover = shareOver(read.excess, threshold);
		const ofThreshold = (shareOver(read.excess, threshold - unsure) - shareOver(read.excess, threshold + unsure)) / 2;
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
