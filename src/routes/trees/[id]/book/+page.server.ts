import { bookInput } from '$core/aftercare/book/book';
import { bookFacts } from '$core/tree/booked';
import { id } from '$core/vocabulary/fields';
import { likeTrees, removeBook, writeBook, writeBookForAll } from '$lib/server/book';
import { correctsIn, readForm, versionedIn } from '$lib/server/edge/form';
import { acting, check, loading } from '$lib/server/edge/http';
import { notFound } from '$lib/server/errors';
import { valuesInForce } from '$core/values/values';
import { getStore } from '$lib/server/store';
import { today } from '$lib/server/clock';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ parent }) =>
	loading(async () => {
		const { records, overrides } = await parent();
		const values = valuesInForce(overrides);
		return {
			like: await likeTrees((await getStore()).db, records.tree),
			facts: bookFacts(records, records.tree.closedOn ?? today(), values)
		};
	});

export const actions: Actions = {
	write: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const corrects = correctsIn(form);
			const input = readForm(bookInput, form);
			const store = await getStore();
			const also = check(z.array(id()).max(30), form.getAll('also'));
			if (also.length > 0 && !corrects)
				return {
					told: `Written down for ${also.length + 1} trees.`,
					entryId: await writeBookForAll(store, [params.id, ...also], input)
				};
			const entryId = await writeBook(store, params.id, input, corrects);
			return { told: corrects ? 'The entry is corrected.' : 'Written down.', entryId };
		});
	},
	remove: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const at = versionedIn(form);
			if (!at) throw notFound('entry of the field book');
			return { told: 'Taken out.', entryId: await removeBook(await getStore(), params.id, at) };
		});
	}
};
