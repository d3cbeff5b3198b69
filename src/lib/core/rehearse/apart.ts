import { z } from 'zod';
import type { Values } from '../values/values';

/** Two plans against each other, future by future. */
export const apartOutput = z.object({
	a: z.number().describe('index of a plan, from 0'),
	b: z.number().describe('index of the other, from 0'),
	aBetter: z
		.number()
		.describe('share of futures in which it is better beyond what counts as the same, 0 to 1'),
	bBetter: z.number().describe('share of futures in which the other is, 0 to 1'),
	gap: z.number().describe('mean gap of what they are worth, a less b, share'),
	error: z.number().describe('standard error of the gap, share'),
	differ: z.boolean().describe('They differ beyond what chance would make of two plans alike')
});
export type Apart = z.infer<typeof apartOutput>;

/**
 * Whether two plans differ: by their gap in each future, which takes away the luck that both share (paired comparison under common
 * random numbers).
 * @param a, b indexes of the plans, from 0
 * @param ofA, ofB what each came to, by future
 */
export function apart(
	a: number,
	b: number,
	ofA: readonly { worth: number }[],
	ofB: readonly { worth: number }[],
	values: Values
): Apart {
	const gaps = ofA.map((end, i) => end.worth - (ofB[i]?.worth ?? 0));
	const count = Math.max(1, gaps.length);
	const gap = gaps.reduce((sum, one) => sum + one, 0) / count;
	const variance = gaps.reduce((sum, one) => sum + (one - gap) ** 2, 0) / Math.max(1, count - 1);
	const error = Math.sqrt(variance / count);
	const least = values['rehearse.apart'];
	return {
		a,
		b,
		aBetter: gaps.filter((one) => one > least).length / count,
		bBetter: gaps.filter((one) => one < -least).length / count,
		gap,
		error,
		differ: Math.abs(gap) > Math.max(values['rehearse.gapLeast'], values['rehearse.sure'] * error)
	};
}
