import { practiceMove } from '$core/practice/moves';
import { id } from '$core/vocabulary/fields';
import { answer, check, readJson } from '$lib/server/edge/http';
import { move } from '$lib/server/practice/step';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const named = z.looseObject({ id: id() });

/** Does something with a practice tree, and tells what came of it. */
export const POST: RequestHandler = ({ request, locals }) =>
	answer(async () => {
		const body = await readJson(request);
		const { id: roundId, ...rest } = check(named, body);
		return json(await move(roundId, locals.who?.id ?? null, check(practiceMove, rest)));
	});
