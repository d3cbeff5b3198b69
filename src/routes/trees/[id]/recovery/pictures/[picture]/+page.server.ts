import { observationInput } from '$core/examine/looks/observation';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { pictureAndRim } from '$lib/server/edge/picture-page';
import { recordLook } from '$lib/server/recovery';
import { getStore } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent, params }) =>
	pictureAndRim((await parent()).records, params.picture);

export const actions: Actions = {
	look: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId } = await recordLook(await getStore(), params.id, readForm(observationInput, form));
			return { told: 'What was measured is kept as a look of that day.', entryId };
		});
	}
};
