import { createHash } from 'node:crypto';
import { actingAs, actIsNoted, answerOfAct, instantOfAct, keepAnswer } from '../acting';
import { now, today } from '../clock';
import { keepIn } from '../db/database';
import { whoWorks } from '../people/who-works';
import { getStore } from '../store';

/** So many sent forms are remembered with what becomes of them, as long as they are under way and a while after. */
const REMEMBERED = 500;
const answers = new Map<string, Promise<unknown>>();

/** What a form is known by: the name its page gave this sending, and all that it says; null where the page gave none. */
function keyOf(form: FormData): string | null {
	const sent = form.get('sent');
	if (typeof sent !== 'string' || sent === '') return null;
	const said = [...form].map(([name, value]) => [
		name,
		typeof value === 'string' ? value : [value.name, value.size, value.lastModified]
	]);
	return createHash('sha256').update(JSON.stringify(said)).digest('hex');
}

/** What is told of work that is done, and how it is taken back. What else is answered may be a key that is shown once, and is kept nowhere. */
const plainOf = (result: unknown): object => {
	const { told, entryId } = (typeof result === 'object' && result !== null ? result : {}) as Record<
		string,
		unknown
	>;
	return { told, entryId };
};

/** Does work under a name, where it is not done under one already; what was done under it before is answered as then. */
async function underName<T>(name: string, work: () => Promise<T>): Promise<T> {
	if (instantOfAct()) return work();
	const store = await getStore();
	const act = { id: name, at: now().toISOString(), today: today() };
	const byId = whoWorks()?.id ?? null;
	const known = await answerOfAct(store.db, act, byId);
	if (known) return JSON.parse(known.answer) as T;
	return actingAs(act, byId, async () => {
		const result = await work();
		if (actIsNoted()) {
			const kept = { status: 200, answer: JSON.stringify(plainOf(result)) };
			await store.write((tx) => keepAnswer(tx, act, kept));
		}
		return result;
	});
}

/**
 * Does the work of a form once, however often it is sent: who gets no answer sends it again, also to a server that was started anew
 * meanwhile. What was refused is done anew, and so is a form that says something else by now.
 */
export function once<T>(form: FormData, work: () => Promise<T>): Promise<T> {
	const key = keyOf(form);
	if (key === null) return work();
	const known = answers.get(key) as Promise<T> | undefined;
	if (known) return known;
	const answer = underName(key, work);
	keepIn(answers, key, answer, REMEMBERED);
	answer.catch(() => answers.delete(key));
	return answer;
}
