import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { anyInstant, id, measure, oneOf, shortText, version } from '../../vocabulary/fields';
import type { WeatherHour } from '../../climate/hours';

export const deviceKindNames = {
	scale: 'scale under a pot',
	'soil-probe': 'soil probe',
	air: 'air sensor',
	station: 'weather station'
};
export type DeviceKind = keyof typeof deviceKindNames;
export const deviceKinds = wordsOf(deviceKindNames);

/** A device that posts readings: a scale or probe belongs to a tree, an air sensor or a station to a place. */
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

const DAY_MS = 86_400_000;
const READINGS_AT_ONCE = 5000;
export const readingsBody = z
	.array(readingInput)
	.min(1, { error: 'must hold at least one reading' })
	.max(READINGS_AT_ONCE, { error: `must be at most ${READINGS_AT_ONCE} readings at once` });

/** Clock of a device against ours: readings further ahead than this are refused, a clock that jumped. */
export const CLOCK_AHEAD_MS = 15 * 60 * 1000;

/** What each kind of device measures, first what it is there for. */
export const measuredBy = {
	scale: ['weightKg', 'temperatureC'],
	'soil-probe': ['moisture', 'temperatureC'],
	air: ['temperatureC', 'humidityPercent'],
	/** Its days and hours come as weather. */
	station: ['temperatureC']
} as const satisfies Record<DeviceKind, readonly (keyof Reading)[]>;
const measuredNames = {
	weightKg: 'a weight',
	moisture: 'moisture',
	temperatureC: 'a temperature',
	humidityPercent: 'humidity'
};

/**
 * Why a reading cannot be one of this device, now.
 * @param nowMs our clock, milliseconds since 1970
 * @param oldestDays readings from longer ago are of a clock that is lost, days
 * @returns the field and what is wrong with it; null where nothing is
 */
export function readingFault(
	kind: DeviceKind,
	reading: Reading,
	nowMs: number,
	oldestDays: number
): { field: keyof Reading; message: string } | null {
	const atMs = Date.parse(reading.at);
	if (atMs > nowMs + CLOCK_AHEAD_MS)
		return { field: 'at', message: 'lies ahead of the clock here; look at the clock of the device' };
	if (atMs < nowMs - oldestDays * DAY_MS)
		return {
			field: 'at',
			message: `lies more than ${oldestDays} days back; look at the clock of the device`
		};
	const own = measuredBy[kind];
	if (reading[own[0]] === null)
		return {
			field: own[0],
			message: `must be told: ${deviceKindNames[kind]} measures ${measuredNames[own[0]]}`
		};
	for (const name of Object.keys(measuredNames) as (keyof typeof measuredNames)[])
		if (reading[name] !== null && !own.some((one) => one === name))
			return {
				field: name,
				message: `is nothing that this device measures: it is a ${deviceKindNames[kind]}`
			};
	if (kind === 'scale' && reading.weightKg !== null && reading.weightKg <= 0)
		return { field: 'weightKg', message: 'must be more than nothing: is the pot on the scale?' };
	return null;
}

/** Readings of one hour: their span, how many, the least weight, and each measure as it was told last. */
export interface ReadingHour extends Omit<Reading, 'at'> {
	firstAt: string;
	lastAt: string;
	count: number;
	lowestKg: number | null;
}

export interface DeviceHealth {
	lastAt: string | null;
	battery: number | null;
	/** Longest silence between two readings, hours; a share of one is told by what was usual in its hour. */
	gapH: number | null;
	/** Change of the driest readings in a day, kg: a scale that drifts. */
	driftKgPerDay: number | null;
}

/** Shorter than this the drift of a scale is the weather, days. */
const DRIFT_DAYS = 3;

/** State of a device by its hours with readings, oldest first. */
export function deviceHealth(hours: readonly ReadingHour[]): DeviceHealth {
	const between = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 3_600_000;
	const gaps = hours.flatMap(({ firstAt, lastAt, count }, i) => {
		const next = hours[i + 1];
		return [
			...(count > 1 ? [between(firstAt, lastAt) / (count - 1)] : []),
			...(next ? [between(lastAt, next.firstAt)] : [])
		];
	});
	const lows = new Map<string, number>();
	for (const { firstAt, lowestKg } of hours)
		if (lowestKg !== null) {
			const day = firstAt.slice(0, 10);
			lows.set(day, Math.min(lows.get(day) ?? Infinity, lowestKg));
		}
	const days = [...lows.entries()];
	const [first, final] = [days[0], days.at(-1)];
	const span = first && final ? (Date.parse(final[0]) - Date.parse(first[0])) / DAY_MS : 0;
	return {
		lastAt: hours.at(-1)?.lastAt ?? null,
		battery: hours.findLast(({ battery }) => battery !== null)?.battery ?? null,
		gapH: gaps.length > 0 ? Math.max(...gaps) : null,
		driftKgPerDay: first && final && span >= DRIFT_DAYS ? (final[1] - first[1]) / span : null
	};
}

/** Hours of an air sensor as hours of weather. */
export const airHours = (hours: readonly ReadingHour[]): WeatherHour[] =>
	hours.flatMap(({ lastAt: at, temperatureC, humidityPercent }) =>
		temperatureC === null
			? []
			: [{ at, temperatureC, humidityPercent, windMs: null, gustMs: null, sunWm2: null, rainMm: null }]
	);
