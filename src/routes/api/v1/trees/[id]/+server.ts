import { exportCase } from '$lib/server/case-file';
import { answer } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** A whole tree with all its records. `?download` sends it as a file. */
export const GET: RequestHandler = ({ params, url }) =>
	answer(async () => {
		const { db } = await getStore();
		const doc = await exportCase(db, params.id);
		const headers: Record<string, string> = url.searchParams.has('download')
			? { 'content-disposition': `attachment; filename="${doc.tree.tag.replace(/[^\w-]+/g, '_')}.json"` }
			: {};
		return json(doc, { headers });
	});
