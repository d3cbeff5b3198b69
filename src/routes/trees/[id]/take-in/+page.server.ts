import { picturesLeft } from '$lib/server/case-file';
import { treesBeside } from '$lib/server/tree-names';
import { treeInput } from '$core/take-in/tree';
import { formVersion, readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { kinds, places } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { changeTree } from '$lib/server/trees';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
	const { tree, pictures } = (await parent()).records;
	const { db } = await getStore();
	const [allKinds, allPlaces, others, left] = await Promise.all([
		kinds.list(db),
		places.list(db),
		treesBeside(db, tree, [tree.referenceTreeId], false),
		picturesLeft(pictures)
	]);
	return { kinds: allKinds, yardPlaces: allPlaces, others, picturesLeft: left };
};

export const actions: Actions = {
	change: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'Kept.',
			entryId: await changeTree(await getStore(), params.id, formVersion(form), readForm(treeInput, form))
		}));
	}
};
