import { clockIsPinned, today } from '$lib/server/clock';
import { readFormatSettings } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async () => {
	const { db } = await getStore();
	return {
		formatSettings: await readFormatSettings(db),
		today: today(),
		demo: process.env.BRUNTLE_DEMO === '1' && clockIsPinned()
	};
};
