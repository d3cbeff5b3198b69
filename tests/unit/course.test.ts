import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { claimOf } from '$core/roots/plan/claims';
import {
	computedFlaws,
	crossings,
	flawsOf,
	obstaclesMet,
	runsRoundDeg,
	wallShare
} from '$core/roots/map/course';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { segmentFromQuick, segmentSchema, type Segment } from '$core/roots/map/root-map';
import { defaultValues } from '$core/values/values';

const values = defaultValues;
const root = (id: string, course: [number, number, number][], more: Partial<Segment> = {}): Segment => {
	const entry = parseQuickRoot('6 10', 'container', 100, defaultValues);
	if (!entry.ok) throw new Error(entry.problem);
	return {
		...segmentFromQuick(entry.root, { trunkDiameterMm: 100, ballRadiusMm: 250 }, id),
		diameterEndMm: 10,
		course: course.map(([azimuthDeg, radiusMm, depthMm]) => ({ azimuthDeg, radiusMm, depthMm })),
		...more
	};
};
/** Straight out at an azimuth, and a chord square across it at a radius. */
const radial = (id: string, deg: number, depth = 20): Segment =>
	root(id, [
		[deg, 50, depth],
		[deg, 240, depth]
	]);
const across = (id: string, deg: number, at: number, depth: number): Segment => {
	const half = 60;
	const radius = Math.hypot(at, half);
	const turn = (Math.atan2(half, at) * 180) / Math.PI;
	return root(id, [
		[deg - turn, radius, depth],
		[deg + turn, radius, depth]
	]);
};

describe('what stands in the way', () => {
	const straight = (depthMm: number) =>
		segmentSchema.parse({
			id: 'a',
			parentId: null,
			rootClass: 'scaffold',
			condition: 'sound',
			diameterStartMm: 20,
			diameterEndMm: 8,
			fineScore: 1,
			course: [
				{ azimuthDeg: 90, radiusMm: 40, depthMm },
				{ azimuthDeg: 90, radiusMm: 400, depthMm }
			]
		});
	const kerb = {
		id: 'k',
		kind: 'kerb' as const,
		toDepthMm: 150,
		note: '',
		points: [
			{ azimuthDeg: 60, radiusMm: 300 },
			{ azimuthDeg: 120, radiusMm: 300 }
		]
	};
	it('is met by a root that crosses it, unless it runs underneath', () => {
		expect(obstaclesMet(straight(60), [kerb])).toEqual([kerb]);
		expect(obstaclesMet(straight(200), [kerb])).toEqual([]);
	});
	it('a stone is closed: a root that enters it between its last and first point meets it', () => {
		const stone = {
			...kerb,
			kind: 'stone' as const,
			points: [
				{ azimuthDeg: 80, radiusMm: 200 },
				{ azimuthDeg: 85, radiusMm: 260 },
				{ azimuthDeg: 95, radiusMm: 260 },
				{ azimuthDeg: 100, radiusMm: 200 }
			]
		};
		const ends = straight(60);
		const into = { ...ends, course: ends.course.map((p, i) => (i === 1 ? { ...p, radiusMm: 220 } : p)) };
		expect(obstaclesMet(into, [stone])).toHaveLength(1);
		expect(obstaclesMet(into, [{ ...stone, kind: 'wall' as const }])).toHaveLength(0);
	});
});

describe('crossings', () => {
	it('lie where the lines cut each other, with the soil between, and the square angle', () => {
		const [crossing] = crossings([radial('r', 30, 20), across('x', 30, 150, 60)]);
		expect(crossing).toMatchObject({ upperId: 'r', lowerId: 'x' });
		expect(crossing?.upperAtMm).toBeCloseTo(100, 6);
		expect(crossing?.lowerAtMm).toBeCloseTo(60, 6);
		// 40 mm between the centre lines, less half of each thickness.
		expect(crossing?.gapMm).toBeCloseTo(30, 6);
		expect(crossing?.angleDeg).toBeCloseTo(90, 6);
	});
	it('are the same for a turned map, and swap with depth', () => {
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 359 }), fc.integer({ min: 0, max: 100 }), (turn, depth) => {
				const [crossing] = crossings([radial('r', turn, 50), across('x', turn, 150, depth)]);
				expect(crossing?.upperId).toBe(depth < 50 ? 'x' : 'r');
				expect(crossing?.gapMm).toBeCloseTo(Math.abs(depth - 50) - 10, 6);
			})
		);
	});
	it('are none between roots side by side, nor between a root and its side root', () => {
		expect(crossings([radial('a', 0), radial('b', 40)])).toEqual([]);
		const side = { ...across('s', 0, 150, 20), parentId: 'a' };
		expect(crossings([radial('a', 0), side])).toEqual([]);
	});
});

describe('what a course shows', () => {
	const shown = (...segments: Segment[]) =>
		Object.fromEntries(
			[...computedFlaws(segments, values)].map(([id, list]) => [id, list.map(({ flaw }) => flaw)])
		);
	it('of two roots that touch, the less outward one crosses; with soil between, none does', () => {
		expect(shown(radial('r', 30, 20), across('x', 30, 150, 25))).toEqual({ x: ['crossing'] });
		expect(shown(radial('r', 30, 20), across('x', 30, 150, 60))).toEqual({});
	});
	it('circling, turned back and rising come of the course alone', () => {
		const circling = root('c', [
			[0, 50, 20],
			[5, 230, 20],
			[40, 240, 20],
			[80, 240, 20]
		]);
		const turned = root('t', [
			[0, 50, 20],
			[4, 200, 20],
			[20, 110, 20]
		]);
		const rising = root('u', [
			[0, 50, 20],
			[0, 120, 30],
			[0, 200, 5]
		]);
		expect(shown(circling)).toEqual({ c: ['circling'] });
		expect(shown(turned)).toEqual({ t: ['turned-back'] });
		expect(shown(rising)).toEqual({ u: ['rising'] });
		expect(shown(radial('r', 0))).toEqual({});
		expect(runsRoundDeg(circling.course)).toBeCloseTo(80, 9);
		// Straight under the trunk its bearing swings round, and it turns nothing.
		const under = [250, 100, 30, -30, -100, -250].map((at) => ({
			azimuthDeg: at > 0 ? 90 : 270,
			radiusMm: Math.abs(at),
			depthMm: 200
		}));
		expect(runsRoundDeg(under)).toBeCloseTo(0, 9);
		const aside = under.map((point) => ({ ...point, azimuthDeg: point.azimuthDeg === 90 ? 88 : 272 }));
		expect(Math.abs(runsRoundDeg(aside))).toBeLessThan(1);
	});
	it('makes a claim, until the eye sees it otherwise; what the eye notes is not said twice', () => {
		const course: [number, number, number][] = [
			[0, 50, 20],
			[5, 230, 20],
			[40, 240, 20],
			[80, 240, 20]
		];
		const claim = (more: Partial<Segment>) => {
			const segment = root('c', course, more);
			return claimOf(segment, { segments: [segment], trunkDiameterMm: 100 }, values)?.reason ?? null;
		};
		expect(claim({})).toBe('circles the ball: runs round for 75°');
		expect(claim({ seenOtherwise: ['circling'] })).toBeNull();
		expect(claim({ flaws: ['circling'] })).toBe('circles the ball');
		const both = root('c', course, { flaws: ['circling'] });
		expect(flawsOf(both, [both], values)).toHaveLength(1);
	});
	it('a girdler that the eye sees otherwise is no claim', () => {
		const girdler = root(
			'g',
			[
				[0, 50, 10],
				[8, 56, 10],
				[60, 56, 10],
				[120, 56, 10]
			],
			{ diameterStartMm: 12 }
		);
		const claim = (segment: Segment) =>
			claimOf(segment, { segments: [segment], trunkDiameterMm: 100 }, values);
		expect(claim(girdler)?.kind).toBe('girdling');
		expect(claim({ ...girdler, seenOtherwise: ['girdling', 'circling'] })).toBeNull();
	});
});

it('the wall of the ball is covered by what runs along it, overlaps once', () => {
	const along = (id: string, from: number, to: number): Segment => {
		const steps = 10;
		return root(
			id,
			Array.from({ length: steps + 1 }, (_, i): [number, number, number] => [
				from + ((to - from) * i) / steps,
				245,
				20
			])
		);
	};
	const share = (...segments: Segment[]) => wallShare({ segments, ballRadiusMm: 250 });
	expect(share(along('a', 0, 90))).toBeCloseTo(0.25, 6);
	expect(share(along('a', 0, 90), along('b', 45, 135))).toBeCloseTo(0.375, 6);
	expect(share(along('a', 90, 0))).toBeCloseTo(0.25, 6);
	expect(share(radial('r', 0))).toBe(0);
});
