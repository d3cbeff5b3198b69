import type { RequestEvent } from '@sveltejs/kit';
import type { Who } from '../../core/vocabulary/people';
import type { Store } from '../db/database';
import { keyAskedHere, signIn, whoHas } from './people';

const KEPT_DAYS = 180;
const KEY_COOKIE = 'bruntle-key';

/** Where a connection comes from; null where a proxy should say and does not. */
export function addressOf(event: Pick<RequestEvent, 'getClientAddress'>): string | null {
	try {
		return event.getClientAddress();
	} catch {
		return null;
	}
}

/** Who sits at the computer itself, where that is enough. */
const HERE: Who = { id: null, name: '', role: 'owner' };

/** Who a request comes from: whoever has a key, or sits at the computer itself where no key is asked for there. */
export async function whoAsks(
	event: Pick<RequestEvent, 'cookies' | 'locals'>,
	store: Store
): Promise<Who | null> {
	const key = event.cookies.get(KEY_COOKIE);
	const known = key ? await whoHas(store, key) : null;
	if (known) return known;
	return event.locals.here && !(await keyAskedHere(store.db)) ? HERE : null;
}

/** The key that a device sent. */
export const keySent = ({ cookies }: Pick<RequestEvent, 'cookies'>): string | null =>
	cookies.get(KEY_COOKIE) ?? null;

/** Signs somebody in on the device that asks; the key before is not used on [OWASP ASVS 4.0.3, 3.2.1]. */
export async function letIn(event: RequestEvent, store: Store, who: Who): Promise<void> {
	const key = await signIn(store, who.id ?? '', deviceOf(event.request.headers.get('user-agent')));
	event.cookies.set(KEY_COOKIE, key, {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: event.url.protocol === 'https:',
		maxAge: KEPT_DAYS * 86_400
	});
}

/** Has the device forget its key. */
export const forgetKey = ({ cookies }: Pick<RequestEvent, 'cookies'>): void =>
	cookies.delete(KEY_COOKIE, { path: '/' });

/** What a browser says it runs on, in a few words. */
export function deviceOf(agent: string | null): string {
	const text = agent ?? '';
	const first = (signs: readonly (readonly [sign: string, name: string])[]): string | undefined =>
		signs.find(([sign]) => text.includes(sign))?.[1];
	// Those that are built on others name them too, before or after their own.
	const system =
		first([
			['iPhone', 'iPhone'],
			['iPad', 'iPad'],
			['Android', 'Android'],
			['Windows', 'Windows'],
			['Macintosh', 'Mac'],
			['CrOS', 'Chromebook'],
			['Linux', 'Linux']
		]) ?? 'unknown device';
	const browser = first([
		['Edg/', 'Edge'],
		['OPR/', 'Opera'],
		['Firefox/', 'Firefox'],
		['Chrome/', 'Chrome'],
		['Safari/', 'Safari']
	]);
	return browser ? `${system}, ${browser}` : system;
}

/** Leads to signing in, and back to the page that was asked for. */
export function toKey({ url, isDataRequest }: Pick<RequestEvent, 'url' | 'isDataRequest'>): Response {
	const location = url.pathname === '/' ? '/key' : `/key?to=${encodeURIComponent(url.pathname + url.search)}`;
	// What reads the data of a page is led there in its own form.
	return isDataRequest
		? new Response(JSON.stringify({ type: 'redirect', location }), {
				headers: { 'content-type': 'application/json', 'cache-control': 'no-store' }
			})
		: new Response(null, { status: 303, headers: { location, 'cache-control': 'no-store' } });
}

/** Where to go after signing in: a page of this server, never another's. */
export function placeToGo(to: string | null): string {
	const base = 'http://bruntle.invalid';
	if (to === null || !to.startsWith('/') || !URL.canParse(to, base)) return '/';
	const { origin, pathname, search } = new URL(to, base);
	return origin === base && !pathname.startsWith('//') ? pathname + search : '/';
}
