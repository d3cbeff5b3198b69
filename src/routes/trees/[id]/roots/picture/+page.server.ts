import { keepSentPicture } from '$lib/server/edge/picture-form';
import { redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

/** There is nothing to see without a picture: they are chosen on the map. */
export const load: PageServerLoad = ({ params }) => redirect(307, `/trees/${params.id}/roots`);

export const actions: Actions = {
	/** Keeps a picture and goes on to reading its roots. */
	keep: async (event) => {
		const kept = await keepSentPicture(event);
		if ('pictureId' in kept)
			redirect(303, `/trees/${event.params.id}/roots/picture/${String(kept.pictureId)}`);
		return kept;
	}
};
