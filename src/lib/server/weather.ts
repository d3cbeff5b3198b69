import { and, eq, gte, lte } from 'drizzle-orm';
import { newId, noteAct } from './acting';
import { z } from 'zod';
import { addDays } from '../core/maths/calendar';
import type { Place } from '../core/vocabulary/place';
import { simulateWeather } from '../core/simulate/weather';
import { id, note } from '../core/vocabulary/fields';
import { CLOCK_AHEAD_MS } from '../core/aftercare/weather/device';
import type { PlaceClimate } from '../core/climate/normals';
import { daysOfHours, weatherHour } from '../core/climate/hours';
import { limitsBroken } from '../core/today/missed';
import { daysFor, weatherSeries, type SeriesDay } from '../core/climate/series';
import {
	weatherDayInput,
	weatherDaySchema,
	type WeatherDay,
	type WeatherDayInput
} from '../core/climate/weather-day';
import { valuesKey, type Values } from '../core/values/values';
import { now, today } from './clock';
import { frozen, keepIn, rememberedBy, type Reader, type Store } from './db/database';
import { writtenKey } from './db/revisions';
import * as tables from './db/schema';
import { invalid, Refusal } from './errors';
import { places } from './records/records';
import { readSetting, writeSetting } from './settings';
import { todayTrees } from './tree-lists';

/** Most days taken at once. */
const WEATHER_AT_ONCE = 4000;
export const weatherBody = z
	.array(weatherDayInput)
	.min(1, { error: 'must hold at least one day' })
	.max(WEATHER_AT_ONCE, { error: `must be at most ${WEATHER_AT_ONCE} days at once` });

/** Readings of a station by the hour, for one place. */
export const hoursBody = z.strictObject({
	placeId: id(),
	source: z.literal('station').default('station'),
	from: note(60),
	hours: z
		.array(weatherHour)
		.min(1, { error: 'must hold at least one reading' })
		.max(24 * WEATHER_AT_ONCE, { error: `must be at most ${24 * WEATHER_AT_ONCE} readings at once` })
});

/** Keeps readings by the hour as days of their place; days with too few hours, and the day that runs, are left out and counted. */
export async function keepHours(
	store: Store,
	{ hours, ...common }: z.infer<typeof hoursBody>,
	values: Values
): Promise<{ kept: number; missed: number; short: number }> {
	const place = await places.get(store.db, common.placeId);
	if (!place) throw invalid([{ field: 'placeId', message: 'must be a place of this yard' }]);
	const ahead = now().getTime() + CLOCK_AHEAD_MS;
	for (const [i, hour] of hours.entries())
		if (Date.parse(hour.at) > ahead)
			throw invalid([
				{ field: `hours.${i}.at`, message: 'lies ahead of the clock here; look at the clock of the station' }
			]);
	const any = daysOfHours(hours, place.longitudeDeg, 1);
	const whole = any.filter((day) => day.hours >= values['weather.hoursLeast'] && day.on < today());
	const kept =
		whole.length === 0
			? { kept: 0, missed: 0 }
			: await keepWeather(
					store,
					whole.map(({ hours: _hours, ...day }) => ({ ...common, ...day })),
					values
				);
	return { ...kept, short: any.length - whole.length };
}

/**
 * Keeps days of weather; a day of the same place and source that stands already is replaced, so that the same file twice changes
 * nothing. A measured night that broke the limit of a tree is written into its journal.
 * @throws Refusal 422 unknown place, or a measured day after today
 */
export async function keepWeather(
	store: Store,
	days: readonly WeatherDayInput[],
	values: Values
): Promise<{ kept: number; missed: number }> {
	const known = new Map((await places.list(store.db)).map((place) => [place.id, place]));
	const on = today();
	for (const [i, day] of days.entries()) {
		if (!known.has(day.placeId))
			throw invalid([{ field: `${i}.placeId`, message: 'must be a place of this yard' }]);
		if (day.source !== 'forecast' && day.on > on)
			throw invalid([{ field: `${i}.on`, message: 'must not be after today unless it is a forecast' }]);
	}
	const trees = await todayTrees(store.db, on);
	const broken = limitsBroken(
		days
			.filter((day) => day.source !== 'forecast' && day.on >= addDays(on, -14))
			.map((day) => ({ ...day, id: '', version: 1 })),
		trees,
		[...known.values()],
		values
	);
	let missed = 0;
	await store.write(async (tx) => {
		await noteAct(tx, now());
		for (const day of days) {
			const row = { ...day, id: newId(), version: 1 };
			const { id: _id, version: _version, ...set } = row;
			await tx
				.insert(tables.weatherDay)
				.values(row)
				.onConflictDoUpdate({
					target: [tables.weatherDay.placeId, tables.weatherDay.on, tables.weatherDay.source],
					set
				});
		}
		for (const { treeId, on: night, what } of broken) {
			const [same] = await tx
				.select({ id: tables.journal.id })
				.from(tables.journal)
				.where(
					and(eq(tables.journal.treeId, treeId), eq(tables.journal.on, night), eq(tables.journal.what, what))
				);
			if (same) continue;
			missed++;
			await tx.insert(tables.journal).values({
				id: newId(),
				treeId,
				at: now().toISOString(),
				on: night,
				stage: 'aftercare',
				what,
				changes: null
			});
		}
	});
	return { kept: days.length, missed };
}

/** Days of weather as they were kept, of one place or all. */
export async function loadWeather(
	db: Reader,
	from: string,
	to: string,
	placeId?: string
): Promise<WeatherDay[]> {
	const table = tables.weatherDay;
	const rows = await db
		.select()
		.from(table)
		.where(and(gte(table.on, from), lte(table.on, to), placeId ? eq(table.placeId, placeId) : undefined))
		.orderBy(table.on);
	return rows.map((row) => weatherDaySchema.parse(row));
}

/** Weather of a place day by day, worked out when it is first asked for. */
export interface PlaceSeries {
	place: Place;
	station: Place | null;
	readonly series: readonly SeriesDay[];
}
const REMEMBERED_SERIES = 12;

/**
 * Series without gaps for every place of the yard, each from its own weather or the nearest that has any. Remembered until weather,
 * places or working values are written.
 */
export async function placeSeries(
	db: Reader,
	from: string,
	to: string,
	values: Values
): Promise<ReadonlyMap<string, PlaceSeries>> {
	const memory = rememberedBy(db);
	const name = `series ${from} ${to}`;
	const key = `${await writtenKey(db, ['weather', 'places'])} ${valuesKey(values)}`;
	const known = memory?.lists.get(name);
	if (known?.key === key) return known.value as ReadonlyMap<string, PlaceSeries>;
	const read = await readSeries(db, from, to, values);
	if (memory?.keeps) keepIn(memory.lists, name, { key, value: read }, REMEMBERED_SERIES);
	return read;
}

async function readSeries(
	db: Reader,
	from: string,
	to: string,
	values: Values
): Promise<ReadonlyMap<string, PlaceSeries>> {
	const [all, days] = await Promise.all([places.list(db), loadWeather(db, from, to)]);
	const byPlace = new Map<string, WeatherDay[]>();
	for (const day of days) {
		const list = byPlace.get(day.placeId);
		if (list) list.push(day);
		else byPlace.set(day.placeId, [day]);
	}
	return new Map(
		all.map((place) => {
			const { station, days: used } = daysFor(place, all, byPlace, values);
			let series: readonly SeriesDay[] | null = null;
			return [
				place.id,
				{
					place,
					station,
					get series() {
						return (series ??= frozen(weatherSeries(place, from, to, used, values)));
					}
				}
			];
		})
	);
}

export const FORECAST_DAYS = 10;
export const forecastSetting = z.strictObject({
	/** off · simulated · the address of a service that answers like the simulator. */
	service: z.union([
		z.literal('off'),
		z.literal('simulated'),
		z.url({ protocol: /^https?$/, error: 'must be an address that begins with http' })
	]),
	placeId: z.string().nullable(),
	fetchedAt: z.string().nullable()
});
export type ForecastSetting = z.infer<typeof forecastSetting>;

/** Whether a forecast is fetched, and from where. */
export async function readForecastSetting(db: Reader): Promise<ForecastSetting> {
	const read = forecastSetting.safeParse(await readSetting(db, 'forecast'));
	return read.success ? read.data : { service: 'off', placeId: null, fetchedAt: null };
}

/** @throws Refusal 422 */
export async function writeForecastSetting(store: Store, raw: unknown): Promise<ForecastSetting> {
	const read = forecastSetting.safeParse(raw);
	if (!read.success)
		throw invalid([
			{ field: 'service', message: 'must be off, simulated, or an address that begins with http' }
		]);
	await writeSetting(store, 'forecast', read.data);
	// Days ahead of a service that is no longer asked would pass for a forecast.
	if (read.data.service === 'off')
		await store.write((tx) =>
			tx
				.delete(tables.weatherDay)
				.where(and(eq(tables.weatherDay.source, 'forecast'), gte(tables.weatherDay.on, today())))
		);
	return read.data;
}

/**
 * Fetches the forecast of the place chosen and keeps it.
 * @returns how many days came
 * @throws Refusal 502 when the service does not answer, or not as it should; what stands stays
 */
export async function fetchForecast(store: Store, values: Values): Promise<number> {
	const settingNow = await readForecastSetting(store.db);
	const place = settingNow.placeId ? await places.get(store.db, settingNow.placeId) : null;
	if (settingNow.service === 'off' || !place)
		throw new Refusal(409, 'No forecast is chosen.', 'Choose a service and a place first.');
	let days: WeatherDayInput[];
	if (settingNow.service === 'simulated') days = simulatedForecast(place, values);
	else {
		const address = new URL(settingNow.service);
		address.searchParams.set('latitude', String(place.latitudeDeg));
		address.searchParams.set('longitude', String(place.longitudeDeg ?? 0));
		address.searchParams.set('elevation', String(place.elevationM));
		address.searchParams.set('days', String(FORECAST_DAYS));
		const unreachable = new Refusal(
			502,
			'The forecast service did not answer as it should.',
			'The last forecast stays. Try again later, or look at its address.'
		);
		let raw: unknown;
		try {
			const response = await fetch(address, { signal: AbortSignal.timeout(10_000) });
			if (!response.ok) throw unreachable;
			raw = await response.json();
		} catch {
			throw unreachable;
		}
		// The service names days and numbers; place and source are ours.
		const read = z.array(z.record(z.string(), z.unknown())).min(1).max(60).safeParse(raw);
		if (!read.success) throw unreachable;
		const answered = weatherBody.safeParse(
			read.data.map((day) => ({ ...day, placeId: place.id, source: 'forecast', from: address.host }))
		);
		if (!answered.success) throw unreachable;
		days = answered.data;
	}
	const { kept } = await keepWeather(store, days, values);
	await writeSetting(store, 'forecast', { ...settingNow, fetchedAt: now().toISOString() });
	return kept;
}

/** The shipped simulator of a forecast: the same for the same place and day. */
export function simulatedForecast(
	place: PlaceClimate & Pick<Place, 'id'>,
	values: Values,
	days = FORECAST_DAYS
): WeatherDayInput[] {
	const on = today();
	const seed = Number(on.replaceAll('-', '')) % 100_000;
	return simulateWeather(place, { from: on, to: addDays(on, days - 1) }, seed, values, {
		source: 'forecast',
		from: 'simulated forecast'
	});
}
