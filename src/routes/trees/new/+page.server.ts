import { freeTag, treesBeside } from '$lib/server/tree-names';
import { takeInInput } from '$core/take-in/tree';
import { acting } from '$lib/server/edge/http';
import { readForm } from '$lib/server/edge/form';
import { kinds, places } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { takeIn } from '$lib/server/trees';
import { redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	const [allKinds, allPlaces, others, suggestedTag] = await Promise.all([
		kinds.list(db),
		places.list(db),
		treesBeside(db, null),
		freeTag(db)
	]);
	return { kinds: allKinds, places: allPlaces, others, suggestedTag };
};

export const actions: Actions = {
	default: async ({ request }) => {
		const form = await request.formData();
		const result = await acting(form, async () => {
			const { tree } = await takeIn(await getStore(), readForm(takeInInput, form));
			return { treeId: tree.id };
		});
		if ('treeId' in result) redirect(303, `/trees/${result.treeId}/examine`);
		return result;
	}
};
