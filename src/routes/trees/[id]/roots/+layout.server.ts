import { loading } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import { referenceShootMm } from '$lib/server/trees';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ parent }) =>
	loading(async () => {
		const { db } = await getStore();
		const { records } = await parent();
		return { referenceShootMm: await referenceShootMm(db, records.tree) };
	});
