import { acting } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import { backUp, backupsOf } from '$lib/server/yard-backup/yard';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { backups, ...how } = await backupsOf(await getStore());
	return {
		...how,
		backups: backups.map(({ rows, pictures, sha256: _sum, ...backup }) => ({
			...backup,
			trees: rows.tree ?? 0,
			records: Object.values(rows).reduce((sum, count) => sum + count, 0),
			pictures: pictures.length
		}))
	};
};

export const actions: Actions = {
	make: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await backUp(await getStore());
			return { told: 'The yard is backed up, and the copy was counted.' };
		});
	}
};
