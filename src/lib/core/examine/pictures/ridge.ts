import type { Values } from '../../values/values';
import { smaller, type Grey } from './raster';

/** Where a picture shows bands lighter than what lies beside them. */
export interface Ridges {
	width: number;
	height: number;
	/** How much a pixel lies on a band, 0 … 1. */
	strength: Float32Array;
	/** Half of the width of the band there, px. */
	halfWidthPx: Float32Array;
	/** Which way the band runs, radians from the right, clockwise; π further is the same. */
	angle: Float32Array;
}

/**
 * A picture blurred by a bell curve.
 * @param deviationPx its standard deviation, px, above 0
 */
export function blurred({ width, height, data }: Grey, deviationPx: number): Grey {
	const reach = Math.max(1, Math.ceil(3 * deviationPx));
	const weights = Float32Array.from({ length: 2 * reach + 1 }, (_, i) =>
		Math.exp(-((i - reach) ** 2) / (2 * deviationPx ** 2))
	);
	const sum = weights.reduce((total, weight) => total + weight, 0);
	for (let i = 0; i < weights.length; i++) weights[i] = (weights[i] ?? 0) / sum;
	const middle = weights[reach] as number;
	// The same on both sides, so that two and two are added first. Along rows, each with its ends drawn out; then down columns, a row at a time, so that memory is read as it lies.
	const along = new Float32Array(data.length);
	const line = new Float64Array(width + 2 * reach);
	for (let y = 0; y < height; y++) {
		const row = y * width;
		for (let i = 0; i < line.length; i++)
			line[i] = data[row + Math.min(width - 1, Math.max(0, i - reach))] ?? 0;
		for (let x = 0; x < width; x++) {
			let total = middle * (line[x + reach] as number);
			for (let k = 0; k < reach; k++)
				total += (weights[k] as number) * ((line[x + k] as number) + (line[x + 2 * reach - k] as number));
			along[row + x] = total;
		}
	}
	const to = new Float32Array(data.length);
	const sums = new Float64Array(width);
	for (let y = 0; y < height; y++) {
		for (let x = 0; x < width; x++) sums[x] = middle * (along[y * width + x] as number);
		for (let k = 0; k < reach; k++) {
			const weight = weights[k] as number;
			const above = Math.max(0, y + k - reach) * width;
			const below = Math.min(height - 1, y + reach - k) * width;
			for (let x = 0; x < width; x++)
				sums[x] =
					(sums[x] as number) + weight * ((along[above + x] as number) + (along[below + x] as number));
		}
		to.set(sums, y * width);
	}
	return { width, height, data: to };
}

/** A picture is made smaller for a wider blur as long as the blur is still so wide in it, px. */
const SMALLER_BLUR_PX = 1.5;

/**
 * Bands of a picture over several widths: at each pixel the curvature of the shade across and along, where that across is much the larger.
 * @param halfWidthsPx half widths that are looked for, px; a band of half width a answers most to a blur of a
 * @param contrast how much lighter bands are than what lies beside, of 255
 * @see Frangi, Niessen, Vincken & Viergever 1998, MICCAI, LNCS 1496, 130–137, equation 15
 */
export function ridgesOf(
	grey: Grey,
	halfWidthsPx: readonly number[],
	contrast: number,
	values: Values
): Ridges {
	const beta2 = 2 * values['picture.ridgeRound'] ** 2;
	const c2 = 2 * (values['picture.ridgeBend'] * contrast) ** 2;
	// Wide bands are looked for in the picture made smaller, and what was found is carried over to the finer one.
	const byOf = (sigma: number): number => 2 ** Math.max(0, Math.floor(Math.log2(sigma / SMALLER_BLUR_PX)));
	const coarsest = Math.max(1, ...halfWidthsPx.map(byOf));
	let found: Ridges | null = null;
	for (let by = coarsest; by >= 1; by /= 2) {
		const small = smaller(grey, by);
		found = found ? finer(found, small) : nothingIn(small);
		for (const sigma of halfWidthsPx)
			if (byOf(sigma) === by)
				atOneScale(blurred(small, leftToBlur(sigma / by, by)), sigma / by, sigma, beta2, c2, found);
	}
	return found ?? nothingIn(grey);
}

/** Second differences blur by a sixth of a pixel squared, and pixels drawn together by a twelfth: so much of the blur is there already. */
const leftToBlur = (blurPx: number, by: number): number =>
	Math.sqrt(Math.max(0.25, blurPx ** 2 - 1 / 6 - (1 - 1 / by ** 2) / 12));

const nothingIn = ({ width, height }: { width: number; height: number }): Ridges => ({
	width,
	height,
	strength: new Float32Array(width * height),
	halfWidthPx: new Float32Array(width * height),
	angle: new Float32Array(width * height)
});

/** What was found in a picture of half the size, in the finer one. */
function finer(from: Ridges, picture: { width: number; height: number }): Ridges {
	const to = nothingIn(picture);
	for (let y = 0; y < to.height; y++) {
		const row = Math.min(from.height - 1, y >> 1) * from.width;
		for (let x = 0; x < to.width; x++) {
			const at = row + Math.min(from.width - 1, x >> 1);
			const i = y * to.width + x;
			to.strength[i] = from.strength[at] ?? 0;
			to.halfWidthPx[i] = from.halfWidthPx[at] ?? 0;
			to.angle[i] = from.angle[at] ?? 0;
		}
	}
	return to;
}

/** Bands of one width, put down where they show more than those found before. */
function atOneScale(
	{ width, height, data }: Grey,
	blurPx: number,
	halfWidthPx: number,
	beta2: number,
	c2: number,
	found: Ridges
): void {
	const level = blurPx ** 2;
	// Below this hardly anything is left, and most of a picture is.
	const least = -Math.sqrt(0.02 * c2);
	for (let y = 1; y < height - 1; y++)
		for (let x = 1; x < width - 1; x++) {
			const i = y * width + x;
			const at = (data[i] ?? 0) * 2;
			const xx = ((data[i + 1] ?? 0) - at + (data[i - 1] ?? 0)) * level;
			const yy = ((data[i + width] ?? 0) - at + (data[i - width] ?? 0)) * level;
			const mean = (xx + yy) / 2;
			const xy =
				(((data[i + width + 1] ?? 0) -
					(data[i + width - 1] ?? 0) -
					(data[i - width + 1] ?? 0) +
					(data[i - width - 1] ?? 0)) /
					4) *
				level;
			const half = (xx - yy) / 2;
			const spread = Math.sqrt(half * half + xy * xy);
			// Across a light band the shade bends downward.
			const across = mean - spread;
			const along = mean + spread;
			if (across >= least || Math.abs(along) > -across) continue;
			const round = along / across;
			const strength =
				Math.exp((-round * round) / beta2) * (1 - Math.exp(-(across * across + along * along) / c2));
			if (strength <= (found.strength[i] ?? 0)) continue;
			found.strength[i] = strength;
			found.halfWidthPx[i] = halfWidthPx;
			found.angle[i] = 0.5 * Math.atan2(2 * xy, xx - yy);
		}
}
