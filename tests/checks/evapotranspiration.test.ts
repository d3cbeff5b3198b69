import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	daylightHours,
	extraterrestrialRadiation,
	hargreavesMm,
	usualEt0Mm
} from '$core/climate/evapotranspiration';
import { defaultValues as values } from '$core/values/values';

/** Allen et al. 1998, FAO Irrigation and drainage paper 56. */
describe('FAO-56', () => {
	it('Example 8: radiation on top of the air at 20° S on 3 September is 32.2 MJ/m² a day', () => {
		expect(extraterrestrialRadiation(-20, '2026-09-03')).toBeCloseTo(32.2, 1);
	});
	it('Example 9: daylight there is 11.7 h', () => {
		expect(daylightHours(-20, '2026-09-03')).toBeCloseTo(11.7, 1);
	});
	it('Example 18: at 50.80° N on 6 July Ra is 41.09 and daylight 16.1 h', () => {
		expect(extraterrestrialRadiation(50.8, '2026-07-06')).toBeCloseTo(41.09, 1);
		expect(daylightHours(50.8, '2026-07-06')).toBeCloseTo(16.1, 1);
	});
	it('Example 20 by Hargreaves: Lyon in July, 26.6 and 14.8 °C, gives 5.0 mm [from memory]', () => {
		expect(hargreavesMm({ minC: 14.8, maxC: 26.6 }, 45.72, '2026-07-15')).toBeCloseTo(5, 1);
	});
	it('knows polar day and polar night', () => {
		expect(daylightHours(80, '2026-06-21')).toBe(24);
		expect(daylightHours(80, '2026-12-21')).toBe(0);
		expect(extraterrestrialRadiation(80, '2026-12-21')).toBeCloseTo(0, 6);
	});
});

describe('usual demand', () => {
	it('is never negative, greatest in summer, turned round south of the line, and less under shelter', () => {
		const place = (latitudeDeg: number, kind: 'open' | 'shade' | 'indoors' = 'open') => ({
			kind,
			latitudeDeg,
			elevationM: 50,
			heldMinimumC: null
		});
		fc.assert(
			fc.property(fc.integer({ min: -66, max: 66 }), fc.integer({ min: 1, max: 12 }), (latitude, month) => {
				const on = `2026-${String(month).padStart(2, '0')}-15`;
				expect(usualEt0Mm(place(latitude), on, values)).toBeGreaterThanOrEqual(0);
				expect(usualEt0Mm(place(latitude, 'shade'), on, values)).toBeLessThanOrEqual(
					usualEt0Mm(place(latitude), on, values)
				);
			})
		);
		expect(usualEt0Mm(place(52), '2026-07-15', values)).toBeGreaterThan(
			3 * usualEt0Mm(place(52), '2026-01-15', values)
		);
		expect(usualEt0Mm(place(-40), '2026-01-15', values)).toBeGreaterThan(
			usualEt0Mm(place(-40), '2026-07-15', values)
		);
	});
});
