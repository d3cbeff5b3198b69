import { calculations } from '$core/compute/calculations';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
	calculations: calculations.map(({ name, summary }) => ({ name, summary }))
});
