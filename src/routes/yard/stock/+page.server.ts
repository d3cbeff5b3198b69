import { id, oneOf, version } from '$core/vocabulary/fields';
import { stockItemInput, stockPotInput } from '$core/replant/kit/stock';
import { readForm, versionedIn } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { keepItem, keepPot, loadStock, removeFromStock } from '$lib/server/stock';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { asPot } from '$core/replant/pots/volume';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	const [stock, values] = await Promise.all([loadStock(db), readValues(db)]);
	return { ...stock, values };
};

const removal = z.strictObject({ kind: oneOf(['pot', 'item', 'mix']), id: id(), version: version() });

export const actions: Actions = {
	pot: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const read = readForm(stockPotInput, form);
			const { shape, ...sizes } = read.pot;
			const { entryId } = await keepPot(
				await getStore(),
				{ ...read, pot: asPot(shape, sizes) },
				versionedIn(form)
			);
			return { told: 'The stock is kept.', entryId };
		});
	},
	item: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId } = await keepItem(await getStore(), readForm(stockItemInput, form), versionedIn(form));
			return { told: 'The stock is kept.', entryId };
		});
	},
	remove: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const gone = check(removal, {
				kind: form.get('kind'),
				id: form.get('id'),
				version: Number(form.get('version'))
			});
			return {
				told: 'Taken out of the stock.',
				entryId: await removeFromStock(await getStore(), gone.kind, gone.id, gone.version)
			};
		});
	}
};
