import type { Rgba } from '$core/examine/pictures/raster';
import { card, cardCorners } from '$core/examine/pictures/card';
import type { Point2 } from '$core/examine/pictures/plane';
import { seenBy, type Pinhole } from './pinhole';
import {
	dice,
	noise,
	onPlane,
	photograph,
	sceneOf,
	soil,
	withCard,
	type Drawn,
	type Laid,
	type Taken
} from './scene';

/* Root bases with a known truth: tapering roots round a trunk, in soil, with their shadows, under soil and stones. Tests and the bench only. */

/** A point along a root: in the plane, and how high its middle lies above it. */
export interface RootPoint extends Point2 {
	aboveMm: number;
	radiusMm: number;
	alongMm: number;
}
export interface TrueRoot {
	/** The one that it leaves, by its place in the list; null for the trunk. */
	parent: number | null;
	points: readonly RootPoint[];
	/** As far as it shows: beyond it lies in soil. */
	lengthMm: number;
	/** As it comes out of trunk or root, and where it goes into the soil. */
	diameterStartMm: number;
	diameterEndMm: number;
	/** Whether soil or a stone hides so much of it that nobody would measure it. */
	hidden: boolean;
}
export interface RootScene {
	camera: Pinhole;
	laid: Laid;
	taken: Taken;
	trunkRadiusMm: number;
	roots: readonly TrueRoot[];
	draw(): Promise<Rgba>;
}

/** Twenty shapes of a root system: how many roots, how bent, how many sides, how thick, on one side or round. */
const shapes = Array.from({ length: 20 }, (_, i) => ({
	count: [4, 6, 8, 10, 13][i % 5] ?? 6,
	bend: [0.15, 0.5, 0.9, 1.4][i % 4] ?? 0.5,
	sides: [0, 1, 2][i % 3] ?? 0,
	thick: i % 7 < 3 ? 0.45 : 0.28,
	spreadDeg: i % 6 === 5 ? 220 : 360,
	girdler: i % 10 === 7
}));

/** A root system by its seed, its shape among twenty. */
export function rootSceneOf(seed: number, widthPx = 1600): RootScene {
	const random = dice(seed * 7919 + 13);
	const between = (from: number, to: number): number => from + (to - from) * random();
	const base = sceneOf(seed, widthPx);
	let camera: Pinhole = { ...base.camera, distanceMm: between(600, 850) };
	const shape = shapes[seed % shapes.length] ?? shapes[0];
	if (!shape) throw new Error('No shape.');
	const trunkRadiusMm = between(22, 48);
	const roots: TrueRoot[] = [];
	const from = between(0, 360);
	for (let i = 0; i < shape.count; i++) {
		const deg = from + ((i + between(-0.25, 0.25)) * shape.spreadDeg) / shape.count;
		const diameter = between(0.35, 1) * shape.thick * 2 * trunkRadiusMm;
		const length = Math.min(between(5, 12) * diameter + 60, 330);
		const bend = between(-1, 1) * shape.bend;
		roots.push(
			grown(
				{ x: trunkRadiusMm * Math.sin(rad(deg)), y: -trunkRadiusMm * Math.cos(rad(deg)) },
				deg,
				bend,
				diameter,
				length,
				null,
				random
			)
		);
	}
	if (shape.girdler) {
		const deg = between(0, 360);
		const at = { x: trunkRadiusMm * Math.sin(rad(deg)), y: -trunkRadiusMm * Math.cos(rad(deg)) };
		roots.push(grown(at, deg + 40, 2.2, between(8, 14), 190, null, random));
	}
	for (const [parent, of] of [...roots].entries())
		for (let i = 0; i < shape.sides; i++) {
			const at = of.points[Math.floor(between(0.35, 0.75) * of.points.length)];
			const next = at && of.points[of.points.indexOf(at) + 1];
			if (!at || !next || at.radiusMm < 3.5) continue;
			const way = (Math.atan2(next.x - at.x, -(next.y - at.y)) * 180) / Math.PI;
			const side = random() < 0.5 ? -1 : 1;
			roots.push(
				grown(
					at,
					way + side * between(35, 75),
					side * between(0, 0.6),
					between(0.45, 0.75) * 2 * at.radiusMm,
					between(50, 130),
					parent,
					random
				)
			);
		}
	// From so far that the card is whole in the picture too.
	const turnDeg = between(0, 360);
	let laid = besideRoots(camera, trunkRadiusMm, roots, turnDeg);
	while (!laid) {
		camera = { ...camera, distanceMm: camera.distanceMm + 60 };
		laid = besideRoots(camera, trunkRadiusMm, roots, turnDeg);
	}
	const beside = laid;
	const stones = Array.from({ length: Math.floor(between(0, 7)) }, () => {
		const [deg, far] = [between(0, 360), between(trunkRadiusMm + 40, 260)];
		return { x: far * Math.sin(rad(deg)), y: -far * Math.cos(rad(deg)), radiusMm: between(5, 16) };
	});
	const heaps = Array.from({ length: Math.floor(between(0, 4)) }, () => {
		const [deg, far] = [between(0, 360), between(trunkRadiusMm + 60, 260)];
		return { x: far * Math.sin(rad(deg)), y: -far * Math.cos(rad(deg)), radiusMm: between(15, 40) };
	});
	const under = (root: TrueRoot): boolean =>
		shareOf(
			root.points,
			({ x, y, alongMm }) =>
				alongMm <= root.lengthMm &&
				([...stones, ...heaps].some((one) => Math.hypot(one.x - x, one.y - y) < one.radiusMm) ||
					onCard(beside, { x, y }) ||
					beyond(camera, { x, y }))
		) > 0.25;
	const layer = drawn(camera, seed, trunkRadiusMm, roots, stones, heaps, beside, random);
	const behind = (root: TrueRoot): boolean =>
		shareOf(
			root.points.filter(({ alongMm }) => alongMm <= root.lengthMm),
			(at) => {
				const { x, y } = seenBy(camera, at, at.aboveMm);
				const far = layer.far[2 * Math.round(y) * 2 * camera.widthPx + 2 * Math.round(x)] ?? 0;
				return far < screenAxes(camera, at).away - 1.5 * at.radiusMm;
			}
		) > 0.25;
	return {
		camera,
		laid: beside,
		taken: base.taken,
		trunkRadiusMm,
		roots: roots.map((root) => ({ ...root, hidden: under(root) || behind(root) })),
		draw: () => photograph(camera, withCard(soil(seed), beside), base.taken, layer)
	};
}
/** What a person would tell of a scene before its roots are read. */
export const toldOf = (scene: RootScene) => ({
	barkMm: () => scene.trunkRadiusMm,
	trunkDiameterMm: 2 * scene.trunkRadiusMm,
	reachMm: 400,
	shown: []
});
const rad = (deg: number): number => (deg * Math.PI) / 180;
const shareOf = <T>(all: readonly T[], is: (one: T) => boolean): number => all.filter(is).length / all.length;

/** A root that grows from a place: bends evenly, tapers, lies half in the soil and goes into it at its end. */
function grown(
	from: Point2,
	towardDeg: number,
	bend: number,
	diameterMm: number,
	seenMm: number,
	parent: number | null,
	random: () => number
): TrueRoot {
	const endMm = Math.max(2, diameterMm * (0.3 + 0.25 * random()));
	const dive = Math.max(12, diameterMm);
	const wave = { size: 0.12 * random(), long: 40 + 60 * random(), at: 6 * random() };
	const high = 0.1 + 0.5 * random();
	const points: RootPoint[] = [];
	let { x, y } = from;
	for (let along = 0; along <= seenMm + dive; along += 1) {
		const t = Math.min(1, along / seenMm);
		const radiusMm = (diameterMm + (endMm - diameterMm) * t) / 2;
		const sunk = Math.max(0, along - seenMm) / dive;
		points.push({ x, y, alongMm: along, radiusMm, aboveMm: high * radiusMm - sunk * (1 + high) * radiusMm });
		const deg =
			towardDeg + ((bend * along) / seenMm) * 57.3 + wave.size * 57.3 * Math.sin(along / wave.long + wave.at);
		x += Math.sin(rad(deg));
		y -= Math.cos(rad(deg));
	}
	// It shows until its middle lies so deep that little more than its back is left.
	const lengthMm = points.find(({ aboveMm, radiusMm }) => aboveMm < -0.5 * radiusMm)?.alongMm ?? seenMm;
	return {
		parent,
		points,
		lengthMm,
		diameterStartMm: diameterMm,
		diameterEndMm: endMm,
		hidden: false
	};
}

/** The card beside the trunk, whole in the picture, where it covers the least of the roots. */
function besideRoots(
	camera: Pinhole,
	trunkRadiusMm: number,
	roots: readonly TrueRoot[],
	turnDeg: number
): Laid | null {
	let best: { laid: Laid; covers: number } | null = null;
	for (let deg = 0; deg < 360; deg += 12)
		for (const far of [150, 180, 210]) {
			const laid = {
				at: { x: (trunkRadiusMm + far) * Math.sin(rad(deg)), y: -(trunkRadiusMm + far) * Math.cos(rad(deg)) },
				turnDeg
			};
			if (cardCorners().some((corner) => beyond(camera, onPlane(laid, corner)))) continue;
			const covers = roots.flatMap(({ points }) => points).filter((point) => onCard(laid, point)).length;
			if (!best || covers < best.covers) best = { laid, covers };
		}
	return best?.laid ?? null;
}
const onCard = ({ at, turnDeg }: Laid, { x, y }: Point2): boolean => {
	const [c, s] = [Math.cos(rad(turnDeg)), Math.sin(rad(turnDeg))];
	const [u, v] = [x - at.x, y - at.y];
	return Math.abs(c * u + s * v) < card.widthMm / 2 && Math.abs(-s * u + c * v) < card.heightMm / 2;
};
const beyond = (camera: Pinhole, at: Point2): boolean => {
	const { x, y } = seenBy(camera, at);
	return x < 8 || y < 8 || x > camera.widthPx - 8 || y > camera.heightPx - 8;
};

/** Roots, trunk, stones and heaps as the camera sees them, two samples to a pixel each way. */
function drawn(
	camera: Pinhole,
	seed: number,
	trunkRadiusMm: number,
	roots: readonly TrueRoot[],
	stones: readonly (Point2 & { radiusMm: number })[],
	heaps: readonly (Point2 & { radiusMm: number })[],
	laid: Laid,
	random: () => number
): Drawn {
	const [width, height] = [2 * camera.widthPx, 2 * camera.heightPx];
	const colour = new Float32Array(3 * width * height);
	const far = new Float32Array(width * height).fill(Infinity);
	const shade = new Float32Array(width * height).fill(1);
	const sun = { x: 0.5 * (random() - 0.5), y: 0.5 * (random() - 0.5) };
	const light = normalised([-sun.x * 1.6, -sun.y * 1.6, 1]);
	const tint: Vector = [0.42 + 0.18 * random(), 0.33 + 0.12 * random(), 0.22 + 0.1 * random()];
	const ball = (at: RootPoint, albedo: (nx: number, ny: number) => Vector, sinks: boolean): void => {
		const middle = seenBy(camera, at, at.aboveMm);
		const edge = [1, 0, -1].flatMap((dx) =>
			[1, 0, -1].map((dy) => ({ x: at.x + dx * at.radiusMm, y: at.y + dy * at.radiusMm }))
		);
		const radius = Math.max(
			...edge.map((point) => {
				const seen = seenBy(camera, point, at.aboveMm);
				const off = Math.hypot(point.x - at.x, point.y - at.y);
				return off > 0 ? (Math.hypot(seen.x - middle.x, seen.y - middle.y) * at.radiusMm) / off : 0;
			})
		);
		const [cx, cy, r] = [2 * middle.x, 2 * middle.y, 2 * radius];
		const axes = screenAxes(camera, at);
		for (let y = Math.max(0, Math.floor(cy - r)); y < Math.min(height, cy + r); y++)
			for (let x = Math.max(0, Math.floor(cx - r)); x < Math.min(width, cx + r); x++) {
				const u = (x + 0.5 - cx) / r;
				const v = (y + 0.5 - cy) / r;
				const out = u * u + v * v;
				if (out > 1) continue;
				const w = Math.sqrt(1 - out);
				const to = y * width + x;
				const away = axes.away - w * at.radiusMm;
				if (away >= (far[to] ?? 0)) continue;
				// The normal in the plane's own directions.
				const nx = u * axes.right[0] + v * axes.down[0] + w * axes.toward[0];
				const ny = u * axes.right[1] + v * axes.down[1] + w * axes.toward[1];
				const nz = u * axes.right[2] + v * axes.down[2] + w * axes.toward[2];
				const high = at.aboveMm + nz * at.radiusMm;
				if (sinks && high < 0.8 * (noise(at.x / 2 + u, at.y / 2 + v, seed + 5) - 0.5)) continue;
				far[to] = away;
				// Half of the light comes from all over the sky.
				const lit = 0.4 + 0.15 * nz + 0.45 * Math.max(0, nx * light[0] + ny * light[1] + nz * light[2]);
				const own = albedo(nx, ny);
				colour[3 * to] = own[0] * lit;
				colour[3 * to + 1] = own[1] * lit;
				colour[3 * to + 2] = own[2] * lit;
			}
	};
	const shadow = (at: RootPoint): void => {
		if (at.aboveMm < -0.5 * at.radiusMm) return;
		const high = Math.max(0, at.aboveMm + 0.3 * at.radiusMm);
		const middle = seenBy(camera, { x: at.x + sun.x * high * 1.6, y: at.y + sun.y * high * 1.6 });
		const side = seenBy(camera, { x: at.x + sun.x * high * 1.6 + at.radiusMm, y: at.y + sun.y * high * 1.6 });
		const r = 2 * Math.hypot(side.x - middle.x, side.y - middle.y) * 1.05;
		for (let y = Math.max(0, Math.floor(2 * middle.y - r)); y < Math.min(height, 2 * middle.y + r); y++)
			for (let x = Math.max(0, Math.floor(2 * middle.x - r)); x < Math.min(width, 2 * middle.x + r); x++)
				if ((x - 2 * middle.x) ** 2 + (y - 2 * middle.y) ** 2 < r * r) shade[y * width + x] = 0.55;
	};
	for (const [name, { points }] of roots.entries())
		for (let i = 0; i < points.length;) {
			const at = points[i];
			if (!at) break;
			shadow(at);
			ball(
				at,
				(nx, ny) => {
					const grain = 0.75 + 0.5 * noise(at.alongMm / 9 + name * 50, (nx - ny) * 3 + name * 9, seed + 3);
					return scaled(tint, grain);
				},
				true
			);
			i += Math.max(1, Math.floor(at.radiusMm / 4));
		}
	for (let up = 0; up < 90; up += 3) {
		const radiusMm = trunkRadiusMm * (1 + 0.25 * Math.exp(-up / 15)) * (up === 0 ? 0.9 : 1);
		const at = { x: 0, y: 0, aboveMm: up - radiusMm * 0.6, radiusMm: radiusMm * 0.97, alongMm: up };
		ball(at, (nx, ny) => scaled(tint, 0.6 + 0.5 * noise(nx * 6, ny * 6 + up / 20, seed + 4)), false);
	}
	for (const { x, y, radiusMm } of stones) {
		const at = { x, y, radiusMm, aboveMm: 0.2 * radiusMm, alongMm: 0 };
		shadow(at);
		ball(
			at,
			(nx, ny) => scaled([0.42, 0.42, 0.4], 0.7 + 0.5 * noise(nx * 4 + x, ny * 4 + y, seed + 6)),
			true
		);
	}
	const ground = soil(seed + 40) as (at: Point2) => Vector;
	for (const { x, y, radiusMm } of heaps)
		for (let i = 0; i < 160; i++) {
			const [turn, out] = [random() * 2 * Math.PI, Math.sqrt(random()) * radiusMm];
			const at = { x: x + out * Math.cos(turn), y: y + out * Math.sin(turn) };
			if (Math.hypot(at.x, at.y) < trunkRadiusMm + 5 || onCard(laid, at)) continue;
			const crumb = 2 + 4 * random();
			ball(
				{ ...at, radiusMm: crumb, aboveMm: 14 * (1 - out / radiusMm), alongMm: 0 },
				() => ground(at),
				true
			);
		}
	return { colour, far, shade };
}

type Vector = [number, number, number];
const normalised = ([x, y, z]: Vector): Vector => {
	const long = Math.hypot(x, y, z);
	return [x / long, y / long, z / long];
};
/** What is right, down and toward the camera on the screen, in directions of the plane; and how far away a place is, mm. */
function screenAxes(
	camera: Pinhole,
	at: RootPoint
): { right: Vector; down: Vector; toward: Vector; away: number } {
	const [t, w, r] = [camera.tiltDeg, camera.towardDeg, camera.rollDeg].map(rad) as [number, number, number];
	// The rows of roll · tilt · toward, applied to (x, y, −above).
	const z = (a: number): Vector[] => [
		[Math.cos(a), -Math.sin(a), 0],
		[Math.sin(a), Math.cos(a), 0],
		[0, 0, 1]
	];
	const tilt: Vector[] = [
		[1, 0, 0],
		[0, Math.cos(t), -Math.sin(t)],
		[0, Math.sin(t), Math.cos(t)]
	];
	const whole = times(z(r), times(tilt, z(w)));
	const row = (i: number): Vector => {
		const [a, b, c] = whole[i] ?? [0, 0, 0];
		return [a, b, -c];
	};
	const [x, y, depth] = [row(0), row(1), row(2)];
	const away = depth[0] * at.x + depth[1] * at.y + depth[2] * at.aboveMm + camera.distanceMm;
	return { right: x, down: y, toward: [-depth[0], -depth[1], -depth[2]], away };
}
const times = (a: readonly Vector[], b: readonly Vector[]): Vector[] =>
	a.map(
		(row) => [0, 1, 2].map((j) => row.reduce((sum, value, k) => sum + value * (b[k]?.[j] ?? 0), 0)) as Vector
	);
const scaled = ([a, b, c]: Vector, by: number): Vector => [a * by, b * by, c * by];
