import { listensAlone } from '$lib/server/edge/guard';
import { shareState } from '$lib/server/people/share-state';
import { getStore } from '$lib/server/store';
import { treeRows } from '$lib/server/tree-lists';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
	const { db } = await getStore();
	const shared = shareState();
	return {
		rows: (await treeRows(db)).filter((row) => row.state === 'in-care'),
		// A name outlasts the numbers that a network gives out.
		base: shared?.addresses.at(-1) ?? url.origin,
		alone: shared === null && listensAlone(process.env) && !process.env.ORIGIN
	};
};
