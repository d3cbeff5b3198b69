import { z } from 'zod';
import { measure, oneOf } from '../fields/fields';

/** The twelve texture classes of the USDA triangle. */
export const textures = [
	'sand',
	'loamy-sand',
	'sandy-loam',
	'loam',
	'silt-loam',
	'silt',
	'sandy-clay-loam',
	'clay-loam',
	'silty-clay-loam',
	'sandy-clay',
	'silty-clay',
	'clay'
] as const;
export type Texture = (typeof textures)[number];

export interface TextureClass {
	label: string;
	/** Typical sand and clay, % by mass: Saxton & Rawls 2006, Table 3 [from memory but for the five of the handbook]. */
	sandPercent: number;
	clayPercent: number;
}

export const textureClasses: Record<Texture, TextureClass> = {
	sand: { label: 'sand', sandPercent: 88, clayPercent: 5 },
	'loamy-sand': { label: 'loamy sand', sandPercent: 80, clayPercent: 5 },
	'sandy-loam': { label: 'sandy loam', sandPercent: 65, clayPercent: 10 },
	loam: { label: 'loam', sandPercent: 40, clayPercent: 20 },
	'silt-loam': { label: 'silt loam', sandPercent: 20, clayPercent: 15 },
	silt: { label: 'silt', sandPercent: 10, clayPercent: 5 },
	'sandy-clay-loam': { label: 'sandy clay loam', sandPercent: 60, clayPercent: 25 },
	'clay-loam': { label: 'clay loam', sandPercent: 30, clayPercent: 35 },
	'silty-clay-loam': { label: 'silty clay loam', sandPercent: 10, clayPercent: 35 },
	'sandy-clay': { label: 'sandy clay', sandPercent: 50, clayPercent: 40 },
	'silty-clay': { label: 'silty clay', sandPercent: 10, clayPercent: 45 },
	clay: { label: 'clay', sandPercent: 25, clayPercent: 50 }
};

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
