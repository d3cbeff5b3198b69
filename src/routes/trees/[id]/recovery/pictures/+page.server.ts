import { count, id } from '$core/vocabulary/fields';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { keepSentPicture } from '$lib/server/edge/picture-form';
import { removePicture } from '$lib/server/pictures';
import { getStore } from '$lib/server/store';
import { z } from 'zod';
import type { Actions } from './$types';

const removeForm = z.strictObject({ id: id(), version: count(1, 1_000_000_000) });

export const actions: Actions = {
	keep: keepSentPicture,
	remove: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { id: pictureId, version } = readForm(removeForm, form);
			return {
				told: 'Taken out.',
				entryId: await removePicture(await getStore(), params.id, pictureId, version)
			};
		});
	}
};
