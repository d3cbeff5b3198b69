/** Deviations within which so much of a normal distribution lies, both tails left off. */
export const Z80 = 1.2816;
export const Z90 = 1.6449;
export const Z95 = 1.96;
