import { z } from 'zod';

/** An interval for a share. */
export const intervalOutput = z.object({
	low: z.number().describe('Lower bound, 0 to 1'),
	high: z.number().describe('Upper bound, 0 to 1')
});

/**
 * Wilson's score interval for a share.
 * @param successes whole number, 0 ≤ successes ≤ trials
 * @param trials whole number ≥ 1
 * @param z standard normal quantile, 1.959964 for 95 %
 * @returns lower and upper bound, each in [0, 1]
 * @throws RangeError when the counts are not possible
 * @see Wilson 1927, J. Am. Stat. Assoc. 22; checked against Newcombe 1998
 * @example wilsonInterval(81, 263) is about { low: 0.2553, high: 0.3662 }
 */
export function wilsonInterval(
	successes: number,
	trials: number,
	z = 1.959963984540054
): z.infer<typeof intervalOutput> {
	if (!Number.isInteger(trials) || trials < 1)
		throw new RangeError('trials must be a whole number of at least 1');
	if (!Number.isInteger(successes) || successes < 0 || successes > trials)
		throw new RangeError('successes must be a whole number from 0 to trials');
	const share = successes / trials;
	const z2 = z * z;
	const centre = (share + z2 / (2 * trials)) / (1 + z2 / trials);
	const half =
		(z / (1 + z2 / trials)) * Math.sqrt((share * (1 - share)) / trials + z2 / (4 * trials * trials));
	return { low: Math.max(0, centre - half), high: Math.min(1, centre + half) };
}
