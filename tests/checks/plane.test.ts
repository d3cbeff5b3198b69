import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	broughtDown,
	homographyOf,
	lengthIn,
	planeOf,
	readsLongBy,
	seenAt,
	type PictureLength,
	type Plane,
	type Point2
} from '$core/examine/pictures/plane';
import { createRandom } from '$core/maths/random';
import { defaultValues } from '$core/values/values';
import { seenBy, type Pinhole } from '../pinhole';

const square: Point2[] = [
	{ x: 0, y: 0 },
	{ x: 1, y: 0 },
	{ x: 1, y: 1 },
	{ x: 0, y: 1 }
];

/** The square onto four corners in closed form. @see Heckbert 1989, Fundamentals of Texture Mapping and Image Warping, section 2.2.3 */
function heckbert([a, b, c, d]: [Point2, Point2, Point2, Point2]): number[] {
	const [dx1, dx2, sx] = [b.x - c.x, d.x - c.x, a.x - b.x + c.x - d.x];
	const [dy1, dy2, sy] = [b.y - c.y, d.y - c.y, a.y - b.y + c.y - d.y];
	const whole = dx1 * dy2 - dx2 * dy1;
	const g = (sx * dy2 - dx2 * sy) / whole;
	const h = (dx1 * sy - sx * dy1) / whole;
	return [
		b.x - a.x + g * b.x,
		d.x - a.x + h * d.x,
		a.x,
		b.y - a.y + g * b.y,
		d.y - a.y + h * d.y,
		a.y,
		g,
		h,
		1
	];
}

const card = { widthMm: 85.6, heightMm: 53.98 };
const picture = { widthPx: 2000, heightPx: 1500 };
const middle = (p: Point2): Point2 => ({ x: p.x - card.widthMm / 2, y: p.y - card.heightMm / 2 });
const cornersOf = (camera: Pinhole): Point2[] =>
	square.map(({ x, y }) => seenBy(camera, middle({ x: x * card.widthMm, y: y * card.heightMm })));
const cameraOf = (over: Partial<Pinhole> = {}): Pinhole => ({
	tiltDeg: 20,
	towardDeg: 40,
	rollDeg: 10,
	distanceMm: 400,
	focalPx: 0.72 * 2000,
	...picture,
	...over
});
const anyCamera = fc.record({
	tiltDeg: fc.double({ min: 0, max: 40, noNaN: true }),
	towardDeg: fc.double({ min: 0, max: 360, noNaN: true }),
	rollDeg: fc.double({ min: 0, max: 360, noNaN: true }),
	distanceMm: fc.double({ min: 200, max: 700, noNaN: true })
});
function told(plane: Plane, points: readonly Point2[], touchPx: number): PictureLength {
	const length = lengthIn(plane, points, touchPx, defaultValues);
	if (!length) throw new Error('too far');
	return length;
}
function found(corners: readonly Point2[], rectangle = card): Plane {
	const plane = planeOf(corners, rectangle, picture, defaultValues);
	if (typeof plane === 'string') throw new Error(plane);
	return plane;
}

describe('a homography', () => {
	it('is that of Heckbert’s closed form for four corners', () => {
		const corners: [Point2, Point2, Point2, Point2] = [
			{ x: 12, y: 20 },
			{ x: 340, y: 35 },
			{ x: 300, y: 260 },
			{ x: 40, y: 220 }
		];
		const ours = homographyOf(square, corners) ?? [];
		heckbert(corners).forEach((value, i) => expect(ours[i]).toBeCloseTo(value, 8));
	});
	it('keeps the cross-ratio of four points on a line, as every projective map does (Hartley & Zisserman 2004, section 2.5)', () => {
		const homography = homographyOf(square, cornersOf(cameraOf({ tiltDeg: 35 }))) ?? [];
		const cross = (p: Point2[]): number => {
			const d = (i: number, j: number): number =>
				Math.hypot((p[i]?.x ?? 0) - (p[j]?.x ?? 0), (p[i]?.y ?? 0) - (p[j]?.y ?? 0));
			return (d(0, 2) * d(1, 3)) / (d(0, 3) * d(1, 2));
		};
		const line = [0.05, 0.3, 0.45, 0.9].map((t) => ({ x: t, y: 0.2 + 0.5 * t }));
		expect(cross(line.map((p) => seenAt(homography, p)))).toBeCloseTo(cross(line), 9);
	});
	it('is the best of more than four points, and none where three of four lie on one line', () => {
		const camera = cameraOf();
		const grid = Array.from({ length: 25 }, (_, i) => ({ x: (i % 5) * 20, y: Math.floor(i / 5) * 12 }));
		const seen = grid.map((p) => seenBy(camera, p));
		const random = createRandom(3);
		const noisy = seen.map(({ x, y }) => ({ x: x + random.between(-2, 2), y: y + random.between(-2, 2) }));
		const error = (h: readonly number[]): number =>
			Math.sqrt(
				grid.reduce((sum, p, i) => {
					const [q, r] = [seenAt(h, p), seen[i] ?? { x: NaN, y: NaN }];
					return sum + (q.x - r.x) ** 2 + (q.y - r.y) ** 2;
				}, 0) / grid.length
			);
		const four = [0, 4, 24, 20];
		const ofFour = homographyOf(
			four.map((i) => grid[i] ?? { x: 0, y: 0 }),
			four.map((i) => noisy[i] ?? { x: 0, y: 0 })
		);
		expect(error(homographyOf(grid, noisy) ?? [])).toBeLessThan(error(ofFour ?? []));
		expect(homographyOf(square, [...square.slice(0, 2), { x: 2, y: 0 }, { x: 0, y: 1 }])).toBeNull();
		expect(homographyOf(square.slice(0, 3), square.slice(0, 3))).toBeNull();
	});
});

describe('a rectangle of known size in a picture', () => {
	it('gives back tilt, distance and every length of its plane, in whatever order its corners were touched', () => {
		fc.assert(
			fc.property(anyCamera, fc.shuffledSubarray([0, 1, 2, 3], { minLength: 4 }), (over, order) => {
				const camera = cameraOf(over);
				const corners = cornersOf(camera);
				const plane = found(order.map((i) => corners[i] ?? { x: 0, y: 0 }));
				expect(plane.tiltDeg).toBeCloseTo(camera.tiltDeg, 2);
				expect(plane.distanceMm).toBeCloseTo(camera.distanceMm, 1);
				const line = [
					{ x: -90, y: 40 },
					{ x: -20, y: 75 },
					{ x: 60, y: 20 }
				];
				const truth = Math.hypot(70, 35) + Math.hypot(80, 55);
				const { mm } = told(
					plane,
					line.map((p) => seenBy(camera, p)),
					2
				);
				expect(mm).toBeCloseTo(truth, 3);
			})
		);
	});

	it('reads what lies nearer to the camera too long by d / (d − h), as the handbook has it', () => {
		const camera = cameraOf({ tiltDeg: 0, distanceMm: 500 });
		const plane = found(cornersOf(camera));
		const raised = [
			{ x: -40, y: 0 },
			{ x: 40, y: 0 }
		].map((p) => seenBy(camera, p, 20));
		expect(told(plane, raised, 1).mm).toBeCloseTo((80 * 500) / 480, 3);
		expect(readsLongBy(plane, 20)).toBeCloseTo(500 / 480 - 1, 6);
	});

	it('states an error that covers the truth in 93 to 97 of 100, over tilts, turns and distances', () => {
		const random = createRandom(11);
		const normal = (): number =>
			Math.sqrt(-2 * Math.log(random.between(1e-9, 1))) * Math.cos(2 * Math.PI * random.next());
		let covered = 0;
		const off: number[] = [];
		const RUNS = 1000;
		for (let run = 0; run < RUNS; run++) {
			const camera = cameraOf({
				tiltDeg: random.between(0, 35),
				towardDeg: random.between(0, 360),
				rollDeg: random.between(0, 360),
				distanceMm: random.between(250, 500)
			});
			const shaken = (p: Point2): Point2 => ({ x: p.x + 2 * normal(), y: p.y + 2 * normal() });
			const [a, b] = [0, 1].map(() => ({ x: random.between(-80, 80), y: random.between(-60, 60) }));
			if (!a || !b) continue;
			const truth = Math.hypot(a.x - b.x, a.y - b.y);
			const { mm, errorMm } = told(
				found(cornersOf(camera).map(shaken)),
				[a, b].map((p) => shaken(seenBy(camera, p))),
				2
			);
			if (Math.abs(mm - truth) <= errorMm) covered++;
			if (truth > 30) off.push(Math.abs(mm - truth) / truth);
		}
		expect(covered / RUNS).toBeGreaterThan(0.93);
		expect(covered / RUNS).toBeLessThan(0.97);
		// Wanted of lengths in a picture: 5 % in the middle of all.
		expect(off.sort((a, b) => a - b)[Math.floor(off.length / 2)]).toBeLessThan(0.05);
	});

	it('tells no length to a point near the horizon of the plane, or behind it', () => {
		const camera = cameraOf({ tiltDeg: 45, towardDeg: 0, rollDeg: 0 });
		const plane = found(cornersOf(camera));
		// Depth falls off towards the horizon, which is seen 45° below the middle.
		const horizonY = camera.heightPx / 2 + camera.focalPx;
		const lengthTo = (y: number) =>
			lengthIn(
				plane,
				[
					{ x: 1000, y: 750 },
					{ x: 1000, y }
				],
				2,
				defaultValues
			);
		expect(lengthTo(horizonY - camera.focalPx * 0.22)).not.toBeNull();
		expect(lengthTo(horizonY - camera.focalPx * 0.18)).toBeNull();
		expect(lengthTo(horizonY + 10)).toBeNull();
	});

	it('says why its corners do not tell the plane', () => {
		const of = (corners: Point2[]) => planeOf(corners, card, picture, defaultValues);
		const corners = cornersOf(cameraOf());
		const [a, b, c, d] = corners;
		if (!a || !b || !c || !d) throw new Error('no corners');
		expect(of([a, b, c])).toBe('no-rectangle');
		expect(of([a, b, c, { x: (a.x + c.x) / 2, y: (a.y + c.y) / 2 }])).toBe('no-rectangle');
		expect(of([a, a, c, d])).toBe('no-rectangle');
		expect(of(cornersOf(cameraOf({ tiltDeg: 56 })))).toBe('too-tilted');
		expect(of(cornersOf(cameraOf({ distanceMm: 2500 })))).toBe('too-small');
		expect(typeof of(cornersOf(cameraOf({ tiltDeg: 48 })))).toBe('object');
	});
});

describe('height over the plane', () => {
	it('a thing at a known height is brought back to where it stands, wherever it is and however the camera (pinhole, by construction)', () => {
		fc.assert(
			fc.property(
				anyCamera,
				fc.double({ min: -60, max: 60, noNaN: true }),
				fc.double({ min: -90, max: 90, noNaN: true }),
				fc.double({ min: -90, max: 90, noNaN: true }),
				(view, nearerMm, x, y) => {
					const camera = cameraOf(view);
					const plane = found(cornersOf(camera));
					const toPlane = (at: Point2): Point2 => ({
						x: at.x + card.widthMm / 2,
						y: at.y + card.heightMm / 2
					});
					// Corners are put in a row by how they are seen: the plane may lie turned by half.
					const own = seenAt(plane.toMm, seenBy(camera, middle({ x: 0, y: 0 })));
					const turned = own.x > 1;
					const known = toPlane({ x, y });
					const at = turned ? { x: card.widthMm - known.x, y: card.heightMm - known.y } : known;
					const seen = seenAt(plane.toMm, seenBy(camera, { x, y }, nearerMm));
					const down = broughtDown(seen, plane.under ?? at, plane.cameraMm, nearerMm);
					expect(Math.hypot(down.x - at.x, down.y - at.y)).toBeLessThan(0.01);
					expect(plane.cameraMm).toBeCloseTo(
						camera.distanceMm * Math.cos((camera.tiltDeg * Math.PI) / 180),
						1
					);
				}
			),
			{ seed: 5, numRuns: 300 }
		);
	});
	it('is told with the lens of the picture, where its file says it: twice as long, twice as far away', () => {
		const camera = cameraOf({ focalPx: 1.44 * 2000, distanceMm: 800 });
		const known = planeOf(cornersOf(camera), card, { ...picture, focalShare: 1.44 }, defaultValues);
		const usual = found(cornersOf(camera));
		if (typeof known === 'string') throw new Error(known);
		expect(known.distanceMm).toBeCloseTo(800, 1);
		expect(known.tiltDeg).toBeCloseTo(20, 2);
		expect(Math.abs(usual.distanceMm - 400)).toBeLessThan(30);
	});
});
