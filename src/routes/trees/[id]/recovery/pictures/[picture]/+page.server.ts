import { observationInput } from '$core/examine/looks/observation';
import { isRound } from '$core/replant/pots/volume';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { recordLook } from '$lib/server/recovery';
import { getStore } from '$lib/server/store';
import { error } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent, params }) => {
	const { records } = await parent();
	const picture = records.pictures.find(({ id }) => id === params.picture);
	if (!picture)
		error(404, {
			message: 'This picture is not there any more.',
			advice: 'Choose another under Recovery, Pictures.'
		});
	// The rim it stood in on that day.
	const pot = records.plantings.findLast(({ plantedOn }) => plantedOn <= picture.takenOn)?.pot;
	return { picture, rimMm: pot && isRound(pot.shape) ? pot.topLengthMm : null };
};

export const actions: Actions = {
	look: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId } = await recordLook(await getStore(), params.id, readForm(observationInput, form));
			return { told: 'What was measured is kept as a look of that day.', entryId };
		});
	}
};
