import { z } from 'zod';
import type { SeasonFit } from '../../climate/windows';
import type { Group } from '../../vocabulary/kind';
import type { Reserves, Situation, Vigour } from '../../vocabulary/words';
import type { Values } from '../../values/values';
import type { Temper } from './plan';

export type AllowanceGroup = Group | 'landscape';

export interface AllowanceInput {
	group: AllowanceGroup;
	temper: Temper;
	vigour: Vigour;
	reserves: Reserves;
	seasonFit: SeasonFit;
}

export const allowanceOutput = z.object({
	share: z.number().describe('Living absorbing share that may come off in one session'),
	base: z.number(),
	vigourFactor: z.number(),
	seasonFactor: z.number(),
	reservesFactor: z.number()
});
export type Allowance = z.infer<typeof allowanceOutput>;

/** A big tree standing in the ground is judged more strictly than its kind in a pot. */
export const allowanceGroup = (
	group: Group,
	situation: Situation,
	trunkDiameterMm: number,
	values: Values
): AllowanceGroup =>
	situation === 'in-ground' && trunkDiameterMm >= values['landscape.trunkFromMm'] ? 'landscape' : group;

/** Living share that may come off in one session: base of group and temper × vigour × season × reserves. */
export function allowance(input: AllowanceInput, values: Values): Allowance {
	const base = values[`allowance.${input.group}.${input.temper}`];
	const vigourFactor = values[`vigour.${input.vigour}`];
	const seasonFactor = values[`season.${input.seasonFit}`];
	const reservesFactor = values[`reserves.${input.reserves}`];
	return {
		share: base * vigourFactor * seasonFactor * reservesFactor,
		base,
		vigourFactor,
		seasonFactor,
		reservesFactor
	};
}
