import { createHash } from 'node:crypto';
import { keepIn } from '../db/database';

/** So many sent forms are remembered with what became of them. */
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

/**
 * Does the work of a form once, however often it is sent: who gets no answer sends it again. What was refused is done anew, and so is a
 * form that says something else by now. Remembered while this process runs.
 */
export function once<T>(form: FormData, work: () => Promise<T>): Promise<T> {
	const key = keyOf(form);
	if (key === null) return work();
	const known = answers.get(key) as Promise<T> | undefined;
	if (known) return known;
	const answer = work();
	keepIn(answers, key, answer, REMEMBERED);
	answer.catch(() => answers.delete(key));
	return answer;
}
