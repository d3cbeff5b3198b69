/**
 * The words of a vocabulary in their order, from what each is called: each is told once.
 * @param names what the words are called, by word; at least one
 */
export const wordsOf = <Word extends string>(
	names: Readonly<Record<Word, string>>
): readonly [Word, ...Word[]] => Object.keys(names) as [Word, ...Word[]];
