import { id } from '$core/fields/fields';
import { answer, check, readJson } from '$lib/server/edge/http';
import { undo } from '$lib/server/records/work';
import { getStore } from '$lib/server/store';
import { z } from 'zod';
import type { RequestHandler } from './$types';

/** Takes a journal entry back. */
export const POST: RequestHandler = ({ request }) =>
	answer(async () => {
		const { entryId } = check(z.strictObject({ entryId: id() }), await readJson(request));
		await undo(await getStore(), entryId);
		return new Response(null, { status: 204 });
	});
