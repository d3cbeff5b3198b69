import { describe, expect, it } from 'vitest';
import type { Point2 } from '$core/examine/pictures/plane';
import type { Rgba } from '$core/examine/pictures/raster';
import { wallDrawn, wallRead, type WallRead } from '$core/examine/pictures/wall';
import type { WallTold } from '$core/examine/pictures/wall-words';
import { wilsonInterval } from '$core/maths/wilson';
import { defaultValues as values, resolveValues } from '$core/values/values';
import { wallSceneOf, wallTouches } from '../wall-scene';

/* Walls drawn by a renderer of our own, whose truth is known by construction. */

const told = (picture: Rgba, all: WallTold, of = values): WallRead => {
	const read = wallRead(picture, all, of);
	if (!read) throw new Error('nothing read');
	return read;
};
/** A wall of plain stripes: a tenth white, a fifth brown, the rest soil, 10 px to a stripe. */
function stripes(shade: (x: number) => number = () => 1): Rgba {
	const [width, height] = [600, 400];
	const data = new Uint8ClampedArray(4 * width * height);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const lane = Math.floor(y / 10) % 10;
			const [r, g, b] =
				lane === 0 ? [230, 222, 200] : lane === 3 || lane === 6 ? [140, 90, 50] : [80, 72, 62];
			data.set([(r ?? 0) * shade(x), (g ?? 0) * shade(x), (b ?? 0) * shade(x), 255], 4 * (y * width + x));
		}
	return { width, height, data };
}
const onStripes: WallTold = {
	edge: [],
	touches: { white: [{ x: 80, y: 5 }], brown: [{ x: 80, y: 35 }], none: [{ x: 80, y: 15 }] }
};

describe('roots on a wall', () => {
	it('of plain stripes the shares are those that were painted, from one touch on each', () => {
		const { shares, unlike, mistaken } = told(stripes(), onStripes);
		expect(shares.white.share).toBeCloseTo(0.1, 2);
		expect(shares.brown.share).toBeCloseTo(0.2, 2);
		expect(shares.none.share).toBeCloseTo(0.7, 2);
		expect(unlike).toBe(0);
		expect(mistaken).toBe(0);
	});
	it('a side that lies in a little shade is still read as what it is, though it was touched in the light alone', () => {
		const { shares } = told(
			stripes((x) => 1 - (0.3 * x) / 600),
			onStripes
		);
		expect(shares.white.share).toBeCloseTo(0.1, 2);
		expect(shares.brown.share).toBeCloseTo(0.2, 2);
	});
	it('what is unlike all that was touched is none of them, and is said', () => {
		const picture = stripes();
		for (let y = 0; y < 400; y++)
			for (let x = 480; x < 600; x++) picture.data.set([20, 60, 220, 255], 4 * (y * 600 + x));
		const { shares, unlike } = told(picture, onStripes);
		expect(unlike).toBeCloseTo(0.2, 2);
		expect(shares.white.share).toBeCloseTo(0.08, 2);
		// Only within the edge.
		const within = [
			[0, 0],
			[470, 0],
			[470, 399],
			[0, 399]
		].map(([x = 0, y = 0]): Point2 => ({ x, y }));
		expect(told(picture, { ...onStripes, edge: within }).unlike).toBe(0);
		const drawn = wallDrawn(told(picture, { ...onStripes, edge: within }));
		const alphaAt = (x: number): number => drawn.data[4 * (20 * drawn.width + x) + 3] ?? NaN;
		expect([alphaAt(10), alphaAt(drawn.width - 2)].map((alpha) => alpha > 0)).toEqual([true, false]);
	});
	it('colours too alike are told as such: of what was touched some reads as another', () => {
		const alike: WallTold = { ...onStripes, touches: { ...onStripes.touches, brown: [{ x: 80, y: 25 }] } };
		expect(told(stripes(), alike).mistaken).toBeGreaterThan(values['picture.wallMistakenMost']);
	});
	it('nothing is read without all three, or within next to nothing', () => {
		for (const one of ['white', 'brown', 'none'] as const)
			expect(
				wallRead(stripes(), { ...onStripes, touches: { ...onStripes.touches, [one]: [] } }, values)
			).toBeNull();
		const small = [
			{ x: 0, y: 0 },
			{ x: 12, y: 0 },
			{ x: 12, y: 12 }
		];
		expect(wallRead(stripes(), { ...onStripes, edge: small }, values)).toBeNull();
	});
	it('blocks that are all alike tell no more than one root each', () => {
		const { sample } = told(stripes(), onStripes);
		// Eight blocks along the longer side and six along the other: none tells more than one root.
		expect(sample.white + sample.brown).toBeLessThanOrEqual(48);
		expect(sample.white / (sample.white + sample.brown)).toBeCloseTo(1 / 3, 1);
		const fewer = told(stripes(), onStripes, resolveValues({ 'picture.wallBlocks': 3 })).sample;
		expect(fewer.white + fewer.brown).toBeLessThanOrEqual(9);
	});
	it('of drawn walls the shares lie within 4 points and the interval of the sample holds what was drawn (40 of them in the bench)', async () => {
		for (const [seed, chance] of [
			[101, 0.35],
			[105, 0.65],
			[107, 0.5]
		] as const) {
			const scene = wallSceneOf(seed, chance, 50, 1400);
			const { shares, sample, mistaken } = told(await scene.draw(), wallTouches(scene));
			expect(mistaken, `seed ${seed}`).toBeLessThan(values['picture.wallMistakenMost']);
			expect(Math.abs(shares.white.share - scene.truth.white), `seed ${seed}`).toBeLessThan(0.04);
			expect(Math.abs(shares.brown.share - scene.truth.brown), `seed ${seed}`).toBeLessThan(0.04);
			const { low, high } = wilsonInterval(sample.white, sample.white + sample.brown);
			expect(low, `seed ${seed}`).toBeLessThan(chance);
			expect(high, `seed ${seed}`).toBeGreaterThan(chance);
		}
	}, 60_000);
});
