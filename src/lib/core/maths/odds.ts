/**
 * Log-odds of a chance, natural logarithm.
 * @param chance 0 … 1; held off both ends by `bound`, so that what is sure stays finite
 * @example logOdds(0.5) is 0
 */
export function logOdds(chance: number, bound = 1e-12): number {
	const held = Math.min(1 - bound, Math.max(bound, chance));
	return Math.log(held / (1 - held));
}

/**
 * Chance of log-odds, the inverse of {@link logOdds}.
 * @example logistic(0) is 0.5
 * @param x log-odds, natural logarithm, any number
 */
export const logistic = (x: number): number => 1 / (1 + Math.exp(-x));

/** Scale of a logistic distribution of one deviation: √3 / π. */
export const LOGISTIC_SD = 0.5513;
