import { and, desc, eq, getTableColumns, gte, inArray, sql } from 'drizzle-orm';
import { addDays } from '../core/maths/calendar';
import {
	airHours,
	deviceHealth,
	deviceKindNames,
	type Device,
	type DeviceHealth,
	type DeviceInput,
	measuredBy,
	readingFault,
	type Reading,
	type ReadingHour
} from '../core/aftercare/weather/device';
import { daysOfHours } from '../core/climate/hours';
import type { Values } from '../core/values/values';
import { now, today } from './clock';
import type { Reader, Store } from './db/database';
import { jsonRows } from './db/json-rows';
import * as tables from './db/schema';
import { invalid, Refusal } from './errors';
import { keyHash, newKey } from './people/keys';
import { devices, places } from './records/records';
import { doWork } from './records/work';
import { keepWeather } from './weather';

/** Adds a device; its token is told once and kept only as a hash. @throws Refusal 422 */
export async function addDevice(
	store: Store,
	input: DeviceInput,
	token: string = newKey()
): Promise<{ device: Device; token: string; entryId: string }> {
	const ofPlace = input.kind === 'air' || input.kind === 'station';
	const missing = ofPlace ? input.placeId === null : input.onTreeId === null;
	if (missing)
		throw invalid([
			ofPlace
				? { field: 'placeId', message: 'must be chosen: it stands at a place' }
				: { field: 'onTreeId', message: 'must be chosen: it belongs to a pot' }
		]);
	const { result, entryId } = await doWork(
		store,
		{ treeId: null, stage: 'aftercare', what: `New device: ${input.name}` },
		(work) => work.add(devices, { ...input, tokenHash: keyHash(token) })
	);
	return { device: result, token, entryId };
}

/** Takes a device away; its token is worth nothing from then on. Its readings go with it. */
export async function removeDevice(store: Store, id: string, version: number): Promise<void> {
	await doWork(
		store,
		{ treeId: null, stage: 'aftercare', what: 'Removed a device', undoable: false },
		(work) => work.remove(devices, id, version)
	);
}

/**
 * The device of a bearer token, which names what it may send.
 * @throws Refusal 401 · 403 it is for something else
 */
export async function deviceOf(
	db: Reader,
	authorization: string | null,
	sends: 'readings' | 'weather' = 'readings'
): Promise<Device> {
	const token = /^Bearer\s+(\S{10,200})$/.exec(authorization ?? '')?.[1];
	const refused = new Refusal(
		401,
		'The token of the device is missing or not known.',
		'Send it as Authorization: Bearer …; a lost token is replaced by adding the device anew.'
	);
	if (!token) throw refused;
	const [row] = await db
		.select({ id: tables.device.id })
		.from(tables.device)
		.where(eq(tables.device.tokenHash, keyHash(token)));
	const device = row ? await devices.get(db, row.id) : null;
	if (!device) throw refused;
	if ((device.kind === 'station') !== (sends === 'weather'))
		throw new Refusal(
			403,
			`The token of a ${deviceKindNames[device.kind]} is not for ${sends}.`,
			device.kind === 'station'
				? 'Send days or hours to /api/v1/weather.'
				: 'Send readings to /api/v1/readings.'
		);
	return device;
}

/**
 * Keeps readings of a device. The same device and time is kept once, whatever the order they come in. An air sensor makes days
 * of weather for its place.
 * @throws Refusal 422 a clock that runs ahead or is lost, or a value the device does not measure
 */
export async function keepReadings(
	store: Store,
	device: Device,
	readings: readonly Reading[],
	values: Values
): Promise<{ kept: number; known: number }> {
	for (const [i, reading] of readings.entries()) {
		const fault = readingFault(device.kind, reading, now().getTime(), values['weather.readingOldestDays']);
		if (fault) throw invalid([{ ...fault, field: `${i}.${fault.field}` }]);
	}
	let kept = 0;
	await store.write(async (tx) => {
		for (const reading of readings) {
			const done = await tx
				.insert(tables.reading)
				.values({ ...reading, deviceId: device.id })
				.onConflictDoNothing()
				.returning({ at: tables.reading.at });
			kept += done.length;
		}
	});
	if (device.kind === 'air' && device.placeId !== null && kept > 0) {
		const placeId = device.placeId;
		// A day of the place may begin on the day before by UTC.
		const oldest = addDays(readings.map((reading) => reading.at.slice(0, 10)).sort()[0] ?? today(), -1);
		const recent = (await hoursOf(store.db, [device.id], oldest)).get(device.id) ?? [];
		// The day that runs is not a day yet.
		const place = await places.get(store.db, placeId);
		const days = daysOfHours(
			airHours(recent),
			place?.longitudeDeg ?? null,
			values['weather.airHoursLeast']
		).filter((day) => day.on < today());
		if (days.length > 0)
			await keepWeather(
				store,
				days.map(({ hours: _hours, ...day }) => ({
					...day,
					placeId,
					source: 'station' as const,
					from: device.simulated ? `${device.name}, simulated` : device.name
				})),
				values
			);
	}
	return { kept, known: readings.length - kept };
}

/** The last reading of a device within the week. */
export async function lastReading(db: Reader, deviceId: string): Promise<Reading | null> {
	const { deviceId: of, ...told } = getTableColumns(tables.reading);
	const [last] = await db
		.select(told)
		.from(tables.reading)
		.where(and(eq(of, deviceId), gte(told.at, weekBefore())))
		.orderBy(desc(told.at))
		.limit(1);
	return last ?? null;
}
const weekBefore = (): string => addDays(today(), -7);

/** Hours with readings of devices since a day, oldest first, by device. */
async function hoursOf(
	db: Reader,
	deviceIds: readonly string[],
	fromDay: string
): Promise<Map<string, ReadingHour[]>> {
	const { hour, ...told } = getTableColumns(tables.readingHour);
	const rows = await jsonRows<ReadingHour & { deviceId: string }>(
		db,
		told,
		sql`from ${tables.readingHour} where ${inArray(told.deviceId, [...deviceIds])} and ${hour} >= ${fromDay} order by ${told.deviceId}, ${hour}`
	);
	const of = new Map<string, ReadingHour[]>();
	for (const row of rows) of.set(row.deviceId, [...(of.get(row.deviceId) ?? []), row]);
	return of;
}

export interface DeviceRow {
	device: Device;
	/** Tag of its tree or name of its place. */
	at: string;
	health: DeviceHealth;
	/** As it was told last, each measure. */
	last: Omit<ReadingHour, 'firstAt' | 'count' | 'lowestKg'> | null;
	/** What it is there for over the last week, an hour each. */
	week: { at: string; value: number }[];
}

/** Every device with its last readings and how it does. */
export async function deviceRows(db: Reader): Promise<DeviceRow[]> {
	const all = await devices.list(db);
	const hours = await hoursOf(
		db,
		all.map(({ id }) => id),
		weekBefore()
	);
	const names = new Map<string, string>();
	for (const row of await db
		.select({ id: tables.tree.id, tag: tables.tree.tag, name: tables.tree.name })
		.from(tables.tree))
		names.set(row.id, `${row.tag} ${row.name}`);
	for (const row of await db.select({ id: tables.place.id, name: tables.place.name }).from(tables.place))
		names.set(row.id, row.name);
	return all.map((device) => {
		const week = hours.get(device.id) ?? [];
		const [measure] = measuredBy[device.kind];
		return {
			device,
			at: names.get(device.onTreeId ?? device.placeId ?? '') ?? 'nowhere any more',
			health: deviceHealth(week),
			last: week.at(-1) ?? null,
			week: week.flatMap((hour) => {
				const value = hour[measure];
				return value === null ? [] : [{ at: hour.lastAt, value }];
			})
		};
	});
}
