import { yardIdOf } from '$lib/server/along/yard-id';
import { answer } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Says that the yard is there, and which it is: asked by a phone that was alone. */
export const GET: RequestHandler = ({ locals }) =>
	answer(async () =>
		json(
			{ yard: await yardIdOf(await getStore()), who: locals.who?.id ?? null },
			{ headers: { 'cache-control': 'no-store' } }
		)
	);
