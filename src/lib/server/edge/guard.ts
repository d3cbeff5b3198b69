import { error } from '@sveltejs/kit';
import { Refusal } from '../errors';
import { namesOfMachine } from '../share/machine';

/** What of the surroundings decides by which names this server may be called. */
export interface Surroundings {
	/** Address that the server listens on; undefined for this machine alone. */
	HOST?: string;
	/** Address by which people reach it, where a proxy stands in front. */
	ORIGIN?: string;
	/** Further names, divided by commas. */
	BRUNTLE_HOSTS?: string;
}

/** @param name in small letters, an IPv6 address in brackets */
const isLoopback = (name: string): boolean =>
	name === 'localhost' ||
	name.endsWith('.localhost') ||
	name === '[::1]' ||
	/^127\.\d{1,3}\.\d{1,3}\.\d{1,3}$/.test(name);

/** The name in a Host header, in small letters and without its port; null where it is none. */
function nameIn(host: string | null): string | null {
	const found = /^(\[[0-9a-f:.]+\]|[a-z0-9_.-]+?)\.?(?::\d{1,5})?$/i.exec(host ?? '');
	return found?.[1]?.toLowerCase() ?? null;
}

/** Whether it listens to this computer alone. */
export const listensAlone = ({ HOST = '' }: Pick<Surroundings, 'HOST'>): boolean =>
	HOST === '' || isLoopback(HOST.includes(':') ? `[${HOST}]` : HOST.toLowerCase());

/**
 * Whether this server is called by a name of its own. A page elsewhere can have its name answered with the address of this machine and
 * would then be let in as if it were this server [RFC 9110, 15.5.20, and CWE-350].
 * @param host what the Host header says
 */
export function isOwnName(
	host: string | null,
	{ HOST = '', ORIGIN = '', BRUNTLE_HOSTS = '' }: Surroundings
): boolean {
	const name = nameIn(host);
	if (name === null) return false;
	if (isLoopback(name)) return true;
	if (URL.canParse(ORIGIN) && new URL(ORIGIN).hostname === name) return true;
	if (BRUNTLE_HOSTS.split(',').some((one) => one.trim().toLowerCase() === name)) return true;
	return !listensAlone({ HOST }) && namesOfMachine().includes(name);
}

/** Headers by which a proxy says that it hands on what another asked. */
const handedOn = [
	'forwarded',
	'via',
	'x-forwarded-for',
	'x-forwarded-host',
	'x-forwarded-proto',
	'x-real-ip'
];

/**
 * Whether a request comes from this computer itself, by its own name, and not through something that hands it on.
 * @param address where the connection comes from; null where that is not known
 */
export function isFromHere(
	headers: Headers,
	address: string | null,
	{ ORIGIN = '' }: Pick<Surroundings, 'ORIGIN'>
): boolean {
	const from = (address ?? '').replace(/^::ffff:/, '');
	const name = nameIn(headers.get('host'));
	return (
		(from === '::1' || isLoopback(from)) &&
		name !== null &&
		isLoopback(name) &&
		!handedOn.some((one) => headers.has(one)) &&
		(!URL.canParse(ORIGIN) || isLoopback(new URL(ORIGIN).hostname))
	);
}

/** Content types that a form of any page may send without being asked [Fetch Standard, CORS-safelisted request-header]. */
const FORM_TYPES = /^(application\/x-www-form-urlencoded|multipart\/form-data|text\/plain)\b/i;

/**
 * Refuses what another site has the browser send.
 * @param url address as this server sees it
 * @throws Refusal 421 a name that is not this server’s · 403 sent by another site
 */
export function refuseForeign(request: Request, url: URL, surroundings: Surroundings): void {
	if (!isOwnName(request.headers.get('host'), surroundings))
		throw new Refusal(
			421,
			'This Bruntle does not go by that name.',
			'Open it by the address it said at its start; where a proxy stands in front, start it with ORIGIN set to the address people type.'
		);
	if (/^(GET|HEAD|OPTIONS)$/.test(request.method)) return;
	const origin = request.headers.get('origin');
	if (origin === url.origin) return;
	if (origin !== null && URL.canParse(origin) && new URL(origin).host === url.host)
		throw new Refusal(
			403,
			`Bruntle is reached as ${origin} and does not know it.`,
			`Start it with ORIGIN=${origin}; nothing was saved.`
		);
	const foreign = /^(cross-site|same-site)$/.test(request.headers.get('sec-fetch-site') ?? '');
	const asForm = FORM_TYPES.test(request.headers.get('content-type') ?? '');
	if (origin !== null || foreign || asForm)
		throw new Refusal(
			403,
			'This was sent by another site.',
			'Do it on a page of Bruntle; nothing was saved.'
		);
}

/**
 * Refuses a form whose action no page can have, and has a body that breaks off refused in words when it is read.
 * @throws Refusal 404 an action by a name that every object has
 */
export function guardForm({ request, url }: { request: Request; url: URL }): void {
	if (request.method !== 'POST') return;
	for (const name of url.searchParams.keys())
		if (name.startsWith('/') && name.slice(1) in {})
			throw new Refusal(404, 'There is no such form here.', 'Do it on a page of Bruntle; nothing was saved.');
	const read = request.formData.bind(request);
	request.formData = async () => {
		try {
			return await read();
		} catch (cause) {
			const { status } = cause as { status?: unknown };
			// The server itself cuts a body that is longer than it takes, and says so.
			if (typeof status === 'number') throw cause;
			error(400, {
				message: 'What was sent broke off on its way.',
				advice: 'Send it again; nothing was saved.'
			});
		}
	};
}
