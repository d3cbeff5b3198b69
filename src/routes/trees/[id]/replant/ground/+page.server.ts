import { groundPlanInput } from '$core/replant/ground/ground-plan';
import { jsonIn, versionedIn } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { keepGroundPlan } from '$lib/server/replant';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import type { Actions } from './$types';

export const actions: Actions = {
	keep: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const input = check(groundPlanInput, jsonIn(form, 'plan'));
			const store = await getStore();
			const { entryId } = await keepGroundPlan(
				store,
				params.id,
				input,
				versionedIn(form),
				await readValues(store.db)
			);
			return { told: input.doneOn ? 'Written down as done.' : 'The plan is kept.', entryId };
		});
	}
};
