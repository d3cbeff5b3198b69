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
export interface ShareRange {
	share: number;
	low: number;
	high: number;
}
