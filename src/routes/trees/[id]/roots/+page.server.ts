import { calendarDate, id, note, version } from '$core/fields/fields';
import { acting, check } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { recordCuts } from '$lib/server/trees';
import { z } from 'zod';
import type { Actions } from './$types';

const cutsInput = z.strictObject({
	on: calendarDate(),
	planVersion: version(),
	done: z.array(id()).max(400),
	left: z.array(z.strictObject({ id: id(), why: note(300) })).max(400)
});

function list(text: FormDataEntryValue | null): unknown {
	try {
		return JSON.parse(String(text ?? '[]'));
	} catch {
		throw new Refusal(400, 'The cuts could not be read.', 'Load the page again and set them anew.');
	}
}

export const actions: Actions = {
	cuts: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const input = check(cutsInput, {
				on: form.get('on'),
				planVersion: Number(form.get('planVersion')),
				done: list(form.get('done')),
				left: list(form.get('left'))
			});
			return {
				told: 'The cuts are in the record.',
				entryId: await recordCuts(store, params.id, input, await readValues(store.db))
			};
		});
	}
};
