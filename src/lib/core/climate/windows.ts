import { wordsOf } from '../vocabulary/words-of';
import type { Kind } from '../vocabulary/kind';
import { isTender } from '../vocabulary/kind';
import type { Values } from '../values/values';
import { addDays, daysBetween, within, yearOf, type Span } from '../maths/calendar';
import { growingSeason, WHOLE_YEAR_DAYS, type PlaceClimate } from './normals';

/** How a date stands to the windows in which a kind may be lifted or worked at the root. */
export const seasonFitNames = {
	'in-window': 'in its window',
	shoulder: 'on the shoulder of its window',
	'out-of-window': 'out of its window'
};
export type SeasonFit = keyof typeof seasonFitNames;
export const seasonFits = wordsOf(seasonFitNames);

type KindSeason = Pick<Kind, 'group' | 'coldestC' | 'liftingWindow'>;

/**
 * Root-work windows of a kind at a place around a year, in order, from the growing season there.
 * - leafless: from leaf fall (two weeks after growth ends) to a week before growth begins;
 * - early-spring: the five weeks up to the second week of growth;
 * - spring-or-autumn: the same, and the five weeks before the last three weeks of growth;
 * - warm-growth and warm-dry: from the fourth week of growth to ten weeks before its end.
 * The weeks are trade practice put into numbers by us.
 */
export function rootWorkWindows(kind: KindSeason, place: PlaceClimate, year: number, values: Values): Span[] {
	const windows: Span[] = [];
	for (const y of [year - 1, year, year + 1]) {
		const season = growingSeason(place, isTender(kind), y, values);
		if (!season) continue;
		const lengthDays = daysBetween(season.from, season.to);
		if (lengthDays >= WHOLE_YEAR_DAYS) {
			windows.push(season);
			continue;
		}
		const spring = {
			from: addDays(season.from, -values['season.springBeforeDays']),
			to: addDays(season.from, values['season.springAfterDays'])
		};
		switch (kind.liftingWindow) {
			case 'leafless': {
				const next = growingSeason(place, isTender(kind), y + 1, values);
				if (next)
					windows.push({
						from: addDays(season.to, values['season.leafFallDays']),
						to: addDays(next.from, -values['season.budSwellDays'])
					});
				break;
			}
			case 'early-spring':
				windows.push(spring);
				break;
			case 'spring-or-autumn':
				windows.push(spring, {
					from: addDays(season.to, -values['season.autumnFromDays']),
					to: addDays(season.to, -values['season.autumnToDays'])
				});
				break;
			case 'warm-growth':
			case 'warm-dry':
				windows.push({
					from: addDays(season.from, values['season.warmAfterDays']),
					to: addDays(season.to, -values['season.warmBeforeEndDays'])
				});
				break;
		}
	}
	return windows.filter((span) => span.from <= span.to).sort((a, b) => a.from.localeCompare(b.from));
}

/** How well a date suits root work on a kind at a place. */
export function seasonFit(kind: KindSeason, place: PlaceClimate, date: string, values: Values): SeasonFit {
	const windows = rootWorkWindows(kind, place, yearOf(date), values);
	if (windows.some((span) => within(date, span))) return 'in-window';
	const days = values['season.shoulderDays'];
	const near = windows.some((span) =>
		within(date, { from: addDays(span.from, -days), to: addDays(span.to, days) })
	);
	return near ? 'shoulder' : 'out-of-window';
}

/**
 * The first day on or after `earliest` that lies in a window.
 * @returns null when the kind has no window at this place within three years.
 */
export function nextWindowDay(
	kind: KindSeason,
	place: PlaceClimate,
	earliest: string,
	values: Values
): string | null {
	for (let year = yearOf(earliest); year <= yearOf(earliest) + 3; year++) {
		for (const span of rootWorkWindows(kind, place, year, values)) {
			if (span.to < earliest) continue;
			return span.from > earliest ? span.from : earliest;
		}
	}
	return null;
}
