import { acting } from '$lib/server/edge/http';
import { places } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { readSheet, takeInSheet } from '$lib/server/tree-sheet';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({
	places: await places.list((await getStore()).db)
});

export const actions: Actions = {
	look: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { header, columns, missing, rows } = await readSheet(await getStore(), form);
			return {
				sheet: {
					header,
					columns,
					missing,
					rows: rows.map(({ line, tag, name, problems }) => ({ line, tag, name, problems }))
				}
			};
		});
	},
	take: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { count, left, entryIds } = await takeInSheet(await getStore(), form);
			const rest = left === 0 ? '' : ` ${left} of its rows could not be read and were left.`;
			return {
				told: `${count === 1 ? 'One tree' : `${count} trees`} taken in.${rest}`,
				entryId: entryIds
			};
		});
	}
};
