import { today } from '$lib/server/clock';
import { loading } from '$lib/server/edge/http';
import { yardReview } from '$lib/server/outcomes';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = () =>
	loading(async () => {
		const { db } = await getStore();
		const values = await readValues(db);
		return { review: await yardReview(db, today(), values), values };
	});
