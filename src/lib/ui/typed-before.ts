/*
 * What was last kept in the fields of measures on this device: on the tree at hand, and on the one before it. Read by hand, since every page
 * has it and the first is to stay light.
 */

interface Noted {
	text: string;
	treeId: string;
}

const KEY = 'bruntle-typed-before';

const isNoted = (one: unknown): one is Noted =>
	typeof one === 'object' &&
	one !== null &&
	typeof (one as Partial<Noted>).text === 'string' &&
	typeof (one as Partial<Noted>).treeId === 'string';

/** The last of each tree by field, the newest first; what cannot be read was never typed. */
function read(): Record<string, Noted[]> {
	try {
		const found: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}');
		if (typeof found !== 'object' || found === null) return {};
		return Object.fromEntries(
			Object.entries(found).map(([name, list]) => [
				name,
				Array.isArray(list) ? list.filter(isNoted).slice(0, 2) : []
			])
		);
	} catch {
		return {};
	}
}

/** Notes the measures of a form that was kept. */
export function noteTyped(measures: readonly { name: string; text: string }[], treeId: string): void {
	const all = read();
	for (const { name, text } of measures)
		if (text.trim() !== '')
			all[name] = [
				{ text: text.trim(), treeId },
				...(all[name] ?? []).filter((one) => one.treeId !== treeId)
			].slice(0, 2);
	try {
		localStorage.setItem(KEY, JSON.stringify(all));
	} catch {
		// A full or forbidden store only means that nothing is offered.
	}
}

/**
 * Notes the measures of every form that is kept, as long as the pages are open.
 * @param treeId tells which tree is at hand
 */
export function noteKept(treeId: () => string): () => void {
	const kept = ({ target }: Event): void => {
		if (!(target instanceof HTMLFormElement)) return;
		const inputs = [...target.querySelectorAll<HTMLInputElement>('input[data-measure]')];
		noteTyped(
			inputs.map((one) => ({ name: one.dataset.measure ?? '', text: one.value })),
			treeId()
		);
	};
	document.addEventListener('kept', kept, { capture: true });
	return () => document.removeEventListener('kept', kept, { capture: true });
}

/** What was last kept in a field on this tree, and on the one before it; as it was typed. */
export function typedBefore(name: string, treeId: string): { here: string | null; before: string | null } {
	const found = read()[name] ?? [];
	return {
		here: found.find((one) => one.treeId === treeId)?.text ?? null,
		before: found.find((one) => one.treeId !== treeId)?.text ?? null
	};
}
