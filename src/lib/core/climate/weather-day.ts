import { z } from 'zod';
import { calendarDate, id, measure, note, oneOf, version } from '../vocabulary/fields';

const weatherSources = ['station', 'typed', 'forecast'] as const;

/** One day of weather at a place, as it was measured or is forecast. Null where it was not. */
export const weatherDayInput = z
	.strictObject({
		placeId: id(),
		on: calendarDate(),
		source: oneOf(weatherSources),
		/** Which station, sensor or service; a simulator says so. */
		from: note(60),
		minC: measure(-60, 50, '°C'),
		maxC: measure(-60, 60, '°C'),
		humidityPercent: measure(0, 100, '%').nullable().default(null).describe('Mean of the day'),
		windMs: measure(0, 80, 'm/s').nullable().default(null).describe('Mean at 2 m'),
		gustMs: measure(0, 120, 'm/s').nullable().default(null),
		sunMj: measure(0, 45, 'MJ/m²').nullable().default(null).describe('Short-wave radiation of the day'),
		rainMm: measure(0, 1000, 'mm').nullable().default(null)
	})
	.refine((day) => day.maxC >= day.minC, { path: ['maxC'], error: 'must not be below the minimum' });
export type WeatherDayInput = z.infer<typeof weatherDayInput>;
export const weatherDaySchema = weatherDayInput.safeExtend({ id: id(), version: version() });
export type WeatherDay = z.infer<typeof weatherDaySchema>;
