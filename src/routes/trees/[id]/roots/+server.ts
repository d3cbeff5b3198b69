import { planInput } from '$core/roots/plan/plan';
import { rootMapInput } from '$core/roots/map/root-map';
import { version } from '$core/vocabulary/fields';
import { answer, check, readJson } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import { saveRoots } from '$lib/server/roots';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const rootsInput = z.strictObject({
	map: rootMapInput,
	mapVersion: version().nullable(),
	plan: planInput,
	planVersion: version().nullable()
});

/** Keeps the root map and its plan as they are drawn. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer(async () => {
		const input = check(rootsInput, await readJson(request, 2 * 1024 * 1024));
		const { map, plan } = await saveRoots(await getStore(), params.id, input);
		return json({ mapVersion: map.version, planVersion: plan.version });
	});
