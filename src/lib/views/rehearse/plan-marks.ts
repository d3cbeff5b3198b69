/** How each of four plans is drawn and called. */
export const strokes = [undefined, '9 4', '2 4', '12 4 2 4'] as const;

/** Letter of a plan. @param index from 0 */
export const letterOf = (index: number): string => String.fromCharCode(65 + index);
