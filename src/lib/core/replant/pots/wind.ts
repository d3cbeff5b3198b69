import type { Pot } from './volume';
import type { Values } from '../../values/values';

/** Crown and base of a tree in a pot, where only its height is known. */
export function crownOf(
	heightM: number,
	pot: Pick<Pot, 'bottomLengthMm' | 'bottomWidthMm' | 'heightMm'>,
	values: Values
): Omit<TippingInput, 'massKg'> {
	return {
		baseWidthMm: Math.min(pot.bottomLengthMm, pot.bottomWidthMm),
		crownAreaM2: (heightM * values['pot.crownShare']) ** 2,
		crownMiddleM: pot.heightMm / 1000 + heightM * values['pot.crownMiddle']
	};
}

export interface TippingInput {
	/** Tree, ball, mix, water and pot together. */
	massKg: number;
	/** Narrowest width of the base. */
	baseWidthMm: number;
	/** Outline of the crown against the wind, and the height of its middle over the ground. */
	crownAreaM2: number;
	crownMiddleM: number;
}

/**
 * Wind at which a free-standing pot tips: where the push on the crown turns it over the edge of its base.
 * v = √(2 m g (b/2) / (ρ C_d A h)), ρ 1.25 kg/m³
 * @returns m/s
 * @example 40 kg on a base of 300 mm, a crown of 0.5 m² at 1 m: about 16 m/s
 */
export function tippingWindMs(
	{ massKg, baseWidthMm, crownAreaM2, crownMiddleM }: TippingInput,
	values: Values
): number {
	const holds = massKg * 9.81 * (baseWidthMm / 2000);
	return Math.sqrt((2 * holds) / (1.25 * values['pot.crownDrag'] * crownAreaM2 * crownMiddleM));
}
