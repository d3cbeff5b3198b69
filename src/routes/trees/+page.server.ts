import { today } from '$lib/server/clock';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { listedTrees } from '$lib/server/tree-lists';
import { refreshWater } from '$lib/server/kept-water';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const store = await getStore();
	const values = await readValues(store.db);
	await refreshWater(store, values);
	return { rows: await listedTrees(store, today(), values) };
};
