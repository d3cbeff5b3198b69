import { loading } from '$lib/server/edge/http';
import { potMates } from '$lib/server/roots';
import { getStore } from '$lib/server/store';
import { referenceShootMm } from '$lib/server/trees';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ parent }) =>
	loading(async () => {
		const { db } = await getStore();
		const { records } = await parent();
		const [shootMm, mates] = await Promise.all([
			referenceShootMm(db, records.tree),
			potMates(db, records.tree)
		]);
		return { referenceShootMm: shootMm, mates };
	});
