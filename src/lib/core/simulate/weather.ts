import { addDays, daysBetween } from '../maths/calendar';
import { daylightHours, extraterrestrialRadiation } from '../climate/evapotranspiration';
import type { Place } from '../vocabulary/place';
import type { Values } from '../values/values';
import { drawDay, isWindy, usualHabits, type Spell } from '../climate/drawn-weather';
import type { PlaceClimate } from '../climate/normals';
import { normalDay } from '../climate/series';
import type { WeatherDayInput } from '../climate/weather-day';
import { createRandom } from '../maths/random';

/** Longest run that is simulated at once. */
const SIMULATED_DAYS = 1200;

/**
 * Weather that never was: the climate of a place with swings that last some days, rain that comes in spells, and sun and wind to
 * match. The same seed, place and first day always give the same weather. For demos, tests and a first look only.
 */
export function simulateWeather(
	place: PlaceClimate & Pick<Place, 'id'>,
	{ from, to }: { from: string; to: string },
	seed: number,
	values: Values,
	source: { source: WeatherDayInput['source']; from: string } = {
		source: 'station',
		from: 'simulated station'
	}
): WeatherDayInput[] {
	const random = createRandom(seed);
	const days: WeatherDayInput[] = [];
	const outdoors = { ...place, kind: 'open' as const, heldMinimumC: null };
	const spell: Spell = { swingC: 0, wet: false };
	const span = Math.min(SIMULATED_DAYS, daysBetween(from, to) + 1);
	const round = (value: number, digits = 1): number => Math.round(value * 10 ** digits) / 10 ** digits;
	for (let i = 0; i < span; i++) {
		const on = addDays(from, i);
		const drawn = drawDay(
			random,
			spell,
			normalDay(outdoors, on, values),
			isWindy(place.latitudeDeg, on),
			usualHabits
		);
		const onTop = extraterrestrialRadiation(place.latitudeDeg, on);
		days.push({
			placeId: place.id,
			on,
			...source,
			minC: round(drawn.minC),
			maxC: round(drawn.maxC),
			humidityPercent: round(drawn.humidityPercent, 0),
			windMs: round(drawn.windMs),
			gustMs: round(drawn.gustMs),
			sunMj: daylightHours(place.latitudeDeg, on) > 0 ? round(onTop * drawn.sunShare) : 0,
			rainMm: round(drawn.rainMm)
		});
	}
	return days;
}
