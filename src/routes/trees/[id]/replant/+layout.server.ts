import { lastRootWork, rootsGone } from '$core/standing/losses';
import { loading } from '$lib/server/edge/http';
import { places } from '$lib/server/records/records';
import { loadStock } from '$lib/server/stock';
import { getStore } from '$lib/server/store';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ parent }) =>
	loading(async () => {
		const { db } = await getStore();
		const { records, values } = await parent();
		const [yardPlaces, stock] = await Promise.all([places.list(db), loadStock(db)]);
		return {
			yardPlaces,
			stock,
			lastWork: lastRootWork(records, values),
			goneRoots: rootsGone(records, values)
		};
	});
