import { distance } from 'fastest-levenshtein';

/** A text as it is searched: lower case, without accents. */
export const searchable = (text: string): string =>
	text
		.normalize('NFD')
		.replace(/\p{Mn}/gu, '')
		.toLowerCase();

const wordsOf = (text: string): string[] => text.split(/[\s(),]+/).filter((word) => word !== '');
/** A word of two parts begins with each of them, and with the whole: H-03 is found by h-03 and by 03. */
const partsOf = (text: string): string[] =>
	wordsOf(text).flatMap((part) => (/[/-]/.test(part) ? [part, ...part.split(/[/-]+/)] : [part]));

/**
 * Those in which every word that was typed begins a word, in their order, the ones that begin with the whole of it first.
 * @param said what is searched of one: its name and whatever else it goes by
 * @example findBy('beech s', kinds, (one) => `${one.commonName} ${one.genus}`) finds Southern beech
 */
export function findBy<T>(typed: string, list: readonly T[], said: (one: T) => string): T[] {
	const whole = searchable(typed).trim();
	const words = wordsOf(whole);
	const found = list
		.map((one) => ({ one, text: searchable(said(one)) }))
		.filter(({ text }) => {
			const parts = partsOf(text);
			return words.every((word) => parts.some((part) => part.startsWith(word)));
		});
	return [
		...found.filter(({ text }) => text.startsWith(whole)),
		...found.filter(({ text }) => !text.startsWith(whole))
	].map(({ one }) => one);
}

/** Letters that may be wrong in a word of so many: none in a short one, where another word is soon met. */
const lettersWrong = (word: string): number => (word.length < 5 ? 0 : word.length < 8 ? 1 : 2);
/** Shorter words (of, in, var) say nothing by themselves. */
const TELLING_LETTERS = 3;

/**
 * Those that come near to what was typed, when none is called so: one of its words begins a word of theirs, or differs from one
 * by a letter or two; those with most such words first, then in their order.
 * @param said what is searched of one: its name and whatever else it goes by
 * @example findNear('Chinese elm', kinds, said) and findNear('hornbeem', kinds, said) find Elm and Hornbeam
 */
export function findNear<T>(typed: string, list: readonly T[], said: (one: T) => string): T[] {
	const words = wordsOf(searchable(typed)).filter(({ length }) => length >= TELLING_LETTERS);
	const near = list.map((one) => {
		const parts = partsOf(searchable(said(one)));
		const met = words.map((word): number => {
			if (parts.some((part) => part === word)) return 1;
			if (parts.some((part) => part.startsWith(word))) return 0.9;
			return parts.some((part) => distance(word, part) <= lettersWrong(word)) ? 0.8 : 0;
		});
		return { one, met: met.reduce((sum, share) => sum + share, 0) };
	});
	return near
		.filter(({ met }) => met > 0)
		.sort((a, b) => b.met - a.met)
		.map(({ one }) => one);
}
