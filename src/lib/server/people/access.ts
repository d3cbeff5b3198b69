import type { Who } from '../../core/vocabulary/people';

/** What one request asks for. */
export interface Asking {
	method: string;
	/** The route that answers, like `/trees/[id]/roots`; null for none. */
	route: string | null;
	/** Named action of a form; `default` for a form without one. */
	action: string | null;
}

/** What is answered without a key: signing in, and what goes by a secret address or a device's own token. */
const withoutKey = new Set([
	'/key',
	'/key/certificate',
	'/key/certificate/file',
	'/invited/[key]',
	'/shared/[key]',
	'/shared/[key]/[file]',
	'/calendar/[token]',
	'/api/v1/readings',
	'/api/v1/weather'
]);

/**
 * What a helper may send, by route: the work on the trees. All that is not here is for owners, so that what is added later is not open
 * by oversight.
 */
const helpersSend: Readonly<Record<string, readonly string[]>> = {
	'/': ['water', 'together', 'close'],
	'/trees/new': ['default'],
	'/trees/read': ['look', 'take'],
	'/trees/[id]/take-in': ['change'],
	'/trees/[id]/book': ['write', 'remove'],
	'/trees/[id]/examine': ['record', 'neighbours', 'remove'],
	'/trees/[id]/examine/soil': ['measure', 'remove'],
	'/trees/[id]/examine/measure': ['measure', 'remove'],
	'/trees/[id]/examine/changes': ['change', 'twin', 'oneByOne', 'remove'],
	'/trees/[id]/examine/before': ['decide', 'remove'],
	'/trees/[id]/roots': ['picture', 'cuts', 'PUT'],
	'/trees/[id]/replant': ['keep', 'plant'],
	'/trees/[id]/replant/ground': ['keep'],
	'/trees/[id]/replant/lift': ['keep'],
	'/trees/[id]/replant/mix': ['keepMix'],
	'/trees/[id]/aftercare': ['felt', 'water', 'unwater', 'make', 'add', 'close'],
	'/trees/[id]/rehearse': ['take'],
	'/trees/[id]/recovery': ['look', 'decide', 'closeCase', 'reopen'],
	'/trees/[id]/recovery/pictures': ['keep', 'remove'],
	'/trees/[id]/recovery/pictures/[picture]': ['look'],
	'/trees/[id]/recovery/pictures/[picture]/since/[before]': ['look'],
	'/trees/[id]/recovery/pictures/[picture]/wall': ['measure'],
	'/trees/[id]/recovery/backups': ['take', 'change', 'pot'],
	'/yard': ['add', 'change', 'remove'],
	'/yard/stock': ['pot', 'item', 'remove'],
	'/yard/weather': ['day', 'file'],
	'/yard/people': ['passphrase', 'signOut'],
	'/practice': ['start', 'leave', 'goOn', 'remove'],
	'/practice/act': ['POST'],
	'/reference/kinds': ['add', 'change'],
	'/undo': ['POST'],
	'/api/v1/trees': ['POST'],
	'/api/v1/compute/[name]': ['POST']
};

/**
 * Whether somebody may have what they ask for.
 * @param who null for nobody known
 * @returns `key` where a key is wanted, `owner` where that is not enough
 */
export function refusedAccess(who: Who | null, { method, route, action }: Asking): 'key' | 'owner' | null {
	if (route !== null && withoutKey.has(route)) return null;
	if (who === null) return 'key';
	if (who.role === 'owner' || method === 'GET' || method === 'HEAD' || method === 'OPTIONS') return null;
	// What is not there is told by the page itself.
	if (route === null) return null;
	const sent = method === 'POST' && action !== null ? action : method;
	return helpersSend[route]?.includes(sent) ? null : 'owner';
}

/** Of what helpers send, what wants the computer of the yard. */
const notAlone: Readonly<Record<string, readonly string[]>> = {
	'/yard/weather': ['file'],
	'/yard/people': ['passphrase', 'signOut']
};

/** Whether something may be sent to a phone that is alone with its copy of the yard: the work on the trees, and nothing that opens doors. */
export function isDoneAlone({ method, route, action }: Asking): boolean {
	// Rounds of practice have yards of their own, which are not taken along.
	if (route?.startsWith('/practice')) return false;
	if (method === 'GET' || method === 'HEAD' || route === null) return true;
	const sent = method === 'POST' && action !== null ? action : method;
	return (helpersSend[route]?.includes(sent) ?? false) && !notAlone[route]?.includes(sent);
}
