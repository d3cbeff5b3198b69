import { z } from 'zod';
import type { Values } from '../../values/values';

export const couplings = ['good', 'fair', 'poor'] as const;
export type Coupling = (typeof couplings)[number];

export interface LiftInput {
	/** Hands from the middle between the ankles, level, cm. */
	reachCm: number;
	/** Height of the hands at the start, and how far up or down it goes, cm. */
	startCm: number;
	travelCm: number;
	/** How far the body is twisted, degrees. */
	twistDeg: number;
	coupling: Coupling;
}

const multiplier = z.number().describe('0 … 1');
export const liftLimitOutput = z.object({
	kg: z.number(),
	factors: z.object({
		reach: multiplier,
		height: multiplier,
		travel: multiplier,
		twist: multiplier,
		hold: multiplier
	})
});

/**
 * What one person may lift: 23 kg × HM × VM × DM × AM × FM × CM, seldom lifts (FM 1).
 * @returns kg, and each multiplier; 0 where the hands are too far away, too high or too twisted
 * @see Waters et al. 1993, Ergonomics 36: revised NIOSH lifting equation
 * @example hands at 25 cm, 75 cm high, 25 cm up, no twist, good hold → 23 kg
 */
export function liftLimit(
	{ reachCm, startCm, travelCm, twistDeg, coupling }: LiftInput,
	values: Values
): z.infer<typeof liftLimitOutput> {
	const factors = {
		reach: reachCm > 63 ? 0 : Math.min(1, 25 / Math.max(25, reachCm)),
		height: startCm > 175 ? 0 : 1 - 0.003 * Math.abs(startCm - 75),
		travel: travelCm > 175 ? 0 : Math.min(1, 0.82 + 4.5 / Math.max(25, travelCm)),
		twist: twistDeg > 135 ? 0 : 1 - 0.0032 * twistDeg,
		hold: coupling === 'good' ? 1 : coupling === 'poor' ? 0.9 : startCm < 75 ? 0.95 : 1
	};
	const kg = Object.values(factors).reduce((product, factor) => product * factor, values['triage.person-kg']);
	return { kg, factors };
}

/** How far the hands are from the body with a ball in them, cm: half of it, and a little. */
export const reachWithBallCm = (diameterMm: number, values: Values): number =>
	diameterMm / 20 + values['lifting.body-gap-cm'];

export const liftWays = ['by hand', 'sling and poles', 'barrow or machine'] as const;

/** How a ball is moved, by what one person may lift. */
export function handling(
	massKg: number,
	personKg: number
): { people: number; way: (typeof liftWays)[number] } {
	const people = personKg > 0 ? Math.ceil(massKg / personKg) : Infinity;
	return { people, way: people <= 2 ? 'by hand' : people <= 4 ? 'sling and poles' : 'barrow or machine' };
}
