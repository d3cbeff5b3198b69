import type { Attachment } from 'svelte/attachments';

/** A form that was sent empties its fields; what was typed in this one goes with it. */
export const onReset =
	(forget: () => void): Attachment<HTMLInputElement> =>
	(input) => {
		const { form } = input;
		form?.addEventListener('reset', forget);
		return () => form?.removeEventListener('reset', forget);
	};
