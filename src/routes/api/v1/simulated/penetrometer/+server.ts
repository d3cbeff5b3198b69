import { count, oneOf } from '$core/fields/fields';
import { simulatedSoils, simulatePenetrometer, type SimulatedSoilName } from '$core/simulate/penetrometer';
import { answer, check } from '$lib/server/edge/http';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const names = Object.keys(simulatedSoils) as [SimulatedSoilName, ...SimulatedSoilName[]];
const query = z.object({ soil: oneOf(names).default('under a path'), seed: count(0, 1_000_000).default(1) });

/** What a penetrometer would send, as CSV, from an invented soil: for learning and testing without one. */
export const GET: RequestHandler = ({ url }) =>
	answer(async () => {
		const { soil, seed } = check(query, {
			soil: url.searchParams.get('soil') ?? undefined,
			seed: url.searchParams.has('seed') ? Number(url.searchParams.get('seed')) : undefined
		});
		return new Response(simulatePenetrometer(simulatedSoils[soil], seed), {
			headers: { 'content-type': 'text/csv; charset=utf-8' }
		});
	});
