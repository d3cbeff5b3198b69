import { getStore } from '$lib/server/store';
import { treeRows } from '$lib/server/trees';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	const rows = await treeRows(db);
	return {
		rows: rows.map(({ tree, ...row }) => ({
			id: tree.id,
			tag: tree.tag,
			name: tree.name,
			situation: tree.situation,
			state: tree.state,
			plantCount: tree.plantCount,
			takenInOn: tree.takenInOn,
			kindName: row.kindName,
			group: row.group,
			placeName: row.placeName,
			lastLookOn: row.lastLookOn,
			nextTask: row.nextTask,
			nextOn: row.nextOn
		}))
	};
};
