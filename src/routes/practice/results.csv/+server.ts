import { answer } from '$lib/server/edge/http';
import { allJudged, roundsOf } from '$lib/server/practice/rounds';
import { resultsCsv } from '$lib/server/practice/told';
import type { RequestHandler } from './$types';

/** Results as CSV: those of everybody for an owner, who teaches; else one’s own. */
export const GET: RequestHandler = ({ locals }) =>
	answer(async () => {
		const rounds = locals.who?.role === 'owner' ? await allJudged() : await roundsOf(locals.who?.id ?? null);
		return new Response(resultsCsv(rounds), {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': 'attachment; filename="practice-results.csv"'
			}
		});
	});
