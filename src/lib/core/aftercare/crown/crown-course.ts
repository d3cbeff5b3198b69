import { z } from 'zod';
import { wordsOf } from '../../vocabulary/words-of';
import type { CrownSchool } from '../../vocabulary/words';
import type { Values } from '../../values/values';
import { crownSupply } from './crown';

export const crownShapeNames = {
	round: 'round',
	cone: 'pointed, like a cone',
	column: 'even all the way up'
};
export type CrownShape = keyof typeof crownShapeNames;
export const crownShapes = wordsOf(crownShapeNames);

/** Supply and demand of one stage; shares of the crown as it stands before the first. */
export const crownStageOutput = z.object({
	stage: z.number(),
	supplyBefore: z.number(),
	supplyAfter: z.number(),
	demandBefore: z
		.number()
		.describe('What the crown standing asks for before the stage and after it, by the school'),
	demandAfter: z.number(),
	removeShare: z.number().describe('Taken off the crown that stands, by the balance school; 0 by the other'),
	holdTo: z
		.number()
		.describe(
			'To what part demand must be held down by shade and shelter, by the other school; 1 where there is no need'
		)
});
export type CrownStage = z.infer<typeof crownStageOutput>;

/**
 * Supply of the roots and demand of the crown before and after each stage. Between stages the share `stages.regrownShare`
 * of the lost roots grows back; a crown that was taken down is not counted back, which is cautious.
 * Balance: crown to remove = max(0, 1 − supply ÷ demand). Keep the leaves: demand is held down to the supply instead.
 * @param losses living share that each stage takes, of the whole map
 * @param begun living roots before the first stage, of what the crown had grown with: less than 1 after a lift
 */
export function crownCourse(
	losses: readonly number[],
	school: CrownSchool,
	values: Values,
	begun = 1
): CrownStage[] {
	let lost = 0;
	let standing = 1;
	return losses.map((loss, stage) => {
		const before = 1 - (1 - values['stages.regrownShare']) * lost;
		const supplyBefore = crownSupply(begun * before, values).supply;
		const supplyAfter = crownSupply(begun * (before - loss), values).supply;
		const demandBefore = standing;
		const short = demandBefore > 0 ? Math.max(0, 1 - supplyAfter / demandBefore) : 0;
		// Never more at once than a crown stands; shade and shelter hold the rest.
		const removeShare = school === 'balance' ? Math.min(short, values['crown.takeMost']) : 0;
		standing = demandBefore * (1 - removeShare);
		lost += loss;
		return {
			stage,
			supplyBefore,
			supplyAfter,
			demandBefore,
			demandAfter: standing,
			removeShare,
			holdTo: school === 'balance' ? (short > removeShare ? (1 - short) / (1 - removeShare) : 1) : 1 - short
		};
	});
}

/**
 * Share of the crown’s height to take off the top so that a share of its leaves goes, if nothing else is cut and leaves fill
 * the crown evenly. Round (an ellipsoid): share = f²(3 − 2f); cone: f³; column: f.
 * @param crownShare 0 … 1
 * @example a tenth of a round crown is the top 20 % of its height, of a cone the top 46 %
 */
export function heightForCrownShare(crownShare: number, shape: CrownShape): number {
	const share = Math.min(1, Math.max(0, crownShare));
	if (shape === 'column') return share;
	if (shape === 'cone') return Math.cbrt(share);
	let [low, high] = [0, 1];
	for (let i = 0; i < 60; i++) {
		const middle = (low + high) / 2;
		if (middle * middle * (3 - 2 * middle) < share) low = middle;
		else high = middle;
	}
	return (low + high) / 2;
}

/** Which wood goes first when the crown is taken down, best first [common practice, no source]. */
export const woodFirst: readonly { wood: string; why: string }[] = [
	{ wood: 'Dead and broken wood', why: 'feeds nothing; it does not count towards the share' },
	{ wood: 'Crossing and rubbing branches', why: 'one of each pair, the worse' },
	{ wood: 'Crowded inner and hanging shoots', why: 'little light, little to lose' },
	{ wood: 'Long ends, back to a side branch', why: 'spread over the whole crown, never all on one side' },
	{ wood: 'Whole branches', why: 'last, those over the side whose roots went' }
];
