import { triageInput } from '$core/examine/triage/triage';
import { removing } from '$lib/server/edge/examine-form';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { recordTriage } from '$lib/server/examine';
import { trees } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
	const { db } = await getStore();
	const all = await trees.list(db);
	return {
		others: all
			.filter((tree) => tree.id !== params.id && tree.state === 'in-care')
			.map(({ id, tag, name }) => ({ id, tag, name }))
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
