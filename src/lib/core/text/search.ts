/** A text as it is searched: lower case, without accents. */
export const searchable = (text: string): string =>
	text
		.normalize('NFD')
		.replace(/\p{Mn}/gu, '')
		.toLowerCase();

/**
 * Those in which every word that was typed begins a word, in their order, the ones that begin with the whole of it first.
 * @param said what is searched of one: its name and whatever else it goes by
 * @example findBy('beech s', kinds, (one) => `${one.commonName} ${one.genus}`) finds Southern beech
 */
export function findBy<T>(typed: string, list: readonly T[], said: (one: T) => string): T[] {
	const whole = searchable(typed).trim();
	const words = whole.split(/[\s(),]+/).filter((word) => word !== '');
	const found = list
		.map((one) => ({ one, text: searchable(said(one)) }))
		.filter(({ text }) => {
			// A word of two parts begins with each of them, and with the whole: H-03 is found by h-03 and by 03.
			const parts = text.split(/[\s(),]+/).flatMap((part) => [part, ...part.split(/[/-]+/)]);
			return words.every((word) => parts.some((part) => part.startsWith(word)));
		});
	return [
		...found.filter(({ text }) => text.startsWith(whole)),
		...found.filter(({ text }) => !text.startsWith(whole))
	].map(({ one }) => one);
}
