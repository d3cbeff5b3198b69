import { measurementActions } from '$lib/server/edge/examine-form';
import { pictureAndRim } from '$lib/server/edge/picture-page';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent, params }) =>
	pictureAndRim((await parent()).records, params.picture);

export const actions: Actions = { measure: measurementActions.measure };
