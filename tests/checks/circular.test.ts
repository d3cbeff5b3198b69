import { describe, expect, it } from 'vitest';
import { circularSummary, rayleigh, sectorShares, turnDeg, widestGap } from '$core/maths/circular';

/** Zar, Biostatistical Analysis, Example 26.4 (values from memory, recomputed). */
const ZAR = [45, 55, 81, 96, 110, 117, 132, 154];
const unweighted = (angles: number[]) => angles.map((azimuthDeg) => ({ azimuthDeg, weight: 1 }));

describe('directions round the trunk', () => {
	it('agrees with Zar, Example 26.4', () => {
		const { meanDeg, resultantLength } = circularSummary(unweighted(ZAR));
		expect(Math.round(meanDeg ?? 0)).toBe(99);
		expect(resultantLength).toBeCloseTo(0.825, 3);
		expect(rayleigh(unweighted(ZAR)).r).toBeCloseTo(6.6, 2);
		expect(rayleigh(unweighted(ZAR)).z).toBeCloseTo(5.45, 2);
		// A weight counts as so many directions: twice each is the same test, twice one is that one twice.
		const twice = ZAR.map((azimuthDeg) => ({ azimuthDeg, weight: 7 }));
		expect(rayleigh(twice).z).toBeCloseTo(rayleigh(unweighted(ZAR)).z, 9);
		const heavy = rayleigh(ZAR.map((azimuthDeg, i) => ({ azimuthDeg, weight: i === 0 ? 100 : 1 })));
		expect(heavy.z).toBeLessThan(1.5);
		expect(rayleigh([]).z).toBe(0);
	});

	it('gives R̄ 0 and no direction for an even spread, 1 for a single one (Fisher 1993, 2.3)', () => {
		const even = circularSummary(unweighted([0, 90, 180, 270]));
		expect(even.resultantLength).toBeCloseTo(0, 12);
		expect(even.meanDeg).toBeNull();
		const single = circularSummary([{ azimuthDeg: 350, weight: 3 }]);
		expect(single.meanDeg).toBeCloseTo(350, 9);
		expect(single.resultantLength).toBeCloseTo(1, 12);
	});

	it('does not average 350° and 10° to the south', () => {
		const { meanDeg } = circularSummary(unweighted([350, 10]));
		expect(Math.abs(turnDeg(0, meanDeg ?? 180))).toBeLessThan(1e-9);
	});

	it('counts a weight as that many roots', () => {
		const doubled = circularSummary([
			{ azimuthDeg: 20, weight: 2 },
			{ azimuthDeg: 100, weight: 1 }
		]);
		const repeated = circularSummary(unweighted([20, 20, 100]));
		expect(doubled.meanDeg).toBeCloseTo(repeated.meanDeg ?? 0, 9);
		expect(doubled.resultantLength).toBeCloseTo(repeated.resultantLength, 9);
	});

	it('finds the widest gap across the seam and shares of sectors that sum to one', () => {
		expect(widestGap([10, 100, 200])).toEqual({ widthDeg: 170, fromDeg: 200 });
		expect(widestGap([])).toEqual({ widthDeg: 360, fromDeg: 0 });
		const shares = sectorShares(unweighted([0, 22, 23, 338, 180]));
		expect(shares[0]).toBeCloseTo(3 / 5, 12);
		expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 12);
	});
});
