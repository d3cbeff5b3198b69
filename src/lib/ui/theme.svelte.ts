import type { Hands, Theme } from '$core/text/look';

const keep = (name: string, value: string): void => {
	document.documentElement.dataset[name] = value;
	document.cookie = `${name}=${value}; path=/; max-age=31536000; samesite=lax`;
};

/** Sets the look of this browser at once, and for the next pages. */
export const setTheme = (theme: Theme): void => keep('theme', theme);

const isDirty = (): boolean =>
	typeof document !== 'undefined' && document.documentElement.dataset.hands === 'dirty';
let dirty = $state(isDirty());

/** Sets for which hands this browser shows its pages. */
export function setHands(hands: Hands): void {
	keep('hands', hands);
	dirty = hands === 'dirty';
}

/** For which hands this browser shows its pages. */
export const handsNow = (): Hands => (dirty ? 'dirty' : 'clean');
