import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { closeUp, turnRing } from '$core/roots/map/close-up';
import { courseLengthMm, planPoint, polarOf } from '$core/roots/map/geometry';
import { segmentSchema, type Segment } from '$core/roots/map/root-map';
import { treeRecords } from '../records';

const base = treeRecords().rootMap?.segments[0];
if (!base) throw new Error('a root');
const root = (id: string, course: [number, number, number][], change: Partial<Segment> = {}): Segment =>
	segmentSchema.parse({
		...base,
		id,
		parentId: null,
		condition: 'sound',
		doubtfulFromMm: null,
		deadFromMm: null,
		flaws: [],
		diameterStartMm: 10,
		diameterEndMm: 6,
		course: course.map(([azimuthDeg, radiusMm, depthMm]) => ({ azimuthDeg, radiusMm, depthMm })),
		...change
	});
const straight = (id: string, azimuthDeg: number, change: Partial<Segment> = {}): Segment =>
	root(
		id,
		[
			[azimuthDeg, 50, 20],
			[azimuthDeg, 250, 60]
		],
		change
	);

describe('a cut close by', () => {
	it('is turned so that the root comes toward whoever stands before it, its neighbours with it', () => {
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 359 }), fc.integer({ min: 0, max: 150 }), (azimuth, atMm) => {
				const map = { segments: [straight('a', azimuth), straight('b', (azimuth + 30) % 360)] };
				const seen = closeUp(map, 'a', atMm);
				expect(polarOf(seen?.place ?? { x: 0, y: 0 }).azimuthDeg).toBeCloseTo(180, 4);
				expect(seen?.place.y).toBeCloseTo(50 + atMm, 4);
				const beside = seen?.segments.find((one) => one.id === 'b')?.course[0];
				// Clockwise of the one in hand seen from above: at the left of whoever looks at the trunk.
				expect(planPoint(beside ?? { azimuthDeg: 0, radiusMm: 0 }).x).toBeLessThan(0);
				expect(courseLengthMm(seen?.segment.course ?? [])).toBeCloseTo(
					courseLengthMm(map.segments[0]?.course ?? []),
					6
				);
			}),
			{ numRuns: 60 }
		);
	});
	it('shows as much as the cut needs: its distance, its thickness, never less than a hand', () => {
		const width = (atMm: number, diameterStartMm = 5): number =>
			closeUp({ segments: [straight('a', 0, { diameterStartMm, diameterEndMm: 3 })] }, 'a', atMm)?.widthMm ??
			0;
		expect(width(0)).toBe(80);
		expect(width(0, 20)).toBe(180);
		expect(width(100)).toBeCloseTo(200, 6);
		const [near, far] = [0, 120].map((atMm) => closeUp({ segments: [straight('a', 0)] }, 'a', atMm));
		// Both the start and the cut lie within it.
		for (const seen of [near, far])
			for (const y of [50, seen?.place.y ?? 0])
				expect(Math.abs(y - (seen?.middle.y ?? 0))).toBeLessThan((seen?.widthMm ?? 0) / 2);
	});
	it('from the side it goes down as the root does, and tapers', () => {
		const seen = closeUp(
			{ segments: [straight('a', 70, { diameterStartMm: 40, diameterEndMm: 20 })] },
			'a',
			0
		);
		const length = Math.hypot(200, 40);
		expect(seen?.profile[0]).toEqual({ alongMm: 0, depthMm: 20, radiusMm: 20 });
		const last = seen?.profile.at(-1);
		expect(last?.alongMm).toBeCloseTo(length, 6);
		expect(last?.depthMm).toBeCloseTo(60, 6);
		expect(last?.radiusMm).toBeCloseTo(10, 6);
	});
	it('names what lies under and over it, with the soil between', () => {
		// Across the first at 150 mm from the middle, 30 mm deeper there, and one 35 mm higher.
		const across = (id: string, depthMm: number) =>
			root(id, [
				[-45 + 360, Math.hypot(150, 150), depthMm],
				[45, Math.hypot(150, 150), depthMm]
			]);
		const map = { segments: [straight('a', 0), across('under', 70), across('over', 5)] };
		const seen = closeUp(map, 'a', 60);
		const length = Math.hypot(200, 40);
		const of = (id: string) => seen?.crossing.find((one) => one.segmentId === id);
		expect(of('under')).toMatchObject({ under: true });
		expect(of('over')).toMatchObject({ under: false });
		expect(of('under')?.alongMm).toBeCloseTo(length / 2, 4);
		expect(of('under')?.depthMm).toBeCloseTo(70, 4);
		expect(of('over')?.depthMm).toBeCloseTo(5, 4);
		expect(closeUp(map, 'a', 0)?.crossing).toEqual([]);
	});
	it('turns outlines alike, and knows no root that is not there', () => {
		const [point] = turnRing([{ x: 0, y: -10 }], 90);
		expect(point?.x).toBeCloseTo(10, 9);
		expect(point?.y).toBeCloseTo(0, 9);
		expect(closeUp({ segments: [] }, 'a', 0)).toBeNull();
	});
});
