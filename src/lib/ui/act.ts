import type { SubmitFunction } from '@sveltejs/kit';
import { toast } from 'svelte-sonner';
import { tick } from 'svelte';
import type { Refused } from './field';
import { windowFormat } from './format';
import { readAnew } from './read-anew';
import { saidOf, toFirstRefused, toResult } from './refused';

interface Told {
	/** What was done, in a few words. */
	told?: string;
	/** Journal entry that undo takes back, or several at once. */
	entryId?: string | string[];
	refusal?: Refused;
}

/** Says what was done and offers to take it back. */
export function tell({ told, entryId }: Told): void {
	if (!told) return;
	toast(inWords(told), {
		duration: 9000,
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
	({ formElement: sentForm }) => {
		const within = sentForm.closest<HTMLElement>('section, main');
		before?.();
		const mine = ++sent;
		return async ({ result, update, formElement }) => {
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
					toFirstRefused(formElement);
				}
			}
		};
	};
