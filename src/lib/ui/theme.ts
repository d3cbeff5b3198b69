export const themes = ['light', 'dark', 'system'] as const;
export type Theme = (typeof themes)[number];

/** Sets the look of this browser at once, and for the next pages. */
export function setTheme(theme: Theme): void {
	document.documentElement.dataset.theme = theme;
	document.cookie = `theme=${theme}; path=/; max-age=31536000; samesite=lax`;
}
