import { calculationByName } from '$core/compute/calculations';
import { provenance, traced } from '$core/compute/sources';
import { answer, readJson } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ params, request }) =>
	answer(async () => {
		const calculation = calculationByName.get(params.name);
		if (!calculation)
			throw new Refusal(
				404,
				`There is no calculation named "${params.name.slice(0, 60)}".`,
				`The names are listed at /api/v1/compute.`
			);
		const { db } = await getStore();
		const [body, values] = await Promise.all([readJson(request), readValues(db)]);
		const tracing = traced(values);
		const found = await calculation.run(body, tracing.values);
		// Every answer says where its numbers come from.
		return json({ ...(found as object), from: provenance(calculation.name, tracing.used, values) });
	});
