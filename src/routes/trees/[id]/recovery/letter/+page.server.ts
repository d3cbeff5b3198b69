import { loading } from '$lib/server/edge/http';
import { sharing } from '$lib/server/edge/share-form';
import { recoveryOf } from '$lib/server/recovery';
import { referenceShootMm } from '$lib/server/trees';
import { valuesInForce } from '$core/values/values';
import { getStore } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ parent }) =>
	loading(async () => {
		const { records, overrides } = await parent();
		const values = valuesInForce(overrides);
		const { db } = await getStore();
		return {
			of: await recoveryOf(db, records, values),
			shootMm: await referenceShootMm(db, records)
		};
	});

export const actions: Actions = { share: sharing('letter') };
