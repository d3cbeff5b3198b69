import { count, measure } from '$core/vocabulary/fields';
import { answer, check } from '$lib/server/edge/http';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { FORECAST_DAYS, simulatedForecast } from '$lib/server/weather';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const query = z.strictObject({
	latitude: measure(-66, 66, '°'),
	longitude: measure(-180, 180, '°').default(0),
	elevation: measure(-400, 5000, 'm').default(0),
	days: count(1, 16).default(FORECAST_DAYS)
});

/** A forecast that never was, in the shape that a real service would answer with. Labelled as simulated. */
export const GET: RequestHandler = ({ url }) =>
	answer(async () => {
		const asked = check(
			query,
			Object.fromEntries([...url.searchParams].map(([name, text]) => [name, Number(text)]))
		);
		const { db } = await getStore();
		const days = simulatedForecast(
			{
				id: 'simulated',
				kind: 'open',
				latitudeDeg: asked.latitude,
				elevationM: asked.elevation,
				heldMinimumC: null
			},
			await readValues(db),
			asked.days
		);
		return json(
			days.map(({ placeId: _place, source: _source, from: _from, ...day }) => day),
			{
				headers: { 'x-simulated': 'true' }
			}
		);
	});
