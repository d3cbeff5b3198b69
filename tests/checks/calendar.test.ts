import { addDays as dateFnsAddDays, differenceInCalendarDays, getDayOfYear, isValid, parse } from 'date-fns';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, dateOfDay, dayOfYear, daysBetween, yearOf } from '$core/maths/calendar';
import { isCalendarDate } from '$core/maths/calendar';

const dates = fc
	.integer({ min: 0, max: 55_000 })
	.map((days) => new Date(Date.UTC(1950, 0, 1) + days * 86_400_000).toISOString().slice(0, 10));
const local = (date: string) => new Date(`${date}T00:00:00`);

describe('calendar arithmetic, against date-fns', () => {
	it('adds and counts days as date-fns does', () => {
		fc.assert(
			fc.property(dates, fc.integer({ min: -4000, max: 4000 }), (date, days) => {
				const later = addDays(date, days);
				const theirs = dateFnsAddDays(local(date), days);
				expect(later).toBe(
					`${theirs.getFullYear()}-${String(theirs.getMonth() + 1).padStart(2, '0')}-${String(theirs.getDate()).padStart(2, '0')}`
				);
				expect(daysBetween(date, later)).toBe(differenceInCalendarDays(local(later), local(date)));
				expect(dayOfYear(date)).toBe(getDayOfYear(local(date)));
				expect(dateOfDay(yearOf(date), dayOfYear(date))).toBe(date);
			})
		);
	});

	it('knows leap days and refuses days that do not exist', () => {
		expect(addDays('2024-02-28', 1)).toBe('2024-02-29');
		fc.assert(
			fc.property(
				fc.integer({ min: 1600, max: 2400 }),
				fc.integer({ min: 0, max: 13 }),
				fc.integer({ min: 0, max: 32 }),
				(year, month, day) => {
					const text = `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
					expect(isCalendarDate(text), text).toBe(isValid(parse(text, 'yyyy-MM-dd', new Date(0))));
				}
			),
			{ numRuns: 2000 }
		);
		for (const [text, is] of [
			['2000-02-29', true],
			['1900-02-29', false],
			['2026-11-31', false],
			['2026-11-30', true]
		] as const)
			expect(isCalendarDate(text), text).toBe(is);
		expect(isCalendarDate('2024-02-29')).toBe(true);
		expect(isCalendarDate('2026-02-29')).toBe(false);
		expect(isCalendarDate('2026-06-31')).toBe(false);
		expect(isCalendarDate('18/04/2026')).toBe(false);
	});
});
