import { describe, expect, it } from 'vitest';
import { rootProtectionArea, structuralRootZoneRadiusM } from '$core/roots/plan/zones';
import { defaultValues } from '$core/values/values';

describe('zones of a standing tree', () => {
	/** AS 4970-2009, 3.3.5: 0.64 (50 D)^0.42, not under 1.5 m. */
	it.each([
		[0.3, 2.0],
		[0.5, 2.47],
		[1.0, 3.31],
		[0.05, 1.5]
	])('structural root zone of %f m is %f m (AS 4970-2009)', (diameterM, radiusM) => {
		expect(structuralRootZoneRadiusM(diameterM, defaultValues)).toBeCloseTo(radiusM, 2);
	});

	/** BS 5837:2012, 4.6.1: radius 12 × stem diameter, at most 707 m² (15 m). */
	it('root protection area follows BS 5837:2012 and its cap', () => {
		expect(rootProtectionArea(0.5, defaultValues).radiusM).toBeCloseTo(6, 9);
		expect(rootProtectionArea(0.5, defaultValues).areaM2).toBeCloseTo(113.1, 1);
		const capped = rootProtectionArea(1.6, defaultValues);
		expect(capped.areaM2).toBe(707);
		expect(capped.radiusM).toBeCloseTo(15, 1);
	});
});
