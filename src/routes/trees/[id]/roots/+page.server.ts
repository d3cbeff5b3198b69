import { woundTreatments } from '$core/roots/plan/wound';
import { calendarDate, id, measure, note, oneOf, version } from '$core/vocabulary/fields';
import { jsonIn } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { keepSentPicture } from '$lib/server/edge/picture-form';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { recordCuts } from '$lib/server/roots';
import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions } from './$types';

const cutsInput = z.strictObject({
	on: calendarDate(),
	planVersion: version(),
	done: z
		.array(
			z.strictObject({
				id: id(),
				atMm: measure(0, 20_000, 'mm').nullable().default(null),
				note: note(400)
			})
		)
		.max(400),
	because: note(300),
	treatments: z.array(oneOf(woundTreatments)).max(woundTreatments.length),
	left: z.array(z.strictObject({ id: id(), why: note(300) })).max(400)
});

export const actions: Actions = {
	/** Keeps a picture and goes on to reading its roots. */
	picture: async (event) => {
		const kept = await keepSentPicture(event);
		if ('pictureId' in kept)
			redirect(303, `/trees/${event.params.id}/roots/picture/${String(kept.pictureId)}`);
		return kept;
	},
	cuts: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const input = check(cutsInput, {
				on: form.get('on'),
				planVersion: Number(form.get('planVersion')),
				done: jsonIn(form, 'done'),
				left: jsonIn(form, 'left'),
				because: form.get('because') ?? '',
				treatments: form.getAll('treatments')
			});
			return {
				told: 'The cuts are in the record.',
				entryId: await recordCuts(store, params.id, input, await readValues(store.db))
			};
		});
	}
};
