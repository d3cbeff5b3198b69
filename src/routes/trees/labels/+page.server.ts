import { getStore } from '$lib/server/store';
import { treeRows } from '$lib/server/tree-lists';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	return { rows: (await treeRows(db)).filter((row) => row.state === 'in-care') };
};
