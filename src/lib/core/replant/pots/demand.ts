import type { Values } from '../../values/values';

export interface DemandInput {
	/** Reference evapotranspiration, mm a day. */
	et0Mm: number;
	/** Ground the crown covers, m²; 0 while leafless. */
	crownM2: number;
	/** Root function, 0 … 1: what is left of the roots that drink. */
	rootFunction: number;
	/** Open surface of the mix, m². */
	surfaceM2: number;
}

/**
 * What a potted tree takes from its mix in a day, litres: the crown by its ground cover and its root function, the open
 * surface by a share of ET₀ [our own factors].
 */
export function dailyDemandL(
	{ et0Mm, crownM2, rootFunction, surfaceM2 }: DemandInput,
	values: Values
): { transpirationL: number; evaporationL: number } {
	return {
		transpirationL: et0Mm * crownM2 * values['water.crownFactor'] * rootFunction,
		evaporationL: et0Mm * surfaceM2 * values['water.surfaceFactor']
	};
}

/** Ground that a round crown of a width covers, m². */
export const crownCoverM2 = (crownWidthMm: number): number => Math.PI * (crownWidthMm / 2000) ** 2;

/** Width of the crown where it was not measured, mm: from the height, else from the trunk. */
export const usualCrownWidthMm = (
	{ heightM, trunkDiameterMm }: { heightM: number | null; trunkDiameterMm: number },
	values: Values
): number =>
	heightM !== null
		? heightM * 1000 * values['pot.crownShare']
		: trunkDiameterMm * values['water.crownPerTrunk'];
