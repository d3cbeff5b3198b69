import { problem, refusedPage } from '$lib/server/edge/http';
import { findDamaged } from '$lib/server/damaged';
import { guardForm, refuseForeign } from '$lib/server/edge/guard';
import { Refusal } from '$lib/server/errors';
import { closeStore, getStore } from '$lib/server/store';
import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';

export const init: ServerInit = async () => {
	const demo = process.env.BRUNTLE_DEMO === '1' ? (await import('./demo/yard')).makeDemoYard : undefined;
	await getStore(demo);
	// Asked for by who serves this, when the last request is answered.
	process.once('bruntle:stop', (done: () => void) => void closeStore().then(done, done));
};

/** A page that broke may have met a record that cannot be read: once it is known, pages go on without it. */
function lookForDamage(): void {
	getStore()
		.then(findDamaged)
		.catch((cause: unknown) => console.error('Records were not looked through:', cause));
}

const themes = ['light', 'dark'];

export const handle: Handle = async ({ event, resolve }) => {
	try {
		refuseForeign(event.request, event.url, process.env);
		guardForm(event);
	} catch (cause) {
		if (!(cause instanceof Refusal)) throw cause;
		return /^\/(api|undo)\b/.test(event.url.pathname) ? problem(cause) : refusedPage(cause, event.request);
	}
	const theme = event.cookies.get('theme') ?? '';
	const response = await resolve(event, {
		transformPageChunk: ({ html }) =>
			html.replace('%bruntle.theme%', themes.includes(theme) ? theme : 'system')
	});
	response.headers.set('x-content-type-options', 'nosniff');
	response.headers.set('referrer-policy', 'same-origin');
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
		lookForDamage();
	}
	return {
		message: 'Something went wrong here.',
		advice: 'Nothing was saved. Try again; if it stays, restart Bruntle.'
	};
};
