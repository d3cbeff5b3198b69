import { id, oneOf } from '$core/vocabulary/fields';
import { newPersonInput, passphraseInput, roles, type Who } from '$core/vocabulary/people';
import { acting, check } from '$lib/server/edge/http';
import { notFound } from '$lib/server/errors';
import { keySent, letIn } from '$lib/server/people/at-the-door';
import { openLinks, takeLinkBack } from '$lib/server/people/links';
import {
	askKeyHere,
	changePassphrase,
	hasOwner,
	changeRole,
	invite,
	keyAskedHere,
	makeOwner,
	openInvitations,
	peopleOf,
	removePerson,
	signOut,
	takeInvitationBack
} from '$lib/server/people/people';
import { qrOf, shareState } from '$lib/server/people/share-state';
import { getStore } from '$lib/server/store';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
	const { db } = await getStore();
	const who = known(locals.who);
	const all = await peopleOf(db);
	const owner = who.role === 'owner';
	return {
		who,
		owned: await hasOwner(db),
		// A helper sees their own devices.
		people: owner ? all : all.filter((person) => person.id === who.id),
		invitations: owner ? await openInvitations(db) : [],
		links: owner ? await openLinks(db) : [],
		keyHere: await keyAskedHere(db),
		shared: shareState()?.addresses ?? null
	};
};

/** Nobody comes here without a key, or from elsewhere than the computer itself. */
function known(who: Who | null): Who {
	if (!who) throw notFound('person');
	return who;
}

const idOf = (form: FormData): string => check(id(), form.get('id'));
const roleOf = (form: FormData) => check(oneOf(roles), form.get('role'));
const passphrases = z.strictObject({ before: z.string(), passphrase: passphraseInput });

export const actions: Actions = {
	makeOwner: async (event) => {
		const form = await event.request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const input = check(newPersonInput, { name: form.get('name'), passphrase: form.get('passphrase') });
			await letIn(event, store, await makeOwner(store, input));
			return { told: 'You own this yard.' };
		});
	},
	invite: async ({ request, url }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const key = await invite(await getStore(), roleOf(form));
			const link = `${shareState()?.addresses[0] ?? url.origin}/invited/${key}`;
			return { invited: { link, qr: await qrOf(link) } };
		});
	},
	uninvite: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await takeInvitationBack(await getStore(), idOf(form));
			return { told: 'The invitation holds no more.' };
		});
	},
	role: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await changeRole(await getStore(), idOf(form), roleOf(form));
			return { told: 'Kept.' };
		});
	},
	remove: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await removePerson(await getStore(), idOf(form));
			return { told: 'Taken out, with the keys of all their devices.' };
		});
	},
	signOut: async ({ request, locals }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const who = known(locals.who);
			await signOut(await getStore(), {
				id: idOf(form),
				...(who.role === 'helper' && who.id !== null && { personId: who.id })
			});
			return { told: 'That device has to sign in again.' };
		});
	},
	passphrase: async (event) => {
		const form = await event.request.formData();
		return acting(form, async () => {
			const input = check(passphrases, {
				before: form.get('before'),
				passphrase: form.get('passphrase')
			});
			await changePassphrase(await getStore(), known(event.locals.who), input, keySent(event));
			return { told: 'Kept. Your other devices have to sign in again.' };
		});
	},
	keyHere: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await askKeyHere(await getStore(), form.get('asked') === 'yes');
			return { told: 'Kept.' };
		});
	},
	unlink: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await takeLinkBack(await getStore(), idOf(form));
			return { told: 'The link shows nothing any more.' };
		});
	}
};
