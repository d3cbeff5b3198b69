import aruco from 'js-aruco2';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import {
	card,
	cardCorners,
	cardLightness,
	cardSvg,
	greyPatch,
	markerCodes,
	markerCorners,
	MARKER_MODULES,
	moduleIsWhite
} from '$core/examine/pictures/card';
import { findCard } from '$core/examine/pictures/find-card';
import type { FoundCard } from '$core/examine/pictures/find-card-words';
import { lengthIn, planeOf, scaleOf, type Plane } from '$core/examine/pictures/plane';
import { greyOf, shadeAt, smaller, type Rgba } from '$core/examine/pictures/raster';
import { defaultValues as values, resolveValues } from '$core/values/values';
import { seenBy } from '../pinhole';
import { onPlane, photograph, sceneOf, soil, withCard } from '../scene';

const WIDTH_PX = 900;
const found = (picture: Rgba, of = values): FoundCard => {
	const card = findCard(picture, of);
	if (typeof card === 'string') throw new Error(card);
	return card;
};
/** The drawing as it is printed, so many pixels to a millimetre. */
async function printed(pxPerMm: number): Promise<Rgba> {
	const { data, info } = await sharp(Buffer.from(cardSvg()), { density: 25.4 * pxPerMm })
		.resize(Math.round(card.widthMm * pxPerMm), Math.round(card.heightMm * pxPerMm), { fit: 'fill' })
		.flatten({ background: '#ffffff' })
		.ensureAlpha()
		.raw()
		.toBuffer({ resolveWithObject: true });
	return { width: info.width, height: info.height, data };
}

describe('the printed card', () => {
	it('bears the first four markers of a published dictionary (js-aruco2 2.0, ARUCO_MIP_36h12)', () => {
		const { dictionary } = new aruco.AR.Detector({ dictionaryName: 'ARUCO_MIP_36h12' });
		for (const id of markerCodes.keys()) {
			const bits = Array.from({ length: 36 }, (_, i) =>
				moduleIsWhite(id, 1 + (i % 6), 1 + Math.floor(i / 6)) ? '1' : '0'
			).join('');
			expect(bits).toBe(dictionary.codeList[id]);
			// Black all round.
			for (let i = 0; i < MARKER_MODULES; i++)
				for (const [x, y] of [
					[i, 0],
					[i, MARKER_MODULES - 1],
					[0, i],
					[MARKER_MODULES - 1, i]
				] as const)
					expect(moduleIsWhite(id, x, y)).toBe(false);
		}
		expect(markerCorners(4)).toEqual([]);
	});

	it('has white round each marker, its ruler and its grey patch clear of them, and fits A4 and Letter', () => {
		const quiet = card.markerMm / MARKER_MODULES;
		for (const id of markerCodes.keys())
			for (const { x, y } of markerCorners(id)) {
				expect(Math.min(x, y, card.widthMm - x, card.heightMm - y)).toBeGreaterThanOrEqual(quiet);
				const clear = (from: { x: number; y: number }, widthMm: number, heightMm: number): boolean =>
					x < from.x - quiet ||
					x > from.x + widthMm + quiet ||
					y < from.y - quiet ||
					y > from.y + heightMm + quiet;
				expect(clear(greyPatch, greyPatch.widthMm, greyPatch.heightMm)).toBe(true);
			}
		expect(card.widthMm).toBeLessThan(210 - 20);
		expect(card.heightMm).toBeLessThan(279.4 / 2);
		expect(card.rulerMm).toBeLessThan(card.widthMm);
	});

	it('is drawn true to size, as it is looked for', async () => {
		expect(cardSvg()).toContain(`width="${card.widthMm}mm" height="${card.heightMm}mm"`);
		const pxPerMm = 6;
		const picture = await printed(pxPerMm);
		const grey = greyOf(picture);
		let off = 0;
		for (let y = 1; y < card.heightMm; y += 1.7)
			for (let x = 1; x < card.widthMm; x += 1.7) {
				const light = cardLightness({ x, y }) ?? 1;
				if (Math.abs(shadeAt(grey, x * pxPerMm, y * pxPerMm) / 255 - light) > 0.1) off++;
			}
		// The ruler and the edges of modules between pixels.
		expect(off / (106 * 75)).toBeLessThan(0.05);
		expect(cardLightness({ x: -1, y: 5 })).toBeNull();
		// From one end of the ruler to the other by a scanner's picture of the print.
		const { plane } = found(await framed(picture));
		const ends = [0, card.rulerMm].map((mm) => ({
			x: FRAME_PX + ((card.widthMm - card.rulerMm) / 2 + mm) * pxPerMm,
			y: FRAME_PX + 64 * pxPerMm
		}));
		expect(lengthIn(plane, ends, 0.1, values)?.mm).toBeCloseTo(card.rulerMm, 1);
		expect(plane.tiltDeg).toBeLessThan(0.3);
	});

	it('is found in pictures of a camera over soil, tilted up to 35°, and tells lengths and tilt', async () => {
		const inside: boolean[] = [];
		for (let seed = 101; seed <= 110; seed++) {
			const { camera, laid, taken } = sceneOf(seed, WIDTH_PX);
			const picture = await photograph(camera, withCard(soil(seed), laid), taken);
			const { plane, markers, offPx } = found(picture);
			expect(markers, `${seed}`).toBe(4);
			expect(offPx).toBeLessThan(0.6);
			expect(Math.abs((plane.tiltDeg ?? NaN) - camera.tiltDeg), `${seed}`).toBeLessThan(1);
			expect(Math.abs(plane.distanceMm / camera.distanceMm - 1)).toBeLessThan(0.2);
			for (const corner of cardCorners()) {
				const at = seenBy(camera, onPlane(laid, corner));
				expect(Math.min(...plane.corners.map(({ x, y }) => Math.hypot(x - at.x, y - at.y)))).toBeLessThan(
					0.6
				);
			}
			for (const [from, to] of [
				[
					{ x: -60, y: 20 },
					{ x: 230, y: 150 }
				],
				[
					{ x: 40, y: -50 },
					{ x: 60, y: 190 }
				]
			] as const) {
				const ends = [onPlane(laid, from), onPlane(laid, to)];
				const length = lengthIn(
					plane,
					ends.map((end) => seenBy(camera, end)),
					0.001,
					values
				);
				const truth = Math.hypot(to.x - from.x, to.y - from.y);
				expect(Math.abs((length?.mm ?? NaN) / truth - 1), `${seed}`).toBeLessThan(0.005);
				inside.push(Math.abs((length?.mm ?? NaN) - truth) <= (length?.errorMm ?? 0));
			}
		}
		// What it says of its own error holds.
		expect(inside.filter(Boolean).length / inside.length).toBeGreaterThanOrEqual(0.85);
	});

	it('does with three markers, and says why with two, with none, out of focus or from the side', async () => {
		const { camera, laid, taken } = sceneOf(204, WIDTH_PX);
		const straight = { ...camera, tiltDeg: 12 };
		const covering = (...ids: number[]) =>
			withCard(soil(5), laid, ({ x, y }) =>
				ids.some((id) => {
					const [from, , to] = markerCorners(id);
					return from && to && x > from.x + 8 && x < to.x + 8 && y > from.y - 8 && y < to.y - 8;
				})
			);
		const three = found(await photograph(straight, covering(1), taken));
		expect(three.markers).toBe(3);
		expect(Math.abs((three.plane.tiltDeg ?? NaN) - 12)).toBeLessThan(1.5);
		expect(findCard(await photograph(straight, covering(1, 2), taken), values)).toBe('no-card');
		expect(findCard(await photograph(straight, soil(5), taken), values)).toBe('no-card');
		const blurred = await photograph(straight, covering(), { ...taken, blurPx: 1.4 });
		expect(findCard(blurred, resolveValues({ 'picture.blurMost': 0.02 }))).toBe('too-blurred');
		const from = (tiltDeg: number) =>
			photograph({ ...camera, tiltDeg, distanceMm: 450 }, covering(), { ...taken, shadow: 0 });
		expect(findCard(await from(40), resolveValues({ 'picture.tiltMostDeg': 35 }))).toBe('too-tilted');
		// One marker moved: the four lie in no one plane.
		const bent = withCard(soil(5), laid);
		const torn = await photograph(
			straight,
			(at) => bent({ x: at.x + (at.x > laid.at.x ? 12 : 0), y: at.y }),
			taken
		);
		expect(findCard(torn, values)).toBe('no-card');
		// Somewhat out of focus it is found in the smaller picture.
		const soft = found(
			await photograph(straight, covering(), { ...taken, blurPx: 2.2 }),
			resolveValues({ 'picture.blurMost': 0.5 })
		);
		expect(soft.markers).toBeGreaterThanOrEqual(3);
		expect(Math.abs((soft.plane.tiltDeg ?? NaN) - 12)).toBeLessThan(2);
	});
});

const FRAME_PX = 60;
/** With a dark table round it, as a scanner sees it. */
async function framed({ width, height, data }: Rgba): Promise<Rgba> {
	const out = await sharp(Buffer.from(data), { raw: { width, height, channels: 4 } })
		.extend({ top: FRAME_PX, bottom: FRAME_PX, left: FRAME_PX, right: FRAME_PX, background: '#555555' })
		.raw()
		.toBuffer({ resolveWithObject: true });
	return { width: out.info.width, height: out.info.height, data: out.data };
}

describe('two points a known distance apart', () => {
	const picture = { widthPx: 2000, heightPx: 1500 };
	const scale = (apartPx: number, mm: number): Plane => {
		const plane = scaleOf(
			[
				{ x: 100, y: 100 },
				{ x: 100 + apartPx * 0.6, y: 100 + apartPx * 0.8 }
			],
			mm,
			picture,
			values
		);
		if (typeof plane === 'string') throw new Error(plane);
		return plane;
	};
	it('tell the scale, say that tilt is not corrected, and carry their own error', () => {
		const plane = scale(500, 100);
		expect(plane.tiltDeg).toBeNull();
		expect(plane.distanceMm).toBeCloseTo((values['picture.focalShare'] * 2000 * 100) / 500, 6);
		const line = [
			{ x: 900, y: 900 },
			{ x: 1900, y: 900 }
		];
		const length = lengthIn(plane, line, 1, values);
		expect(length?.mm).toBeCloseTo(200, 9);
		// Each end off by 1 px: √2 px of 1000 and of 500, to 95 of 100.
		const share = Math.hypot(Math.SQRT2 / 1000, Math.SQRT2 / 500);
		expect((length?.errorMm ?? NaN) / 200).toBeCloseTo(1.959964 * share, 6);
	});
	it('are refused where they lie on each other', () => {
		const at = { x: 5, y: 5 };
		expect(scaleOf([at, at], 100, picture, values)).toBe('too-small');
		expect(
			scaleOf([at, { x: 5 + values['picture.smallestShare'] * 2000 - 1, y: 5 }], 100, picture, values)
		).toBe('too-small');
	});
	it('read a tilted plane wrong, where four corners read it right', () => {
		const camera = { ...sceneOf(1, 2000).camera, tiltDeg: 30, towardDeg: 0, rollDeg: 0 };
		const at = (x: number, y: number) => seenBy(camera, { x, y });
		const size = { widthPx: camera.widthPx, heightPx: camera.heightPx };
		const four = planeOf(
			[at(0, 0), at(80, 0), at(80, 50), at(0, 50)],
			{ widthMm: 80, heightMm: 50 },
			size,
			values
		);
		const two = scaleOf([at(0, 0), at(80, 0)], 80, size, values);
		if (typeof four === 'string' || typeof two === 'string') throw new Error('no plane');
		const down = [at(0, -40), at(0, 60)];
		expect(lengthIn(four, down, 0.5, values)?.mm).toBeCloseTo(100, 4);
		expect(lengthIn(two, down, 0.5, values)?.mm).toBeLessThan(92);
	});
});

describe('pictures in shades of grey', () => {
	it('weigh red, green and blue as ITU-R BT.601 does, become smaller by the mean, and are read between pixels', () => {
		const rgba = {
			width: 2,
			height: 2,
			data: new Uint8ClampedArray([255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 255, 255, 255, 255])
		};
		const grey = greyOf(rgba);
		expect([...grey.data].map(Math.round)).toEqual([76, 150, 29, 255]);
		expect(smaller(grey, 2).data[0]).toBeCloseTo((76.245 + 149.685 + 29.07 + 255) / 4, 3);
		expect(smaller(grey, 1)).toBe(grey);
		expect(shadeAt(grey, 0.5, 0.5)).toBeCloseTo(76.245, 3);
		expect(shadeAt(grey, 1, 1)).toBeCloseTo((76.245 + 149.685 + 29.07 + 255) / 4, 3);
		expect(shadeAt(grey, 1.25, 0.5)).toBeCloseTo(0.25 * 76.245 + 0.75 * 149.685, 3);
		// Beyond the edge as at the edge.
		expect(shadeAt(grey, 9, 9)).toBeCloseTo(255, 3);
		expect(shadeAt(grey, -9, -9)).toBeCloseTo(76.245, 3);
	});
});
