import { daysBetween, within, yearOf, type Span } from '../maths/calendar';
import type { Values } from '../values/values';
import { daylightHours } from './evapotranspiration';
import { growingSeason, type PlaceClimate } from './normals';

/**
 * Tells of any day whether a tree bears leaves at a place: one that keeps them always, others in their season. Seasons are worked
 * out once a year, since a balance asks for every day. Where it never turns cold, the shortest days bare them.
 * @param kind.evergreen it bears leaves all year
 */
export function inLeafAt(
	kind: { tender: boolean; evergreen: boolean },
	place: PlaceClimate,
	values: Values
): (on: string) => boolean {
	if (kind.evergreen) return () => true;
	const seasons = new Map<number, Span | null>();
	const seasonOf = (year: number): Span | null => {
		const known = seasons.get(year);
		if (known !== undefined) return known;
		const season = growingSeason(place, kind.tender, year, values);
		seasons.set(year, season);
		return season;
	};
	return (on) =>
		[yearOf(on) - 1, yearOf(on)].some((year) => {
			const season = seasonOf(year);
			if (season === null || !within(on, season)) return false;
			// Where warmth ends no season, short days do.
			const endless = daysBetween(season.from, season.to) >= 364;
			return !endless || daylightHours(place.latitudeDeg, on) >= values['season.leaflessUnderHours'];
		});
}
