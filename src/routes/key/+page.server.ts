import { signInInput } from '$core/vocabulary/people';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { addressOf, forgetKey, keySent, letIn, placeToGo } from '$lib/server/people/at-the-door';
import { hasOwner, recognise, signOut } from '$lib/server/people/people';
import { getStore } from '$lib/server/store';
import { redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url, locals }) => {
	const { db } = await getStore();
	return { who: locals.who, owned: await hasOwner(db), to: placeToGo(url.searchParams.get('to')) };
};

export const actions: Actions = {
	in: async (event) => {
		const form = await event.request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const typed = readForm(signInInput, form);
			// As it was typed, blanks at its ends too.
			const passphrase = form.get('passphrase');
			const who = await recognise(
				store.db,
				{ ...typed, passphrase: typeof passphrase === 'string' ? passphrase : '' },
				addressOf(event) ?? 'unknown'
			);
			await letIn(event, store, who);
			const to = form.get('to');
			redirect(303, placeToGo(typeof to === 'string' ? to : null));
		});
	},
	out: async (event) => {
		const form = await event.request.formData();
		return acting(form, async () => {
			const key = keySent(event);
			if (key) await signOut(await getStore(), { key });
			forgetKey(event);
			redirect(303, '/key');
		});
	}
};
