import { standingLines } from '$core/tree/lines';
import type { PageLoad } from './$types';

/** The sheet says what every other page reads. */
export const load: PageLoad = async ({ parent }) => {
	const { stands } = await parent();
	return { sheet: standingLines(stands) };
};
