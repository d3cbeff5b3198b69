import { importCase, kindChoices } from '$lib/server/case-file';
import { answer, check, readJson } from '$lib/server/edge/http';
import { treeNames, treesCalled } from '$lib/server/tree-names';
import { oneOf, shortText } from '$core/vocabulary/fields';
import { z } from 'zod';
import { getStore } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

const asked = z.strictObject({
	find: shortText(120).optional(),
	state: z.literal('in-care', { error: 'must be in-care or left out' }).optional()
});

/** Trees, shortly: identity, tag, name and state. All of them, or the first of those whose tag or name has words that begin as asked. */
export const GET: RequestHandler = ({ url }) =>
	answer(async () => {
		const { db } = await getStore();
		const { find, state } = check(asked, Object.fromEntries(url.searchParams));
		const all = find === undefined ? await treeNames(db) : await treesCalled(db, find, state === 'in-care');
		return json({ trees: state === undefined ? all : all.filter((tree) => tree.state === state) });
	});

/** Largest case taken, bytes: with the files of its pictures. */
const CASE_BYTES = 24 * 1024 * 1024;
const imported = z.strictObject({ kind: oneOf(kindChoices).default('ours') });

/** Imports a whole tree with all its records. Of two different kinds of one identity ours stays as it is; `kind` chooses which the tree goes by. */
export const POST: RequestHandler = ({ request, url }) =>
	answer(async () => {
		const { kind } = check(imported, Object.fromEntries(url.searchParams));
		const { tree, entryId, withoutFile } = await importCase(
			await getStore(),
			await readJson(request, CASE_BYTES),
			kind
		);
		return json(
			{ id: tree.id, tag: tree.tag, name: tree.name, entryId, picturesWithoutFile: withoutFile },
			{ status: 201, headers: { location: `/api/v1/trees/${tree.id}` } }
		);
	});
