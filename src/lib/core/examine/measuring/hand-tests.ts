import { z } from 'zod';
import { oneOf, share } from '../../vocabulary/fields';
import type { Values } from '../../values/values';

export const slideResults = ['slides', 'crumbles', 'tight', 'stuck'] as const;
export const slideResultNames: Record<(typeof slideResults)[number], string> = {
	slides: 'slides out whole',
	crumbles: 'slides out, mix falls away',
	tight: 'comes with a knife round the wall',
	stuck: 'will not come'
};

export const slideTestData = z.strictObject({
	result: oneOf(slideResults),
	wallShare: share()
		.nullable()
		.default(null)
		.describe('Share of the wall that circling roots cover; null when not seen'),
	outOfHoles: z
		.boolean()
		.nullable()
		.default(null)
		.describe('Roots grow out of the holes; null where nobody looked')
});
export type SlideTestData = z.infer<typeof slideTestData>;

/** Grade of the mat of circling roots; null when the wall was not seen. */
export const matGrade = ({ wallShare }: SlideTestData, values: Values): number | null =>
	wallShare === null
		? null
		: wallShare >= values['measuring.mat-solid']
			? 2
			: wallShare >= values['measuring.mat-some']
				? 1
				: 0;

export const squeezeResults = ['crumbles', 'breaks', 'lump', 'drips'] as const;
export const squeezeResultNames: Record<(typeof squeezeResults)[number], string> = {
	crumbles: 'crumbles when the hand opens',
	breaks: 'holds, breaks at a push',
	lump: 'stays a lump',
	drips: 'stays a lump and drips'
};

export const squeezeTestData = z.strictObject({ result: oneOf(squeezeResults) });
export type SqueezeTestData = z.infer<typeof squeezeTestData>;

const squeezeGrades: Record<(typeof squeezeResults)[number], number> = {
	crumbles: 0,
	breaks: 1,
	lump: 2,
	drips: 2
};
/** Grade of a mix that stays a lump. */
export const squeezeGrade = ({ result }: SqueezeTestData): number => squeezeGrades[result];
