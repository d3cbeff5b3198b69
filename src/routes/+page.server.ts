import { nightTemperature } from '$core/climate/normals';
import { coldLimitC, todayItems, walkingRound } from '$core/today/today';
import { today } from '$lib/server/clock';
import { acting, loading } from '$lib/server/edge/http';
import { closeTaskFromForm } from '$lib/server/edge/task-form';
import { places } from '$lib/server/records/records';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { todayTrees } from '$lib/server/tree-lists';
import { rollup } from 'd3';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () =>
	loading(async () => {
		const { db } = await getStore();
		const on = today();
		const values = await readValues(db);
		const trees = await todayTrees(db, on);
		const items = todayItems(trees, on, values);
		const nights = [
			...rollup(
				trees.filter((entry) => entry.place.kind !== 'garden'),
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
					limits: group
						.map((entry) => ({ tag: entry.tree.tag, limitC: coldLimitC(entry, on, values) }))
						.sort((a, b) => b.limitC - a.limitC)
						.slice(0, 6)
				}
			];
		});
		return {
			items: items.slice(0, 300),
			round: walkingRound(items),
			nights: nights.slice(0, 8),
			treeCount: trees.length,
			placeCount: (await places.list(db)).length
		};
	});

export const actions: Actions = {
	close: async ({ request }) => {
		const form = await request.formData();
		return acting(form, () => closeTaskFromForm(form));
	}
};
