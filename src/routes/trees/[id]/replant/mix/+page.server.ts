import { ownMixInput } from '$core/replant/kit/stock';
import { jsonIn, versionedIn } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { keepMix } from '$lib/server/stock';
import { getStore } from '$lib/server/store';
import type { Actions } from './$types';

export const actions: Actions = {
	keepMix: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId } = await keepMix(
				await getStore(),
				check(ownMixInput, jsonIn(form, 'mix')),
				versionedIn(form)
			);
			return { told: 'The mix is kept.', entryId };
		});
	}
};
