import { treesBeside } from '$lib/server/tree-names';
import { triageInput } from '$core/examine/triage/triage';
import { removing } from '$lib/server/edge/examine-form';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { recordTriage } from '$lib/server/examine';
import { getStore } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, parent }) => {
	const { records } = await parent();
	const { db } = await getStore();
	return {
		others: await treesBeside(
			db,
			{ ...records.tree, id: params.id },
			records.triages.map((triage) => triage.secondTreeId)
		)
	};
};

export const actions: Actions = {
	decide: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'The decision is kept.',
			entryId: await recordTriage(await getStore(), params.id, readForm(triageInput, form))
		}));
	},
	remove: removing('decision')
};
