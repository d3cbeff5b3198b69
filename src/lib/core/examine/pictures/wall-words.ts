import { z } from 'zod';
import type { Point2 } from './point';

/** What is told apart on a wall of roots. */
export const wallClasses = ['white', 'brown', 'none'] as const;
export type WallClass = (typeof wallClasses)[number];

/** What was touched of a picture of a wall, px. */
export interface WallTold {
	/** Round the wall; the whole picture where these are fewer than three. */
	edge: readonly Point2[];
	touches: Readonly<Record<WallClass, readonly Point2[]>>;
}

/** A share with the range in which it lies in 95 of 100. */
const shareRange = z.object({
	share: z.number().describe('Of the wall, 0 to 1'),
	low: z.number().describe('In 95 of 100 no less'),
	high: z.number().describe('In 95 of 100 no more')
});
export type ShareRange = z.infer<typeof shareRange>;

/** Roots on a wall, as they were read; what is unlike all three is none of them. */
export const wallReadOutput = z.object({
	shares: z.object({ white: shareRange, brown: shareRange, none: shareRange }),
	unlike: z.number().describe('Share of the wall unlike all that was touched, 0 to 1'),
	mistaken: z.number().describe('Share of one touch that reads as another of the three, 0 to 1'),
	sample: z
		.object({
			white: z.number().describe('White ones, count'),
			brown: z.number().describe('Brown ones, count')
		})
		.describe('What the roots seen are worth as roots drawn at random: neighbours tell nearly the same')
});
