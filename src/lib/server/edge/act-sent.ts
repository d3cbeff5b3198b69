import type { RequestEvent } from '@sveltejs/kit';
import { ACT_HEADER, YARD_HEADER } from '../../core/vocabulary/along';
import { actHeader, actIsNoted, actingAs, answerOfAct, keepAnswer, type ActSent } from '../acting';
import { inTime } from '../clock';
import { Refusal } from '../errors';
import { yardIdOf } from '../along/yard-id';
import { getStore } from '../store';

/** The work that a request names; null where it names none. @throws Refusal 400 */
function actOf(request: Request): ActSent | null {
	const text = request.headers.get(ACT_HEADER);
	if (text === null || request.method === 'GET') return null;
	let sent: unknown = null;
	try {
		sent = JSON.parse(text);
	} catch {
		// Refused below.
	}
	const read = actHeader.safeParse(sent);
	if (!read.success) throw new Refusal(400, 'The name of this work could not be read.', 'Do it anew.');
	return inTime(read.data);
}

/**
 * Answers a request that names its work as of the instant of that work, and once: what is done already is answered as the first time.
 * @throws Refusal 400 a name that cannot be read · 403 sent by somebody else · 409 done for another yard
 */
export async function onceByName(
	event: Pick<RequestEvent, 'request' | 'locals'>,
	answer: () => Response | Promise<Response>
): Promise<Response> {
	const act = actOf(event.request);
	return act ? answerOnce(event, act, answer) : answer();
}

/** Pages whose answers may hold a key. */
const showsKeys = /^\/(yard\/(devices|people|backups)|key|invited|calendar)\b/;

async function answerOnce(
	{ request, locals }: Pick<RequestEvent, 'request' | 'locals'>,
	act: ActSent,
	answer: () => Response | Promise<Response>
): Promise<Response> {
	const store = await getStore();
	// At the same address another yard may be met: the demo, or one that was begun anew.
	const yard = request.headers.get(YARD_HEADER);
	if (yard !== null && yard !== (await yardIdOf(store)))
		throw new Refusal(409, 'This was done for another yard.', 'Send it where that yard is.');
	const byId = locals.who?.id ?? null;
	const known = await answerOfAct(store.db, act, byId);
	if (known)
		return new Response(known.answer, {
			status: known.status,
			headers: { 'content-type': 'application/json' }
		});
	return actingAs(act, byId, async () => {
		const response = await answer();
		const json = (response.headers.get('content-type') ?? '').includes('json');
		// A key that is shown once is kept nowhere: sent again, it is only said that it is done.
		if (actIsNoted() && json && !showsKeys.test(new URL(request.url).pathname)) {
			const kept = { status: response.status, answer: await response.clone().text() };
			await store.write((tx) => keepAnswer(tx, act, kept));
		}
		return response;
	});
}
