import { crossSectionMm2, type Pot } from '../pots/volume';

/** A pot, or only a depth where its shape does not matter. */
export type MixPot = Pot | { depthMm: number };

/** Open area at a height, mm²; a square metre where only a depth is known. */
export const potCrossSection = (pot: MixPot, heightMm: number): number =>
	'depthMm' in pot ? 1e6 : crossSectionMm2(pot, heightMm);
