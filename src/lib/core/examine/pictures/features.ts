import { createRandom } from '../../maths/random';
import type { Values } from '../../values/values';
import type { Point2 } from './point';
import { smaller, type Grey } from './raster';
import { blurred } from './ridge';

/*
 * Places of a picture that are found again in another of the same view: corners, each with a description of what lies round it that
 * turns with it.
 */

/** A place that can be found again, px of the picture, with what lies round it as bits. */
export interface Feature extends Point2 {
	bits: Uint32Array;
}

/** Half the side of what is described round a place, and how many pairs of it are compared. */
const HALF = 15;
const PAIRS = 256;
/** Each size of the picture in which places are looked for is so much smaller than the one before. */
const SIZES = [1, 1.41, 2];

/** Pairs of places round a corner that are compared, the same for all pictures. @see Calonder et al. 2010, ECCV: normal about the middle */
const pairs: readonly (readonly [number, number, number, number])[] = (() => {
	const random = createRandom(12);
	const one = (): number => Math.max(-HALF + 2, Math.min(HALF - 2, (random.normal() * (2 * HALF + 1)) / 5));
	return Array.from({ length: PAIRS }, () => [one(), one(), one(), one()] as const);
})();

/**
 * Places that can be found again, spread over the picture.
 * @param grey the whole picture
 * @returns at most as many as the values say
 * @see Harris & Stephens 1988 (corners) · Rublee et al. 2011, ORB (turned by the centre of gravity of what lies round)
 */
export function featuresOf(grey: Grey, values: Values): Feature[] {
	const by = Math.max(1, Math.max(grey.width, grey.height) / values['picture.likePx']);
	const whole = Math.floor(by);
	const base = shrunk(smaller(grey, whole), by / whole);
	const most = values['picture.likeMost'] / SIZES.reduce((sum, size) => sum + 1 / size, 0);
	return SIZES.flatMap((size) => {
		return featuresAt(shrunk(base, size), Math.round(most / size)).map((one) => ({
			...one,
			x: one.x * size * by,
			y: one.y * size * by
		}));
	});
}

/** A picture made smaller by any number, softened first. */
function shrunk(grey: Grey, by: number): Grey {
	if (by === 1) return grey;
	const soft = blurred(grey, 0.5 * by);
	const [width, height] = [Math.floor(grey.width / by), Math.floor(grey.height / by)];
	const data = new Float32Array(width * height);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++)
			data[y * width + x] =
				soft.data[Math.floor((y + 0.5) * by) * grey.width + Math.floor((x + 0.5) * by)] ?? 0;
	return { width, height, data };
}

function featuresAt(grey: Grey, most: number): Feature[] {
	const { width, height } = grey;
	if (width < 4 * HALF || height < 4 * HALF) return [];
	const corner = cornerness(grey);
	const soft = blurred(grey, 2);
	// The best of each field, so that they lie all over the picture.
	const side = Math.max(8, Math.sqrt((width * height) / most));
	const columns = Math.ceil(width / side);
	const best = new Map<number, { x: number; y: number; strength: number }>();
	for (let y = HALF + 1; y < height - HALF - 1; y++)
		for (let x = HALF + 1; x < width - HALF - 1; x++) {
			const strength = corner[y * width + x] ?? 0;
			if (strength <= 0) continue;
			const field = Math.floor(y / side) * columns + Math.floor(x / side);
			if (strength > (best.get(field)?.strength ?? 0)) best.set(field, { x, y, strength });
		}
	return [...best.values()].map(({ x, y }) => ({ x: x + 0.5, y: y + 0.5, bits: described(soft, x, y) }));
}

/** How much a picture changes both ways at each pixel. */
function cornerness(grey: Grey): Float32Array {
	const { width, height, data } = grey;
	const products = [0, 1, 2].map(() => new Float32Array(width * height));
	const [xx, xy, yy] = products as [Float32Array, Float32Array, Float32Array];
	for (let y = 1; y < height - 1; y++)
		for (let x = 1; x < width - 1; x++) {
			const i = y * width + x;
			const dx = (data[i + 1] ?? 0) - (data[i - 1] ?? 0);
			const dy = (data[i + width] ?? 0) - (data[i - width] ?? 0);
			xx[i] = dx * dx;
			xy[i] = dx * dy;
			yy[i] = dy * dy;
		}
	const [a, b, c] = products.map((one) => blurred({ width, height, data: one }, 1.5).data);
	return xx.map((_, i) => {
		const [p, q, r] = [a?.[i] ?? 0, b?.[i] ?? 0, c?.[i] ?? 0];
		return p * r - q * q - 0.04 * (p + r) ** 2;
	});
}

/** Which of each pair is the lighter one, turned with what lies round. */
function described({ width, data }: Grey, x: number, y: number): Uint32Array {
	let [mx, my] = [0, 0];
	for (let v = -HALF; v <= HALF; v++)
		for (let u = -HALF; u <= HALF; u++) {
			if (u * u + v * v > HALF * HALF) continue;
			const shade = data[(y + v) * width + x + u] ?? 0;
			mx += u * shade;
			my += v * shade;
		}
	const far = Math.hypot(mx, my) || 1;
	const [c, s] = [mx / far, my / far];
	const shade = (u: number, v: number): number =>
		data[(y + clamped(s * u + c * v)) * width + x + clamped(c * u - s * v)] ?? 0;
	const bits = new Uint32Array(PAIRS / 32);
	for (const [i, [u, v, p, q]] of pairs.entries())
		if (shade(u, v) < shade(p, q)) bits[i >> 5] = (bits[i >> 5] ?? 0) | (1 << (i & 31));
	return bits;
}
const clamped = (value: number): number => Math.max(-HALF, Math.min(HALF, Math.round(value)));

/** In how many of the pairs two descriptions differ. @see Warren 2012, Hacker’s Delight, section 5-1 */
function differ(a: Uint32Array, b: Uint32Array): number {
	let sum = 0;
	for (let i = 0; i < a.length; i++) {
		let bits = (a[i] ?? 0) ^ (b[i] ?? 0);
		bits -= (bits >>> 1) & 0x55555555;
		bits = (bits & 0x33333333) + ((bits >>> 2) & 0x33333333);
		sum += Math.imul((bits + (bits >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
	}
	return sum;
}

/**
 * Places of one picture with the same in another: each the nearest of the other's, clearly nearer than the next.
 * @returns pairs, px of either picture
 * @see Lowe 2004, IJCV 60, section 7.1: the nearest against the next
 */
export function foundAgain(
	before: readonly Feature[],
	after: readonly Feature[],
	values: Values
): { before: Point2; after: Point2 }[] {
	const nearest = (one: Feature, among: readonly Feature[]): { at: number; by: number; clear: boolean } => {
		let [at, by, next] = [-1, PAIRS + 1, PAIRS + 1];
		for (let i = 0; i < among.length; i++) {
			const far = differ(one.bits, among[i]?.bits ?? one.bits);
			if (far < by) [at, by, next] = [i, far, by];
			else if (far < next) next = far;
		}
		return { at, by, clear: by < values['picture.likeNext'] * next };
	};
	return before.flatMap((one, i) => {
		const there = nearest(one, after);
		const other = after[there.at];
		if (!other || !there.clear || there.by > values['picture.likeBits']) return [];
		return nearest(other, before).at === i ? [{ before: one, after: other }] : [];
	});
}
