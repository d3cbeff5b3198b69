import { observationInput } from '$core/examine/looks/observation';
import { recordLook } from '../recovery';
import { getStore } from '../store';
import { readForm } from './form';
import { acting } from './http';

/** Keeps what was measured in a picture as a look of its day. */
export async function keepPictureLook({ request, params }: { request: Request; params: { id: string } }) {
	const form = await request.formData();
	return acting(form, async () => {
		const { entryId } = await recordLook(await getStore(), params.id, readForm(observationInput, form));
		return { told: 'What was measured is kept as a look of that day.', entryId };
	});
}
