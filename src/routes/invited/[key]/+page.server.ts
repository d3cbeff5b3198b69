import { newPersonInput } from '$core/vocabulary/people';
import { acting, check, loading } from '$lib/server/edge/http';
import { letIn } from '$lib/server/people/at-the-door';
import { acceptInvitation, invitedTo } from '$lib/server/people/people';
import { getStore } from '$lib/server/store';
import { redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) =>
	loading(async () => ({ role: await invitedTo((await getStore()).db, params.key) }));

export const actions: Actions = {
	default: async (event) => {
		const form = await event.request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const input = check(newPersonInput, { name: form.get('name'), passphrase: form.get('passphrase') });
			await letIn(event, store, await acceptInvitation(store, event.params.key, input));
			redirect(303, '/');
		});
	}
};
