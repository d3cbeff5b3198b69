import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ values: await readValues((await getStore()).db) });
