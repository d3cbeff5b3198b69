import { id } from '$core/vocabulary/fields';
import { answer, check, readJson } from '$lib/server/edge/http';
import { undo } from '$lib/server/records/work';
import { getStore } from '$lib/server/store';
import { z } from 'zod';
import type { RequestHandler } from './$types';

/** Takes journal entries back, all or none. */
export const POST: RequestHandler = ({ request }) =>
	answer(async () => {
		const { entryIds } = check(
			z.strictObject({ entryIds: z.array(id()).min(1).max(400) }),
			await readJson(request)
		);
		await undo(await getStore(), ...entryIds);
		return new Response(null, { status: 204 });
	});
