import { nightTemperature } from '$core/climate/normals';
import { todayItems, walkingRound } from '$core/today/today';
import { coldOf } from '$core/today/weather-items';
import { addDays } from '$core/maths/calendar';
import type { SeriesDay } from '$core/climate/series';
import { today } from '$lib/server/clock';
import { recordWatering } from '$lib/server/water';
import { refreshWater } from '$lib/server/kept-water';
import { placeSeries } from '$lib/server/weather';
import { wateringForm } from '$lib/server/edge/watering-form';
import { doTogether, togetherInput } from '$lib/server/aftercare';
import { jsonIn } from '$lib/server/edge/form';
import { acting, check, loading } from '$lib/server/edge/http';
import { closeTaskFromForm } from '$lib/server/edge/task-form';
import { places } from '$lib/server/records/records';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { closedCases, todayTreesKept } from '$lib/server/tree-lists';
import { rollup } from 'd3';
import type { Actions, PageServerLoad } from './$types';

/** Low of tonight where it is forecast or measured; null where only the climate is known. */
const tonightOf = (day: SeriesDay | undefined): number | null => (day && day.how === '' ? day.minC : null);

export const load: PageServerLoad = () =>
	loading(async () => {
		const store = await getStore();
		const { db } = store;
		const on = today();
		const values = await readValues(db);
		await refreshWater(store, values);
		const [trees, weather] = await Promise.all([
			todayTreesKept(store, on),
			placeSeries(db, on, addDays(on, values['today.weatherAheadDays'] + 1), values)
		]);
		const items = todayItems(
			trees,
			on,
			values,
			new Map([...weather].map(([placeId, { series }]) => [placeId, series]))
		);
		// What stands in the garden seldom feels a night that a pot does; where all stands there, it is shown.
		const outOfGround = trees.filter((entry) => entry.place.kind !== 'garden');
		const nights = [
			...rollup(
				outOfGround.length > 0 ? outOfGround : trees,
				(group) => group,
				(entry) => entry.place.name
			)
		].flatMap(([placeName, group]) => {
			const place = group[0]?.place;
			if (!place) return [];
			return [
				{
					placeName,
					night: nightTemperature(place, on, values),
					forecastC: tonightOf(weather.get(place.id)?.series[0]),
					limits: group
						.map((entry) => ({ tag: entry.tree.tag, limitC: coldOf(entry, on, values).limitC }))
						.sort((a, b) => b.limitC - a.limitC)
						.slice(0, 6)
				}
			];
		});
		return {
			items: items.slice(0, 300),
			round: walkingRound(items, values),
			nights: nights.slice(0, 8),
			treeCount: trees.length,
			closedCount: trees.length > 0 ? 0 : await closedCases(db),
			placeCount: (await places.list(db)).length
		};
	});

export const actions: Actions = {
	water: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { treeId, watering } = wateringForm(form);
			const { entryIds: entryId } = await recordWatering(await getStore(), treeId, watering);
			return { told: 'Watered.', entryId };
		});
	},
	together: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const input = check(togetherInput, jsonIn(form, 'work'));
			const entryId = await doTogether(await getStore(), input, today());
			return { told: `Done: ${input.tasks.length + input.waterings.length}.`, entryId };
		});
	},
	close: async ({ request }) => {
		const form = await request.formData();
		return acting(form, () => closeTaskFromForm(form));
	}
};
