import { addDays } from '$core/maths/calendar';
import { todayItems } from '$core/today/today';
import { today } from '$lib/server/clock';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { todayTrees } from '$lib/server/tree-lists';
import { refreshWater } from '$lib/server/kept-water';
import { placeSeries } from '$lib/server/weather';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const store = await getStore();
	const on = today();
	const values = await readValues(store.db);
	await refreshWater(store, values);
	const [trees, weather] = await Promise.all([
		todayTrees(store.db, on),
		placeSeries(store.db, on, addDays(on, values['today.weatherAheadDays'] + 1), values)
	]);
	const items = todayItems(
		trees,
		on,
		values,
		new Map([...weather].map(([placeId, { series }]) => [placeId, series]))
	).filter((item) => item.level !== 'soon');
	return {
		items: items.slice(0, 500),
		potted: trees
			.filter((entry) => entry.tree.situation !== 'in-ground')
			.slice(0, 500)
			.map((entry) => ({
				id: entry.tree.id,
				tag: entry.tree.tag,
				name: entry.tree.name,
				placeName: entry.place.name,
				dryness: entry.water && entry.water.from !== 'assumed' ? entry.water.dryness : null
			}))
	};
};
