import { loading } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { judgedRound } from '$lib/server/practice/told';
import { roundOf, roundsOf } from '$lib/server/practice/rounds';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params, locals }) =>
	loading(async () => {
		const byId = locals.who?.id ?? null;
		const round = await roundOf(params.round, byId);
		if (!round.judged)
			throw new Refusal(409, 'This round is not over yet.', 'Go on with it; it is judged at its end.');
		const before = (await roundsOf(byId))
			.filter((one) => one.judged?.brier != null && one.startedAt <= round.startedAt)
			.reverse()
			.map(({ judged }) => judged?.brier ?? 0);
		return { ...judgedRound(round), briers: before };
	});
