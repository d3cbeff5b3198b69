import { exportCase } from '$lib/server/case-file';
import { answer } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** A whole tree with all its records. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const { db } = await getStore();
		return json(await exportCase(db, params.id));
	}, true);
