/** Calendar arithmetic on dates written YYYY-MM-DD; no time zones take part. */

const DAY_MS = 86_400_000;
/** Read by position, which is far quicker than parsing the text; lists of a large yard ask thousands of times. */
const readMs = (date: string): number =>
	Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)) - 1, Number(date.slice(8, 10)));
/** The days of some forty years, read once. */
const known = new Map<string, number>();
const KNOWN_MOST = 15_000;
function toMs(date: string): number {
	const before = known.get(date);
	if (before !== undefined) return before;
	if (known.size >= KNOWN_MOST) known.clear();
	const ms = readMs(date);
	known.set(date, ms);
	return ms;
}

/** The same days, written once: a course over years asks for the same ones again and again. */
const written = new Map<number, string>();
function toDate(ms: number): string {
	const before = written.get(ms);
	if (before !== undefined) return before;
	if (written.size >= KNOWN_MOST) written.clear();
	const date = new Date(ms).toISOString().slice(0, 10);
	written.set(ms, date);
	return date;
}

/** `addDays('2026-02-27', 2)` is `'2026-03-01'`. */
export const addDays = (date: string, days: number): string => toDate(toMs(date) + Math.round(days) * DAY_MS);

/** Whole days from one date to a later one; negative when the second is earlier. */
export const daysBetween = (from: string, to: string): number => Math.round((toMs(to) - toMs(from)) / DAY_MS);

/** Mean length of a month of the calendar, days. */
export const MONTH_DAYS = 30.44;
/** Days of a year, leap days left out. */
export const YEAR_DAYS = 365;

/**
 * Day of the year, 1 January being 1.
 * @returns 1 to 366
 */
export const dayOfYear = (date: string): number => daysBetween(`${date.slice(0, 4)}-01-01`, date) + 1;

/**
 * Year of a date.
 * @returns the year, like 2026
 */
export const yearOf = (date: string): number => Number(date.slice(0, 4));

/**
 * The date of a day of the year; days past the end run into the next year.
 * @param day day of the year, 1 to 366; beyond it goes on into the next year
 */
export const dateOfDay = (year: number, day: number): string => addDays(`${year}-01-01`, Math.round(day) - 1);

/** A span of calendar dates, both ends included. */
export interface Span {
	from: string;
	to: string;
}

/** Whether a date lies in a span, both ends of it in. */
export const within = (date: string, span: Span): boolean => date >= span.from && date <= span.to;

/** True when the text is a real calendar date (no 31 June). */
export function isCalendarDate(text: string): boolean {
	const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
	if (!match) return false;
	const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
	const leap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
	const most = month === 2 ? (leap ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31;
	return month >= 1 && month <= 12 && day >= 1 && day <= most;
}

/** Days of a span that lie between two days; none where they do not touch. */
export const daysWithin = (span: Span, from: string, to: string): number =>
	Math.max(0, daysBetween(span.from > from ? span.from : from, span.to < to ? span.to : to));
