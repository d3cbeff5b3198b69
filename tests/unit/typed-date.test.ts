import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDate } from '$core/text/typed-date';
import { createFormat, defaultFormatSettings } from '$core/text/format';
import { addDays } from '$core/maths/calendar';

const today = '2026-04-18';
const read = (text: string, locale = 'en-GB'): string | null => readDate(text, today, locale);

describe('a day as a person writes it', () => {
	it.each([
		['2026-04-18', '2026-04-18'],
		['18 Apr 2026', '2026-04-18'],
		['18 april', '2026-04-18'],
		['Apr 3', '2026-04-03'],
		['April 3, 2025', '2025-04-03'],
		['3rd Sept 25', '2025-09-03'],
		['18.4.26', '2026-04-18'],
		['18/4', '2026-04-18'],
		['1.5.', '2026-05-01'],
		['today', '2026-04-18'],
		['Yesterday', '2026-04-17'],
		['tomorrow', '2026-04-19'],
		['29 Feb 2024', '2024-02-29']
	])('%s', (text, on) => expect(read(text)).toBe(on));
	it.each(['', 'soon', '31 June', '29 Feb 2025', '18/13/2026', '99', 'apr', '2026-4', 'constructor'])(
		'%s is no day',
		(text) => expect(read(text)).toBeNull()
	);
	it('puts figures in the order of the person’s locale; dots put the day first everywhere', () => {
		expect(read('4/18/2026', 'en-US')).toBe('2026-04-18');
		expect(read('4/5', 'en-US')).toBe('2026-04-05');
		expect(read('4/5')).toBe('2026-05-04');
		expect(read('4.5.', 'en-US')).toBe('2026-05-04');
		expect(read('18. März 2026', 'de-DE')).toBe('2026-03-18');
		expect(read('18 avr. 2026', 'fr-FR')).toBe('2026-04-18');
	});
	it('without a year is the one nearest to today', () => {
		expect(readDate('20 Dec', '2026-01-05', 'en-GB')).toBe('2025-12-20');
		expect(readDate('3 Jan', '2025-12-28', 'en-GB')).toBe('2026-01-03');
		expect(readDate('29 Feb', '2025-01-05', 'en-GB')).toBe('2024-02-29');
	});
	it('reads back every day that Bruntle writes, in any of its languages', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 0, max: 30_000 }),
				fc.constantFrom('en-GB', 'en-US', 'de-DE', 'fr-FR', 'nl-NL', 'es-ES', 'sv-SE'),
				(days, locale) => {
					const on = addDays('1990-01-01', days);
					const format = createFormat({ ...defaultFormatSettings, locale });
					const said = format.day(on);
					// What cannot be read back is shown as it is kept.
					expect([on, null]).toContain(readDate(said, today, locale));
					if (locale.startsWith('en') || locale === 'de-DE') expect(readDate(said, today, locale)).toBe(on);
				}
			),
			{ numRuns: 400 }
		);
	});
});
