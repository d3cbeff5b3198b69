/** Line ends of every system and of Unicode [Unicode Standard Annex 14, classes BK, CR, LF, NL]. */
const BREAKS = /\r\n?|[\v\f\u0085\u2028\u2029]/g;
/** Halves of a character that stand alone: they cannot be written as UTF-8. */
const HALVES = /\p{Cs}/gu;

const whole = (text: string): string => text.replace(HALVES, '\ufffd').normalize('NFC');

/**
 * A text of one line, such as a tag or a name: control characters go, and so does what cannot be seen and would make two of the
 * same look; the two joiners that some scripts and signs need stay. Breaks and tabs become blanks.
 */
export const cleanLine = (text: string): string =>
	whole(text)
		.replace(/(?![\s\u0085])\p{Cc}|(?![\u200c\u200d])\p{Cf}/gu, '')
		.replace(/[\s\u0085]+/g, ' ');

/** A text of more lines: control characters go, and so does what turns the reading direction of what follows; breaks are one sign. */
export const cleanText = (text: string): string =>
	whole(text)
		.replace(BREAKS, '\n')
		.replace(/(?![\n\t])\p{Cc}|[\u202a-\u202e\u2066-\u2069\ufeff]/gu, '');
