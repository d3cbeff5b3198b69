import { valuesInForce } from '$core/values/values';
import { today } from '$lib/server/clock';
import { loading } from '$lib/server/edge/http';
import { notFound } from '$lib/server/errors';
import { linked } from '$lib/server/people/links';
import { loadRecords } from '$lib/server/records/tree-records';
import { recoveryOf, twinOf } from '$lib/server/recovery';
import { readOverrides } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { headOf } from '$lib/server/tree-head';
import { referenceShootMm } from '$lib/server/trees';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) =>
	loading(async () => {
		const { db } = await getStore();
		const { treeId, page } = await linked(db, params.key);
		const [records, overrides] = await Promise.all([loadRecords(db, treeId), readOverrides(db)]);
		const values = valuesInForce(overrides);
		const place = records.places.find((one) => one.id === records.tree.placeId);
		const of = await recoveryOf(db, records, values);
		if (!place || !of) throw notFound('page');
		return {
			page,
			key: params.key,
			records,
			place,
			values,
			stands: headOf(records, today(), values).stands,
			of,
			shootMm: await referenceShootMm(db, records),
			twin: await twinOf(db, records.tree)
		};
	});
