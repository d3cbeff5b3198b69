import { addDays } from '../climate/calendar';
import type { PlaceClimate } from '../climate/normals';
import { nextWindowDay } from '../climate/windows';
import type { Kind } from '../kinds/kind';
import type { Values } from '../values/values';

/**
 * Days on which root stages fall: the first on the day given, each later one on the first day of a window of this kind at
 * this place after the least time between stages.
 * @param count number of stages, ≥ 1
 */
export function stageDates(
	kind: Pick<Kind, 'group' | 'coldestC' | 'liftingWindow'>,
	place: PlaceClimate,
	firstOn: string,
	count: number,
	values: Values
): string[] {
	const dates = [firstOn];
	while (dates.length < count) {
		const earliest = addDays(dates.at(-1) ?? firstOn, values['stages.leastDaysApart']);
		dates.push(nextWindowDay(kind, place, earliest, values) ?? earliest);
	}
	return dates;
}
