import { addDays } from '../maths/calendar';
import { isCalendarDate } from '../maths/calendar';

const monthNames = new Map<string, ReadonlyMap<string, number>>();

/** Names of the months of a locale and of English, long, short and to three letters, in small letters. */
function monthsOf(locale: string): ReadonlyMap<string, number> {
	const known = monthNames.get(locale);
	if (known) return known;
	const names = new Map<string, number>();
	for (const of of ['en-GB', locale])
		for (const month of ['long', 'short'] as const) {
			const named = new Intl.DateTimeFormat(of, { month, timeZone: 'UTC' });
			for (let i = 0; i < 12; i++) {
				const name = named
					.format(new Date(Date.UTC(2026, i, 1)))
					.toLowerCase()
					.replace(/\.$/, '');
				if (/\p{L}/u.test(name))
					for (const form of [name, name.slice(0, 3)]) if (!names.has(form)) names.set(form, i + 1);
			}
		}
	monthNames.set(locale, names);
	return names;
}

/** Whether a locale writes the day before the month. */
function dayFirst(locale: string): boolean {
	const parts = new Intl.DateTimeFormat(locale, { timeZone: 'UTC' }).formatToParts(
		new Date(Date.UTC(2026, 3, 18))
	);
	const at = (type: string): number => parts.findIndex((part) => part.type === type);
	return at('day') < at('month');
}

const pad = (n: number): string => String(n).padStart(2, '0');

/**
 * A day as a person writes it: `18 Apr 2026`, `18 April`, `Apr 18`, `18.4.26`, `18/4` (by the order of the locale), `2026-04-18`, `today`,
 * `yesterday`, `tomorrow`. Without a year it is the one nearest to today.
 * @param today calendar date, `YYYY-MM-DD`
 * @returns the calendar date; null for what is no day
 */
export function readDate(text: string, today: string, locale: string): string | null {
	const plain = text.trim().toLowerCase().replace(/,/g, ' ').replace(/\s+/g, ' ');
	const near: Record<string, number> = { today: 0, yesterday: -1, tomorrow: 1 };
	const days = Object.hasOwn(near, plain) ? near[plain] : undefined;
	if (days !== undefined) return addDays(today, days);
	const whole = (
		year: string | undefined,
		month: number | undefined,
		day: string | undefined
	): string | null => {
		if (month === undefined || day === undefined) return null;
		const of = (yyyy: number): string | null => {
			const date = `${String(yyyy).padStart(4, '0')}-${pad(month)}-${pad(Number(day))}`;
			return isCalendarDate(date) ? date : null;
		};
		if (year !== undefined) return of(year.length === 2 ? 2000 + Number(year) : Number(year));
		const apart = (date: string): number => Math.abs(Date.parse(date) - Date.parse(today));
		const now = Number(today.slice(0, 4));
		return (
			[now, now - 1, now + 1]
				.map(of)
				.filter((date) => date !== null)
				.sort((a, b) => apart(a) - apart(b))[0] ?? null
		);
	};
	const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(plain);
	if (iso) return whole(iso[1], Number(iso[2]), iso[3]);
	const figures = /^(\d{1,2})[./-]\s?(\d{1,2})(?:[./-]\s?(\d{4}|\d{2})?)?$/.exec(plain);
	if (figures) {
		const [, first, second, year] = figures;
		// Dots put the day first everywhere.
		return dayFirst(locale) || plain.includes('.')
			? whole(year, Number(second), first)
			: whole(year, Number(first), second);
	}
	const months = monthsOf(locale);
	const monthOf = (name: string | undefined): number | undefined =>
		name === undefined ? undefined : months.get(name.replace(/\.$/, ''));
	const named = /^(\d{1,2})\.?(?:st|nd|rd|th)? (\p{L}+\.?)(?: (\d{4}|\d{2}))?$/u.exec(plain);
	if (named) return whole(named[3], monthOf(named[2]), named[1]);
	const american = /^(\p{L}+\.?) (\d{1,2})(?:st|nd|rd|th)?(?: (\d{4}))?$/u.exec(plain);
	if (american) return whole(american[3], monthOf(american[1]), american[2]);
	return null;
}
