import { describe, expect, it } from 'vitest';
import { leafMoved, leafSeenAbout, leavesSince } from '$core/recovery/leaves-since';
import { defaultValues as values } from '$core/values/values';

/** The other picture, long after. */
const FAR = '2027-05-01';
const look = (observedOn: string, leafCover: number | null) => ({ observedOn, leafCover });

describe('how much of a crown was in leaf on the day of a picture', () => {
	it('by the look nearest to it that says so, and by none that is too far', () => {
		const looks = [look('2026-05-01', 0.4), look('2026-05-12', 0.9), look('2026-05-11', null)];
		expect(leafSeenAbout(looks, '2026-05-10', FAR, values)).toEqual({
			observedOn: '2026-05-12',
			leafCover: 0.9
		});
		expect(leafSeenAbout(looks, '2026-05-05', FAR, values)).toEqual({
			observedOn: '2026-05-01',
			leafCover: 0.4
		});
		expect(leafSeenAbout(looks, '2026-05-22', FAR, values)?.leafCover).toBe(0.9);
		expect(leafSeenAbout(looks, '2026-05-23', FAR, values)).toBeNull();
		expect(leafSeenAbout(looks, '2026-04-21', FAR, values)?.leafCover).toBe(0.4);
		expect(leafSeenAbout(looks, '2026-04-20', FAR, values)).toBeNull();
		expect(leafSeenAbout([], '2026-05-10', FAR, values)).toBeNull();
	});
	it('of two looks of one day by the one that was written down last', () => {
		const looks = [look('2026-05-10', 0.8), look('2026-05-10', 0.75)];
		expect(leafSeenAbout(looks, '2026-05-10', FAR, values)?.leafCover).toBe(0.75);
	});
	it('what was seen nearer to the other picture tells of that one, never of both', () => {
		// Five days apart, and what was measured between them written down for the later.
		const looks = [look('2026-05-15', 0.5)];
		expect(leafSeenAbout(looks, '2026-05-15', '2026-05-10', values)?.leafCover).toBe(0.5);
		expect(leafSeenAbout(looks, '2026-05-10', '2026-05-15', values)).toBeNull();
		for (let day = 1; day <= 28; day++) {
			const [seen] = [look(`2026-05-${String(day).padStart(2, '0')}`, 0.7)];
			const both = [
				leafSeenAbout([seen], '2026-05-12', '2026-05-16', values),
				leafSeenAbout([seen], '2026-05-16', '2026-05-12', values)
			];
			expect(both.filter((one) => one !== null).length).toBeLessThanOrEqual(1);
		}
		// Two pictures of one day have the same look.
		expect(leafSeenAbout(looks, '2026-05-15', '2026-05-15', values)?.leafCover).toBe(0.5);
	});
	it('a bare crown was seen too', () => {
		expect(leafSeenAbout([look('2026-05-10', 0)], '2026-05-10', FAR, values)?.leafCover).toBe(0);
	});
});

describe('leaf now, of what the crown can carry', () => {
	const then = { cover: 0.5, error: 0.04 };
	it('is what was seen then, by how much the loop shows now against then', () => {
		const since = leavesSince(then, { cover: 0.25, error: 0.04 }, 0.9);
		expect(since?.leafCover).toBeCloseTo(0.45, 10);
		// Of a quotient: 0.9 / 0.5 · √(0.04² + (0.5 · 0.04)²)
		expect(since?.error).toBeCloseTo(0.9 * 2 * Math.hypot(0.04, 0.02), 10);
	});
	it('is never more than whole, and more leaf seen never makes less of it', () => {
		expect(leavesSince(then, { cover: 0.9, error: 0.04 }, 0.9)?.leafCover).toBe(1);
		let before = -1;
		for (let cover = 0; cover <= 1; cover += 0.05) {
			const { leafCover = NaN } = leavesSince(then, { cover, error: 0.04 }, 0.7) ?? {};
			expect(leafCover).toBeGreaterThanOrEqual(before);
			before = leafCover;
		}
	});
	it('is not told against a crown that had next to no leaf', () => {
		expect(leavesSince({ cover: 0.08, error: 0.04 }, { cover: 0.5, error: 0.04 }, 0.2)).toBeNull();
		expect(leavesSince({ cover: 0.081, error: 0.04 }, { cover: 0.5, error: 0.04 }, 0.2)).not.toBeNull();
		expect(leavesSince(then, { cover: 0.5, error: 0.04 }, 0)).toBeNull();
	});
});

describe('more or less leaf', () => {
	it('only beyond what both pictures leave open', () => {
		const then = { cover: 0.5, error: 0.03 };
		expect(leafMoved(then, { cover: 0.56, error: 0.04 })).toBe('more');
		expect(leafMoved(then, { cover: 0.44, error: 0.04 })).toBe('less');
		expect(leafMoved(then, { cover: 0.549, error: 0.04 })).toBe('no-difference');
		// As far as both leave open, and no farther, nothing moved.
		expect(leafMoved({ cover: 0.5, error: 0 }, { cover: 0.75, error: 0.25 })).toBe('no-difference');
		expect(leafMoved(then, { cover: 0.451, error: 0.04 })).toBe('no-difference');
	});
});
