import { addDays } from '$core/maths/calendar';
import { lastRootWork, rootsGone } from '$core/tree/losses';
import { today } from '$lib/server/clock';
import { loading } from '$lib/server/edge/http';
import { places } from '$lib/server/records/records';
import { loadStock } from '$lib/server/stock';
import { valuesInForce } from '$core/values/values';
import { getStore } from '$lib/server/store';
import { waterOf } from '$lib/server/water';
import { placeSeries } from '$lib/server/weather';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ parent }) =>
	loading(async () => {
		const { db } = await getStore();
		const { records, overrides } = await parent();
		const values = valuesInForce(overrides);
		const on = today();
		const [yardPlaces, stock, series, water] = await Promise.all([
			places.list(db),
			loadStock(db),
			placeSeries(db, on, addDays(on, 21), values),
			waterOf(db, records.tree.id, values)
		]);
		return {
			yardPlaces,
			stock,
			near: Object.fromEntries(
				[...series].map(([id, one]) => [id, one.series.filter((day) => day.how === '')])
			),
			weighedFunction: water.pot?.pairs.length ? (water.pot.course.at(-1)?.phi ?? null) : null,
			lastWork: lastRootWork(records, values),
			goneRoots: rootsGone(records, values)
		};
	});
