import { today } from '$lib/server/clock';
import { loading } from '$lib/server/edge/http';
import { lossRows, outcomeCases, saidAgainstCame } from '$lib/server/outcomes';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = () =>
	loading(async () => {
		const { db } = await getStore();
		const [cases, said, losses, values] = await Promise.all([
			outcomeCases(db),
			saidAgainstCame(db, today()),
			lossRows(db),
			readValues(db)
		]);
		return { cases, said, losses, values };
	});
