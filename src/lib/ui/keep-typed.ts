import { toast } from 'svelte-sonner';
import { tick } from 'svelte';
import type { Attachment } from 'svelte/attachments';

/** What was typed into a form and not kept yet: the last touch of each field, in the order of the touches. */
type Typed = [name: string, value: string][];

const PREFIX = 'bruntle-typed.';
/** A draft that nobody came back to is no draft any more. */
const KEEP_MS = 14 * 24 * 3600 * 1000;
const TYPES_LEFT_OUT: readonly string[] = ['hidden', 'file', 'password', 'submit', 'button'];

function read(key: string): Typed {
	try {
		const found = JSON.parse(localStorage.getItem(PREFIX + key) ?? 'null') as {
			at: number;
			typed: Typed;
		} | null;
		if (found && Date.now() - found.at < KEEP_MS && Array.isArray(found.typed)) return found.typed;
		localStorage.removeItem(PREFIX + key);
	} catch {
		// What cannot be read is no draft.
	}
	return [];
}

function write(key: string, typed: Typed): void {
	try {
		if (typed.length === 0) localStorage.removeItem(PREFIX + key);
		else localStorage.setItem(PREFIX + key, JSON.stringify({ at: Date.now(), typed }));
	} catch {
		// A full or forbidden store only means that there is no draft.
	}
}

type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;
const isControl = (target: unknown): target is Control =>
	target instanceof HTMLInputElement ||
	target instanceof HTMLSelectElement ||
	target instanceof HTMLTextAreaElement;
const isTick = (control: Control): control is HTMLInputElement =>
	control instanceof HTMLInputElement && (control.type === 'checkbox' || control.type === 'radio');

/** Name and value of a field that was touched; null for one that is not typed into. */
function touched(target: EventTarget | null): [string, string] | null {
	if (isControl(target)) {
		if (target.name === '' || TYPES_LEFT_OUT.includes(target.type)) return null;
		return isTick(target)
			? [`${target.name}=${target.value}`, String(target.checked)]
			: [target.name, target.value];
	}
	const choice = target instanceof Element ? target.closest<HTMLButtonElement>('[role=radio]') : null;
	const label = choice?.closest('[role=radiogroup]')?.getAttribute('aria-labelledby');
	const name = label ? document.getElementById(label)?.textContent.trim() : undefined;
	const value = choice?.dataset.value;
	return value && name ? [`choice:${name}`, value] : null;
}

/** Puts a value back where it was typed, as if typed again; a field that says so already is left. */
function putBack(form: HTMLFormElement, [name, value]: [string, string]): 'put' | 'same' | 'missing' {
	if (name.startsWith('choice:')) {
		for (const group of form.querySelectorAll('[role=radiogroup]')) {
			const label = group.getAttribute('aria-labelledby');
			if (!label || document.getElementById(label)?.textContent.trim() !== name.slice(7)) continue;
			const choice = [...group.querySelectorAll<HTMLButtonElement>('[role=radio]')].find(
				(one) => one.dataset.value === value
			);
			if (!choice) return 'missing';
			if (choice.getAttribute('aria-checked') === 'true') return 'same';
			choice.click();
			return 'put';
		}
		return 'missing';
	}
	for (const control of form.elements) {
		if (!isControl(control)) continue;
		if (isTick(control)) {
			if (`${control.name}=${control.value}` !== name) continue;
			if (control.checked === (value === 'true')) return 'same';
			control.click();
			return 'put';
		}
		if (control.name !== name) continue;
		if (control.value === value) return 'same';
		control.value = value;
		control.dispatchEvent(new Event('input', { bubbles: true }));
		control.dispatchEvent(new Event('change', { bubbles: true }));
		return 'put';
	}
	return 'missing';
}

/** What is put together by touches and not by typing, a list or a whole sheet: a hidden field with `data-typed` that holds it. */
const putTogether = (form: HTMLFormElement): HTMLInputElement[] => [
	...form.querySelectorAll<HTMLInputElement>('input[data-typed]')
];

/**
 * Keeps what is typed into a form on this device until the form is kept, so that a side page, a reload or a flat battery loses
 * nothing; what was left comes back and says so, what stands behind a button as soon as that is pressed again.
 * @param key names the form and what it is for
 */
export const keepTyped =
	(key: string): Attachment<HTMLFormElement> =>
	(form) => {
		let restoring = false;
		const keep = (touch: Typed[number]): void =>
			write(key, [...read(key).filter(([name]) => name !== touch[0]), touch]);
		let known = new Map<string, string>();
		const look = (): void => {
			known = new Map(putTogether(form).map((field) => [field.name, field.value]));
		};
		const note = async (event: Event): Promise<void> => {
			if (restoring) return;
			const touch = touched(event.target);
			if (touch) keep(touch);
			// What the touch does may be heard of later than the touch itself.
			await new Promise((done) => setTimeout(done));
			await tick();
			for (const { name, value } of putTogether(form)) if (known.get(name) !== value) keep([name, value]);
			look();
		};
		const forget = (): void => {
			write(key, []);
			waiting.disconnect();
			void tick().then(look);
		};
		/** What was left and has no field yet. */
		let left: Typed = [];
		const restore = async (): Promise<void> => {
			if (restoring) return;
			// What was typed anew meanwhile is the later word.
			const stands = read(key);
			left = left.filter(([name, value]) => stands.some((one) => one[0] === name && one[1] === value));
			let back = 0;
			restoring = true;
			// Some fields stand there only once another was answered.
			for (let round = 0; round < 4 && left.length > 0; round++) {
				await tick();
				const missing: Typed = [];
				for (const one of left) {
					const done = putBack(form, one);
					if (done === 'missing') missing.push(one);
					if (done === 'put') back++;
					await tick();
				}
				left = missing;
			}
			look();
			restoring = false;
			if (left.length === 0) waiting.disconnect();
			if (back > 0 && form.isConnected)
				toast('What you had typed here is back.', {
					duration: 7000,
					action: {
						label: 'Begin anew',
						onClick: () => {
							forget();
							location.reload();
						}
					}
				});
		};
		const waiting = new MutationObserver(() => void restore());
		const touches = ['input', 'change', 'click'] as const;
		for (const touch of touches) form.addEventListener(touch, note);
		form.addEventListener('kept', forget);
		look();
		left = read(key);
		if (left.length > 0) {
			waiting.observe(form, { childList: true, subtree: true });
			void restore();
		}
		return () => {
			waiting.disconnect();
			for (const touch of touches) form.removeEventListener(touch, note);
			form.removeEventListener('kept', forget);
		};
	};
