import { z } from 'zod';
import type { Values } from '../../values/values';

export const rootProtectionAreaOutput = z.object({
	radiusM: z.number(),
	areaM2: z.number()
});

/**
 * Root protection area of a standing tree: a circle of 12 × stem diameter, capped at 707 m².
 * @param stemDiameterM stem diameter at 1.5 m, in m
 * @see BS 5837:2012, 4.6.1
 */
export function rootProtectionArea(
	stemDiameterM: number,
	values: Values
): z.infer<typeof rootProtectionAreaOutput> {
	const uncappedM2 = Math.PI * (values['ground.rpaFactor'] * stemDiameterM) ** 2;
	const areaM2 = Math.min(values['ground.rpaCapM2'], uncappedM2);
	return { radiusM: Math.sqrt(areaM2 / Math.PI), areaM2 };
}

/**
 * Structural root zone radius, 0.64 (50 D)^0.42 m, not under 1.5 m.
 * @param stemDiameterM diameter above the flare, in m
 * @see AS 4970-2009, 3.3.5
 * @example structuralRootZoneRadiusM(0.5) is about 2.47 m
 */
export const structuralRootZoneRadiusM = (stemDiameterM: number, values: Values): number =>
	Math.max(values['ground.srzLeastM'], 0.64 * (50 * stemDiameterM) ** 0.42);
