import { nearestTown, townOfZone, townQuery, townsCalled } from '$core/vocabulary/town';
import { answer, check } from '$lib/server/edge/http';
import { towns } from '$lib/server/towns';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

const MOST = 12;

/** Towns by a beginning of their name, the one nearest to a position, or the largest of a time zone. */
export const GET: RequestHandler = ({ url }) =>
	answer(async () => {
		const asked = check(townQuery, Object.fromEntries(url.searchParams));
		const list = await towns();
		if ('name' in asked) return json({ towns: townsCalled(asked.name, list, MOST) });
		const found =
			'zone' in asked
				? townOfZone(asked.zone, list)
				: nearestTown({ latitudeDeg: asked.latitude, longitudeDeg: asked.longitude }, list)?.town;
		return json({ towns: found ? [found] : [] });
	});
