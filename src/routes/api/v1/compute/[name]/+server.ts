import { calculationByName } from '$core/compute/calculations';
import { answer, readJsonText } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { computeApart } from '$lib/server/threads';
import type { RequestHandler } from './$types';

/** Two pictures at their largest. */
const BODY_BYTES = 20 * 1024 * 1024;

export const POST: RequestHandler = ({ params, request }) =>
	answer(async () => {
		if (!calculationByName.has(params.name))
			throw new Refusal(
				404,
				`There is no calculation named "${params.name.slice(0, 60)}".`,
				`The names are listed at /api/v1/compute.`
			);
		const { db } = await getStore();
		const [text, values] = await Promise.all([readJsonText(request, BODY_BYTES), readValues(db)]);
		const found = await computeApart({ name: params.name, text, values });
		return new Response(found, { headers: { 'content-type': 'application/json' } });
	});
