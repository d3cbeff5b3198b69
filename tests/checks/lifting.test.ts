import { describe, expect, it } from 'vitest';
import { ballMass } from '$core/examine/measuring/ball-mass';
import { ballDepthMm, ballSize } from '$core/replant/lifting/ball-size';
import { handling, liftLimit } from '$core/replant/lifting/niosh';
import { defaultValues } from '$core/values/values';

const inch = 25.4;

describe('size of the ball', () => {
	/** ANSI Z60.1, rows from memory. */
	it.each([
		[1, 16],
		[2, 24],
		[3, 32],
		[4, 42]
	])('of a tree of %i in caliper is %i in by the nursery table', (caliper, ball) => {
		const size = ballSize(caliper * inch, 'nursery', 'across', defaultValues);
		expect(size.leastDiameterMm / inch).toBeCloseTo(ball, 6);
		expect(size.inTable).toBe(true);
	});
	it('lies between the rows on their line, and says where the table ends', () => {
		expect(ballSize(1.5 * inch, 'nursery', 'across', defaultValues).leastDiameterMm / inch).toBeCloseTo(
			20,
			6
		);
		expect(ballSize(6 * inch, 'nursery', 'across', defaultValues)).toMatchObject({ inTable: false });
		expect(ballSize(0.5 * inch, 'nursery', 'across', defaultValues).inTable).toBe(false);
		let before = 0;
		for (let caliper = 0.2; caliper < 8; caliper += 0.1) {
			const { leastDiameterMm } = ballSize(caliper * inch, 'nursery', 'across', defaultValues);
			expect(leastDiameterMm).toBeGreaterThanOrEqual(before - 1e-6);
			before = leastDiameterMm;
		}
	});
	/** Common practice, no source: 5 to 6 times the base of the trunk. */
	it('in the field is five to six trunks across, or clear on each side', () => {
		const across = ballSize(60, 'field', 'across', defaultValues);
		expect([across.leastDiameterMm, across.mostDiameterMm]).toEqual([300, 360]);
		const each = ballSize(60, 'field', 'each-side', defaultValues);
		expect([each.leastDiameterMm, each.mostDiameterMm]).toEqual([660, 780]);
		expect(each.secondRingMm).toBeGreaterThan(each.mostDiameterMm);
	});
	/** ANSI Z60.1, from memory. */
	it.each([
		[16, 0.75],
		[24, 2 / 3],
		[36, 0.6]
	])('is no less deep than its share: %i in × %f', (ball, share) => {
		expect(ballDepthMm(ball * inch) / inch).toBeCloseTo(ball * share, 6);
	});
	it('24 in × 16 in: 2.79 ft³ half-ellipsoid, 4.19 ft³ cylinder', () => {
		const { leastVolumeL, mostVolumeL } = ballMass(24 * inch, 16 * inch, defaultValues);
		expect(leastVolumeL / 28.3168).toBeCloseTo(2.79, 2);
		expect(mostVolumeL / 28.3168).toBeCloseTo(4.19, 2);
	});
});

describe('what one person may lift (Waters et al. 1993)', () => {
	const best = { reachCm: 25, startCm: 75, travelCm: 25, twistDeg: 0, coupling: 'good' as const };
	it('is 23 kg at best, and each multiplier is 1 there', () => {
		expect(liftLimit(best, defaultValues).kg).toBeCloseTo(23, 1);
	});
	it('loading punch press stock, start: 16.3 lb (worked example 1 of the applications manual; from memory)', () => {
		const { kg } = liftLimit(
			{ reachCm: 23 * 2.54, startCm: 15 * 2.54, travelCm: 48 * 2.54, twistDeg: 0, coupling: 'fair' },
			defaultValues
		);
		// The manual works in inches, 10 for 25 cm and 51 lb for 23 kg, with factors rounded to hundredths.
		expect(kg / 0.4536 / 16.3).toBeCloseTo(1, 1);
	});
	it('end: 14.5 lb', () => {
		const { kg } = liftLimit(
			{ reachCm: 23 * 2.54, startCm: 63 * 2.54, travelCm: 48 * 2.54, twistDeg: 0, coupling: 'fair' },
			defaultValues
		);
		expect(kg / 0.4536 / 14.5).toBeCloseTo(1, 1);
	});
	it('is nothing beyond 63 cm of reach, 175 cm of height or 135° of twist', () => {
		expect(liftLimit({ ...best, travelCm: 176 }, defaultValues).kg).toBe(0);
		for (const edge of [{ reachCm: 63 }, { startCm: 175 }, { travelCm: 175 }, { twistDeg: 135 }])
			expect(liftLimit({ ...best, ...edge }, defaultValues).kg).toBeGreaterThan(0);
		expect(liftLimit({ ...best, reachCm: 64 }, defaultValues).kg).toBe(0);
		expect(liftLimit({ ...best, startCm: 180 }, defaultValues).kg).toBe(0);
		expect(liftLimit({ ...best, twistDeg: 140 }, defaultValues).kg).toBe(0);
		expect(handling(40, 0)).toEqual({ people: Infinity, way: 'barrow or machine' });
	});
	it('never more when it is worse: further, lower, more twisted', () => {
		for (let more = 0; more < 40; more += 5) {
			const now = liftLimit({ ...best, reachCm: 25 + more }, defaultValues).kg;
			const then = liftLimit({ ...best, reachCm: 30 + more }, defaultValues).kg;
			expect(then).toBeLessThanOrEqual(now);
			expect(liftLimit({ ...best, twistDeg: 10 + more }, defaultValues).kg).toBeLessThan(
				liftLimit({ ...best, twistDeg: more }, defaultValues).kg
			);
		}
		expect(handling(20, 12)).toEqual({ people: 2, way: 'by hand' });
		expect(handling(45, 12).way).toBe('sling and poles');
	});
});
