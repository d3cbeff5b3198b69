import { describe, expect, it, vi, beforeEach, afterEach } from 'vitest';
import { planeOf, type Plane, type Point2 } from '$core/examine/pictures/plane';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { deepened } from '$core/roots/map/depth-from-side';
import { segmentFromQuick, type RootMapInput } from '$core/roots/map/root-map';
import { defaultValues as values } from '$core/values/values';
import { RootsState } from '$views/roots/roots-state.svelte';
import { SideDepths } from '$views/roots/side-depths.svelte';
import { seenBy, type Pinhole } from '../pinhole';
import { freshRoots } from '../records';

/* A trunk of 80 mm before a camera straight in front; the card of 210 by 148 mm in line with its middle. */
const camera: Pinhole = {
	tiltDeg: 0,
	towardDeg: 0,
	rollDeg: 0,
	distanceMm: 700,
	focalPx: 0.72 * 2000,
	widthPx: 2000,
	heightPx: 1500
};
const picture = {
	id: 'side',
	widthPx: 2000,
	heightPx: 1500,
	takenOn: '2026-02-10',
	view: 'front',
	note: '',
	hash: 'a'.repeat(64),
	greenness: null,
	focalShare: null,
	version: 1
};
const plane = planeOf(
	[
		[80, -20],
		[290, -20],
		[290, 128],
		[80, 128]
	].map(([x = 0, y = 0]) => seenBy(camera, { x, y })),
	{ widthMm: 210, heightMm: 148 },
	picture,
	values
) as Plane;
const found = { plane: { ...plane, cornerPx: 0.1 }, markers: 4, offPx: 0.1 };
const base = (azimuthDeg: number, depthMm: number): Point2 => {
	const turn = (azimuthDeg * Math.PI) / 180;
	return seenBy(camera, { x: -40 * Math.sin(turn), y: depthMm }, 40 * Math.cos(turn));
};
const rootAt = (line: string, id: string) => {
	const entry = parseQuickRoot(line, 'container', 80, values);
	if (!entry.ok) throw new Error(entry.problem);
	return segmentFromQuick(entry.root, { trunkDiameterMm: 80, ballRadiusMm: 180 }, id);
};

describe('depths from the side', () => {
	beforeEach(() => void vi.useFakeTimers());
	afterEach(() => void vi.useRealTimers());
	const begun = (lines: readonly [string, string][]) => {
		const roots = new RootsState(freshRoots);
		const map: RootMapInput = { ...roots.map, segments: lines.map(([line, id]) => rootAt(line, id)) };
		const side = new SideDepths(picture, map, values);
		return { roots, side, map };
	};
	const touchedOn = (side: SideDepths, bases: readonly Point2[]): void => {
		side.measure.searched(found);
		side.touch(seenBy(camera, { x: -40, y: 0 }));
		side.touch(seenBy(camera, { x: 40, y: 0 }));
		bases.forEach((at) => side.touch(at));
	};

	it('asks for the card, the two edges at the flare, then the roots, and takes back the last', () => {
		const { side } = begun([['6:00 20', 'front']]);
		side.touch({ x: 5, y: 5 });
		expect(side.touched).toBe(0);
		expect(side.says).toBe('Looking for the printed card …');
		side.measure.searched(found);
		expect(side.says).toBe('Touch the left edge of the trunk, at its flare.');
		side.touch(seenBy(camera, { x: -40, y: 0 }));
		expect(side.says).toBe('Touch the right edge of the trunk, at the same height.');
		side.touch(seenBy(camera, { x: 40, y: 0 }));
		expect(side.says).toBe('Touch the middle of each root where it leaves the trunk.');
		expect(side.width?.seenMm).toBeCloseTo(80, 1);
		expect(side.widthIsOff).toBe(false);
		side.touch(base(0, 20));
		expect(side.says).toBe('Touch on, root by root, or put the depths on the map.');
		expect(side.touched).toBe(3);
		side.back();
		side.back();
		expect(side.step).toBe('edges');
	});
	it('takes each base for the nearest root of the map, and no root twice', () => {
		const { side } = begun([
			['6:00 20', 'front'],
			['7:00 20', 'left'],
			['12 20', 'behind']
		]);
		touchedOn(side, [base(14, 31), base(2, 12)]);
		expect(side.bases.map(({ root }) => root?.id)).toEqual(['left', 'front']);
		expect(side.depths.map(({ id, depthMm }) => [id, Math.round(depthMm)])).toEqual([
			['left', 31],
			['front', 12]
		]);
		// A third one near them is none of the map; the person may say that it is, and then the other gives way.
		side.touch(base(-12, 40));
		expect(side.bases[2]?.root).toBeNull();
		side.is(side.bases[2]?.id ?? '', 'front');
		expect(side.bases.map(({ root }) => root?.id)).toEqual(['left', undefined, 'front']);
		side.is(side.bases[2]?.id ?? '', null);
		expect(side.bases.map(({ root }) => root?.id)).toEqual(['left', 'front', undefined]);
	});
	it('seen from the back the same touch is the root of the back; from where the card stands in front it is nearer', () => {
		const { side } = begun([
			['6:00 20', 'front'],
			['12 20', 'behind']
		]);
		touchedOn(side, [base(0, 30)]);
		expect(side.bases[0]?.root?.id).toBe('front');
		expect(side.depths[0]?.depthMm).toBeCloseTo(30, 1);
		side.fromDeg = 180;
		expect(side.bases[0]?.root?.id).toBe('behind');
		side.fromDeg = 0;
		side.stands = 'front';
		// All is 40 mm farther away than was reckoned, of 700.
		expect(side.depths[0]?.depthMm).toBeGreaterThan(31);
		expect(new SideDepths({ ...picture, view: 'back' }, side.map, values).fromDeg).toBe(180);
		// What does not say from where it was taken is asked; in the ground a front is none of the compass.
		const collar = new SideDepths({ ...picture, view: 'collar' }, side.map, values);
		expect(collar.fromDeg).toBeNull();
		expect(new SideDepths(picture, { ...side.map, frame: 'ground' }, values).fromDeg).toBeNull();
		touchedOn(collar, [base(0, 30)]);
		expect(collar.says).toBe('Say where it was taken from: then it is known which roots these are.');
		expect(collar.depths).toEqual([]);
		collar.fromDeg = 180;
		expect(collar.bases[0]?.root?.id).toBe('behind');
	});
	it('says that a trunk seen much wider than the map has it was touched amiss', () => {
		const { side } = begun([]);
		side.measure.searched(found);
		side.touch(seenBy(camera, { x: -40, y: 0 }));
		side.touch(seenBy(camera, { x: 75, y: 0 }));
		expect(side.widthIsOff).toBe(true);
		side.move('Edge', 1, seenBy(camera, { x: 60, y: 0 }));
		expect(side.widthIsOff).toBe(false);
	});
	it('puts them on the map in one step: the whole root lies so deep, its depth is no guess, and by hand it is said anew', () => {
		const { roots, side, map } = begun([['6:00 20', 'front']]);
		roots.bring(map.segments, 'add');
		const id = roots.map.segments[0]?.id ?? '';
		roots.deepen('side', [{ id, depthMm: 33.33, errorMm: 6.06 }]);
		const root = () => roots.map.segments[0];
		expect(root()?.course.map(({ depthMm }) => depthMm)[0]).toBe(33.3);
		expect(root()?.depthIn).toEqual({ pictureId: 'side', errorMm: 6.1 });
		expect(root()?.guessed).not.toContain('depth');
		const before = map.segments[0]?.course ?? [];
		const by = 33.33 - (before[0]?.depthMm ?? 0);
		root()?.course.forEach(({ depthMm }, i) =>
			expect(depthMm).toBeCloseTo((before[i]?.depthMm ?? 0) + by, 1)
		);
		// Another thickness says nothing of its depth; another depth does.
		roots.change(id, { diameterStartMm: 25 });
		expect(root()?.depthIn?.errorMm).toBe(6.1);
		roots.change(id, { course: (root()?.course ?? []).map((point) => ({ ...point, depthMm: 10 })) });
		expect(root()?.depthIn).toBeNull();
		roots.undo();
		roots.undo();
		roots.undo();
		expect(root()?.depthIn).toBeNull();
		expect(root()?.guessed).toContain('depth');
		expect(side.depths).toEqual([]);
	});
	it('side roots go along with the root that they leave while their own depth is a guess, and stay one', () => {
		const parent = rootAt('6:00 20', 'front');
		const guess = { ...rootAt('6:30 8', 'side'), parentId: 'front' };
		const onIt = { ...rootAt('6:40 5', 'on-side'), parentId: 'side' };
		const said = { ...rootAt('7:00 8', 'said'), parentId: 'front', guessed: [] };
		const other = rootAt('12 20', 'other');
		const all = [onIt, guess, parent, said, other];
		const by = 12 - (parent.course[0]?.depthMm ?? 0);
		const now = deepened(all, [{ id: 'front', depthMm: 12, errorMm: 5 }], 'side-picture');
		const movedBy = now.map(({ course }, i) => (course[0]?.depthMm ?? 0) - (all[i]?.course[0]?.depthMm ?? 0));
		[by, by, by, 0, 0].forEach((expected, i) => expect(movedBy[i]).toBeCloseTo(expected, 6));
		expect(by).not.toBe(0);
		expect(now.map(({ guessed }) => guessed.includes('depth'))).toEqual([true, true, false, false, true]);
		expect(now.map(({ depthIn }) => depthIn?.errorMm ?? null)).toEqual([null, null, 5, null, null]);
	});
});
