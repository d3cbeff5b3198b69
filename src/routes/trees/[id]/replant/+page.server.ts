import { replantPlanInput } from '$core/replant/pots/replant-plan';
import { jsonIn } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { keepReplantPlan, recordPlanting } from '$lib/server/replant';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

/** Of a tree in the ground Replant is the work in its ground, but where a pot is planned for it or asked for. */
export const load: PageServerLoad = async ({ parent, params, url }) => {
	const { tree, replantPlan } = (await parent()).records;
	if (tree.situation === 'in-ground' && !replantPlan && !url.searchParams.has('pot'))
		redirect(307, `/trees/${params.id}/replant/ground`);
};

export const actions: Actions = {
	keep: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const plan = check(replantPlanInput, jsonIn(form, 'plan'));
			const version = Number(form.get('version')) || null;
			const entryId = await keepReplantPlan(await getStore(), params.id, plan, version);
			return { told: 'The plan is kept.', entryId };
		});
	},
	plant: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const plan = check(replantPlanInput, jsonIn(form, 'plan'));
			const store = await getStore();
			const { entryId, missing } = await recordPlanting(
				store,
				params.id,
				plan.planting,
				{
					waterSchool: plan.waterSchool,
					fromStock: plan.takeFromStock ? { potId: plan.stockPotId, materials: true } : null
				},
				await readValues(store.db)
			);
			return {
				told:
					missing.length > 0
						? `Written down as planted. The stock did not reach: ${missing.join(', ')}.`
						: 'Written down as planted.',
				entryId
			};
		});
	}
};
