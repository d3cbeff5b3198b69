import { liftInput } from '$core/replant/lifting/lift';
import { jsonIn, versionedIn } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { keepLift } from '$lib/server/replant';
import { getStore } from '$lib/server/store';
import type { Actions } from './$types';

export const actions: Actions = {
	keep: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const input = check(liftInput, jsonIn(form, 'lift'));
			const { entryId, corrected } = await keepLift(await getStore(), params.id, input, versionedIn(form));
			return {
				told: corrected
					? 'The log of the lift is corrected.'
					: input.log
						? 'The log of the lift is kept.'
						: 'Plan and ticks are kept.',
				entryId
			};
		});
	}
};
