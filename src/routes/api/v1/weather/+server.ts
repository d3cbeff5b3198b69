import { deviceOf } from '$lib/server/devices';
import { answer, check, readJson } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { hoursBody, keepHours, keepWeather, weatherBody } from '$lib/server/weather';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/**
 * Days of weather of a station or a forecast, or `{placeId, from, hours}` with its readings by the hour; a day of the same place
 * and source is replaced.
 */
export const POST: RequestHandler = ({ request, locals }) =>
	answer(async () => {
		const store = await getStore();
		const [body, values] = await Promise.all([readJson(request), readValues(store.db)]);
		// Somebody of the yard sends what they like; a station sends weather of its place.
		const station = locals.who
			? null
			: await deviceOf(store.db, request.headers.get('authorization'), 'weather');
		const own = (placeId: string): void => {
			if (station && placeId !== station.placeId)
				throw new Refusal(
					403,
					'This station stands at another place.',
					'Send weather of its own place only.'
				);
		};
		const days = Array.isArray(body) ? check(weatherBody, body) : null;
		const hours = days ? null : check(hoursBody, body);
		for (const { placeId } of days ?? []) own(placeId);
		if (hours) own(hours.placeId);
		return json(
			hours ? await keepHours(store, hours, values) : await keepWeather(store, days ?? [], values),
			{ status: 201 }
		);
	});
