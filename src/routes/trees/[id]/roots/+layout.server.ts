import { today } from '$lib/server/clock';
import { loading } from '$lib/server/edge/http';
import { nightAhead, potMates } from '$lib/server/roots';
import { valuesInForce } from '$core/values/values';
import { getStore } from '$lib/server/store';
import { referenceShootMm } from '$lib/server/trees';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ parent }) =>
	loading(async () => {
		const { db } = await getStore();
		const { records, place, overrides } = await parent();
		const values = valuesInForce(overrides);
		const [shootMm, mates, nightC] = await Promise.all([
			referenceShootMm(db, records),
			potMates(db, records.tree),
			place ? nightAhead(db, records.tree, place, today(), values) : null
		]);
		return { referenceShootMm: shootMm, mates, nightC };
	});
