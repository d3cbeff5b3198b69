import { rehearsalInput } from '$core/recovery/rehearsal/kept';
import { valuesInForce } from '$core/values/values';
import { jsonIn } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { rehearsalOf, rehearsedBefore, takeOver } from '$lib/server/rehearse';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { counted } from '$core/text/plural';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
	const { records, overrides } = await parent();
	const values = valuesInForce(overrides);
	const { db } = await getStore();
	const inCare = records.tree.state === 'in-care';
	const [of, before] = await Promise.all([
		inCare ? rehearsalOf(db, records, values) : null,
		rehearsedBefore(db, records, values)
	]);
	return { of, before };
};

export const actions: Actions = {
	take: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const version = form.get('planVersion');
			const { entryId, tasks } = await takeOver(
				store,
				params.id,
				check(rehearsalInput, jsonIn(form, 'rehearsal')),
				typeof version === 'string' && version !== '' ? Number(version) : null,
				await readValues(store.db)
			);
			return {
				told: `The plan is taken over${tasks > 0 ? `: ${counted(tasks, 'task')} on its list` : ''}. The rehearsal is kept beside it.`,
				entryId
			};
		});
	}
};
