import type { TreeGroundWater } from './ground-water';
import type { Values } from '../values/values';

/** What is said of the water of a tree in the ground. */
export const groundSayings = {
	first: 'Give it its first water: soak the ground over its roots',
	unknown: 'Not known: nobody measures the rain here; feel it',
	none: 'No water needed as far as the weather is known',
	feel: 'Feel it before any water',
	perhaps: 'Feel it first; if it is dry, water it',
	ball: 'Water it now',
	zone: 'Its root zone is dry: soak it',
	rain: 'The ground is dry; with its roots whole it can wait for rain',
	later: ''
} as const;
export type GroundSaying = keyof typeof groundSayings;

/**
 * What is said of the water of a tree in the ground, and whether an amount is advised: none of one whose water nobody knows, nor where
 * what presses asks for less water.
 * @param lessWater what its last look says to act on asks for less water
 */
export function groundSays(
	{
		known,
		firstWaterOwed,
		how,
		next,
		course,
		rainPerhaps
	}: Pick<TreeGroundWater, 'known' | 'firstWaterOwed' | 'how' | 'next' | 'course' | 'rainPerhaps'>,
	lessWater: boolean,
	today: string,
	values: Values
): { saying: GroundSaying; amounts: boolean } {
	if (firstWaterOwed) return { saying: 'first', amounts: false };
	if (!known) return { saying: 'unknown', amounts: false };
	if (next.on === null) return { saying: 'none', amounts: false };
	if (next.on > today) return { saying: 'later', amounts: !lessWater };
	if (lessWater) return { saying: 'feel', amounts: false };
	if (rainPerhaps) return { saying: 'perhaps', amounts: true };
	if (how === 'planted') return { saying: 'ball', amounts: true };
	return (course.at(-1)?.phi ?? 1) < values['water.groundHurt']
		? { saying: 'zone', amounts: true }
		: { saying: 'rain', amounts: true };
}
