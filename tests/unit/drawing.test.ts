import { describe, expect, it } from 'vitest';
import { segmentSchema, type Segment } from '$core/roots/map/root-map';
import { drawRoot, onPage, pathOf, stretchesOf } from '$views/roots/draw-root';
import { treeRecords } from '../records';

const first = treeRecords().rootMap?.segments[0];
if (!first) throw new Error('a root');
const root = (change: Partial<Segment> = {}): Segment => segmentSchema.parse({ ...first, ...change });
const scale = { px: 2, sign: 1 as const };
const numbersIn = (path: string): number[] => (path.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);

describe('the page', () => {
	it('is turned about its middle when the front is drawn at the foot', () => {
		expect(onPage({ x: 3, y: -4 }, { px: 2, sign: 1 })).toEqual({ x: 6, y: -8 });
		expect(onPage({ x: 3, y: -4 }, { px: 2, sign: -1 })).toEqual({ x: -6, y: 8 });
	});
	it('a path begins with a move, draws to each point, and closes only what is closed', () => {
		const points = [
			{ x: 0, y: 0 },
			{ x: 1, y: 0.5 },
			{ x: 2, y: 1 }
		];
		expect(pathOf(points, scale)).toBe('M0.0 0.0L2.0 1.0L4.0 2.0Z');
		expect(pathOf(points, scale, false)).toBe('M0.0 0.0L2.0 1.0L4.0 2.0');
		expect(pathOf([], scale, false)).toBe('');
	});
});

describe('the stretches of a root', () => {
	const whole = (segment: Segment, lengthMm = 100) => {
		const parts = Object.values(stretchesOf(segment, lengthMm));
		// Whatever is known of a root, its stretches follow each other and make it whole.
		let at = 0;
		for (const [from, to] of parts) {
			expect(from).toBe(at);
			expect(to).toBeGreaterThanOrEqual(from);
			at = to;
		}
		expect(at).toBe(lengthMm);
		return stretchesOf(segment, lengthMm);
	};
	it('sound: all of it', () => {
		expect(whole(root())).toMatchObject({ sound: [0, 100], dead: [100, 100] });
	});
	it('dead from a place on: sound before it', () => {
		expect(whole(root({ condition: 'dead', deadFromMm: 40 }))).toMatchObject({
			sound: [0, 40],
			dead: [40, 100]
		});
		expect(whole(root({ condition: 'dead', deadFromMm: null })).dead).toEqual([0, 100]);
	});
	it('doubtful between sound and dead', () => {
		expect(whole(root({ condition: 'dead', deadFromMm: 60, doubtfulFromMm: 45 }))).toMatchObject({
			sound: [0, 45],
			doubtful: [45, 60],
			dead: [60, 100]
		});
	});
	it('seen only so far: the rest is assumed, and nothing of it called dead', () => {
		expect(whole(root({ seenToMm: 70 }))).toMatchObject({ sound: [0, 70], assumed: [70, 100] });
		expect(whole(root({ seenToMm: 30, condition: 'dead', deadFromMm: 60 }))).toMatchObject({
			dead: [30, 30],
			assumed: [30, 100]
		});
		expect(whole(root({ seenToMm: 400 })).assumed).toEqual([100, 100]);
	});
});

describe('a drawn root', () => {
	it('has an outline for each stretch it has, and none for the others', () => {
		const sound = drawRoot(root(), scale);
		expect(sound.sound).toMatch(/^M.*Z$/);
		expect([sound.doubtful, sound.dead, sound.assumed]).toEqual(['', '', '']);
		const dead = drawRoot(root({ condition: 'dead', deadFromMm: 30 }), scale);
		expect(dead.dead).toMatch(/^M.*Z$/);
	});
	it('carries hairs only while its end lives, more of them the finer it branches', () => {
		const hairs = (change: Partial<Segment>): number => drawRoot(root(change), scale).tips.length;
		expect(hairs({ fineScore: 3 })).toBeGreaterThan(hairs({ fineScore: 1 }));
		expect(hairs({ fineScore: 0 })).toBe(0);
		expect(hairs({ fineScore: 3, condition: 'dead', deadFromMm: 30 })).toBe(0);
		expect(hairs({ fineScore: 3, seenToMm: 40 })).toBe(0);
	});
	it('scales and turns with the page', () => {
		const small = drawRoot(root(), { px: 1, sign: 1 });
		const turned = drawRoot(root(), { px: 1, sign: -1 });
		const large = drawRoot(root(), { px: 3, sign: 1 });
		expect(large.end.x).toBeCloseTo(3 * small.end.x, 6);
		expect(turned.end.x).toBeCloseTo(-small.end.x, 6);
		expect(numbersIn(small.centre)).toHaveLength(numbersIn(turned.centre).length);
		for (const path of [small.sound, turned.sound, large.centre])
			expect(numbersIn(path).every(Number.isFinite)).toBe(true);
	});
	it('a cut is struck across it where it dies, else near its start', () => {
		const { across } = drawRoot(root(), scale);
		const [a, b] = across;
		const width = Math.hypot(a.x - b.x, a.y - b.y);
		// Over the root and seven pixels beyond at each side, a little slanted.
		expect(width).toBeGreaterThan(14);
		expect(width).toBeLessThan(2 * (root().diameterStartMm / 2 + 7 / scale.px) * scale.px * 1.2);
	});
});
