import type { RequestEvent } from '@sveltejs/kit';
import { addDays } from '../../core/maths/calendar';
import { Refusal } from '../errors';
import { readRound, roundStore, startOf } from './rounds';
import type { RoundUnderWay } from './under-way';

/** Cookie that names the practice round of a browser. */
export const PRACTICE_COOKIE = 'practice';

/** Pages that show the trees of whatever is worked on; those of one tree are told by the tree. */
const ofTheYard = new Set(['/', '/trees', '/round']);

/** Whether a page is one that shows the round: what is taken back there was done there. */
function isPageOf(address: string | null, treeId: string): boolean {
	if (address === null || !URL.canParse(address)) return false;
	const { pathname } = new URL(address);
	return ofTheYard.has(pathname) || pathname.startsWith(`/trees/${treeId}`);
}

/** What would reach beyond the round. */
const isPicture = (route: string, url: URL): boolean =>
	route.startsWith('/trees/[id]/recovery/pictures') || url.searchParams.has('/picture');

/** What a person would read off a real tree and write down: here the tree itself is asked. */
const isReading = (route: string, url: URL): boolean =>
	url.searchParams.has('/measure') ||
	url.searchParams.has('/felt') ||
	(route === '/trees/[id]/recovery' && url.searchParams.has('/look'));

/**
 * The practice round that a request belongs to: by its browser’s cookie, for the pages that show the tree of that round. A page of another
 * tree, and all else of the yard, is of the yard, whatever is practised.
 * @throws Refusal 409 where something would be written that a practice tree cannot have
 */
export async function practiceOf(event: RequestEvent): Promise<RoundUnderWay | null> {
	const id = event.cookies.get(PRACTICE_COOKIE);
	const route = event.route.id;
	if (!id || !route || event.platform?.alone || !event.locals.who) return null;
	const ofTree = route.startsWith('/trees/[id]');
	const undoes = route === '/undo';
	if (!ofTree && !ofTheYard.has(route) && !undoes) return null;
	const round = await readRound(id);
	if (!round || round.byId !== event.locals.who.id) return null;
	if (ofTree && event.params.id !== round.treeId) return null;
	if (undoes && !isPageOf(event.request.headers.get('referer'), round.treeId)) return null;
	const over = round.endedAt !== null;
	// Once it is over, one is back in the yard; its own pages can still be looked at.
	if (over && !ofTree) return null;
	if (event.request.method !== 'GET' && event.request.method !== 'HEAD') {
		if (over)
			throw new Refusal(
				409,
				'This round is over.',
				'Look at how it was judged under Practice, or begin another.'
			);
		if (isReading(route, event.url))
			throw new Refusal(
				409,
				'A practice tree is read under “At the tree”.',
				'What it answers is written down here by itself.'
			);
		if (isPicture(route, event.url))
			throw new Refusal(409, 'A practice tree has no pictures.', 'All else of the work is as on a real one.');
	}
	return {
		id: round.id,
		treeId: round.treeId,
		day: round.day,
		today: addDays(startOf(round), round.day),
		over,
		store: () => roundStore(round.id)
	};
}
