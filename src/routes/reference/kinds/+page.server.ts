import { id } from '$core/vocabulary/fields';
import { kindInput } from '$core/vocabulary/kind';
import { formVersion, readForm } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { kinds } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { addKind, changeKind } from '$lib/server/yard';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	return { kinds: await kinds.list(db) };
};

export const actions: Actions = {
	add: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId } = await addKind(await getStore(), readForm(kindInput, form));
			return { told: 'The kind is known.', entryId };
		});
	},
	change: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'Kept as your own.',
			entryId: await changeKind(
				await getStore(),
				check(id(), form.get('id')),
				formVersion(form),
				readForm(kindInput, form)
			)
		}));
	}
};
