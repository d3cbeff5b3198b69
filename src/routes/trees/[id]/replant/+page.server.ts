import { plantingInput } from '$core/pots/replant-plan';
import { lastRootWork, rootsGone } from '$core/roots/work';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { places } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { recordPlanting } from '$lib/server/trees';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
	const { records, values } = await parent();
	const { db } = await getStore();
	return {
		yardPlaces: await places.list(db),
		lastWork: lastRootWork(records, values),
		goneRoots: rootsGone(records, values)
	};
};

export const actions: Actions = {
	plant: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId } = await recordPlanting(await getStore(), params.id, readForm(plantingInput, form));
			return { told: 'Written down as planted.', entryId };
		});
	}
};
