import { addDays, dayOfYear, daysBetween } from '../maths/calendar';
import { daylightHours, extraterrestrialRadiation } from '../climate/evapotranspiration';
import type { Place } from '../vocabulary/place';
import type { Values } from '../values/values';
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
	place: Pick<Place, 'id' | 'kind' | 'latitudeDeg' | 'elevationM' | 'heldMinimumC'>,
	{ from, to }: { from: string; to: string },
	seed: number,
	values: Values,
	source: { source: WeatherDayInput['source']; from: string } = {
		source: 'station',
		from: 'simulated station'
	}
): WeatherDayInput[] {
	const { next: random, normal } = createRandom(seed);
	const days: WeatherDayInput[] = [];
	const outdoors = { ...place, kind: 'open' as const, heldMinimumC: null };
	let swing = 0;
	let wetYesterday = false;
	const span = Math.min(SIMULATED_DAYS, daysBetween(from, to) + 1);
	for (let i = 0; i < span; i++) {
		const on = addDays(from, i);
		swing = 0.78 * swing + 1.9 * normal();
		const wet: boolean = random() < (wetYesterday ? 0.58 : 0.24);
		wetYesterday = wet;
		const cloud = wet ? 0.65 + 0.3 * random() : 0.15 + 0.5 * random();
		const usual = normalDay(outdoors, on, values);
		const mean = (usual.minC + usual.maxC) / 2 + swing;
		const half = (usual.maxC - usual.minC) / 2 + (1 - cloud) * 2.5 - 1 + 0.6 * normal();
		const onTop = extraterrestrialRadiation(place.latitudeDeg, on);
		const windMs = Math.max(0.3, 2.6 + 1.1 * normal() + (dayOfYear(on) < 90 ? 0.8 : 0));
		const round = (value: number, digits = 1): number => Math.round(value * 10 ** digits) / 10 ** digits;
		days.push({
			placeId: place.id,
			on,
			...source,
			minC: round(mean - Math.max(1, half)),
			maxC: round(mean + Math.max(1, half)),
			humidityPercent: round(Math.min(98, Math.max(35, 62 + 25 * cloud + 5 * normal())), 0),
			windMs: round(windMs),
			gustMs: round(windMs * (1.9 + 0.5 * random())),
			sunMj: daylightHours(place.latitudeDeg, on) > 0 ? round(onTop * (0.72 - 0.5 * cloud)) : 0,
			rainMm: wet ? round(Math.min(60, -4.5 * Math.log(Math.max(1e-9, random())))) : 0
		});
	}
	return days;
}
