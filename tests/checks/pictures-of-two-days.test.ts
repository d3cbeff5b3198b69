import { Image } from 'image-js';
import { readFile } from 'node:fs/promises';
import { beforeAll, describe, expect, it } from 'vitest';
import { card } from '$core/examine/pictures/card';
import { featuresOf, foundAgain } from '$core/examine/pictures/features';
import { findCard } from '$core/examine/pictures/find-card';
import { after as then, backOf, laidOver } from '$core/examine/pictures/flat';
import { crownLoop, greyBalance, leafCover } from '$core/examine/pictures/leaf-cover';
import { linedUp, viewFaults, viewFaultSaid } from '$core/examine/pictures/lined-up';
import { otsu } from '$core/examine/pictures/otsu';
import { grownBetween, seenAt, type Homography, type Point2 } from '$core/examine/pictures/plane';
import { greyOf, type Rgba } from '$core/examine/pictures/raster';
import { defaultValues as values } from '$core/values/values';
import { polygonContains } from 'd3-polygon';
import { CROWN_MM, crownScene } from '../crown-scene';
import { decoded } from '../decoded';
import { dice, withCard, photograph, type Laid } from '../scene';

/** The drawn pictures of the demo. @see scripts/draw-demo-pictures.js */
const drawn = async (name: string): Promise<Rgba> =>
	decoded((await readFile(`src/demo/pictures/${name}.jpg`)).toString('base64'), name);

describe('the threshold that parts two groups', () => {
	it('is that of image-js 1.7 over shades of two kinds', () => {
		for (let seed = 1; seed <= 6; seed++) {
			const random = dice(seed);
			const shades = Uint8Array.from({ length: 3000 }, () => {
				const [middle, spread] = random() < 0.2 + 0.1 * seed ? [70, 40] : [170, 50];
				return middle + spread * (random() + random() - 1);
			});
			shades[0] = 0;
			shades[1] = 255;
			const theirs = new Image(60, 50, { data: shades, colorModel: 'GREY' }).threshold({ algorithm: 'otsu' });
			const ours = otsu(shades);
			if (!ours) throw new Error('not parted');
			const light = theirs.getRawImage().data.reduce<number>((sum, one) => sum + (one > 0 ? 1 : 0), 0);
			const lighter = shades.filter((shade) => shade > ours.threshold).length;
			expect(Math.abs(light - lighter)).toBeLessThan(30);
		}
	});
	it('gives the means of either group, and none where all are alike', () => {
		expect(otsu([2, 2, 2, 8, 8])).toMatchObject({ lowMean: 2, highMean: 8 });
		expect(otsu([2, 2, 2, 8, 8])?.threshold).toBeGreaterThan(2);
		expect(otsu([2, 2, 2, 8, 8])?.threshold).toBeLessThan(8);
		expect(otsu([5, 5, 5])).toBeNull();
		expect(otsu([])).toBeNull();
	});
});

/** From the middle of a picture: turned, made larger, moved; as a homography. */
function moved({ width, height }: Rgba, turnDeg: number, larger: number, by: Point2, tilt = 0): Homography {
	const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
	const toMiddle = [1, 0, -width / 2, 0, 1, -height / 2, 0, 0, 1];
	const about = [larger * c, -larger * s, by.x, larger * s, larger * c, by.y, tilt, 0, 1];
	return then([1, 0, width / 2, 0, 1, height / 2, 0, 0, 1], then(about, toMiddle));
}
/** A picture as it would be seen so moved, its edge grey. */
function seenSo(picture: Rgba, homography: Homography): Rgba {
	const over = laidOver(picture, picture, homography);
	for (let i = 0; i < over.data.length; i += 4) if (over.data[i + 3] === 0) over.data.fill(120, i, i + 4);
	return over;
}

describe('an earlier picture over a later one', () => {
	let picture: Rgba;
	beforeAll(async () => {
		picture = await drawn('crown-then');
	});
	const lined = (homography: Homography) =>
		linedUp(greyOf(picture), greyOf(seenSo(picture, homography)), values);
	const places = (): Point2[] =>
		[0.2, 0.5, 0.8].flatMap((u) =>
			[0.2, 0.5, 0.8].map((v) => ({ x: u * picture.width, y: v * picture.height }))
		);

	it.each([
		['as it lies', 0, 1, { x: 0, y: 0 }, 0],
		['moved aside', 0, 1, { x: 130, y: -60 }, 0],
		['turned', 14, 1, { x: 0, y: 0 }, 0],
		['turned the other way', -20, 1, { x: 10, y: 0 }, 0],
		['nearer', 3, 1.3, { x: 0, y: 40 }, 0],
		['farther away', 0, 0.8, { x: 30, y: 0 }, 0],
		['a little from the side', 2, 1, { x: 0, y: 0 }, 1e-4]
	])('%s is found within two pixels of 1400', (_, turnDeg, larger, by, tilt) => {
		const truth = moved(picture, turnDeg, larger, by, tilt);
		const how = lined(truth);
		if (typeof how === 'string') throw new Error(how);
		for (const at of places()) {
			const [is, should] = [seenAt(how.toAfter, at), seenAt(truth, at)];
			expect(Math.hypot(is.x - should.x, is.y - should.y)).toBeLessThan(2);
		}
		expect(how.turnedDeg).toBeCloseTo(turnDeg, 0);
		if (tilt === 0) expect(how.larger).toBeCloseTo(larger, 1);
		expect(how.fits).toBeLessThanOrEqual(how.found);
		expect(how.fits / how.found).toBeGreaterThan(0.7);
		expect(how.offPx).toBeLessThan(2.5);
		expect(how.shared).toBeGreaterThan(0.6);
		expect(how.shared).toBeLessThanOrEqual(1);
	});
	it('how much the two share is what the move leaves of it', () => {
		const how = lined(moved(picture, 0, 1, { x: 0.25 * picture.width, y: 0 }));
		if (typeof how === 'string') throw new Error(how);
		expect(how.shared).toBeCloseTo(0.75, 1);
	});
	it('what is no like view is refused, for what it is', async () => {
		expect(lined(moved(picture, 40, 1, { x: 0, y: 0 }))).toBe('turned');
		expect(lined(moved(picture, -32, 1, { x: 0, y: 0 }))).toBe('turned');
		expect(lined(moved(picture, 0, 1.75, { x: 0, y: 0 }))).toBe('other-distance');
		expect(lined(moved(picture, 0, 1, { x: 0.46 * picture.width, y: 0 }))).toBe('beside');
		const roots = await drawn('roots');
		expect(linedUp(greyOf(picture), greyOf(roots), values)).toBe('few-found');
		const blank = { ...picture, data: new Uint8Array(picture.data.length).fill(90) };
		expect(linedUp(greyOf(picture), greyOf(blank), values)).toBe('few-found');
		expect(linedUp(greyOf(blank), greyOf(picture), values)).toBe('few-found');
		// A part alone that is the same: it tells too little of how the rest lies.
		const part = { ...blank, data: new Uint8Array(blank.data) };
		for (let y = 300; y < 560; y++)
			for (let i = 4 * (y * picture.width + 300); i < 4 * (y * picture.width + 620); i++)
				part.data[i] = picture.data[i] ?? 0;
		expect(linedUp(greyOf(picture), greyOf(part), values)).toBe('one-corner');
		for (const fault of viewFaults) expect(viewFaultSaid[fault]).toMatch(/\.$/);
	});
	it('places found again lie all over the picture, and each only once', () => {
		const all = featuresOf(greyOf(picture), values);
		expect(all.length).toBeGreaterThan(600);
		expect(all.length).toBeLessThan(1.25 * values['picture.likeMost']);
		for (const u of [0, 1, 2])
			for (const v of [0, 1, 2])
				expect(
					all.filter(
						({ x, y }) =>
							Math.floor((3 * x) / picture.width) === u && Math.floor((3 * y) / picture.height) === v
					).length
				).toBeGreaterThan(30);
		const again = foundAgain(all, all, values);
		expect(again.every(({ before, after }) => before === after)).toBe(true);
		expect(again.length).toBeGreaterThan(0.9 * all.length);
	});
});

/** A plain wall with the card on it, in a light. */
const wallWith = (laid: Laid, cast: readonly [number, number, number], covered = false): Promise<Rgba> =>
	photograph(
		{ tiltDeg: 4, towardDeg: 0, rollDeg: 0, distanceMm: 520, focalPx: 650, widthPx: 900, heightPx: 675 },
		(at) => {
			const under = (): readonly [number, number, number] => [0.3, 0.28, 0.24];
			const [r, g, b] = withCard(under, laid, ({ y }) => covered && y < 40 && y > 8)(at);
			return [r * cast[0], g * cast[1], b * cast[2]];
		},
		{ seed: 3, blurPx: 0.3, grain: 2, shadow: 0, quality: 92 }
	);

describe('the light of a picture, by the grey of the card', () => {
	it.each([
		['upright', 4],
		['the other way round', 184]
	])('%s', async (_, turnDeg) => {
		// So light that the red of the paper is clipped: the grey alone tells.
		const cast = [1.3, 1.04, 0.78] as const;
		const picture = await wallWith({ at: { x: 20, y: 10 }, turnDeg }, cast);
		const found = findCard(picture, values);
		if (typeof found === 'string') throw new Error(found);
		const balance = greyBalance(picture, found.plane, values);
		if (!balance) throw new Error('no balance');
		// The file holds the root of the light, as the renderer does.
		const is = cast.map((one, i) => Math.sqrt(one) * (balance[i] ?? 0));
		expect((is[0] ?? 0) / (is[1] ?? 1)).toBeCloseTo(1, 1);
		expect(Math.abs((is[2] ?? 0) / (is[1] ?? 1) - 1)).toBeLessThan(0.04);
		expect(Math.abs((is[0] ?? 0) / (is[1] ?? 1) - 1)).toBeLessThan(0.04);
	});
	it('is not told where the patch lies beyond the picture, or is as light as the paper', async () => {
		const picture = await wallWith({ at: { x: 20, y: 10 }, turnDeg: 4 }, [1, 1, 1]);
		const found = findCard(picture, values);
		if (typeof found === 'string') throw new Error(found);
		const white = { ...picture, data: new Uint8Array(picture.data.length).fill(230) };
		expect(greyBalance(white, found.plane, values)).toBeNull();
		const toPx = backOf(found.plane.toMm);
		const at = seenAt(toPx, { x: card.widthMm / 2, y: 24 });
		const cut = { ...picture, height: Math.floor(at.y) };
		expect(greyBalance(cut, found.plane, values)).toBeNull();
	});
});

/** A picture of one colour with leaves of a share of it, in stripes. */
function striped(share: number, leaf: readonly number[], between: readonly number[]): Rgba {
	const side = 200;
	const data = new Uint8Array(4 * side * side);
	for (let i = 0; i < side * side; i++) {
		const colour = i % 20 < 20 * share ? leaf : between;
		for (let c = 0; c < 3; c++) data[4 * i + c] = colour[c] ?? 0;
		data[4 * i + 3] = 255;
	}
	return { width: side, height: side, data };
}
const whole = [
	{ x: 0, y: 0 },
	{ x: 200, y: 0 },
	{ x: 200, y: 200 },
	{ x: 0, y: 200 }
];
const coverOf = (picture: Rgba, loop: readonly Point2[] = whole) =>
	leafCover([{ picture, loop, balance: null }], [0], values)?.[0];

describe('leaf in a loop', () => {
	it('is the share of it that is greener than what lies between, whatever the light', () => {
		for (const share of [0.1, 0.35, 0.5, 0.9])
			for (const light of [0.4, 1]) {
				const [leaf, wall] = [
					[90, 130, 60],
					[150, 140, 125]
				].map((colour) => colour.map((one) => one * light));
				const seen = coverOf(striped(share, leaf ?? [], wall ?? []));
				expect(seen?.cover).toBeCloseTo(share, 2);
				expect(seen?.greenness).toBeCloseTo(130 / 280, 2);
				// Nothing unsure about it: what every reading leaves open remains.
				expect(seen?.error).toBeCloseTo(1.96 * values['picture.leafOff'], 2);
			}
	});
	it('the light is made true before it is read', () => {
		const [seen] =
			leafCover(
				[{ picture: striped(0.5, [90, 130, 60], [150, 140, 125]), loop: whole, balance: [1.2, 1, 0.8] }],
				[0],
				values
			) ?? [];
		expect(seen?.greenness).toBeCloseTo(130 / (1.2 * 90 + 130 + 0.8 * 60), 3);
	});
	it('where all is leaf it is all, where none is it is none, and what is too dark is said', () => {
		expect(coverOf(striped(0.4, [90, 130, 60], [110, 170, 70]))?.cover).toBe(1);
		const bare = coverOf(striped(0.4, [120, 110, 100], [150, 140, 125]));
		expect(bare?.cover).toBe(0);
		expect(bare?.greenness).toBeNull();
		const dark = coverOf(striped(0.5, [90, 130, 60], [9, 8, 7]));
		expect(dark?.dark).toBeCloseTo(0.5, 2);
		expect(dark?.error).toBeGreaterThan(0.4);
		expect(coverOf(striped(0.5, [9, 9, 9], [8, 8, 8]))).toBeUndefined();
	});
	it('is read within the loop alone, and surely only as the loop lies surely', () => {
		const left = striped(0.5, [90, 130, 60], [150, 140, 125]);
		// Its left half alone holds leaf.
		for (let i = 0; i < 200 * 200; i++) if (i % 200 >= 100) left.data.set([150, 140, 125], 4 * i);
		const half = [
			{ x: 0, y: 0 },
			{ x: 100, y: 0 },
			{ x: 100, y: 200 },
			{ x: 0, y: 200 }
		];
		expect(coverOf(left, half)?.cover).toBeCloseTo(0.5, 1);
		expect(coverOf(left)?.cover).toBeCloseTo(0.25, 1);
		const [sure] = leafCover([{ picture: left, loop: half, balance: null }], [0], values) ?? [];
		const [unsure] = leafCover([{ picture: left, loop: half, balance: null }], [12], values) ?? [];
		expect(unsure?.cover).toBe(sure?.cover);
		// A loop that lies 12 px off holds so much less of the leaf.
		expect((unsure?.error ?? 0) / 1.96).toBeCloseTo(Math.hypot((sure?.error ?? 0) / 1.96, 0.5 * 0.12), 1);
		expect(unsure?.error).toBeGreaterThan(1.5 * (sure?.error ?? 0));
	});
});

describe('a crown on two days, against its truth', () => {
	it(
		'its leaf is told within five points on nearly every day, the two are lined up, and the outline holds the crown',
		{ timeout: 120_000 },
		async () => {
			const offs: number[] = [];
			const errors: number[] = [];
			let within = 0;
			for (const [seed, leaves, pale] of [
				[3, [0.15, 0.6], 0.3],
				[9, [0.5, 1], 0.9],
				[12, [0.8, 0]]
			] as [number, [number, number], number?][]) {
				const [was, is] = crownScene(
					seed,
					[
						{ leaves: leaves[0], moved: 1, cast: [1, 1, 1], pale: 0, shootMm: 20 },
						{ leaves: leaves[1], moved: 1, cast: [0.85, 0.95, 1.1], pale: pale ?? 0, shootMm: 60 }
					],
					900
				);
				if (!was || !is) throw new Error('no days');
				const [before, after] = [await was.draw(), await is.draw()];
				const how = linedUp(greyOf(before), greyOf(after), values);
				if (typeof how === 'string') throw new Error(how);
				for (const [i, at] of was.loop.entries()) {
					const [seen, should] = [seenAt(how.toAfter, at), is.loop[i] ?? at];
					expect(Math.hypot(seen.x - should.x, seen.y - should.y)).toBeLessThan(0.8);
				}
				// Places lie off by more than the plane that is drawn through all of them.
				expect(how.offPx).toBeGreaterThan(0.75);
				expect(how.offPx).toBeLessThan(2);
				const back = backOf(how.toAfter);
				const light = [before, after].map((picture) => {
					const found = findCard(picture, values);
					return typeof found === 'string' ? null : greyBalance(picture, found.plane, values);
				});
				expect(light.every((one) => one !== null)).toBe(true);
				const covers = leafCover(
					[
						{ picture: before, loop: is.loop.map((at) => seenAt(back, at)), balance: light[0] ?? null },
						{ picture: after, loop: is.loop, balance: light[1] ?? null }
					],
					[how.offPx, 0],
					values
				);
				for (const [i, { cover, error }] of (covers ?? []).entries()) {
					const off = Math.abs(cover - ([was, is][i]?.cover ?? NaN));
					offs.push(off);
					if (off <= error) within++;
					errors.push(error);
				}
				const loop = crownLoop(
					[
						{ picture: before, balance: light[0] ?? null, toLast: how.toAfter },
						{ picture: after, balance: light[1] ?? null, toLast: null }
					],
					values
				);
				const round = (loop ?? []).map(({ x, y }): [number, number] => [x, y]);
				for (const deg of [0, 60, 120, 180, 240, 300]) {
					const by = (share: number) =>
						is.seen({
							x: share * CROWN_MM * Math.cos((deg * Math.PI) / 180),
							y: 0.9 * share * CROWN_MM * Math.sin((deg * Math.PI) / 180)
						});
					const [inner, outer] = [by(0.85), by(1.35)];
					expect(polygonContains(round, [inner.x, inner.y])).toBe(true);
					expect(polygonContains(round, [outer.x, outer.y])).toBe(false);
				}
				// The shoot at the top grew by 40 mm.
				const found = findCard(after, values);
				if (typeof found === 'string') throw new Error(found);
				const top = -0.9 * CROWN_MM;
				const along = (mm: number): Point2[] => [is.seen({ x: 40, y: top }), is.seen({ x: 40, y: top - mm })];
				const grown = grownBetween(found.plane, along(20), along(60), 0.6, how.offPx, values);
				expect(Math.abs((grown?.grew.mm ?? 0) - 40)).toBeLessThan(grown?.grew.errorMm ?? 0);
				expect(Math.abs((grown?.grew.mm ?? 0) - 40)).toBeLessThan(1.5);
				expect(grown?.then.errorMm).toBeGreaterThan(grown?.now.errorMm ?? Infinity);
				expect(grown?.grew.errorMm).toBeCloseTo(
					Math.hypot(grown?.then.errorMm ?? 0, grown?.now.errorMm ?? 0),
					6
				);
			}
			expect(offs).toHaveLength(6);
			expect(Math.max(...offs)).toBeLessThan(0.06);
			expect(offs.reduce((sum, off) => sum + off, 0) / 6).toBeLessThan(0.03);
			expect(within).toBeGreaterThanOrEqual(5);
			// Where leaf begins is not sure to the last, and that is in it.
			expect(errors.reduce((sum, error) => sum + error, 0) / 6).toBeGreaterThan(0.034);
			expect(Math.max(...errors)).toBeLessThan(0.08);
		}
	);
	it('the outline is that of the largest green patch', () => {
		const data = new Uint8Array(4 * 200 * 200);
		const isLeaf = (x: number, y: number): boolean =>
			(x > 10 && x < 40 && y > 10 && y < 40) || (x > 90 && x < 180 && y > 80 && y < 190);
		for (let i = 0; i < 200 * 200; i++)
			data.set(isLeaf(i % 200, Math.floor(i / 200)) ? [90, 130, 60, 255] : [150, 140, 125, 255], 4 * i);
		const loop = crownLoop(
			[{ picture: { width: 200, height: 200, data }, balance: null, toLast: null }],
			values
		);
		const round = (loop ?? []).map(({ x, y }): [number, number] => [x, y]);
		expect(polygonContains(round, [135, 135])).toBe(true);
		expect(polygonContains(round, [25, 25])).toBe(false);
	});
	it('nothing green has no outline', () => {
		const bare = striped(0.5, [120, 110, 100], [150, 140, 125]);
		expect(crownLoop([{ picture: bare, balance: null, toLast: null }], values)).toBeNull();
		expect(crownLoop([], values)).toBeNull();
	});
});
