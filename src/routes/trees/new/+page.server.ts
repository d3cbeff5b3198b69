import { takeInInput } from '$core/take-in/tree';
import { acting } from '$lib/server/edge/http';
import { readForm } from '$lib/server/edge/form';
import { kinds, places, trees } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { takeIn } from '$lib/server/trees';
import { redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	const [allKinds, allPlaces, all] = await Promise.all([kinds.list(db), places.list(db), trees.list(db)]);
	const taken = new Set(all.map((tree) => tree.tag.toLowerCase()));
	let number = all.length + 1;
	while (taken.has(`t-${String(number).padStart(2, '0')}`)) number++;
	return {
		kinds: allKinds,
		places: allPlaces,
		others: all.filter((tree) => tree.state === 'in-care').map(({ id, tag, name }) => ({ id, tag, name })),
		suggestedTag: `T-${String(number).padStart(2, '0')}`
	};
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
