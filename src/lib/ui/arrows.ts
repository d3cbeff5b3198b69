import type { Attachment } from 'svelte/attachments';

/** Arrow keys walk the links of a list, one stop a row; Home and End go to its ends. Down from the field beside begins it. */
export const arrows: Attachment<HTMLElement> = (list) => {
	const links = (): HTMLElement[] =>
		[...list.querySelectorAll<HTMLElement>('[data-stop]')].filter((link) => link.offsetParent !== null);
	const walk = (event: KeyboardEvent): void => {
		if (event.altKey || event.ctrlKey || event.metaKey) return;
		const all = links();
		const target = event.target as HTMLElement;
		const at = all.indexOf(target);
		const typing = target instanceof HTMLInputElement && target.type === 'search';
		if (at < 0 && !(typing && event.key === 'ArrowDown')) return;
		const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[event.key];
		if (next === undefined) return;
		event.preventDefault();
		all[Math.max(0, Math.min(all.length - 1, next))]?.focus();
	};
	list.addEventListener('keydown', walk);
	return () => list.removeEventListener('keydown', walk);
};
