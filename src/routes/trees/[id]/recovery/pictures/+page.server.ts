import { calendarDate, count, id, note, shortText } from '$core/vocabulary/fields';
import { today } from '$lib/server/clock';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { invalid } from '$lib/server/errors';
import { keepPicture, removePicture } from '$lib/server/pictures';
import { getStore } from '$lib/server/store';
import { z } from 'zod';
import type { Actions } from './$types';

const pictureForm = z.strictObject({
	takenOn: calendarDate().nullable().default(null),
	view: shortText(40),
	note: note(300)
});
const removeForm = z.strictObject({ id: id(), version: count(1, 1_000_000_000) });

export const actions: Actions = {
	keep: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const file = form.get('file');
			if (!(file instanceof File) || file.name === '')
				throw invalid([{ field: 'file', message: 'must be chosen' }]);
			form.delete('file');
			const { entryId } = await keepPicture(
				await getStore(),
				params.id,
				readForm(pictureForm, form),
				Buffer.from(await file.arrayBuffer()),
				today()
			);
			return { told: 'The picture is kept, without the place it was taken at.', entryId };
		});
	},
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
