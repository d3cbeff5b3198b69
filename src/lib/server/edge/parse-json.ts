import { Refusal } from '../errors';

/**
 * Most brackets and commas that any body may hold. Reading text takes longer the more of them there are, whatever its length; a case
 * with the largest map has some 150,000.
 */
const PARTS_LIMIT = 300_000;

/**
 * Reads text as JSON.
 * @throws Refusal 400 not readable · 413 made of more parts than any that is meant
 */
export function parseJson(text: string): unknown {
	if (partsOf(text) > PARTS_LIMIT)
		throw new Refusal(413, 'The body is made of too many parts.', 'Send less at once.');
	try {
		return JSON.parse(text);
	} catch {
		throw new Refusal(
			400,
			'The body is not readable as JSON.',
			'Look for a missing bracket, comma or quote.'
		);
	}
}

/** Brackets and commas of a text, those within its words among them. */
function partsOf(text: string): number {
	let parts = 0;
	for (let at = 0; at < text.length; at++) {
		const sign = text.charCodeAt(at);
		if (sign === COMMA || sign === SQUARE || sign === CURLY) parts++;
	}
	return parts;
}
const COMMA = ','.charCodeAt(0);
const SQUARE = '['.charCodeAt(0);
const CURLY = '{'.charCodeAt(0);
