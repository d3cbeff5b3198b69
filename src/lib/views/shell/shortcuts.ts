/** Every shortcut of the app, as shown under "?". */
export const shortcuts: readonly { where: string; keys: string; does: string }[] = [
	{ where: 'Everywhere', keys: '/ or Ctrl+K', does: 'find a tree, a page or an action' },
	{ where: 'Everywhere', keys: '?', does: 'list the shortcuts' },
	{ where: 'Everywhere', keys: 'n', does: 'take in a new tree' },
	{
		where: 'On a tree',
		keys: '1 … 6',
		does: 'go to the stage: Take in, Examine, Roots, Replant, Aftercare, Recovery'
	},
	{
		where: 'Line of care',
		keys: '+ − ← → 0',
		does: 'nearer, wider, earlier, later, whole (when it has the focus)'
	},
	{ where: 'Roots', keys: 'a', does: 'go to quick entry' },
	{ where: 'Roots', keys: 'j / k', does: 'next / previous root' },
	{ where: 'Roots', keys: 'x', does: 'cut the chosen root now' },
	{ where: 'Roots', keys: 'l', does: 'cut it at a later stage' },
	{ where: 'Roots', keys: 'h', does: 'hold: keep it, locked' },
	{ where: 'Roots', keys: 't', does: 'trace its source further' },
	{ where: 'Roots', keys: 'o', does: 'leave it open' },
	{ where: 'Roots', keys: 'Delete', does: 'take it off the map' },
	{ where: 'Roots', keys: 'Ctrl+Z / Ctrl+Shift+Z', does: 'undo / redo on the map' }
];

/** True when a key is meant for a field or an open layer and not for the page. */
export function keyIsTaken(event: KeyboardEvent): boolean {
	if (event.defaultPrevented || event.altKey) return true;
	const target = event.target as HTMLElement | null;
	if (!target) return false;
	if (target.closest('[role="dialog"], [role="menu"], [role="listbox"]')) return true;
	const field = target.closest('input, textarea, select, [contenteditable="true"]');
	return field !== null && !(field instanceof HTMLInputElement && ['radio', 'checkbox'].includes(field.type));
}
