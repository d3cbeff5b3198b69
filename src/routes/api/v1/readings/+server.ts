import { readingInput, readingsBody } from '$core/aftercare/weather/device';
import { deviceOf, keepReadings, lastReading } from '$lib/server/devices';
import { answer, check, readJson } from '$lib/server/edge/http';
import { readReadingsCsv } from '$lib/server/edge/readings-csv';
import { Refusal } from '$lib/server/errors';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The last reading of the device whose token is sent, so that it can go on from there. */
export const GET: RequestHandler = ({ request }) =>
	answer(async () => {
		const { db } = await getStore();
		const device = await deviceOf(db, request.headers.get('authorization'));
		return json({ device: device.name, last: await lastReading(db, device.id) });
	});

/** Readings of a device, one or many, as JSON or CSV; the token tells which device. The same reading twice is kept once. */
export const POST: RequestHandler = ({ request }) =>
	answer(async () => {
		const store = await getStore();
		const device = await deviceOf(store.db, request.headers.get('authorization'));
		const csv = /^text\/csv\b/i.test(request.headers.get('content-type') ?? '');
		let readings;
		if (csv) {
			const text = await request.text();
			if (text.length > 2_000_000)
				throw new Refusal(413, 'The file is larger than 2 MB.', 'Send less at once.');
			readings = check(readingsBody, readReadingsCsv(text));
		} else {
			const raw = await readJson(request);
			readings = Array.isArray(raw) ? check(readingsBody, raw) : [check(readingInput, raw)];
		}
		const { kept, known } = await keepReadings(store, device, readings, await readValues(store.db));
		return json({ device: device.name, kept, known }, { status: 201 });
	});
