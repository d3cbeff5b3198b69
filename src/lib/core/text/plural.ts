/**
 * A figure as it is shown with its noun in the right number.
 * @param shown the figure as it is read, so that 0.98 shown as `1` is one
 * @example counted('1', 'day') is `1 day`; counted(1.5, 'day') is `1.5 days`
 */
export const counted = (shown: number | string, one: string, many = `${one}s`): string =>
	`${shown} ${String(shown) === '1' ? one : many}`;

/** Words in a row, the last with "and". */
export const listed = (words: readonly string[]): string => new Intl.ListFormat('en-GB').format(words);
