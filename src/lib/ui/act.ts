import type { SubmitFunction } from '@sveltejs/kit';
import { toast } from 'svelte-sonner';
import { tick } from 'svelte';
import type { Refused } from './field';
import { windowFormat } from './format';
import { readAnew } from './read-anew';
import { handsNow } from './theme.svelte';
import { saidOf, toFirstRefused, toResult } from './refused';

interface Told {
	/** What was done, in a few words. */
	told?: string;
	/** Journal entry that undo takes back, or several at once. */
	entryId?: string | string[];
	refusal?: Refused;
}

/** So long what was done can be taken back where it is told; wet hands are slower. */
const UNDO_MS = 9000;
const SLOW_UNDO_MS = 60_000;

/** Says what was done and offers to take it back. */
export function tell({ told, entryId }: Told): void {
	if (!told) return;
	toast(inWords(told), {
		duration: handsNow() === 'dirty' ? SLOW_UNDO_MS : UNDO_MS,
		...(entryId && { action: { label: 'Undo', onClick: () => void takeBack(entryId) } })
	});
}

async function takeBack(entryId: string | string[]): Promise<void> {
	try {
		const response = await fetch('/undo', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ entryIds: [entryId].flat() })
		});
		if (response.ok) toast('Taken back.');
		else {
			const problem = (await response.json()) as { title?: string; detail?: string };
			toast.error(problem.title ?? 'It could not be taken back.', { description: problem.detail });
		}
	} catch {
		toast.error('No answer from Bruntle.', { description: 'Is it still running? Nothing was changed.' });
	}
	await readAnew();
}

const inWords = (text: string): string => windowFormat().inWords(text);

/**
 * Says that what was sent is not kept, why, and offers to send it again.
 * @param cause what the server said; what is none of its words means that there was no answer
 */
export function notKept(cause: unknown, again: () => void): void {
	const { message, advice } = (
		typeof cause === 'object' && cause !== null ? cause : {}
	) as Partial<App.Error>;
	const answered = advice !== undefined;
	toast.error(`Not saved yet. ${answered ? message : 'No answer from Bruntle.'}`, {
		description: `${answered ? advice : 'Is it still running, and the network there?'} What was entered stands here still.`,
		duration: Infinity,
		closeButton: true,
		position: 'top-center',
		action: { label: 'Send again', onClick: again }
	});
}

/**
 * What was changed elsewhere meanwhile has been told beside what was entered: sent again, it is meant. A form that shows nothing to
 * compare, such as one that removes, shows the page as it is by now first.
 */
async function againOver(form: HTMLFormElement, meanwhile: Record<string, string>): Promise<void> {
	const shows = form.querySelector('[data-field]') !== null;
	if (!shows) await readAnew();
	else
		for (const input of form.querySelectorAll<HTMLInputElement>('input[name="version"]'))
			input.value = meanwhile.version ?? input.value;
}

interface ActOptions {
	/** Keep the fields as typed after success. */
	keep?: boolean;
	before?: () => void;
	done?: () => void;
}

/** Counts what was sent from this window: an answer that comes late must not wipe what a later form was refused for. */
let sent = 0;

/** For `use:enhance`: sends the form, says what was done with an undo, keeps what was typed when it is refused. */
export const act =
	({ keep = false, before, done }: ActOptions = {}): SubmitFunction =>
	({ action, formElement: sentForm, formData, submitter }) => {
		// Sent again after no answer it goes under the same name, so that it is done once.
		sentForm.dataset.sent ??= crypto.getRandomValues(new Uint32Array(4)).join('-');
		// Another button of the same form does another work.
		formData.set('sent', `${sentForm.dataset.sent} ${action.pathname}${action.search}`);
		const within = sentForm.closest<HTMLElement>('section, main');
		before?.();
		const mine = ++sent;
		return async ({ result, update, formElement }) => {
			if (result.type !== 'error') delete formElement.dataset.sent;
			if (result.type === 'success' || result.type === 'redirect')
				formElement.dispatchEvent(new Event('kept'));
			if (result.type === 'success') {
				if (!keep) HTMLFormElement.prototype.reset.call(formElement);
				await readAnew();
				if (mine === sent) await update({ reset: false, invalidateAll: false });
				// Said last: who reads that it is done finds the page showing it.
				tell((result.data ?? {}) as Told);
				done?.();
				await tick();
				toResult(formElement, within);
			} else if (result.type === 'redirect') {
				await update({ reset: false });
				done?.();
			} else if (result.type === 'error') {
				// The page stays, and with it all that was typed: an error page would take its place.
				notKept(result.error, () => formElement.isConnected && formElement.requestSubmit(submitter));
			} else {
				await update({ reset: false });
				if (result.type === 'failure') {
					const refusal = (result.data as Told | undefined)?.refusal;
					await tick();
					if (refusal)
						// At the top: on a phone the field to be mended stands at the foot.
						toast.error(inWords(saidOf(formElement, refusal)), {
							description: inWords(refusal.advice),
							position: 'top-center'
						});
					if (refusal?.meanwhile) await againOver(formElement, refusal.meanwhile);
					toFirstRefused(formElement);
				}
			}
		};
	};
