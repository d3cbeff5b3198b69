import { answer, check, readJson } from '$lib/server/edge/http';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { hoursBody, keepHours, keepWeather, weatherBody } from '$lib/server/weather';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/**
 * Days of weather of a station or a forecast, or `{placeId, from, hours}` with its readings by the hour; a day of the same place
 * and source is replaced.
 */
export const POST: RequestHandler = ({ request }) =>
	answer(async () => {
		const store = await getStore();
		const [body, values] = await Promise.all([readJson(request), readValues(store.db)]);
		return json(
			Array.isArray(body)
				? await keepWeather(store, check(weatherBody, body), values)
				: await keepHours(store, check(hoursBody, body), values),
			{ status: 201 }
		);
	});
