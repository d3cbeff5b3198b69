import { z } from 'zod';
import type { Values } from '../../values/values';

export const ballMassOutput = z.object({
	leastVolumeL: z.number().describe('From half-ellipsoid to cylinder'),
	mostVolumeL: z.number(),
	leastKg: z.number(),
	usualKg: z.number(),
	mostKg: z.number(),
	people: z.number().describe('People for the usual mass at what one person lifts at best')
});
export type BallMass = z.infer<typeof ballMassOutput>;

/**
 * How many hands a mass needs, in words; beyond what can stand round a ball, a machine.
 * @param people how many lift together
 */
export const handsFor = (people: number, values: Values): string =>
	people > values['lifting.people-most']
		? 'a machine'
		: people === 1
			? 'one person'
			: `${people} people or a machine`;

/**
 * Volume and mass of a root ball, from the half-ellipsoid in light soil to the cylinder in wet clay; the usual one lies
 * half way between the shapes at the usual density.
 * @example 24 in × 16 in is 2.79 ft³ to 4.19 ft³; at 110 lb/ft³ 307 to 461 lb
 */
export function ballMass(diameterMm: number, depthMm: number, values: Values): BallMass {
	const cylinderL = (Math.PI * (diameterMm / 200) ** 2 * depthMm) / 100;
	const least = cylinderL * values['lifting.shape-least'];
	const usualKg = ((least + cylinderL) / 2) * values['lifting.density'];
	return {
		leastVolumeL: least,
		mostVolumeL: cylinderL,
		leastKg: least * values['lifting.density-least'],
		usualKg,
		mostKg: cylinderL * values['lifting.density-most'],
		people: Math.max(1, Math.ceil(usualKg / values['triage.person-kg']))
	};
}
