import { createFormat, defaultFormatSettings, type Format } from '$core/format/format';
import { getContext, setContext } from 'svelte';

const key = Symbol('format');

/** Makes the formatter known to all below; given as a function so that a change of settings shows at once. */
export const setFormat = (format: () => Format): void => {
	setContext(key, format);
};

/** The formatter of the person's settings. Call the result to get it. */
export const useFormat = (): (() => Format) =>
	getContext<(() => Format) | undefined>(key) ?? (() => createFormat(defaultFormatSettings));
