import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { anyInstant, id, measure, oneOf, shortText, version } from '../../vocabulary/fields';
import type { WeatherHour } from '../../climate/hours';

export const deviceKindNames = {
	scale: 'scale under a pot',
	'soil-probe': 'soil probe',
	air: 'air sensor'
};
export type DeviceKind = keyof typeof deviceKindNames;
export const deviceKinds = wordsOf(deviceKindNames);

/** A device that posts readings: a scale or probe belongs to a tree, an air sensor to a place. */
export const deviceInput = z.strictObject({
	name: shortText(60),
	kind: oneOf(deviceKinds),
	onTreeId: id().nullable().default(null).describe('The tree whose pot it weighs or probes'),
	placeId: id().nullable().default(null),
	simulated: z.boolean().default(false)
});
export type DeviceInput = z.infer<typeof deviceInput>;
export const deviceSchema = deviceInput.extend({
	tokenHash: z.string().length(64),
	id: id(),
	version: version()
});
export type Device = z.infer<typeof deviceSchema>;

/** One reading as a device posts it. What a device does not measure it leaves out. */
export const readingInput = z
	.strictObject({
		at: anyInstant(),
		weightKg: measure(-5, 10_000, 'kg').nullable().default(null),
		moisture: measure(0, 1, '(a share)').nullable().default(null),
		temperatureC: measure(-60, 70, '°C').nullable().default(null),
		humidityPercent: measure(0, 100, '%').nullable().default(null),
		battery: measure(0, 1, '(a share)').nullable().default(null)
	})
	.refine(
		(reading) =>
			reading.weightKg !== null ||
			reading.moisture !== null ||
			reading.temperatureC !== null ||
			reading.humidityPercent !== null,
		{ path: ['at'], error: 'must come with at least one measured value' }
	);
export type Reading = z.infer<typeof readingInput>;

const READINGS_AT_ONCE = 5000;
export const readingsBody = z
	.array(readingInput)
	.min(1, { error: 'must hold at least one reading' })
	.max(READINGS_AT_ONCE, { error: `must be at most ${READINGS_AT_ONCE} readings at once` });

/** Clock of a device against ours: readings further ahead than this are refused, a clock that jumped. */
export const CLOCK_AHEAD_MS = 15 * 60 * 1000;

export interface DeviceHealth {
	lastAt: string | null;
	battery: number | null;
	/** Longest silence between two readings of the last week, hours. */
	gapH: number | null;
	/** Change of the driest readings in a day, kg: a scale that drifts. */
	driftKgPerDay: number | null;
}

/** State of a device by its readings, oldest first. */
export function deviceHealth(readings: readonly Reading[]): DeviceHealth {
	const last = readings.at(-1);
	const hours = (a: Reading, b: Reading): number => (Date.parse(b.at) - Date.parse(a.at)) / 3_600_000;
	let gapH: number | null = null;
	for (const [i, reading] of readings.entries()) {
		const next = readings[i + 1];
		if (next) gapH = Math.max(gapH ?? 0, hours(reading, next));
	}
	const weights = readings.filter((reading) => reading.weightKg !== null);
	const lows = new Map<string, number>();
	for (const { at, weightKg } of weights) {
		const day = at.slice(0, 10);
		lows.set(day, Math.min(lows.get(day) ?? Infinity, weightKg ?? Infinity));
	}
	const days = [...lows.entries()].sort(([a], [b]) => (a < b ? -1 : 1));
	const [first, final] = [days[0], days.at(-1)];
	const span = first && final ? (Date.parse(final[0]) - Date.parse(first[0])) / 86_400_000 : 0;
	return {
		lastAt: last?.at ?? null,
		battery: readings.findLast((reading) => reading.battery !== null)?.battery ?? null,
		gapH,
		driftKgPerDay: first && final && span >= 3 ? (final[1] - first[1]) / span : null
	};
}

/** Readings of an air sensor as hours of weather. */
export const airHours = (readings: readonly Reading[]): WeatherHour[] =>
	readings.flatMap(({ at, temperatureC, humidityPercent }) =>
		temperatureC === null
			? []
			: [{ at, temperatureC, humidityPercent, windMs: null, gustMs: null, sunWm2: null, rainMm: null }]
	);
