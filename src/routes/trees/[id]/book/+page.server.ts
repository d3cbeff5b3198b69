import { bookDetails, bookInput } from '$core/book/book';
import { bookFacts } from '$core/standing/booked';
import { removeBook, writeBook } from '$lib/server/book';
import { correctsIn, readForm, versionedIn } from '$lib/server/edge/form';
import { acting, check, loading } from '$lib/server/edge/http';
import { notFound } from '$lib/server/errors';
import { getStore } from '$lib/server/store';
import { today } from '$lib/server/clock';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ parent }) =>
	loading(async () => {
		const { records, values } = await parent();
		return { facts: bookFacts(records, records.tree.closedOn ?? today(), values) };
	});

export const actions: Actions = {
	write: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const corrects = correctsIn(form);
			const details = readForm(bookDetails, form);
			const input = check(bookInput, {
				kind: form.get('kind'),
				on: form.get('on'),
				note: form.get('note') ?? '',
				details
			});
			const entryId = await writeBook(await getStore(), params.id, input, corrects);
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
