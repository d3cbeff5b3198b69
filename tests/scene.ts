import sharp from 'sharp';
import { card, cardLightness } from '$core/examine/pictures/card';
import { homographyOf, seenAt, type Homography, type Point2 } from '$core/examine/pictures/plane';
import type { Rgba } from '$core/examine/pictures/raster';
import { seenBy, type Pinhole } from './pinhole';

/* Pictures with a known truth: a plane of soil with the printed card on it, as a phone would take it. Tests and the bench only. */

/** Numbers 0 … 1 from a seed, the same each time. @see Steele, Lea & Flood 2014 (SplitMix) */
export function dice(seed: number): () => number {
	let state = seed >>> 0;
	return () => {
		state = (state + 0x9e3779b9) >>> 0;
		let z = state;
		z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
		z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
		return ((z ^ (z >>> 15)) >>> 0) / 2 ** 32;
	};
}

const lattice = (x: number, y: number, seed: number): number => {
	let h = Math.imul(x | 0, 0x27d4eb2d) ^ Math.imul(y | 0, 0x165667b1) ^ Math.imul(seed, 0x9e3779b1);
	h = Math.imul(h ^ (h >>> 15), 0x85ebca6b);
	return ((h ^ (h >>> 13)) >>> 0) / 2 ** 32;
};
/** Smoothly between four corners, from the first of them on. */
function within(u: number, v: number, a: number, b: number, c: number, d: number): number {
	const [s, t] = [u * u * (3 - 2 * u), v * v * (3 - 2 * v)];
	return (a * (1 - s) + b * s) * (1 - t) + (c * (1 - s) + d * s) * t;
}
/** Smooth noise 0 … 1 over a plane, its grains about a unit wide. */
export function noise(x: number, y: number, seed: number): number {
	const [x0, y0] = [Math.floor(x), Math.floor(y)];
	return within(
		x - x0,
		y - y0,
		lattice(x0, y0, seed),
		lattice(x0 + 1, y0, seed),
		lattice(x0, y0 + 1, seed),
		lattice(x0 + 1, y0 + 1, seed)
	);
}
/** The same, where places beside each other are asked for in turn: it remembers the corners round the last one. */
export function noiseOf(seed: number): (x: number, y: number) => number {
	let [x0, y0] = [NaN, NaN];
	let [a, b, c, d] = [0, 0, 0, 0];
	return (x, y) => {
		if (Math.floor(x) !== x0 || Math.floor(y) !== y0) {
			x0 = Math.floor(x);
			y0 = Math.floor(y);
			a = lattice(x0, y0, seed);
			b = lattice(x0 + 1, y0, seed);
			c = lattice(x0, y0 + 1, seed);
			d = lattice(x0 + 1, y0 + 1, seed);
		}
		return within(x - x0, y - y0, a, b, c, d);
	};
}

/** What lies where on the plane, mm from its middle: shade 0 … 1 of red, green and blue. */
export type Painted = (at: Point2) => readonly [number, number, number];

/** Soil with crumbs and stones. */
export function soil(seed: number): Painted {
	const [fine, coarse, stones] = [noiseOf(seed), noiseOf(seed + 1), noiseOf(seed + 2)];
	return ({ x, y }) => {
		const crumbs = 0.5 * fine(x / 3, y / 3) + 0.5 * coarse(x / 14, y / 14);
		const stone = stones(x / 11, y / 11) > 0.86 ? 0.25 : 0;
		const shade = 0.16 + 0.2 * crumbs + stone;
		return [shade * 1.15, shade, shade * 0.8];
	};
}

/** Where the card lies: its middle, mm from that of the plane, and how it is turned. */
export interface Laid {
	at: Point2;
	turnDeg: number;
}

/** A point of the card as a point of the plane. */
export function onPlane({ at, turnDeg }: Laid, { x, y }: Point2): Point2 {
	const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
	const [u, v] = [x - card.widthMm / 2, y - card.heightMm / 2];
	return { x: at.x + c * u - s * v, y: at.y + s * u + c * v };
}

/** The card over what lies under it. */
export function withCard(
	under: Painted,
	{ at, turnDeg }: Laid,
	covered: (onCard: Point2) => boolean = () => false
): Painted {
	const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
	const far = Math.hypot(card.widthMm, card.heightMm) / 2;
	return (point) => {
		const [u, v] = [point.x - at.x, point.y - at.y];
		if (u * u + v * v > far * far) return under(point);
		const onCard = { x: c * u + s * v + card.widthMm / 2, y: -s * u + c * v + card.heightMm / 2 };
		const light = cardLightness(onCard);
		if (light === null || covered(onCard)) return under(point);
		const shade = 0.05 + 0.87 * light;
		return [shade, shade, shade];
	};
}

/** How a picture was taken, beside where from. */
export interface Taken {
	seed: number;
	/** Out of focus, deviation in px. */
	blurPx: number;
	/** Grain of the sensor, deviation of 255. */
	grain: number;
	/** A shadow over a part of it, 0 none … 1 black. */
	shadow: number;
	/** Quality of the JPEG, 1 … 100. */
	quality: number;
}

/** From pixels to the plane that a camera looks at. */
export function toPlane(camera: Pinhole): Homography {
	const plane = [
		{ x: -300, y: -300 },
		{ x: 300, y: -300 },
		{ x: 300, y: 300 },
		{ x: -300, y: 300 }
	];
	const found = homographyOf(
		plane.map((point) => seenBy(camera, point)),
		plane
	);
	if (!found) throw new Error('The camera looks along the plane.');
	return found;
}

/** What stands on the plane as the camera sees it, two samples to a pixel each way: its colour where it stands, and its shadow where it does not. */
export interface Drawn {
	colour: Float32Array;
	/** How far away it is, mm; infinite where only the plane is seen. */
	far: Float32Array;
	/** Light that reaches the plane, 0 … 1. */
	shade: Float32Array;
}

/** The picture that a camera takes of a painted plane and what stands on it, through lens, sensor and file. */
export async function photograph(
	camera: Pinhole,
	painted: Painted,
	taken: Taken,
	drawn: Drawn | null = null
): Promise<Rgba> {
	const { widthPx, heightPx } = camera;
	const back = toPlane(camera);
	const random = dice(taken.seed);
	const raw = Buffer.alloc(3 * widthPx * heightPx);
	const edgeX = widthPx * (0.3 + 0.4 * random());
	for (let y = 0; y < heightPx; y++)
		for (let x = 0; x < widthPx; x++) {
			let [red, green, blue] = [0, 0, 0];
			for (let corner = 0; corner < 4; corner++) {
				const [right, below] = [corner % 2, corner >> 1];
				const at = (2 * y + below) * 2 * widthPx + 2 * x + right;
				if (drawn !== null && (drawn.far[at] ?? Infinity) < Infinity) {
					red += (drawn.colour[3 * at] ?? 0) / 4;
					green += (drawn.colour[3 * at + 1] ?? 0) / 4;
					blue += (drawn.colour[3 * at + 2] ?? 0) / 4;
				} else {
					const shade = painted(seenAt(back, { x: x + 0.25 + right / 2, y: y + 0.25 + below / 2 }));
					const left = (drawn?.shade[at] ?? 1) / 4;
					red += shade[0] * left;
					green += shade[1] * left;
					blue += shade[2] * left;
				}
			}
			const light = (x + 0.4 * y < edgeX ? 1 - taken.shadow : 1) * (0.85 + (0.15 * x) / widthPx);
			const i = 3 * (y * widthPx + x);
			raw[i] = Math.min(255, 255 * Math.sqrt(red * light));
			raw[i + 1] = Math.min(255, 255 * Math.sqrt(green * light));
			raw[i + 2] = Math.min(255, 255 * Math.sqrt(blue * light));
		}
	const lens = sharp(raw, { raw: { width: widthPx, height: heightPx, channels: 3 } });
	const seen = await (taken.blurPx >= 0.3 ? lens.blur(taken.blurPx) : lens).raw().toBuffer();
	for (let i = 0; i < seen.length; i++) {
		const grain = (random() + random() + random() - 1.5) * 2 * taken.grain;
		seen[i] = Math.max(0, Math.min(255, (seen[i] ?? 0) + grain));
	}
	const file = await sharp(seen, { raw: { width: widthPx, height: heightPx, channels: 3 } })
		.jpeg({ quality: taken.quality })
		.toBuffer();
	const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
	return { width: info.width, height: info.height, data };
}

/** A scene drawn by its seed: tilt 0 to 35°, soil, shadow, blur, grain, JPEG. */
export function sceneOf(seed: number, widthPx = 1200): { camera: Pinhole; laid: Laid; taken: Taken } {
	const random = dice(seed);
	const between = (from: number, to: number): number => from + (to - from) * random();
	const heightPx = Math.round(0.75 * widthPx);
	return {
		camera: {
			tiltDeg: between(0, 35),
			towardDeg: between(0, 360),
			rollDeg: between(0, 360),
			distanceMm: between(450, 800),
			focalPx: 0.72 * widthPx,
			widthPx,
			heightPx
		},
		laid: { at: { x: between(-60, 60), y: between(-40, 40) }, turnDeg: between(0, 360) },
		taken: {
			seed,
			blurPx: between(0, widthPx / 1000),
			grain: between(1, 7),
			shadow: between(0, 0.6),
			quality: Math.round(between(60, 92))
		}
	};
}
