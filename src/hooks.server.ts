import { problem, refusedPage } from '$lib/server/edge/http';
import { onceByName } from '$lib/server/edge/act-sent';
import { faultOf } from '$lib/server/edge/fault';
import { findDamaged } from '$lib/server/damaged';
import { guardForm, isFromHere, listensAlone, refuseForeign } from '$lib/server/edge/guard';
import { Refusal } from '$lib/server/errors';
import { addressOf, toKey, whoAsks } from '$lib/server/people/at-the-door';
import { hasOwner, invite } from '$lib/server/people/people';
import { isDoneAlone, refusedAccess } from '$lib/server/people/access';
import { workingAs } from '$lib/server/people/who-works';
import { closeStore, getStore, yardStore } from '$lib/server/store';
import { practiceOf } from '$lib/server/practice/at-the-door';
import { practisingAs } from '$lib/server/practice/under-way';
import { handKinds, themes } from '$core/text/look';
import type { Store } from '$lib/server/db/database';
import type { Handle, HandleServerError, RequestEvent, ServerInit } from '@sveltejs/kit';

export const init: ServerInit = async () => {
	const demo = process.env.BRUNTLE_DEMO === '1' ? (await import('./demo/yard')).makeDemoYard : undefined;
	const store = await yardStore(demo);
	await refuseOpenDoor(store);
	// Who serves this asks for an invitation to show at its start: null while nobody owns the yard.
	process.on('bruntle:invite', (told: (key: string | null) => void) => {
		void hasOwner(store.db)
			.then((owned) => (owned ? invite(store, 'helper') : null))
			.then(told, () => told(null));
	});
	// Asked for by who serves this, when the last request is answered.
	process.once('bruntle:stop', (done: () => void) => void closeStore().then(done, done));
};

/** Without anybody who owns the yard there is no key, and nothing to keep the network out by. */
async function refuseOpenDoor(store: Store): Promise<void> {
	if (listensAlone(process.env) || process.env.BRUNTLE_SHARED || (await hasOwner(store.db))) return;
	throw new Error(
		'nobody owns this yard yet, so that it is not opened to a network. Start it without HOST, make yourself its owner under Yard, People, and start it again.'
	);
}

/** A page that broke may have met a record that cannot be read: once it is known, pages go on without it. */
function lookForDamage(): void {
	getStore()
		.then(findDamaged)
		.catch((cause: unknown) => console.error('Records were not looked through:', cause));
}

/** The action of a form, as the address names it. */
function actionOf({ request, url }: RequestEvent): string | null {
	if (request.method !== 'POST' || (request.headers.get('content-type') ?? '').includes('json')) return null;
	const named = [...url.searchParams.keys()].find((name) => name.startsWith('/'));
	return named?.slice(1) ?? 'default';
}

/** Lets through who may have what they ask for. @throws Refusal 401 · 403 */
async function admit(event: RequestEvent): Promise<void> {
	const asking = { method: event.request.method, route: event.route.id, action: actionOf(event) };
	if (event.platform?.alone) {
		event.locals.here = false;
		event.locals.who = event.platform.alone.who;
		if (isDoneAlone(asking)) return;
		throw new Refusal(
			503,
			'This is done with the computer of the yard.',
			'It is not reached from here now; do it when it is. Work on the trees goes on here.'
		);
	}
	const store = await yardStore();
	event.locals.here = isFromHere(event.request.headers, addressOf(event), process.env);
	event.locals.who = await whoAsks(event, store);
	const refused = refusedAccess(event.locals.who, asking);
	if (refused === 'key')
		throw new Refusal(401, 'This yard wants your key.', 'Sign in with your name and passphrase.');
	if (refused === 'owner')
		throw new Refusal(403, 'Only an owner of this yard does that.', 'Ask one of them; nothing was changed.');
}

/** What of an address is a page that somebody can be led to after signing in. */
const wantsPage = ({ request, url }: RequestEvent): boolean =>
	request.method === 'GET' && !/^\/(api|pictures|calendar)\//.test(url.pathname);

const secret = /^\/(shared|invited)\//;

export const handle: Handle = async ({ event, resolve }) => {
	const theme = themes.find((one) => one === event.cookies.get('theme')) ?? 'system';
	const hands = handKinds.find((one) => one === event.cookies.get('hands')) ?? 'clean';
	let response: Response;
	try {
		// What runs in the browser itself is asked by nobody else.
		if (!event.platform?.alone) refuseForeign(event.request, event.url, process.env);
		guardForm(event);
		await admit(event);
		const round = await practiceOf(event);
		response = await practisingAs(round, () =>
			workingAs(event.locals.who, () =>
				onceByName(event, () =>
					resolve(event, {
						transformPageChunk: ({ html }) =>
							html.replace('%bruntle.theme%', theme).replace('%bruntle.hands%', hands)
					})
				)
			)
		);
	} catch (cause) {
		if (!(cause instanceof Refusal)) throw cause;
		if (cause.status === 401 && wantsPage(event)) return toKey(event);
		return /^\/(api|undo)\b/.test(event.url.pathname) ? problem(cause) : refusedPage(cause, event.request);
	}
	response.headers.set('x-content-type-options', 'nosniff');
	// An address that is itself a key is told to no other site.
	response.headers.set('referrer-policy', secret.test(event.url.pathname) ? 'no-referrer' : 'same-origin');
	// No page is kept that somebody else could call up on the same device.
	if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'private, no-cache');
	response.headers.set('permissions-policy', 'camera=(self), geolocation=(self), microphone=()');
	response.headers.set('cross-origin-opener-policy', 'same-origin');
	response.headers.set('cross-origin-resource-policy', 'same-origin');
	return response;
};

/** Nothing of the inside is shown: the person learns what to do, the log keeps the cause. */
export const handleError: HandleServerError = ({ error, status }) => {
	if (status === 404)
		return { message: 'There is no such page here.', advice: 'Go back, or look for it by name.' };
	if (status === 413)
		return {
			message: 'That was too much at once.',
			advice: 'Send a smaller file or less text; nothing was saved.'
		};
	if (status >= 500) {
		console.error(error);
		const fault = faultOf(error);
		if (fault) return { message: fault.message, advice: fault.advice };
		lookForDamage();
	}
	return {
		message: 'Something went wrong here.',
		advice: 'Nothing was saved. Try again; if it stays, restart Bruntle.'
	};
};
