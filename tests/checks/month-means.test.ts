import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { climateOf, growingSeason, monthMeans, outdoorMeanC } from '$core/climate/normals';
import { addDays, daysBetween } from '$core/maths/calendar';
import { placeInput, placeSchema, type Place } from '$core/vocabulary/place';
import { defaultValues as values } from '$core/values/values';

const at = (change: Partial<Place>): Place =>
	placeSchema.parse({ id: 'p', version: 1, name: 'P', kind: 'open', latitudeDeg: 40, note: '', ...change });
const meanBetween = (place: Place, from: string, days: number): number =>
	Array.from({ length: days }, (_, day) => outdoorMeanC(place, addDays(from, day), values)).reduce(
		(sum, meanC) => sum + meanC / days,
		0
	);

describe('a climate of which the coldest and the warmest month are typed', () => {
	it('has these as the means of a month about its coldest and its warmest day, and their middle as that of the year', () => {
		const months = fc.record({
			coldestMonthC: fc.double({ min: -20, max: 0, noNaN: true }),
			swing: fc.double({ min: 0, max: 40, noNaN: true }),
			latitudeDeg: fc.double({ min: -60, max: 60, noNaN: true })
		});
		fc.assert(
			fc.property(months, ({ coldestMonthC, swing, latitudeDeg }) => {
				const place = at({ coldestMonthC, warmestMonthC: coldestMonthC + swing, latitudeDeg });
				const north = latitudeDeg >= 0;
				// A twelfth of a year about 20 January and half a year later, in whole days.
				expect(meanBetween(place, north ? '2026-01-05' : '2026-07-06', 31)).toBeCloseTo(coldestMonthC, 0);
				expect(meanBetween(place, north ? '2026-07-06' : '2026-01-05', 31)).toBeCloseTo(
					coldestMonthC + swing,
					0
				);
				expect(meanBetween(place, '2026-01-01', 365)).toBeCloseTo(coldestMonthC + swing / 2, 1);
			}),
			{ numRuns: 60 }
		);
	});
	it('is a little colder than its coldest month on its coldest day, by sin(π/12)/(π/12) = 0.98862 of the swing', () => {
		const place = at({ coldestMonthC: 0, warmestMonthC: 20 });
		expect(outdoorMeanC(place, '2026-01-20', values)).toBeCloseTo(10 - 10 / 0.98862, 3);
		expect(meanBetween(place, '2026-01-05', 31)).toBeCloseTo(0, 1);
	});
	it('does not ask what latitude and height would have guessed', () => {
		const months = { coldestMonthC: 1, warmestMonthC: 24 };
		const low = at({ ...months, elevationM: 0, latitudeDeg: 20 });
		const high = at({ ...months, elevationM: 3000, latitudeDeg: 60 });
		expect(outdoorMeanC(low, '2026-05-03', values)).toBe(outdoorMeanC(high, '2026-05-03', values));
	});
	it('changes nothing where the typed months are those that were guessed', () => {
		for (const latitudeDeg of [-45, -20, 0, 35, 52, 60]) {
			const guessed = at({ latitudeDeg, elevationM: 400 });
			const { coldestC, warmestC } = monthMeans(guessed, values);
			const typed = at({ latitudeDeg, elevationM: 400, coldestMonthC: coldestC, warmestMonthC: warmestC });
			for (const on of ['2026-01-20', '2026-04-11', '2026-07-22', '2026-11-30'])
				expect(outdoorMeanC(typed, on, values)).toBeCloseTo(outdoorMeanC(guessed, on, values), 9);
		}
	});
	// Monthly means of Boulder, Colorado, 1991–2020, rounded [from memory]: January 1, July 23, April 9, October 11 °C.
	it('of a high inland town: April and October within two degrees, where the guess is seven too cold', () => {
		const boulder = { latitudeDeg: 40.01, elevationM: 1655 };
		const typed = at({ ...boulder, coldestMonthC: 1, warmestMonthC: 23 });
		expect(Math.abs(meanBetween(typed, '2026-04-01', 30) - 9)).toBeLessThan(2);
		expect(Math.abs(meanBetween(typed, '2026-10-01', 31) - 11)).toBeLessThan(2.5);
		expect(meanBetween(at(boulder), '2026-04-01', 30)).toBeLessThan(3);
		const season = growingSeason(typed, false, 2026, values);
		const guessed = growingSeason(at(boulder), false, 2026, values);
		expect(daysBetween(season?.from ?? '', guessed?.from ?? '')).toBeGreaterThan(30);
	});
	it('is told apart from another of the same position wherever seasons are kept ready', () => {
		const season = (place: Place) => growingSeason(climateOf(place), false, 2026, values)?.from;
		const cold = at({ coldestMonthC: -10, warmestMonthC: 15 });
		const warm = at({ coldestMonthC: 4, warmestMonthC: 15 });
		const warmer = at({ coldestMonthC: -10, warmestMonthC: 25 });
		expect(new Set([season(cold), season(warm), season(warmer), season(at({}))]).size).toBe(4);
	});
	it('comes with both months or none, the right way round', () => {
		const typed = (change: Partial<Place>) =>
			placeInput
				.safeParse({ name: 'P', kind: 'open', latitudeDeg: 40, note: '', ...change })
				.error?.issues.map(({ path, message }) => `${path.join('.')} ${message}`) ?? [];
		expect(typed({})).toEqual([]);
		expect(typed({ coldestMonthC: 1, warmestMonthC: 1 })).toEqual([]);
		expect(typed({ coldestMonthC: 1 })).toEqual([
			'warmestMonthC is wanted beside the other month; or leave both empty'
		]);
		expect(typed({ warmestMonthC: 20 })).toEqual([
			'coldestMonthC is wanted beside the other month; or leave both empty'
		]);
		expect(typed({ coldestMonthC: 20, warmestMonthC: 19 })).toEqual([
			'warmestMonthC must not be colder than the coldest month'
		]);
	});
});
