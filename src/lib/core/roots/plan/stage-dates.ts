import { addDays } from '../../maths/calendar';
import type { PlaceClimate } from '../../climate/normals';
import { nextWindowDay } from '../../climate/windows';
import type { Kind } from '../../vocabulary/kind';
import type { Values } from '../../values/values';

/**
 * Days on which root stages fall: the first on the day given, each later one on the first day of a window of this kind at
 * this place after the least time between stages, and none of those before today.
 * @param begun days of the stages that stand: the first, or all that were worked already; at least one
 * @param count number of stages, ≥ 1
 */
export function stageDates(
	{ kind, place }: { kind: Pick<Kind, 'group' | 'coldestC' | 'liftingWindow'>; place: PlaceClimate },
	{ begun, count, today }: { begun: readonly [string, ...string[]]; count: number; today: string },
	values: Values
): string[] {
	const dates: string[] = begun.slice(0, count);
	while (dates.length < count) {
		const rested = addDays(dates.at(-1) ?? begun[0], values['stages.leastDaysApart']);
		const earliest = rested < today ? today : rested;
		dates.push(nextWindowDay(kind, place, earliest, values) ?? earliest);
	}
	return dates;
}
