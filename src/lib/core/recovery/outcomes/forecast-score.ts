import { z } from 'zod';
import { wilsonInterval } from '../../maths/wilson';

/** A probability that was said, and what came of it. */
export interface Said {
	probability: number;
	happened: boolean;
}

/**
 * Brier score: mean squared difference of what was said and what came; 0 is perfect, 0.25 is what saying a half each time earns.
 * @returns 0 … 1; null when nothing was said
 * @see Brier 1950
 */
export const brierScore = (said: readonly Said[]): number | null =>
	said.length === 0
		? null
		: said.reduce((sum, one) => sum + (one.probability - (one.happened ? 1 : 0)) ** 2, 0) / said.length;

/** Score against always saying the share that happened: over 0 it knew more than that. Null where all went one way. */
export function brierSkill(said: readonly Said[]): number | null {
	const score = brierScore(said);
	const share = said.filter((one) => one.happened).length / said.length;
	const plain = share * (1 - share);
	return score === null || plain === 0 ? null : 1 - score / plain;
}

export const reliabilityBinOutput = z.object({
	from: z.number(),
	to: z.number(),
	count: z.number(),
	said: z.number().describe('Mean of what was said, share that came, and its 95 % interval'),
	came: z.number(),
	low: z.number(),
	high: z.number()
});
export type ReliabilityBin = z.infer<typeof reliabilityBinOutput>;

/** What was said against what came, by bins of a fifth; empty bins are left out. @see Murphy & Winkler 1977 */
export function reliability(said: readonly Said[], bins = 5): ReliabilityBin[] {
	return Array.from({ length: bins }, (_, i) => [i / bins, (i + 1) / bins] as const).flatMap(
		([from, to], i) => {
			const list = said.filter(
				({ probability }) => probability >= from && (probability < to || (i === bins - 1 && probability <= 1))
			);
			if (list.length === 0) return [];
			const came = list.filter((one) => one.happened).length;
			const { low, high } = wilsonInterval(came, list.length);
			return [
				{
					from,
					to,
					count: list.length,
					said: list.reduce((sum, one) => sum + one.probability, 0) / list.length,
					came: came / list.length,
					low,
					high
				}
			];
		}
	);
}
