import { z } from 'zod';
import { draftKeyOf } from './kept-roots.svelte';

const drawing = z.looseObject({
	map: z.unknown(),
	mapVersion: z.number().nullable(),
	plan: z.unknown(),
	planVersion: z.number().nullable()
});

/**
 * Puts a drawing of roots that the yard did not take where the page of its tree finds it, beside what stands there by now.
 * @param path of the request that was refused, `/trees/…/roots`
 * @param sent the drawing as JSON
 * @returns identity of the tree; null where it is no drawing
 */
export function putForComparing(path: string, sent: string): string | null {
	const treeId = /^\/trees\/([^/]+)\/roots$/.exec(path)?.[1];
	const read = drawing.safeParse(JSON.parse(sent)).data;
	if (!treeId || !read) return null;
	const { map, mapVersion, plan, planVersion } = read;
	localStorage.setItem(
		draftKeyOf(treeId),
		JSON.stringify({ map, plan, versions: { map: mapVersion, plan: planVersion } })
	);
	return treeId;
}
