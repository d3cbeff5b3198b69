/** A text as it stands at the start of a sentence: its first letter a capital. */
export const atStart = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A label as it stands inside a sentence: its first letter small, unless its first word is written in capitals as `pH` or `EC` are. */
export const midSentence = (label: string): string =>
	/^\p{Lu}(?![\p{Ll}\p{Lu}]*\p{Lu})/u.test(label) ? label.charAt(0).toLowerCase() + label.slice(1) : label;
