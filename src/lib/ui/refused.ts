import type { Refused } from './field';

/** A label as it begins a sentence: its first part, without the question mark. */
export const saidLabel = (label: string): string => (label.split(/[,:?]/)[0] ?? label).trim();

/** Label of the field that a problem is of; null where the form shows none. */
function labelIn(root: ParentNode, field: string): string | null {
	for (const one of root.querySelectorAll<HTMLElement>('[data-field]')) {
		const name = one.dataset.field ?? '';
		if (name === field || field.startsWith(`${name}.`)) return one.dataset.label ?? null;
	}
	return null;
}

/** What stands above a form that was refused: a single field says itself what is wrong with it. */
export const aboveForm = (
	root: ParentNode,
	{ message, problems }: Pick<Refused, 'message' | 'problems'>
): string =>
	problems.length === 1 && problems[0] && labelIn(root, problems[0].field) !== null
		? 'One field needs another look.'
		: message;

/** What a form was refused for, in the words of its own labels. */
export function saidOf(root: ParentNode, refused: Pick<Refused, 'message' | 'problems'>): string {
	const [only, more] = refused.problems;
	if (!only || more) return refused.message;
	const label = labelIn(root, only.field);
	return label ? `${saidLabel(label)} ${only.message}.` : refused.message;
}

/** Takes whoever filled in the form to the first field that was refused. */
export function toFirstRefused(form: HTMLElement): void {
	const first = form.querySelector<HTMLElement>('[aria-invalid="true"]');
	if (!first) return;
	const control = first.matches('input, select, textarea, button')
		? first
		: first.querySelector<HTMLElement>('[role=radio], input, button');
	control?.focus();
}

/**
 * After a save focus never falls back to the page: it stands where the work went on, or at the head of what the form belonged to.
 * @param form as it was sent; it may be gone by now
 * @param within the region it stood in, looked up before
 */
export function toResult(form: HTMLElement, within: HTMLElement | null): void {
	const held = document.activeElement;
	if (held && held !== document.body && held.isConnected) return;
	const region = form.isConnected ? (form.closest<HTMLElement>('section, [role=dialog]') ?? within) : within;
	const head =
		(region?.isConnected ? region.querySelector<HTMLElement>('h1, h2, h3, legend') : null) ??
		document.querySelector<HTMLElement>('main h1, main h2, h1');
	if (!head) return;
	if (!head.hasAttribute('tabindex')) head.tabIndex = -1;
	head.focus({ preventScroll: true });
}
