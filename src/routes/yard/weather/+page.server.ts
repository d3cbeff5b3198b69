import { addDays } from '$core/maths/calendar';
import { counted, listed } from '$core/text/plural';
import { id, oneOf } from '$core/vocabulary/fields';
import { simulateWeather } from '$core/simulate/weather';
import { disagreements } from '$core/climate/series';
import { weatherDayInput } from '$core/climate/weather-day';
import { today } from '$lib/server/clock';
import { readForm } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { readWeatherCsv } from '$lib/server/edge/weather-csv';
import { places } from '$lib/server/records/records';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import {
	fetchForecast,
	hoursBody,
	keepHours,
	keepWeather,
	loadWeather,
	placeSeries,
	readForecastSetting,
	weatherBody,
	writeForecastSetting
} from '$lib/server/weather';
import { invalid } from '$lib/server/errors';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
	const { db } = await getStore();
	const on = today();
	const values = await readValues(db);
	const [from, to] = [addDays(on, -60), addDays(on, 14)];
	const [all, series, days, forecast] = await Promise.all([
		places.list(db),
		placeSeries(db, from, to, values),
		loadWeather(db, from, to),
		readForecastSetting(db)
	]);
	const chosen =
		all.find((place) => place.id === url.searchParams.get('place')) ??
		all.find((place) => place.id === forecast.placeId) ??
		all[0] ??
		null;
	const here = chosen ? series.get(chosen.id) : undefined;
	return {
		places: all,
		chosen,
		station: here?.station ?? null,
		series: here?.series ?? [],
		disagree: disagreements(
			days.filter((day) => day.placeId === (here?.station?.id ?? '')),
			values
		),
		forecast,
		values
	};
};

export const actions: Actions = {
	day: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			form.set('source', 'typed');
			const store = await getStore();
			const { missed } = await keepWeather(
				store,
				[readForm(weatherDayInput, form)],
				await readValues(store.db)
			);
			return {
				told:
					missed === 1
						? 'Kept. One tree stood below its limit: it is in its journal.'
						: missed > 0
							? `Kept. ${missed} trees stood below their limit: it is in their journals.`
							: 'Kept.'
			};
		});
	},
	file: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const file = form.get('file');
			if (!(file instanceof File) || file.size === 0)
				throw invalid([{ field: 'file', message: 'must be a file with at least one day' }]);
			if (file.size > 2_000_000) throw invalid([{ field: 'file', message: 'must be at most 2 MB' }]);
			const store = await getStore();
			const values = await readValues(store.db);
			const common = {
				placeId: check(id(), form.get('placeId')),
				source: 'station' as const,
				from: file.name.slice(0, 60)
			};
			const rows = readWeatherCsv(await file.text(), today());
			const { kept, missed, short } =
				rows.per === 'hour'
					? await keepHours(store, check(hoursBody, { ...common, hours: rows.rows }), values)
					: {
							...(await keepWeather(
								store,
								check(
									weatherBody,
									rows.rows.map((row) => ({ ...common, ...row }))
								),
								values
							)),
							short: 0
						};
			return {
				told: [
					`${counted(kept, 'day')} kept`,
					...(short > 0 ? [`${short} with too few hours left out`] : []),
					...(missed > 0 ? [`${counted(missed, 'cold night')} written into the journals`] : []),
					...(rows.unread.length > 0 ? [`nothing is read of ${listed(rows.unread.slice(0, 12))}`] : [])
				]
					.join('; ')
					.concat('.')
			};
		});
	},
	simulate: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const place = await places.get(store.db, check(id(), form.get('placeId')));
			if (!place) throw invalid([{ field: 'placeId', message: 'must be a place of this yard' }]);
			const values = await readValues(store.db);
			const on = today();
			const { kept } = await keepWeather(
				store,
				simulateWeather(place, { from: addDays(on, -60), to: addDays(on, -1) }, 11, values),
				values
			);
			return { told: `${counted(kept, 'simulated day')} kept, labelled as simulated.` };
		});
	},
	forecast: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const kind = check(oneOf(['off', 'simulated', 'address']), form.get('kind'));
			await writeForecastSetting(store, {
				service: kind === 'address' ? String(form.get('address') ?? '') : kind,
				placeId: check(id(), form.get('placeId')),
				fetchedAt: null
			});
			if (kind === 'off') return { told: 'No forecast is used.' };
			const kept = await fetchForecast(store, await readValues(store.db));
			return { told: `${counted(kept, 'day')} of forecast kept.` };
		});
	}
};
