import { type Texture } from '../../vocabulary/textures';
import { z } from 'zod';
import { measure, oneOf } from '../../vocabulary/fields';

export const feelings = ['gritty', 'smooth', 'neither'] as const;

/** What the hand says of a moist pinch of soil. */
export const feelAnswers = z.strictObject({
	ball: z
		.boolean({ error: 'must be yes or no' })
		.describe('A moist handful stays together when squeezed and let go'),
	ribbonMm: measure(0, 200, 'mm').describe(
		'Length of the ribbon pressed out between thumb and finger before it breaks'
	),
	feel: oneOf(feelings).describe('A pinch wetted in the palm and rubbed')
});
export type FeelAnswers = z.infer<typeof feelAnswers>;

/** The steps of the key, in order, in plain words. */
export const feelSteps = [
	'Wet a spoonful of soil, knead it to putty without lumps, and squeeze it into a ball.',
	'Press it between thumb and finger into a ribbon; measure it when it breaks by its own weight.',
	'Wet a pinch in the palm until it is thin and rub it: gritty like sugar, smooth like flour, or neither.'
] as const;

/**
 * Texture by feel: ball or not, length of the ribbon, then gritty or smooth.
 * @see Thien 1979, A flow diagram for teaching texture-by-feel analysis, J. Agron. Educ. 8:54–55 [from memory: ribbon
 * limits of 1 and 2 inches]
 * @example textureByFeel({ ball: true, ribbonMm: 20, feel: 'smooth' }) is 'silt-loam'
 */
export function textureByFeel({ ball, ribbonMm, feel }: FeelAnswers): Texture {
	if (!ball) return 'sand';
	if (ribbonMm < 3) return 'loamy-sand';
	const row: Record<(typeof feelings)[number], Texture> =
		ribbonMm < 25
			? { gritty: 'sandy-loam', smooth: 'silt-loam', neither: 'loam' }
			: ribbonMm <= 50
				? { gritty: 'sandy-clay-loam', smooth: 'silty-clay-loam', neither: 'clay-loam' }
				: { gritty: 'sandy-clay', smooth: 'silty-clay', neither: 'clay' };
	return row[feel];
}
