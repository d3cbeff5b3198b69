import { z } from 'zod';
import { Z95 } from '../../maths/normal';

/** How long a case took, and whether it ended in what is counted or was only followed so far. */
export interface Follow {
	days: number;
	/** True when it happened; false when it was followed to this day and had not (yet). */
	happened: boolean;
}

export const survivalStepOutput = z.object({
	days: z.number(),
	atRisk: z.number(),
	happened: z.number(),
	share: z.number().describe('Share for which it has not happened'),
	low: z.number().describe('95 % interval by the log-log of the share'),
	high: z.number()
});
export type SurvivalStep = z.infer<typeof survivalStepOutput>;

/**
 * Kaplan–Meier estimate: the share for which it has not happened by a day, with those who are still followed counted as long as
 * they were. Greenwood’s variance, on the log-log scale so that the interval stays within 0 and 1.
 * @see Kaplan & Meier 1958; Kalbfleisch & Prentice 1980 for the interval
 * @example the 6-MP arm of Freireich et al. 1963: 0.857 after 6 weeks, 0.448 after 23
 */
export function kaplanMeier(follows: readonly Follow[]): SurvivalStep[] {
	const times = [...new Set(follows.filter((one) => one.happened).map((one) => one.days))].sort(
		(a, b) => a - b
	);
	const steps: SurvivalStep[] = [];
	let share = 1;
	let greenwood = 0;
	for (const days of times) {
		const atRisk = follows.filter((one) => one.days >= days).length;
		const happened = follows.filter((one) => one.happened && one.days === days).length;
		share *= 1 - happened / atRisk;
		greenwood += atRisk > happened ? happened / (atRisk * (atRisk - happened)) : Infinity;
		let [low, high] = [0, 1];
		if (share > 0 && share < 1) {
			const half = (Z95 * Math.sqrt(greenwood)) / Math.abs(Math.log(share));
			low = share ** Math.exp(half);
			high = share ** Math.exp(-half);
		} else if (share === 0) high = steps.at(-1)?.high ?? 1;
		steps.push({ days, atRisk, happened, share, low, high });
	}
	return steps;
}

/** Days by which it has happened for half; null when it has for fewer. */
export const medianDays = (steps: readonly SurvivalStep[]): number | null =>
	steps.find((step) => step.share <= 0.5)?.days ?? null;
