import { roundPot } from '$core/replant/pots/volume';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	ballOfMap,
	ballOfSizes,
	fitInPot,
	narrowing,
	type Ball,
	type Standing
} from '$core/replant/pots/fit';
import type { Pot } from '$core/replant/pots/volume';
import { tippingWindMs } from '$core/replant/pots/wind';
import { defaultValues } from '$core/values/values';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { rootMapInput, segmentFromQuick } from '$core/roots/map/root-map';

const box = (length: number, width: number, heightMm: number): Pot => ({
	shape: 'box',
	topLengthMm: length,
	topWidthMm: width,
	bottomLengthMm: length,
	bottomWidthMm: width,
	heightMm
});
const level: Standing = { tiltDeg: 0, tiltTowardDeg: 0, flareOverRimMm: 0, floorMm: 0 };

describe('a ball that stands over the rim altogether', () => {
	it('has the room that its foot has at the rim, and nothing without end', () => {
		const fit = fitInPot(ballOfSizes(240, 120, 0.8), roundPot(300, 300, 250), {
			...level,
			flareOverRimMm: 500
		});
		expect(fit.underMm).toBeCloseTo(250 + 500 - 120, 6);
		expect(fit.tightest.clearanceMm).toBeGreaterThan(30);
		expect(fit.tightest.clearanceMm).toBeLessThanOrEqual(150);
		expect(fit.fits).toBe(true);
	});
});

describe('the shape of a ball', () => {
	it.each([2 / 3, 0.8, 0.9])('has the volume that its fullness says: %f of the cylinder', (fullness) => {
		let sum = 0;
		for (let i = 0; i < 20_000; i++) sum += narrowing((i + 0.5) / 20_000, fullness) ** 2;
		expect(sum / 20_000).toBeCloseTo(fullness, 4);
	});
	it('from the map reaches as far as the roots that stay, and hangs together between them', () => {
		const map = rootMapInput.parse({
			mappedOn: '2026-03-02',
			frame: 'container',
			trunkDiameterMm: 60,
			ballRadiusMm: 200,
			segments: ['6 20 anchor l150', '12 20 anchor l90'].map((line, i) => {
				const entry = parseQuickRoot(line, 'container', 60, defaultValues);
				if (!entry.ok) throw new Error(entry.problem);
				return segmentFromQuick(entry.root, { trunkDiameterMm: 60, ballRadiusMm: 200 }, `r${i}`);
			})
		});
		const ball = ballOfMap(map, new Set(), 100, 0.8);
		expect(Math.max(...ball.reachMm)).toBeCloseTo(184, 0);
		const gone = ballOfMap(map, new Set(['r0']), 100, 0.8);
		expect(Math.max(...gone.reachMm)).toBeLessThan(130);
		for (const mm of ball.reachMm) expect(mm).toBeGreaterThan(110);
	});
});

describe('a ball in a pot', () => {
	it('round in round, level: room is half the difference at the rim (closed form)', () => {
		const fit = fitInPot(ballOfSizes(240, 120, 2 / 3), roundPot(300, 300, 200), level);
		expect(fit.fits).toBe(true);
		expect(fit.tightest.clearanceMm).toBeCloseTo(30, 1);
		expect(fit.underMm).toBeCloseTo(80, 1);
		expect(fit.shift.mm).toBeLessThan(0.5);
	});
	it('in a pot that narrows it binds lower down', () => {
		const fit = fitInPot(ballOfSizes(280, 180, 0.95), roundPot(300, 180, 200), level);
		expect(fit.fits).toBe(false);
		expect(fit.tightest.heightMm).toBeLessThan(120);
		expect(fit.shaveEvenlyMm).toBeGreaterThan(10);
	});
	it('a ball with one long side is moved away from it: that much less has to come off', () => {
		const reachMm = new Array<number>(36).fill(100);
		for (const i of [35, 0, 1]) reachMm[i] = 170;
		const ball: Ball = { reachMm, depthMm: 80, fullness: 0.9 };
		const fit = fitInPot(ball, roundPot(300, 300, 200), level);
		expect(fit.fits).toBe(true);
		// The long side is at azimuth 0, so it moves to 180.
		expect(Math.abs(fit.shift.azimuthDeg - 180)).toBeLessThan(10);
		expect(fit.shift.mm).toBeGreaterThan(20);
	});
	it('tilted, the side that sinks goes deeper by R sin α', () => {
		const ball = ballOfSizes(240, 60, 0.98);
		const straight = fitInPot(ball, roundPot(400, 400, 300), level);
		const tilted = fitInPot(ball, roundPot(400, 400, 300), { ...level, tiltDeg: 20 });
		expect(straight.underMm - tilted.underMm).toBeGreaterThan(120 * Math.sin(Math.PI / 9) * 0.5);
	});
	it('a bigger pot never fits worse, whatever its shape', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 120, max: 400 }),
				fc.integer({ min: 50, max: 200 }),
				fc.integer({ min: 0, max: 30 }),
				fc.integer({ min: 1, max: 80 }),
				fc.boolean(),
				(width, depth, tiltDeg, more, square) => {
					const ball = ballOfSizes(220, depth, 0.85);
					const standing = { ...level, tiltDeg, flareOverRimMm: -10 };
					const pot = (by: number): Pot =>
						square
							? box(width + by, width + 20 + by, 220 + by)
							: roundPot(width + by, width * 0.8 + by, 220 + by);
					const [small, large] = [fitInPot(ball, pot(0), standing), fitInPot(ball, pot(more), standing)];
					expect(large.tightest.clearanceMm).toBeGreaterThanOrEqual(small.tightest.clearanceMm - 1.5);
					expect(large.underMm).toBeGreaterThanOrEqual(small.underMm - 1e-6);
				}
			),
			{ numRuns: 60 }
		);
	});
	it('agrees with brute force by small cubes: it fits just when no cube of the ball lies outside', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 180, max: 320 }),
				fc.integer({ min: 150, max: 320 }),
				fc.integer({ min: 60, max: 160 }),
				fc.integer({ min: 0, max: 25 }),
				fc.boolean(),
				(top, bottom, depth, tiltDeg, square) => {
					const pot = square ? box(top, top, 180) : roundPot(top, Math.min(bottom, top), 180);
					const ball = ballOfSizes(220, depth, 0.8);
					const standing = { ...level, tiltDeg, tiltTowardDeg: 40, flareOverRimMm: -15, floorMm: 10 };
					const fit = fitInPot(ball, pot, standing);
					// Near the edge the grid cannot tell.
					if (Math.abs(fit.tightest.clearanceMm) < 6 || Math.abs(fit.underMm) < 6) return;
					expect(fit.fits).toBe(outsideCubes(ball, pot, standing, fit.shift) === 0);
				}
			),
			{ numRuns: 60 }
		);
	});
});

describe('tipping in the wind', () => {
	it('balances the push on the crown with the weight over the edge (moments by hand)', () => {
		const input = { massKg: 40, baseWidthMm: 300, crownAreaM2: 0.5, crownMiddleM: 1 };
		const wind = tippingWindMs(input, defaultValues);
		const pushN = 0.5 * 1.25 * wind * wind * defaultValues['pot.crownDrag'] * 0.5;
		expect(pushN * 1).toBeCloseTo(40 * 9.81 * 0.15, 6);
		expect(tippingWindMs({ ...input, massKg: 160 }, defaultValues)).toBeCloseTo(2 * wind, 9);
	});
});

/** Cubes of 5 mm that are in the ball, under the rim, and not in the pot. Shares no step with the fit. */
function outsideCubes(
	ball: Ball,
	pot: Pot,
	standing: Standing,
	shift: { azimuthDeg: number; mm: number }
): number {
	const CUBE = 5;
	const rad = Math.PI / 180;
	const [sx, sy] = [
		shift.mm * Math.sin(shift.azimuthDeg * rad),
		-shift.mm * Math.cos(shift.azimuthDeg * rad)
	];
	const flare = pot.heightMm + standing.flareOverRimMm;
	const [cos, sin] = [Math.cos(standing.tiltDeg * rad), Math.sin(standing.tiltDeg * rad)];
	const [ux, uy] = [Math.sin(standing.tiltTowardDeg * rad), -Math.cos(standing.tiltTowardDeg * rad)];
	let outside = 0;
	for (let x = -260; x <= 260; x += CUBE)
		for (let y = -260; y <= 260; y += CUBE)
			for (let z = -60; z < pot.heightMm; z += CUBE) {
				// Back into the upright ball: undo the shift, then the turn about the flare.
				const [px, py, down] = [x - sx, y - sy, flare - z];
				const along = px * ux + py * uy;
				const across = -px * uy + py * ux;
				const ownAlong = along * cos + down * sin;
				const ownDepth = down * cos - along * sin;
				if (ownDepth < 0 || ownDepth > ball.depthMm) continue;
				const share = ownDepth / ball.depthMm;
				const reach = (ball.reachMm[0] ?? 0) * Math.sqrt(1 - share ** (0.8 / 0.2));
				if (Math.hypot(ownAlong, across) > reach) continue;
				const t = Math.max(0, z) / pot.heightMm;
				const half = (pot.bottomLengthMm + t * (pot.topLengthMm - pot.bottomLengthMm)) / 2;
				const wall =
					pot.shape === 'round' ? Math.hypot(x, y) > half : Math.max(Math.abs(x), Math.abs(y)) > half;
				if (wall || z < standing.floorMm) outside++;
			}
	return outside;
}
