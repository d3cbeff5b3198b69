import { mean as meanOf } from 'simple-statistics';
import { z } from 'zod';
import { anyInstant, measure } from '../vocabulary/fields';

/** One reading of a station, by the hour or more often. What it does not measure it leaves out. */
export const weatherHour = z.strictObject({
	at: anyInstant(),
	temperatureC: measure(-60, 60, '°C'),
	humidityPercent: measure(0, 100, '%').nullable().default(null),
	windMs: measure(0, 80, 'm/s').nullable().default(null),
	gustMs: measure(0, 120, 'm/s').nullable().default(null),
	sunWm2: measure(0, 1600, 'W/m²')
		.nullable()
		.default(null)
		.describe('Short-wave radiation, mean of the hour'),
	rainMm: measure(0, 300, 'mm').nullable().default(null).describe('Since the reading before')
});
export type WeatherHour = z.infer<typeof weatherHour>;

export const dayOfHoursOutput = z.object({
	on: z.string(),
	minC: z.number(),
	maxC: z.number(),
	humidityPercent: z.number().nullable(),
	windMs: z.number().nullable(),
	gustMs: z.number().nullable(),
	sunMj: z.number().nullable(),
	rainMm: z.number().nullable(),
	hours: z.number().describe('Hours of the day in which there was a reading')
});
export type DayOfHours = z.infer<typeof dayOfHoursOutput>;

const mean = (list: readonly number[]): number | null => (list.length > 0 ? meanOf([...list]) : null);

/**
 * Days from readings, from midnight to midnight of the mean time of the place, so that no clock is put forward or back: a day
 * has always 24 hours. Readings of one hour are averaged before the hours are, so that a busy hour does not count for more; the
 * same instant twice counts once. The sun of missing hours is filled in proportion.
 * @param longitudeDeg east positive; Greenwich where it is not known
 * @param least hours with a reading that make a day, 1 … 24
 */
export function daysOfHours(
	readings: readonly WeatherHour[],
	longitudeDeg: number | null,
	least: number
): DayOfHours[] {
	const shiftMs = Math.round((longitudeDeg ?? 0) / 15) * 3_600_000;
	const once = new Map(readings.map((reading) => [Date.parse(reading.at), reading]));
	const days = new Map<string, Map<number, WeatherHour[]>>();
	for (const [at, reading] of once) {
		const local = new Date(at + shiftMs);
		const on = local.toISOString().slice(0, 10);
		const hours = days.get(on) ?? new Map<number, WeatherHour[]>();
		days.set(on, hours);
		hours.set(local.getUTCHours(), [...(hours.get(local.getUTCHours()) ?? []), reading]);
	}
	return [...days]
		.filter(([, hours]) => hours.size >= least)
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([on, hours]) => {
			const all = [...hours.values()].flat();
			const given = (key: Exclude<keyof WeatherHour, 'at'>): number[] =>
				all.flatMap((reading) => reading[key] ?? []);
			const hourly = (key: Exclude<keyof WeatherHour, 'at'>): number | null =>
				mean([...hours.values()].flatMap((list) => mean(list.flatMap((one) => one[key] ?? [])) ?? []));
			const temperatures = given('temperatureC');
			const [gusts, rain, sunWm2] = [given('gustMs'), given('rainMm'), hourly('sunWm2')];
			return {
				on,
				minC: Math.min(...temperatures),
				maxC: Math.max(...temperatures),
				humidityPercent: hourly('humidityPercent'),
				windMs: hourly('windMs'),
				gustMs: gusts.length > 0 ? Math.max(...gusts) : null,
				sunMj: sunWm2 === null ? null : (sunWm2 * 86_400) / 1e6,
				rainMm: rain.length > 0 ? rain.reduce((sum, value) => sum + value, 0) : null,
				hours: hours.size
			};
		});
}
