import { pictureAndRim } from '$lib/server/edge/picture-page';
import { error } from '@sveltejs/kit';
import { keepPictureLook } from '$lib/server/edge/picture-look';
import type { Actions, PageServerLoad } from './$types';

export const actions: Actions = { look: keepPictureLook };

export const load: PageServerLoad = async ({ parent, params }) => {
	const { records } = await parent();
	const { picture, rimMm } = pictureAndRim(records, params.picture);
	const { picture: before } = pictureAndRim(records, params.before);
	if (before.id === picture.id || before.takenOn > picture.takenOn)
		error(404, {
			message: 'These two are not an earlier picture and a later one.',
			advice: 'Choose a pair under Recovery, Pictures.'
		});
	return { picture, before, rimMm };
};
