import { keepPictureLook } from '$lib/server/edge/picture-look';
import { pictureAndRim } from '$lib/server/edge/picture-page';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent, params }) =>
	pictureAndRim((await parent()).records, params.picture);

export const actions: Actions = { look: keepPictureLook };
