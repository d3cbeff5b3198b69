import type { Point2 } from '$core/examine/pictures/plane';
import type { Rgba } from '$core/examine/pictures/raster';
import { seenBy, type Pinhole } from './pinhole';
import { dice, noise, noiseOf, photograph, withCard, type Painted, type Taken } from './scene';

/* A crown before a wall with a known share of leaf, on two days: from nearly the same place, in other light, with other leaves. Tests, bench and demo only. */

/** One day of a crown. */
export interface CrownDay {
	camera: Pinhole;
	taken: Taken;
	/** Share of the loop that is leaf, by what was drawn. */
	cover: number;
	/** The loop round the crown, px. */
	loop: readonly Point2[];
	/** Where a place of the wall is seen, px; towards the camera where it stands before the wall. */
	seen(at: Point2, aboveMm?: number): Point2;
	draw(): Promise<Rgba>;
}

/** How one day differs from another. */
export interface DayTold {
	/** How many of the leaves that the crown can carry are there, 0 … 1. */
	leaves: number;
	/** How far the camera went, as share of what is usual between two days; 0 nowhere. */
	moved: number;
	/** Light of the day: red, green, blue. */
	cast: readonly [number, number, number];
	/** Leaves are so much paler, 0 as they are … 1 yellow. */
	pale: number;
	/** Length of a shoot that stands out at the top, mm. */
	shootMm: number;
}

const LEAVES = 1300;
export const CROWN_MM = 230;
const FIELD_MM = 24;
const rad = (deg: number): number => (deg * Math.PI) / 180;

interface Leaf extends Point2 {
	deg: number;
	longMm: number;
	shade: number;
	yellow: number;
}

/** Boards with grain and knots, a darker floor. */
function wall(seed: number): Painted {
	const [fibres, knots, stones] = [noiseOf(seed + 3), noiseOf(seed + 5), noiseOf(seed + 9)];
	return ({ x, y }) => {
		const board = Math.floor((x + 1000) / 93);
		const gap = (x + 1000) % 93 < 4 ? 0.45 : 1;
		const grain = 0.7 * noise(x / 4, y / 60, seed + board) + 0.3 * fibres(x / 2, y / 9);
		const knot = knots(x / 17, y / 22) > 0.84 ? 0.55 : 1;
		if (y > 330) {
			const stone = 0.2 + 0.25 * stones(x / 26, y / 12);
			return [stone, stone, 0.95 * stone];
		}
		const shade = (0.34 + 0.2 * grain + 0.05 * noise(board, 0, seed)) * gap * knot;
		return [shade * 1.12, shade, shade * 0.82];
	};
}

/** Trunk, pot and branches: where a place is wood or pot. */
function standing(seed: number): (at: Point2) => readonly [number, number, number] | null {
	const random = dice(seed * 31 + 5);
	const branches = Array.from({ length: 16 }, () => {
		const [deg, from, long] = [-170 + 160 * random(), -20 + 120 * random(), 60 + 130 * random()];
		return {
			x0: 0,
			y0: from,
			x1: long * Math.cos(rad(deg)),
			y1: from + long * Math.sin(rad(deg)),
			half: 2 + 3 * random()
		};
	});
	return ({ x, y }) => {
		if (y > 230 && y < 330 && Math.abs(x) < 105 - 0.12 * (y - 230)) {
			const shade = 0.2 + 0.1 * noise(x / 9, y / 9, seed + 21) + (y < 242 ? 0.12 : 0);
			return [shade * 1.3, shade * 0.85, shade * 0.65];
		}
		const bark = (): readonly [number, number, number] => {
			const shade = 0.16 + 0.14 * noise(x / 3, y / 12, seed + 23);
			return [shade * 1.15, shade, shade * 0.85];
		};
		if (y > -60 && y < 232 && Math.abs(x - 8 * Math.sin(y / 50)) < 9 + 0.03 * (y + 60)) return bark();
		if (Math.abs(x) > 200 || y < -210 || y > 120) return null;
		for (const { x0, y0, x1, y1, half } of branches) {
			const [dx, dy] = [x1 - x0, y1 - y0];
			const t = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy)));
			if (Math.hypot(x - x0 - t * dx, y - y0 - t * dy) < half * (1 - 0.6 * t)) return bark();
		}
		return null;
	};
}

/** A crown by its seed, as it stood on some days. */
export function crownScene(seed: number, days: readonly DayTold[], widthPx = 1400): CrownDay[] {
	const random = dice(seed * 104_729 + 3);
	const between = (from: number, to: number): number => from + (to - from) * random();
	const all: Leaf[] = Array.from({ length: LEAVES }, () => {
		const [far, deg] = [CROWN_MM * Math.sqrt(random()), 360 * random()];
		return {
			x: far * Math.cos(rad(deg)),
			y: 0.9 * far * Math.sin(rad(deg)),
			deg: 360 * random(),
			longMm: 10 + 8 * random(),
			shade: 0.1 + 0.22 * random(),
			yellow: random()
		};
	});
	const towardDeg = between(0, 360);
	const base: Pinhole = {
		tiltDeg: between(0, 6),
		towardDeg,
		rollDeg: between(-3, 3) - towardDeg,
		distanceMm: between(1000, 1200),
		focalPx: 0.72 * widthPx,
		widthPx,
		heightPx: Math.round(0.75 * widthPx)
	};
	const before = wall(seed);
	const wood = standing(seed);
	return days.map(({ leaves, moved, cast, pale, shootMm }, day) => {
		const camera: Pinhole = {
			...base,
			tiltDeg: base.tiltDeg + moved * between(0, 4),
			rollDeg: base.rollDeg + moved * between(-4, 4),
			distanceMm: base.distanceMm * (1 + moved * between(-0.08, 0.08))
		};
		const shift = { x: moved * between(-35, 35), y: moved * between(-25, 25) };
		const jitter = dice(seed * 17 + day);
		const there = all
			.slice(0, Math.round(leaves * LEAVES))
			.map((leaf) => ({ ...leaf, x: leaf.x + 3 * (jitter() - 0.5), y: leaf.y + 3 * (jitter() - 0.5) }));
		const across = Math.ceil((2.2 * CROWN_MM) / FIELD_MM);
		const fieldOf = (value: number): number => Math.floor(value / FIELD_MM + across / 2);
		const fields = Array.from({ length: across * across }, (): (Leaf & { c: number; s: number })[] => []);
		for (const leaf of there)
			for (let u = -1; u <= 1; u++)
				for (let v = -1; v <= 1; v++)
					fields[(fieldOf(leaf.y) + v) * across + fieldOf(leaf.x) + u]?.push({
						...leaf,
						c: Math.cos(rad(leaf.deg)),
						s: Math.sin(rad(leaf.deg))
					});
		const leafAt = ({ x, y }: Point2): Leaf | undefined => {
			const column = fieldOf(x);
			if (column < 0 || column >= across) return undefined;
			return fields[fieldOf(y) * across + column]?.findLast((leaf) => {
				const [dx, dy] = [x - leaf.x, y - leaf.y];
				const [u, v] = [leaf.c * dx + leaf.s * dy, leaf.c * dy - leaf.s * dx];
				return (u / (leaf.longMm / 2)) ** 2 + (v / (leaf.longMm / 3.4)) ** 2 < 1;
			});
		};
		const shoot = ({ x, y }: Point2): boolean =>
			Math.abs(x - 40) < 2.5 && y < -CROWN_MM * 0.9 && y > -CROWN_MM * 0.9 - shootMm;
		const painted: Painted = (point) => {
			const at = { x: point.x + shift.x, y: point.y + shift.y };
			const leaf = leafAt(at);
			const colour = ((): readonly [number, number, number] => {
				if (leaf) {
					const yellow = Math.min(1, pale * (0.6 + 0.8 * leaf.yellow));
					return [
						leaf.shade * (0.62 + 0.75 * yellow),
						leaf.shade * (1.25 + 0.1 * yellow),
						leaf.shade * (0.4 - 0.1 * yellow)
					];
				}
				if (shoot(at)) return [0.2, 0.13, 0.08];
				return wood(at) ?? onWall(at);
			})();
			return [colour[0] * cast[0], colour[1] * cast[1], colour[2] * cast[2]];
		};
		const onWall = withCard(before, { at: { x: -330, y: 240 }, turnDeg: 4 });
		const seen = (at: Point2, aboveMm = 0): Point2 =>
			seenBy(camera, { x: at.x - shift.x, y: at.y - shift.y }, aboveMm);
		const round = Array.from({ length: 24 }, (_, i) => ({
			x: 1.02 * CROWN_MM * Math.cos(rad(15 * i)),
			y: 0.92 * CROWN_MM * Math.sin(rad(15 * i))
		}));
		let [hits, tries] = [0, 0];
		for (let y = -0.92; y <= 0.92; y += 0.01)
			for (let x = -1.02; x <= 1.02; x += 0.01) {
				if ((x / 1.02) ** 2 + (y / 0.92) ** 2 > 1) continue;
				tries++;
				if (leafAt({ x: x * CROWN_MM, y: y * CROWN_MM })) hits++;
			}
		const taken: Taken = {
			seed: seed * 7 + day,
			blurPx: between(0, widthPx / 1200),
			grain: between(1, 6),
			shadow: between(0, 0.45),
			quality: Math.round(between(65, 92))
		};
		return {
			camera,
			taken,
			cover: hits / tries,
			loop: round.map((at) => seen(at)),
			seen,
			draw: () => photograph(camera, painted, taken)
		};
	});
}

/** The two days of the demo. @see scripts/draw-demo-pictures.js */
export function demoCrown(): [CrownDay, CrownDay] {
	const [was, is] = crownScene(
		41,
		[
			{ leaves: 1, moved: 0.6, cast: [1, 1, 1], pale: 0, shootMm: 20 },
			{ leaves: 0.69, moved: 0.8, cast: [0.94, 0.95, 1.02], pale: 0.4, shootMm: 74 }
		],
		1400
	);
	if (!was || !is) throw new Error('Two days were told.');
	return [was, is];
}
