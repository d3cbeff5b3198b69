/** A share in whole percent, as sentences of the core say it. @example percent(0.314) is `31 %` */
export const percent = (share: number): string => `${Math.round(share * 100)} %`;

/**
 * A chance as it is said: nothing is sure, and nothing is ruled out.
 * @param say how a share is said on this page
 * @param chance 0 … 1
 * @example chanceSaid(0.998) is `over 99 %`
 */
export const chanceSaid = (chance: number, say: (share: number) => string = percent): string =>
	chance < 0.01 ? 'under 1 %' : chance > 0.99 ? 'over 99 %' : say(chance);

/**
 * The one word for a chance: likely is more likely than not.
 * @example likelihood(0.49) is `possible`
 * @param chance 0 … 1
 */
export const likelihood = (chance: number): 'likely' | 'possible' => (chance >= 0.5 ? 'likely' : 'possible');
