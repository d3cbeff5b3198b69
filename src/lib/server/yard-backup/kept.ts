import { getISOWeek, getISOWeekYear } from 'date-fns';

/** How many backups are kept: the newest of so many days, weeks and months. */
export const KEPT = { days: 7, weeks: 4, months: 12 };

/** A day as a date at its noon, wherever this runs. */
const noonOf = (instant: string): Date => {
	const [year = 0, month = 1, day = 1] = instant.slice(0, 10).split('-').map(Number);
	return new Date(year, month - 1, day, 12);
};
const weekOf = (instant: string): string =>
	`${getISOWeekYear(noonOf(instant))}-${getISOWeek(noonOf(instant))}`;

/**
 * Which backups are kept: the newest of each of the last days, weeks and months that have one.
 * @param instants when each was made, in any order, each once
 */
export function keptBackups(instants: readonly string[]): Set<string> {
	const newest = [...instants].sort().reverse();
	const kept = new Set<string>();
	const keep = (most: number, spanOf: (instant: string) => string): void => {
		const spans = new Set<string>();
		for (const instant of newest) {
			const span = spanOf(instant);
			if (spans.has(span) || spans.size === most) continue;
			spans.add(span);
			kept.add(instant);
		}
	};
	keep(KEPT.days, (instant) => instant.slice(0, 10));
	keep(KEPT.weeks, weekOf);
	keep(KEPT.months, (instant) => instant.slice(0, 7));
	return kept;
}
