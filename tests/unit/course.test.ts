import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { claimOf } from '$core/roots/claims';
import { computedFlaws, crossings, flawsOf, runsRoundDeg, wallShare } from '$core/roots/course';
import { parseQuickRoot } from '$core/roots/quick-entry';
import { segmentFromQuick, type Segment } from '$core/roots/root-map';
import { defaultValues } from '$core/values/values';

const values = defaultValues;
const root = (id: string, course: [number, number, number][], more: Partial<Segment> = {}): Segment => {
	const entry = parseQuickRoot('6 10', 'container', 100);
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
