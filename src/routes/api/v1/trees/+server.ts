import { importCase } from '$lib/server/case-file';
import { answer, readJson } from '$lib/server/edge/http';
import { trees } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** All trees, shortly: identity, tag, name and state. */
export const GET: RequestHandler = () =>
	answer(async () => {
		const { db } = await getStore();
		const all = await trees.list(db);
		return json({ trees: all.map(({ id, tag, name, state }) => ({ id, tag, name, state })) });
	});

/** Imports a whole tree with all its records. */
export const POST: RequestHandler = ({ request }) =>
	answer(async () => {
		const tree = await importCase(await getStore(), await readJson(request));
		return json(
			{ id: tree.id, tag: tree.tag, name: tree.name },
			{ status: 201, headers: { location: `/api/v1/trees/${tree.id}` } }
		);
	});
