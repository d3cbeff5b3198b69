import { pictureAndRim } from '$lib/server/edge/picture-page';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent, params }) =>
	pictureAndRim((await parent()).records, params.picture);
