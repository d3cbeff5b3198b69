import { createFormat } from '$core/text/format';
import { numberTyped, readTwoWays } from '$core/text/typed';
import { acting } from '$lib/server/edge/http';
import { valuesInForce } from '$core/values/values';
import { invalid } from '$lib/server/errors';
import { overrideValues, readFormatSettings, readOverrides } from '$lib/server/settings';
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
			const store = await getStore();
			const typed = String(form.get('value') ?? '');
			const twoWays = readTwoWays(typed, createFormat(await readFormatSettings(store.db)).decimalSign);
			if (twoWays) throw invalid([{ field: 'value', message: twoWays }]);
			await overrideValues(store, { [String(form.get('key'))]: numberTyped(typed) });
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
