import { alg, Graph } from '@dagrejs/graphlib';
import { Image } from 'image-js';
import { describe, expect, it } from 'vitest';
import { findCard } from '$core/examine/pictures/find-card';
import { flatMm, flatOf, flatPx, laidOut } from '$core/examine/pictures/flat';
import { offeredRoots } from '$core/examine/pictures/offered';
import { pathBetween } from '$core/examine/pictures/path';
import { seenAt, type Plane } from '$core/examine/pictures/plane';
import { readyPicture } from '$core/examine/pictures/ready';
import { blurred, ridgesOf } from '$core/examine/pictures/ridge';
import { shadesOf, shadingBetween } from '$core/examine/pictures/root-colour';
import { fewer, sturdyLine, tracedBetween } from '$core/examine/pictures/traced';
import { defaultValues as values } from '$core/values/values';
import { seenBy } from '../pinhole';
import { rootSceneOf, toldOf, type RootScene } from '../root-scene';
import { awayFrom, matched, offs } from '../root-truth';
import { dice } from '../scene';

const middleOf = (all: readonly number[]): number => [...all].sort((a, b) => a - b)[all.length >> 1] ?? NaN;

/** Where the middle of a pixel is that of four together too. */
const MIDDLE = 82;
const AT_MIDDLE = MIDDLE * 160 + MIDDLE;

/** A bar of a half width over a picture, running in a direction, lighter than what lies beside. */
function bar(halfPx: number, deg: number, light: number, side = 160) {
	const data = new Float32Array(side * side);
	const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
	for (let y = 0; y < side; y++)
		for (let x = 0; x < side; x++) {
			const off = Math.abs(-(x + 0.5 - MIDDLE) * s + (y + 0.5 - MIDDLE) * c);
			data[y * side + x] = 100 + light * Math.max(0, Math.min(1, halfPx + 0.5 - off));
		}
	return { width: side, height: side, data };
}

describe('bands in a picture, against what is known of them', () => {
	// Of a bar of half width a and contrast C the curvature across it, blurred by σ and multiplied by σ², is C·(a/σ)·√(2/π)·exp(−a²/2σ²):
	// greatest at σ = a, C·√(2/π)·e^(−1/2) = 0.484 C (differentiated here; scale selection as in Lindeberg 1998, IJCV 30, from memory).
	it.each([0, 30, 45, 90, 120])('a bar at %i° answers most at its own width, along itself', (deg) => {
		const scales = [3, 4.2, 6, 8.5, 12, 17];
		const { strength, halfWidthPx, angle } = ridgesOf(bar(6, deg, 60), scales, 60, values);
		const at = AT_MIDDLE;
		expect(halfWidthPx[at]).toBe(6);
		const expected = 1 - Math.exp(-(0.484 ** 2) / (2 * values['picture.ridgeBend'] ** 2));
		expect(strength[at]).toBeCloseTo(expected, 1);
		expect(Math.abs(Math.sin((angle[at] ?? 0) - (deg * Math.PI) / 180))).toBeLessThan(0.05);
		// Off the bar there is none.
		expect(strength[20 * 160 + (deg === 90 ? 20 : 140)]).toBeLessThan(deg === 45 || deg === 30 ? 0.9 : 0.1);
	});
	it('a dark bar is none, and a blob is none: its bend along is as that across', () => {
		const at = AT_MIDDLE;
		expect(ridgesOf(bar(6, 0, -60), [6], 60, values).strength[at]).toBe(0);
		const blob = bar(0, 0, 0);
		for (let y = 0; y < 160; y++)
			for (let x = 0; x < 160; x++)
				blob.data[y * 160 + x] = 100 + 60 * Math.exp(-((x - MIDDLE) ** 2 + (y - MIDDLE) ** 2) / 72);
		// exp(−1 / 2β²) with β = 0.5, at most. @see Frangi et al. 1998, equation 15
		expect(ridgesOf(blob, [6], 60, values).strength[at]).toBeLessThan(Math.exp(-2) + 0.01);
	});
	it('blurs as image-js 1.7 does', () => {
		const random = dice(4);
		const grey = {
			width: 40,
			height: 30,
			data: Float32Array.from({ length: 1200 }, () => Math.floor(256 * random()))
		};
		const theirs = new Image(40, 30, { data: Uint8Array.from(grey.data), colorModel: 'GREY' }).gaussianBlur({
			sigma: 2,
			size: 13
		});
		const ours = blurred(grey, 2);
		for (let y = 7; y < 23; y++)
			for (let x = 7; x < 33; x++)
				expect(Math.abs((ours.data[y * 40 + x] ?? 0) - (theirs.getPixel(x, y)[0] ?? 0))).toBeLessThanOrEqual(
					1
				);
	});
});

describe('the cheapest way', () => {
	it('costs as much as in graphlib 4, over any cost', () => {
		const [width, height] = [9, 7];
		for (let seed = 1; seed <= 5; seed++) {
			const random = dice(seed);
			const cost = Float32Array.from({ length: width * height }, () => 0.1 + random());
			const graph = new Graph({ directed: false });
			for (let i = 0; i < cost.length; i++)
				for (let j = 0; j < i; j++) {
					const [dx, dy] = [
						Math.abs((i % width) - (j % width)),
						Math.floor(i / width) - Math.floor(j / width)
					];
					const far = Math.hypot(dx, dy);
					// Its eight neighbours, and the knight's moves.
					if (far < 2 || Math.abs(far - Math.sqrt(5)) < 1e-9)
						graph.setEdge(String(i), String(j), (far * ((cost[i] ?? 0) + (cost[j] ?? 0))) / 2);
				}
			const theirs = alg.dijkstra(
				graph,
				'0',
				(edge) => Number(graph.edge(edge)),
				(node) => graph.nodeEdges(node) ?? []
			);
			const ours = pathBetween({ width, height, cost }, { x: 0.5, y: 0.5 }, { x: 8.5, y: 6.5 });
			expect(ours?.cost).toBeCloseTo(theirs[String(width * height - 1)]?.distance ?? NaN, 4);
			expect(ours?.points[0]).toEqual({ x: 0.5, y: 0.5 });
			expect(ours?.points.at(-1)).toEqual({ x: 8.5, y: 6.5 });
		}
	});
	it('has none to a place beyond the picture', () => {
		const cost = new Float32Array(12).fill(1);
		expect(pathBetween({ width: 4, height: 3, cost }, { x: 1, y: 1 }, { x: 4.2, y: 1 })).toBeNull();
		expect(pathBetween({ width: 4, height: 3, cost }, { x: 1, y: -0.1 }, { x: 1, y: 1 })).toBeNull();
	});
});

describe('lines', () => {
	it('a sturdy line is that of Sen 1968, section 6: slope 4 (from memory)', () => {
		const points = [
			[1, 9],
			[2, 15],
			[3, 19],
			[4, 20],
			[10, 45],
			[12, 55],
			[18, 78]
		].map(([x = 0, y = 0]) => ({ x, y }));
		expect(sturdyLine(points).slope).toBeCloseTo(4, 1);
	});
	it('a third of its points gone astray does not turn it', () => {
		const points = Array.from({ length: 30 }, (_, x) => ({ x, y: x % 3 === 0 ? 500 : 2 * x + 1 }));
		const { slope, at0 } = sturdyLine(points);
		expect(slope).toBeCloseTo(2, 6);
		expect(at0).toBeCloseTo(1, 6);
	});
	it('fewer points lie nowhere farther off than is allowed, and keep the ends', () => {
		const line = Array.from({ length: 200 }, (_, i) => ({ x: i, y: 20 * Math.sin(i / 15) }));
		for (const off of [0.2, 1, 5]) {
			const less = fewer(line, off);
			expect(less.length).toBeLessThan(line.length / 3);
			expect(less[0]).toEqual(line[0]);
			expect(less.at(-1)).toEqual(line.at(-1));
			for (const point of line) expect(awayFrom(less, point)).toBeLessThanOrEqual(off + 1e-9);
		}
	});
});

describe('the one shade of roots and soil', () => {
	it('tells roots that are as light as the soil but of another colour, in sun and in shadow', () => {
		const [width, height] = [80, 60];
		const data = new Uint8Array(4 * width * height);
		const random = dice(9);
		const isRoot = (x: number): boolean => x >= 36 && x < 44;
		for (let y = 0; y < height; y++)
			for (let x = 0; x < width; x++) {
				const sun = (y < 30 ? 1 : 0.5) * (0.8 + 0.4 * random());
				const rgb = isRoot(x) ? [130, 100, 70] : [110, 105, 95];
				for (let i = 0; i < 3; i++) data[4 * (y * width + x) + i] = (rgb[i] ?? 0) * sun;
				data[4 * (y * width + x) + 3] = 255;
			}
		const picture = { width, height, data };
		const places = Array.from({ length: width * height }, (_, i) => ({
			x: (i % width) + 0.5,
			y: Math.floor(i / width) + 0.5
		}));
		const shading = shadingBetween(
			picture,
			places.filter(({ x }) => isRoot(x)),
			places.filter(({ x }) => !isRoot(x)),
			values
		);
		if (!shading) throw new Error('no shading');
		const shades = shadesOf(picture, shading);
		const mean = (fromY: number, root: boolean): number => {
			const those = places.filter(({ x, y }) => isRoot(x) === root && y > fromY && y < fromY + 30);
			return (
				those.reduce((sum, { x, y }) => sum + (shades.data[Math.floor(y) * width + Math.floor(x)] ?? 0), 0) /
				those.length
			);
		};
		for (const from of [0, 30])
			expect(mean(from, true) - mean(from, false)).toBeGreaterThan(0.7 * shading.contrast);
		expect(Math.abs(mean(0, false) - mean(30, false))).toBeLessThan(0.3 * shading.contrast);
		expect(shadingBetween(picture, places.slice(0, 3), places, values)).toBeNull();
	});
});

/** A plain picture of 400 mm, a millimetre a pixel, trunk of 40 mm in its middle: soil with a little grain, and bands lighter than it. */
function plainly(
	light: (at: { x: number; y: number }) => number,
	corners: readonly { x: number; y: number }[] = [
		{ x: 10, y: 390 },
		{ x: 390, y: 390 }
	]
) {
	const side = 400;
	const bark = (): number => 20;
	const random = dice(31);
	const data = new Uint8Array(4 * side * side);
	for (let i = 0; i < side * side; i++) {
		const more = light({ x: (i % side) + 0.5 - side / 2, y: Math.floor(i / side) + 0.5 - side / 2 });
		for (let c = 0; c < 3; c++) data[4 * i + c] = 80 + 8 * (random() - 0.5) + more;
		data[4 * i + 3] = 255;
	}
	const plane: Plane = {
		toMm: [1, 0, 0, 0, 1, 0, 0, 0, 1],
		tiltDeg: 0,
		distanceMm: 700,
		corners,
		cornerPx: 0.1,
		flat: corners,
		nearFar: 0,
		under: { x: 0, y: 0 },
		cameraMm: 700
	};
	const laid = laidOut(plane, { x: 200, y: 200 }, { x: 200, y: 100 });
	if (!laid) throw new Error('not laid out');
	const told = { barkMm: bark, trunkDiameterMm: 40, reachMm: 190, shown: [] };
	return {
		ready: readyPicture({ width: side, height: side, data }, plane, laid, told, values),
		bark
	};
}
/** A band of a width from the trunk to the right, as far as a place, its middle so far below; its edges share their pixels. */
const band =
	(widthMm: number, toMm: number, belowMm = 0) =>
	(at: { x: number; y: number }): number =>
		at.x > 0 && at.x < toMm ? 70 * Math.max(0, Math.min(1, widthMm / 2 + 0.5 - Math.abs(at.y - belowMm))) : 0;
/** The same, going down a little. */
const aslant = (deg: number, light: (at: { x: number; y: number }) => number) => {
	const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
	return ({ x, y }: { x: number; y: number }): number => light({ x: c * x + s * y, y: c * y - s * x });
};

describe('plain bands', () => {
	it.each([
		[7, 0],
		[7, 9],
		[10, 0],
		[10.3, 0],
		[10.3, 23],
		[10.6, 0],
		[14.9, 0],
		[14.9, 14]
	])('one of %f mm at %f° is read to a fraction of a pixel', (width, deg) => {
		const { ready, bark } = plainly(aslant(deg, band(width, 150)));
		const [root, ...more] = offeredRoots(ready, bark, values);
		expect(more).toEqual([]);
		expect(Math.abs((root?.diameterStartMm ?? 0) - width)).toBeLessThan(0.25);
		expect(root?.lengthMm).toBeGreaterThan(120);
		expect(root?.lengthMm).toBeLessThan(140);
		// So even a band leaves the pixel, the bark and the height open, and little more.
		const by = 1.96 * Math.hypot(values['picture.edgePx'], values['picture.edgeWidths'] * width, width / 70);
		expect(root?.thicknessErrorMm).toBeGreaterThan(0.95 * by);
		expect(root?.thicknessErrorMm).toBeLessThan(1.2 * by + 0.5);
	});
	it('a wavering one is less sure of its width', () => {
		const wavers = (at: { x: number; y: number }): number => band(10 + 5 * Math.sin(at.x / 4), 150)(at);
		const [even] = offeredRoots(plainly(band(10, 150)).ready, () => 20, values);
		const [uneven] = offeredRoots(plainly(wavers).ready, () => 20, values);
		expect(uneven?.thicknessErrorMm).toBeGreaterThan((even?.thicknessErrorMm ?? NaN) + 0.3);
	});
	it('two side by side are never one that is as thick as both', () => {
		const both = (at: { x: number; y: number }): number => band(9, 150, -8)(at) + band(9, 150, 8)(at);
		for (const { diameterStartMm } of offeredRoots(plainly(both).ready, () => 20, values))
			expect(diameterStartMm).toBeLessThan(16);
	});
	it('one nearly as thick as the trunk is none, nor one shorter than it is thick', () => {
		expect(offeredRoots(plainly(band(36, 170)).ready, () => 20, values)).toEqual([]);
		expect(offeredRoots(plainly(band(16, 40)).ready, () => 20, values)).toEqual([]);
	});
	it('one that goes on beyond the picture ends with it', () => {
		const [root] = offeredRoots(plainly(band(10, 1000)).ready, () => 20, values);
		expect(Math.max(...(root?.course.map(({ x }) => x) ?? []))).toBeLessThanOrEqual(200);
		expect(root?.lengthMm).toBeGreaterThan(155);
	});
	it('as many as are asked for, no more', () => {
		const cross = (at: { x: number; y: number }): number =>
			Math.min(Math.abs(at.x), Math.abs(at.y)) < 5 && Math.hypot(at.x, at.y) < 150 ? 70 : 0;
		const { ready, bark } = plainly(cross);
		expect(offeredRoots(ready, bark, values)).toHaveLength(4);
		expect(offeredRoots(ready, bark, values, { most: 3, sides: false })).toHaveLength(3);
	});
	it('what lies beside for its size is no root, and no soil either', () => {
		const [left, top, right, foot] = [-190, -150, 20, -30];
		const corners = [
			{ x: left + 200, y: top + 200 },
			{ x: right + 200, y: top + 200 },
			{ x: right + 200, y: foot + 200 },
			{ x: left + 200, y: foot + 200 }
		];
		const onCard = ({ x, y }: { x: number; y: number }): boolean =>
			x > left && x < right && y > top && y < foot;
		const striped = (at: { x: number; y: number }): number =>
			onCard(at) ? (Math.abs(at.x) < 6 ? 70 : 150) : band(10, 150)(at);
		const { ready, bark } = plainly(striped, corners);
		const bare = plainly(band(10, 150));
		expect(ready.contrast / bare.ready.contrast).toBeGreaterThan(0.7);
		expect(offeredRoots(ready, bark, values)).toHaveLength(1);
		for (const at of [
			{ x: -100, y: -90 },
			{ x: 0, y: -60 },
			{ x: left - 3, y: -90 }
		]) {
			const { x, y } = flatPx(ready.flat, at);
			expect(ready.ridges.strength[Math.floor(y) * ready.flat.sidePx + Math.floor(x)]).toBe(0);
		}
	});
});

/** A scene, its card found and its trunk and front touched, each within two pixels. */
async function laidScene(scene: RootScene, seed: number) {
	const picture = await scene.draw();
	const card = findCard(picture, values);
	if (typeof card === 'string') throw new Error(card);
	const random = dice(seed + 5);
	const touch = (at: { x: number; y: number }) => ({
		x: at.x + 4 * (random() - 0.5),
		y: at.y + 4 * (random() - 0.5)
	});
	const [middle, front] = [
		touch(seenBy(scene.camera, { x: 0, y: 0 })),
		touch(seenBy(scene.camera, { x: 0, y: -200 }))
	];
	const laid = laidOut(card.plane, middle, front);
	if (!laid) throw new Error('not laid out');
	return { picture, card, laid, ready: readyPicture(picture, card.plane, laid, toldOf(scene), values) };
}

describe('roots of drawn scenes, against their truth', () => {
	it(
		'are offered by themselves, true in place, length and thickness, and next to none that is not there',
		{ timeout: 240_000 },
		async () => {
			const off = {
				azimuthDeg: [] as number[],
				length: [] as number[],
				mm: [] as number[],
				share: [] as number[]
			};
			let [all, hit, wrong, offered, within] = [0, 0, 0, 0, 0];
			for (const seed of [1, 9, 13, 26]) {
				const scene = rootSceneOf(seed, 1200);
				const { ready } = await laidScene(scene, seed);
				const read = offeredRoots(ready, () => scene.trunkRadiusMm, values);
				const found = matched(scene.roots, read);
				const seen = scene.roots.filter((root) => !root.hidden && root.diameterStartMm > 5);
				const pairs = found.pairs.filter(({ root }) => seen.includes(root));
				all += seen.length;
				hit += pairs.length;
				wrong += found.false.length;
				offered += read.length;
				for (const pair of pairs) {
					const by = offs(pair);
					off.azimuthDeg.push(Math.abs(by.azimuthDeg));
					off.length.push(Math.abs(by.lengthShare));
					off.mm.push(Math.abs(by.thicknessMm));
					off.share.push(Math.abs(by.thicknessShare));
					if (Math.abs(by.thicknessMm) <= pair.read.thicknessErrorMm) within++;
				}
				// A side root leaves one that stands before it.
				for (const [i, root] of read.entries()) expect(root.parent ?? -1).toBeLessThan(i);
			}
			expect(hit / all).toBeGreaterThanOrEqual(0.85);
			expect(wrong / offered).toBeLessThanOrEqual(0.1);
			expect(middleOf(off.azimuthDeg)).toBeLessThan(3);
			expect(middleOf(off.length)).toBeLessThan(0.05);
			expect(middleOf(off.mm) < 1.5 || middleOf(off.share) < 0.1).toBe(true);
			expect(within / hit).toBeGreaterThan(0.75);
		}
	);
	it('follow between a touch at the base and one at the end', { timeout: 120_000 }, async () => {
		const scene = rootSceneOf(6, 1200);
		const { ready, laid, picture, card } = await laidScene(scene, 6);
		// The picture turned to its plane lies as the truth does.
		const at = seenAt(laid.toPlan, seenBy(scene.camera, { x: 120, y: 60 }));
		expect(Math.hypot(at.x - 120, at.y - 60)).toBeLessThan(8);
		const flat = flatOf(laid, { widthPx: picture.width, heightPx: picture.height }, 400, values);
		const there = flatMm(flat, flatPx(flat, { x: -30, y: 70 }));
		expect(Math.hypot(there.x + 30, there.y - 70)).toBeLessThan(1e-9);
		const seen = scene.roots.filter((root) => !root.hidden && root.parent === null);
		expect(seen.length).toBeGreaterThan(2);
		for (const root of seen) {
			const shown = root.points.filter(({ alongMm }) => alongMm <= root.lengthMm);
			const [base, end] = [shown[0], shown.at(-1)];
			if (!base || !end) throw new Error('no root');
			const traced = tracedBetween(ready, base, end, values);
			if (!traced) throw new Error('not traced');
			expect(Math.abs(traced.diameterStartMm - root.diameterStartMm)).toBeLessThan(
				Math.max(2.5, 0.2 * root.diameterStartMm)
			);
			expect(Math.abs(traced.lengthMm / root.lengthMm - 1)).toBeLessThan(0.08);
			for (const point of shown) expect(awayFrom(traced.course, point)).toBeLessThan(point.radiusMm + 3);
			expect(traced.course.length).toBeLessThanOrEqual(16);
		}
		// Beyond the picture there is nothing to follow.
		expect(tracedBetween(ready, { x: 0, y: 40 }, { x: 0, y: 5000 }, values)).toBeNull();
		expect(laidOut(card.plane, { x: 5, y: 5 }, { x: 5, y: 5 })).toBeNull();
	});
});
