import { pageFormat } from '$core/text/bound';
import { defaultFormatSettings, type Format } from '$core/text/format';
import { getContext, setContext } from 'svelte';

const key = Symbol('format');

/** Of this window, for what is said outside of any component; on the server it is never set. */
let ofWindow: (() => Format) | null = null;

/** Makes the formatter known to all below; given as a function so that a change of settings shows at once. */
export const setFormat = (format: () => Format): void => {
	setContext(key, format);
	if (typeof window !== 'undefined') ofWindow = format;
};

/** The formatter of the person's settings, for short messages that stand outside of the page. */
export const windowFormat = (): Format => ofWindow?.() ?? pageFormat(defaultFormatSettings);

/** The formatter of the person's settings. Call the result to get it. */
export const useFormat = (): (() => Format) =>
	getContext<(() => Format) | undefined>(key) ?? (() => pageFormat(defaultFormatSettings));
