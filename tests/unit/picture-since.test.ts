import { afterEach, describe, expect, it, vi } from 'vitest';
import { viewFaultSaid, type LinedUp } from '$core/examine/pictures/lined-up';
import { defaultValues as values } from '$core/values/values';
import { PairUp } from '$views/recovery/pair-up.svelte';
import { PictureSince } from '$views/recovery/picture-since.svelte';
import type { LeavesRead, PictureReader } from '$lib/workers/picture-reader';

const size = { widthPx: 1400, heightPx: 1050 };
const how: LinedUp = {
	toAfter: [1, 0, 5, 0, 1, 0, 0, 0, 1],
	fits: 120,
	found: 140,
	offPx: 1.5,
	turnedDeg: 0,
	larger: 1,
	shared: 0.95
};
const read: LeavesRead = {
	then: { cover: 0.5, error: 0.04, greenness: 0.41, dark: 0 },
	now: { cover: 0.3, error: 0.04, greenness: 0.4, dark: 0 },
	balanced: true
};
const at = (x: number, y: number) => ({ x, y });
const later = () => new Promise((done) => setTimeout(done));

function begun(change: Partial<PictureReader> = {}) {
	const since = new PictureSince(size, { before: 'was', after: 'is' }, values, {
		lineUp: () => Promise.resolve({ how, before: new Blob(['x']) }),
		crown: () => Promise.resolve([at(10, 10), at(90, 10), at(50, 90)]),
		leaves: () => Promise.resolve(read),
		...change
	});
	return since;
}

describe('measuring between two pictures', () => {
	it('takes no touch before they lie over each other, and says why where they do not', async () => {
		const since = begun();
		expect(since.says).toMatch(/^Laying the earlier/);
		since.touch(at(10, 10));
		expect(since.loop).toEqual([]);
		await since.lineUp();
		expect(since.how).toEqual(how);
		expect(since.over).toBeInstanceOf(Blob);
		expect(since.says).toMatch(/^Touch round the crown/);

		const other = begun({ lineUp: () => Promise.resolve('turned') });
		await other.lineUp();
		expect(other.says).toBe(viewFaultSaid.turned);
		other.touch(at(10, 10));
		expect(other.loop).toEqual([]);
		const broken = begun({ lineUp: () => Promise.reject(new Error('gone')) });
		await broken.lineUp();
		expect(broken.says).toBe(viewFaultSaid['few-found']);
	});
	it('reads the leaves from the third touch on, anew with each change, and forgets them with the loop', async () => {
		const asked: number[] = [];
		const since = begun({
			leaves: (_before, _after, _how, loop) => {
				asked.push(loop.length);
				return Promise.resolve(read);
			}
		});
		await since.lineUp();
		since.touch(at(10, 10));
		since.touch(at(90, 10));
		expect(since.says).toBe('Touch on round the crown.');
		since.touch(at(50, 90));
		expect(since.says).toBe('Reading the leaves …');
		await later();
		expect(since.leaves).toEqual(read);
		since.move('loop', 0, at(-50, 5000));
		expect(since.loop[0]).toEqual(at(0, 1050));
		expect(since.leaves).toBeNull();
		await later();
		expect(asked).toEqual([3, 3]);
		since.back();
		expect(since.loop).toHaveLength(2);
		expect(since.leaves).toBeNull();
		since.again();
		expect(since.touched).toBe(0);
		await later();
		expect(since.leaves).toBeNull();
	});
	it('while a loop is read it may be drawn on: only the last is read then, and a reading of another never shows', async () => {
		const asked: { points: readonly { x: number; y: number }[]; done: (read: LeavesRead | null) => void }[] =
			[];
		const since = begun({
			leaves: (_before, _after, _how, points) => new Promise((done) => asked.push({ points, done }))
		});
		await since.lineUp();
		await since.outline();
		expect(asked).toHaveLength(1);
		// Dragged over many places: none of these is asked for, as the first is still read.
		for (let x = 91; x <= 120; x++) since.move('loop', 1, at(x, 12));
		expect(asked).toHaveLength(1);
		asked[0]?.done(null);
		await later();
		expect(since.problem).toBe('');
		expect(since.leaves).toBeNull();
		expect(asked).toHaveLength(2);
		expect(asked[1]?.points[1]).toEqual(at(120, 12));
		asked[1]?.done(read);
		await later();
		expect(since.leaves).toEqual(read);
		// And once all is read, it is read again.
		since.move('loop', 1, at(95, 12));
		expect(asked).toHaveLength(3);
		// What is taken back meanwhile has no reading.
		since.again();
		asked[2]?.done(read);
		await later();
		expect(since.leaves).toBeNull();
		expect(asked).toHaveLength(3);
	});
	it('says what to do where nothing is green or too little can be read', async () => {
		const since = begun({ crown: () => Promise.resolve(null) });
		await since.lineUp();
		await since.outline();
		expect(since.says).toMatch(/^Nothing green was found/);
		since.touch(at(1, 1));
		expect(since.problem).toBe('');
		const dark = begun({ leaves: () => Promise.resolve(null) });
		await dark.lineUp();
		await dark.outline();
		await later();
		expect(dark.says).toMatch(/too little can be read/);
		const broken = begun({ crown: () => Promise.reject(new Error('gone')) });
		await broken.lineUp();
		await broken.outline();
		expect(broken.problem).not.toBe('');
	});
	it('a length is touched then and now, in the plane of what lies beside', async () => {
		const since = begun();
		await since.lineUp();
		since.what = 'length';
		expect(since.looksAt).toBe('then');
		expect(since.says).toMatch(/^Looking for the printed card/);
		since.measure.searched({
			plane: {
				toMm: [0.5, 0, 0, 0, 0.5, 0, 0, 0, 1],
				tiltDeg: 0,
				distanceMm: 800,
				corners: [at(0, 0), at(360, 0), at(360, 256), at(0, 256)],
				cornerPx: 0.1,
				flat: [at(0, 0), at(180, 0), at(180, 128), at(0, 128)],
				nearFar: 0,
				under: { x: 0, y: 0 },
				cameraMm: 700
			},
			markers: 4,
			offPx: 0.1
		});
		expect(since.says).toMatch(/as it was/);
		since.touch(at(100, 100));
		since.touch(at(140, 100));
		expect(since.says).toBe('Now the same as it is.');
		since.day = 'now';
		expect(since.says).toMatch(/as it is now/);
		since.touch(at(100, 100));
		expect(since.grown).toBeNull();
		since.touch(at(200, 100));
		expect(since.grown?.then.mm).toBeCloseTo(20, 6);
		expect(since.grown?.now.mm).toBeCloseTo(50, 6);
		expect(since.grown?.grew.mm).toBeCloseTo(30, 6);
		expect(since.touched).toBe(4);
		since.back();
		since.back();
		expect(since.is).toEqual([]);
		since.back();
		expect(since.was).toHaveLength(1);
		since.again();
		expect(since.day).toBe('then');
		expect(since.touched).toBe(0);
	});
});

describe('what lies beside for its size', () => {
	it('is touched in the later picture, whichever day is measured', async () => {
		const since = begun();
		await since.lineUp();
		since.what = 'length';
		since.measure.searched('no-card');
		expect(since.day).toBe('then');
		expect(since.looksAt).toBe('now');
		for (const corner of [at(100, 100), at(500, 100), at(500, 352), at(100, 352)]) since.touch(corner);
		expect(since.measure.corners).toHaveLength(4);
		expect(since.was).toEqual([]);
		expect(since.looksAt).toBe('then');
		since.day = 'now';
		expect(since.looksAt).toBe('now');
	});
});

describe('a pair on the page of pictures', () => {
	afterEach(() => vi.unstubAllGlobals());
	it('lies over each other once it was found, and a pair that is left says nothing more', async () => {
		vi.stubGlobal('URL', { createObjectURL: () => 'blob:1', revokeObjectURL: vi.fn() });
		const done: Record<string, (found: { how: LinedUp; before: Blob } | 'turned') => void> = {};
		const stop = vi.fn();
		const pair = new PairUp({
			lineUp: (before) => new Promise((resolve) => (done[before] = resolve)),
			stop
		});
		pair.of('a', 'c', values);
		pair.of('b', 'c', values);
		done.a?.('turned');
		await later();
		expect(pair.lined).toBeNull();
		done.b?.({ how, before: new Blob(['x']) });
		await later();
		expect(pair.lined).toEqual(how);
		expect(pair.over).toBe('blob:1');
		// The same pair is not looked for again.
		pair.of('b', 'c', values);
		expect(pair.lined).toEqual(how);
		pair.of('a', 'c', values);
		expect(pair.over).toBe('');
		expect(URL.revokeObjectURL).toHaveBeenCalledWith('blob:1');
		done.a?.('turned');
		await later();
		expect(pair.lined).toBe('turned');
		pair.stop();
		expect(stop).toHaveBeenCalled();
	});
	it('what cannot be read is no like view', async () => {
		const pair = new PairUp({ lineUp: () => Promise.reject(new Error('gone')), stop: () => undefined });
		pair.of('a', 'b', values);
		await later();
		expect(pair.lined).toBe('few-found');
	});
});
