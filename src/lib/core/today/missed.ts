import { measuredWhole } from '../text/measured';
import type { Place } from '../vocabulary/place';
import { coldOf } from './weather-items';
import type { Values } from '../values/values';
import { daysFor, sheltered } from '../climate/series';
import type { WeatherDay } from '../climate/weather-day';

/** Nights on which a tree stood below its limit, as measured: for the record, so that a later decline has its cause. What nobody saw is none. */
export function limitsBroken(
	days: readonly WeatherDay[],
	trees: readonly Parameters<typeof coldOf>[0][],
	places: readonly Place[],
	values: Values
): { treeId: string; on: string; what: string }[] {
	const byPlace = new Map<string, WeatherDay[]>();
	for (const day of days) byPlace.set(day.placeId, [...(byPlace.get(day.placeId) ?? []), day]);
	return trees.flatMap((entry) => {
		return daysFor(entry.place, places, byPlace, values).days.flatMap((day) => {
			if (day.on < entry.tree.takenInOn) return [];
			const { minC } = day.inside ? day : sheltered(entry.place, day, values);
			const { limitC: limit, why } = coldOf(entry, day.on, values, true);
			if (minC >= limit) return [];
			return [
				{
					treeId: entry.tree.id,
					on: day.on,
					what: `Cold night: about ${measuredWhole(minC, '°C')} at ${entry.place.name}, its limit is ${measuredWhole(limit, '°C')}${why === '' ? '' : `, ${why}`}`
				}
			];
		});
	});
}
