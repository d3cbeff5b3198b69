import { problem } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import type { RequestHandler } from './$types';

export const fallback: RequestHandler = () =>
	problem(
		new Refusal(404, 'There is no such address in the API.', 'It is described at /api/v1/openapi.json.')
	);
