import { today } from '$lib/server/clock';
import { feedToken, renewFeed, revokeFeed, yardEvents } from '$lib/server/calendar';
import { acting } from '$lib/server/edge/http';
import { shareState } from '$lib/server/people/share-state';
import { getStore } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url, locals }) => {
	const { db } = await getStore();
	const asked = url.searchParams.get('month') ?? '';
	const month = /^\d{4}-(0[1-9]|1[0-2])$/.test(asked) ? asked : today().slice(0, 7);
	// Who was told the address keeps it when their own key is taken back: it is for owners to give.
	const mayGive = locals.who?.role === 'owner';
	const [events, token] = await Promise.all([yardEvents(db), mayGive ? feedToken(db) : null]);
	const at = shareState()?.addresses[0] ?? url.origin;
	return { events, month, mayGive, feed: token === null ? null : `${at}/calendar/${token}.ics` };
};

export const actions: Actions = {
	renew: async ({ request }) =>
		acting(await request.formData(), async () => {
			await renewFeed(await getStore());
			return { told: 'A new address was made; the old one is worth nothing.' };
		}),
	revoke: async ({ request }) =>
		acting(await request.formData(), async () => {
			await revokeFeed(await getStore());
			return { told: 'The address is revoked.' };
		})
};
