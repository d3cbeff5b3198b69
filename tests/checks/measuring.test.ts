import { describe, expect, it } from 'vitest';
import { ballMass } from '$core/examine/measuring/ball-mass';
import { outflow } from '$core/examine/measuring/pouring';
import { rootSample } from '$core/examine/measuring/root-sample';
import { weighPot } from '$core/examine/measuring/weighing';
import { defaultValues } from '$core/values/values';

/** Newcombe 1998, Table I, method 3 (Wilson without continuity correction). */
it.each([
	[81, 263, 0.2553, 0.3662],
	[15, 148, 0.0624, 0.1605],
	[0, 20, 0, 0.1611]
])('a root sample of %s alive in %s has Newcombe’s interval', (alive, total, low, high) => {
	const sample = rootSample({ alive, dead: total - alive }, defaultValues);
	expect(sample.low).toBeCloseTo(low, 4);
	expect(sample.high).toBeCloseTo(high, 4);
});

describe('a root ball', () => {
	/** 24 in × 16 in: 2.79 ft³ as a half-ellipsoid, 4.19 ft³ as a cylinder; at 110 lb/ft³ 307 and 461 lb (recomputed). */
	it('of 24 by 16 inches weighs between 307 and 461 lb at the usual density', () => {
		const ball = ballMass(24 * 25.4, 16 * 25.4, defaultValues);
		const cubicFoot = 28.316846592;
		expect(ball.leastVolumeL / cubicFoot).toBeCloseTo(2.79, 2);
		expect(ball.mostVolumeL / cubicFoot).toBeCloseTo(4.19, 2);
		const pounds = (litres: number): number => (litres * defaultValues['lifting.density']) / 0.45359237;
		// 1.76 kg/L is 109.9 lb/ft³, so that the sums differ by a pound.
		expect(Math.abs(pounds(ball.leastVolumeL) - 307)).toBeLessThan(1);
		expect(Math.abs(pounds(ball.mostVolumeL) - 461)).toBeLessThan(1);
		expect(ball.usualKg).toBeGreaterThan(ball.leastKg);
		expect(ball.usualKg).toBeLessThan(ball.mostKg);
	});
});

/** dryness = (W_full − W) / (W_full − W_dry): common practice, no source. */
it('dryness by weight is 0 when full and 1 when as dry as it may get', () => {
	const at = (nowKg: number) =>
		weighPot(
			{ wateredOn: '2026-04-10', fullKg: 8, nowKg, dryKg: 6, neighbours: [] },
			'2026-04-14',
			defaultValues
		).dryness;
	expect(at(8)).toBe(0);
	expect(at(7)).toBeCloseTo(0.5, 10);
	expect(at(6)).toBe(1);
});

/** Water until a tenth to a fifth runs through: common practice, no source. */
it('an outflow of a tenth to a fifth is as it should be', () => {
	const advice = (ranOutL: number): string =>
		outflow({ pouredL: 1, ranOutL, firstDripS: 60 }, defaultValues).advice;
	expect(advice(0.1)).toBe('As it should be.');
	expect(advice(0.2)).toBe('As it should be.');
	expect(advice(0.09)).toMatch(/salts/);
	expect(advice(0.3)).toMatch(/less at once/);
	expect(advice(0.6)).toMatch(/soak it from below/);
});
