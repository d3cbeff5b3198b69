import { describe, expect, it } from 'vitest';
import { ellipseThrough } from '$core/examine/pictures/ellipse';
import { lengthIn, rimOf, type Plane, type Point2 } from '$core/examine/pictures/plane';
import { defaultValues as values } from '$core/values/values';
import { seenBy, type Pinhole } from '../pinhole';
import { dice } from '../scene';

const picture = { widthPx: 2000, heightPx: 1500 };
const RADIUS_MM = 150;
const round = (radius: number, turn = 0, middle: Point2 = { x: 0, y: 0 }): Point2[] =>
	Array.from({ length: 6 }, (_, i) => ({
		x: middle.x + radius * Math.cos(turn + (i * Math.PI) / 3),
		y: middle.y + radius * Math.sin(turn + (i * Math.PI) / 3)
	}));
const rim = (seen: readonly Point2[]): Plane => {
	const plane = rimOf(seen, 2 * RADIUS_MM, picture, values);
	if (typeof plane === 'string') throw new Error(plane);
	return plane;
};

describe('an ellipse through points', () => {
	it('gives back middle, axes and turn of the one they lie on, wherever and however small or large', () => {
		for (const [halfLong, halfShort, turnDeg, x, y] of [
			[300, 180, 28, 900, 700],
			[300, 295, 120, -50, 2000],
			[3, 1, 90, 0, 0],
			[4000, 900, 179, 1e4, 1e4]
		] as const) {
			const turn = (turnDeg * Math.PI) / 180;
			const points = round(1, 0.3).map(({ x: u, y: v }) => ({
				x: x + halfLong * u * Math.cos(turn) - halfShort * v * Math.sin(turn),
				y: y + halfLong * u * Math.sin(turn) + halfShort * v * Math.cos(turn)
			}));
			const found = ellipseThrough(points);
			expect(found?.halfLong).toBeCloseTo(halfLong, 4);
			expect(found?.halfShort).toBeCloseTo(halfShort, 4);
			expect(found?.middle.x).toBeCloseTo(x, 4);
			expect(found?.middle.y).toBeCloseTo(y, 4);
			expect(found?.turnDeg).toBeCloseTo(turnDeg, 3);
		}
	});
	it('is an ellipse even where the points lie nearer to another conic (Fitzgibbon et al. 1999), and none from too few or from a line', () => {
		// Points of a parabola.
		const parabola = [-2, -1, 0, 1, 2, 3].map((x) => ({ x, y: x * x }));
		const found = ellipseThrough(parabola);
		expect(found === null || found.halfLong >= found.halfShort).toBe(true);
		expect(ellipseThrough(round(5).slice(0, 4))).toBeNull();
		expect(ellipseThrough(Array.from({ length: 6 }, (_, i) => ({ x: i, y: 2 * i })))).toBeNull();
		expect(ellipseThrough(Array.from({ length: 6 }, () => ({ x: 1, y: 1 })))).toBeNull();
	});
});

describe('a round rim of known width', () => {
	it('seen from straight above gives lengths, tilt and distance', () => {
		const camera: Pinhole = {
			tiltDeg: 0,
			towardDeg: 0,
			rollDeg: 20,
			distanceMm: 700,
			focalPx: 1440,
			...picture
		};
		const plane = rim(round(RADIUS_MM, 0.2).map((point) => seenBy(camera, point)));
		expect(plane.tiltDeg).toBeLessThan(0.01);
		expect(plane.nearFar).toBeCloseTo(0, 4);
		expect(plane.distanceMm).toBeCloseTo(700, 3);
		const ends = [
			{ x: -100, y: 20 },
			{ x: 60, y: -40 }
		];
		expect(
			lengthIn(
				plane,
				ends.map((end) => seenBy(camera, end)),
				0.5,
				values
			)?.mm
		).toBeCloseTo(Math.hypot(160, 60), 4);
	});
	it('tilted, its ± covers the true length in 90 of 100 and more, near side and far side too', () => {
		const random = dice(11);
		let [inside, count] = [0, 0];
		for (let i = 0; i < 300; i++) {
			const camera: Pinhole = {
				tiltDeg: 40 * random(),
				towardDeg: 360 * random(),
				rollDeg: 360 * random(),
				distanceMm: 600 + 500 * random(),
				focalPx: 1440,
				...picture
			};
			const touched = ({ x, y }: Point2): Point2 => ({
				x: x + 3 * (random() - 0.5),
				y: y + 3 * (random() - 0.5)
			});
			const plane = rim(round(RADIUS_MM, random()).map((point) => touched(seenBy(camera, point))));
			const within = (): Point2 => {
				const [r, a] = [RADIUS_MM * Math.sqrt(random()), 2 * Math.PI * random()];
				return { x: r * Math.cos(a), y: r * Math.sin(a) };
			};
			const [from, to] = [within(), within()];
			const truth = Math.hypot(from.x - to.x, from.y - to.y);
			if (truth < 20) continue;
			const length = lengthIn(
				plane,
				[from, to].map((end) => touched(seenBy(camera, end))),
				0.87,
				values
			);
			count++;
			if (Math.abs((length?.mm ?? NaN) - truth) <= (length?.errorMm ?? 0)) inside++;
		}
		expect(count).toBeGreaterThan(250);
		expect(inside / count).toBeGreaterThan(0.9);
	});
	it('says why six places tell no rim', () => {
		const of = (points: readonly Point2[]) => rimOf(points, 300, picture, values);
		const at = { x: 1000, y: 700 };
		expect(of(round(400, 0, at).slice(0, 5))).toBe('no-rim');
		// Every other lies elsewhere.
		expect(of(round(400, 0, at).map((point, i) => (i % 2 ? point : (round(300, 0, at)[i] ?? at))))).toBe(
			'no-rim'
		);
		// All on one side.
		expect(
			of(
				Array.from({ length: 6 }, (_, i) => ({
					x: 1000 + 400 * Math.cos(i * 0.3),
					y: 700 + 400 * Math.sin(i * 0.3)
				}))
			)
		).toBe('no-rim');
		expect(of(round(60, 0, at))).toBe('too-small');
		expect(of(round(400, 0, at).map(({ x, y }) => ({ x, y: 700 + (y - 700) * 0.5 })))).toBe('too-tilted');
		const plane = rim(round(400, 0, at).map(({ x, y }) => ({ x, y: 700 + (y - 700) * 0.7 })));
		expect(plane.tiltDeg).toBeCloseTo((Math.acos(0.7) * 180) / Math.PI, 4);
		// What lies at its edge is r sin t nearer or farther of d.
		expect(plane.nearFar).toBeCloseTo((RADIUS_MM * Math.sqrt(1 - 0.49)) / plane.distanceMm, 6);
	});
});
