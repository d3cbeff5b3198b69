import { today } from '$lib/server/clock';
import { feedToken, renewFeed, revokeFeed, yardEvents } from '$lib/server/calendar';
import { acting } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
	const { db } = await getStore();
	const asked = url.searchParams.get('month') ?? '';
	const month = /^\d{4}-(0[1-9]|1[0-2])$/.test(asked) ? asked : today().slice(0, 7);
	const [events, token] = await Promise.all([yardEvents(db), feedToken(db)]);
	return { events, month, feed: token === null ? null : `${url.origin}/calendar/${token}.ics` };
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
