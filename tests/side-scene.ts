import type { Point2 } from '$core/examine/pictures/plane';
import type { Rgba } from '$core/examine/pictures/raster';
import { turnDeg } from '$core/maths/circular';
import { seenBy, type Pinhole } from './pinhole';
import type { RootScene } from './root-scene';
import { dice, noise, photograph, withCard, type Drawn } from './scene';

/* A trunk seen from the side before a wall, its roots leaving it at known depths, the card upright beside it. Tests and the demo only. */

export interface SideRoot {
	azimuthDeg: number;
	depthMm: number;
	diameterMm: number;
}
export interface SideScene {
	camera: Pinhole;
	/** Where the two edges of the trunk meet its flare, px. */
	edges: [Point2, Point2];
	/** Roots that grow towards the camera, and where the middle of their base is seen, px. */
	roots: readonly (SideRoot & { seen: Point2 })[];
	draw(): Promise<Rgba>;
}

const rad = (deg: number): number => (deg * Math.PI) / 180;

/** The roots of a scene from above as they are seen from the front, azimuth 0, on a trunk of its own thickness. */
export function sideSceneOf(
	{ roots }: RootScene,
	trunkRadiusMm: number,
	seed: number,
	widthPx = 1600
): SideScene {
	const random = dice(seed);
	const camera: Pinhole = {
		tiltDeg: 12,
		towardDeg: 20,
		rollDeg: -20,
		distanceMm: 450,
		focalPx: 0.72 * widthPx,
		widthPx,
		heightPx: 0.75 * widthPx
	};
	const place = (azimuthDeg: number, far: number): { x: number; towardMm: number } => ({
		x: -far * Math.sin(rad(azimuthDeg)),
		towardMm: far * Math.cos(rad(azimuthDeg))
	});
	const all = roots
		.filter(({ parent }) => parent === null)
		.map(({ points: [base], diameterStartMm }) => ({
			azimuthDeg: turnDeg(0, (Math.atan2(base?.x ?? 0, -(base?.y ?? 1)) * 180) / Math.PI),
			depthMm: 6 + 40 * random(),
			diameterMm: diameterStartMm
		}));
	const layer = (): Drawn => {
		const [width, height] = [2 * camera.widthPx, 2 * camera.heightPx];
		const colour = new Float32Array(3 * width * height);
		const far = new Float32Array(width * height).fill(Infinity);
		const shade = new Float32Array(width * height).fill(1);
		const ball = (at: Point2, towardMm: number, radiusMm: number, tone: number): void => {
			const middle = seenBy(camera, at, towardMm);
			const edge = seenBy(camera, { x: at.x + radiusMm, y: at.y }, towardMm);
			const r = 2 * Math.hypot(edge.x - middle.x, edge.y - middle.y);
			for (let y = Math.max(0, Math.floor(2 * middle.y - r)); y < Math.min(height, 2 * middle.y + r); y++)
				for (let x = Math.max(0, Math.floor(2 * middle.x - r)); x < Math.min(width, 2 * middle.x + r); x++) {
					const [u, v] = [(x - 2 * middle.x) / r, (y - 2 * middle.y) / r];
					if (u * u + v * v > 1) continue;
					const w = Math.sqrt(1 - u * u - v * v);
					const away = 2000 - towardMm - w * radiusMm;
					const to = y * width + x;
					if (away >= (far[to] ?? 0)) continue;
					far[to] = away;
					const grain = 0.75 + 0.5 * noise(at.x / 6 + 3 * u, at.y / 9 + 2 * v, seed);
					const lit = tone * grain * (0.35 + 0.45 * w + 0.2 * Math.max(0, -u - v));
					[0.62, 0.5, 0.36].forEach((part, i) => (colour[3 * to + i] = part * lit));
				}
		};
		for (let y = -190; y <= 0; y += 2)
			ball({ x: 0, y: y - trunkRadiusMm * 0.2 }, 0, trunkRadiusMm * (1 - 0.04 * Math.min(1, -y / 60)), 0.8);
		for (const { azimuthDeg, depthMm, diameterMm } of all)
			for (let out = -0.5 * trunkRadiusMm; out < 150; out += 1.5) {
				const { x, towardMm } = place(azimuthDeg, trunkRadiusMm + out);
				const sinks = (Math.max(0, out) / 150) ** 2 * 70;
				const radiusMm = (diameterMm / 2) * (1 - 0.6 * (Math.max(0, out) / 150));
				ball({ x, y: depthMm + sinks }, towardMm, radiusMm, 1);
			}
		// What is left of the ball: soil that holds the roots from below.
		for (let i = 0; i < 900; i++) {
			const { x, towardMm } = place(180 * (random() - 0.5), trunkRadiusMm * random() * 0.9);
			ball({ x, y: 42 + 50 * random() }, towardMm, 3 + 6 * random(), 0.35);
		}
		return { colour, far, shade };
	};
	const wall = ({ x, y }: Point2): readonly [number, number, number] => {
		const shadeOf = 0.42 + 0.12 * noise(x / 60, y / 60, seed + 1) + 0.04 * noise(x / 4, y / 4, seed + 2);
		return [shadeOf * 0.95, shadeOf, shadeOf * 0.98];
	};
	const card = { at: { x: trunkRadiusMm + 140, y: -40 }, turnDeg: 2 };
	return {
		camera,
		edges: [seenBy(camera, { x: -trunkRadiusMm, y: 0 }), seenBy(camera, { x: trunkRadiusMm, y: 0 })],
		roots: all
			.filter(({ azimuthDeg }) => Math.abs(azimuthDeg) < 70)
			.map((root) => {
				const { x, towardMm } = place(root.azimuthDeg, trunkRadiusMm);
				return { ...root, seen: seenBy(camera, { x, y: root.depthMm }, towardMm) };
			}),
		draw: () =>
			photograph(
				camera,
				withCard(wall, card),
				{ seed, blurPx: 0.8, grain: 4, shadow: 0.1, quality: 88 },
				layer()
			)
	};
}
