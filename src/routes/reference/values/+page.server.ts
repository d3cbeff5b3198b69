import { numberTyped } from '$core/text/typed';
import { acting } from '$lib/server/edge/http';
import { valuesInForce } from '$core/values/values';
import { overrideValues, readOverrides } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { isValueKey } from '$core/values/values';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	const overrides = await readOverrides(db);
	return { values: valuesInForce(overrides), overridden: Object.keys(overrides).filter(isValueKey) };
};

export const actions: Actions = {
	set: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await overrideValues(await getStore(), {
				[String(form.get('key'))]: numberTyped(String(form.get('value') ?? ''))
			});
			return { told: 'Your own number is in force.' };
		});
	},
	reset: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await overrideValues(await getStore(), { [String(form.get('key'))]: null });
			return { told: 'Back to the shipped number.' };
		});
	}
};
