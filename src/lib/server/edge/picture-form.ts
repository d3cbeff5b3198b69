import { FOCAL_MM } from '$core/take-in/picture';
import { calendarDate, measure, note, shortText } from '$core/vocabulary/fields';
import { z } from 'zod';
import { today } from '../clock';
import { invalid } from '../errors';
import { keepPicture } from '../pictures';
import { getStore } from '../store';
import { readForm } from './form';
import { acting } from './http';

const pictureForm = z.strictObject({
	takenOn: calendarDate().nullable().default(null),
	view: shortText(40),
	note: note(300),
	focal35Mm: measure(...FOCAL_MM, 'mm')
		.nullable()
		.default(null)
});

/** Keeps a picture that was sent with a form. */
export async function keepSentPicture({ request, params }: { request: Request; params: { id: string } }) {
	const form = await request.formData();
	return acting(form, async () => {
		const file = form.get('file');
		if (!(file instanceof File) || file.name === '')
			throw invalid([{ field: 'file', message: 'must be chosen' }]);
		form.delete('file');
		const { picture, entryId } = await keepPicture(
			await getStore(),
			params.id,
			readForm(pictureForm, form),
			Buffer.from(await file.arrayBuffer()),
			today()
		);
		return {
			told: 'The picture is kept, without the place it was taken at.',
			entryId,
			pictureId: picture.id
		};
	});
}
