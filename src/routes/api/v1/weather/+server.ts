import { answer, check, readJson } from '$lib/server/edge/http';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { keepWeather, weatherBody } from '$lib/server/weather';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Days of weather of a station or a forecast; a day of the same place and source is replaced. */
export const POST: RequestHandler = ({ request }) =>
	answer(async () => {
		const store = await getStore();
		const days = check(weatherBody, await readJson(request));
		return json(await keepWeather(store, days, await readValues(store.db)), { status: 201 });
	});
