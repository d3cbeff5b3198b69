import { describe, expect, it } from 'vitest';
import { wilsonInterval } from '$core/maths/wilson';

describe('Wilson interval', () => {
	/** Newcombe 1998, Statistics in Medicine 17, table I, method 3. */
	it.each([
		[81, 263, 0.2553, 0.3662],
		[15, 148, 0.0624, 0.1605],
		[0, 20, 0, 0.1611]
	])('agrees with Newcombe 1998 for %i of %i', (successes, trials, low, high) => {
		const interval = wilsonInterval(successes, trials);
		expect(interval.low).toBeCloseTo(low, 4);
		expect(interval.high).toBeCloseTo(high, 4);
	});

	it('refuses counts that cannot be', () => {
		expect(() => wilsonInterval(3, 0)).toThrow(RangeError);
		expect(() => wilsonInterval(5, 4)).toThrow(/0 to trials/);
		expect(() => wilsonInterval(1.5, 4)).toThrow(RangeError);
	});
});
