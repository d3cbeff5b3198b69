import type { Values } from '../../values/values';

/** What a mix is made for. */
export const mixAims = ['recovering', 'nursery'] as const;
export type MixAim = (typeof mixAims)[number];

/** Air and water that are wanted of a mix, shares of its volume after watering through. */
export interface MixRange {
	airFrom: number;
	airTo: number;
	waterFrom: number;
	waterTo: number;
}

/** What is wanted by aim: recovering roots ask for air above all; of water nothing is asked then. */
export const mixRanges = (values: Values): Record<MixAim, MixRange> => ({
	recovering: {
		airFrom: values['mix.recoveringAirFrom'],
		airTo: values['mix.recoveringAirTo'],
		waterFrom: 0,
		waterTo: 1
	},
	nursery: {
		airFrom: values['mix.airFrom'],
		airTo: values['mix.airTo'],
		waterFrom: values['mix.waterFrom'],
		waterTo: values['mix.waterTo']
	}
});

/**
 * Where a share stands against a range; its ends belong to it.
 * @param value, from, to all three in one unit
 */
export const againstRange = (value: number, from: number, to: number): 'below' | 'within' | 'above' =>
	value < from - 1e-9 ? 'below' : value > to + 1e-9 ? 'above' : 'within';
