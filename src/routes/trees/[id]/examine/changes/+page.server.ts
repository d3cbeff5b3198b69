import { treesBeside } from '$lib/server/tree-names';
import { changeInput, factors } from '$core/tree/changes';
import { calendarDate, chosen, oneOf } from '$core/vocabulary/fields';
import { removing } from '$lib/server/edge/examine-form';
import { readForm } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { nameTwin, planOneByOne, recordChange } from '$lib/server/examine';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

const oneByOneForm = z.strictObject({
	startOn: calendarDate(),
	factors: z
		.array(oneOf(factors))
		.min(2, { error: 'must name at least two things to change' })
		.max(factors.length)
});

export const load: PageServerLoad = async ({ parent }) => {
	const { tree } = (await parent()).records;
	const { db } = await getStore();
	// Trees of its kind at its place tell most as twins.
	return { others: await treesBeside(db, tree, [tree.referenceTreeId]) };
};

export const actions: Actions = {
	change: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'The change is kept.',
			entryId: await recordChange(await getStore(), params.id, readForm(changeInput, form))
		}));
	},
	remove: removing('change'),
	twin: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { twinId } = check(z.object({ twinId: chosen() }), { twinId: form.get('twinId') });
			return {
				told: 'The twin is named.',
				entryId: await nameTwin(await getStore(), params.id, twinId)
			};
		});
	},
	oneByOne: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const wanted = readForm(oneByOneForm, form);
			const store = await getStore();
			return {
				told: `${wanted.factors.length} changes are planned, one by one; see Aftercare.`,
				entryId: await planOneByOne(
					store,
					params.id,
					wanted.factors,
					wanted.startOn,
					await readValues(store.db)
				)
			};
		});
	}
};
