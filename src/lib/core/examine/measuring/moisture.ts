import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { oneOf, share } from '../../vocabulary/fields';
import type { Values } from '../../values/values';

/** How mix or soil feels a finger deep. */
export const feelNames = {
	wet: 'wet: it shines, sticks to the finger',
	damp: 'damp: cool, holds together',
	drying: 'drying: hardly cool, crumbles',
	dry: 'dry: warm, dusty, shrunk or cracked'
};
/** Where it is felt or probed, of a tree in the ground and of one that is not. */
export const whereToFeel = (inGround: boolean): string =>
	inGround
		? 'A finger deep at the bottom of a hole a hand deep, halfway between the trunk and the edge of the crown; or push a probe in there.'
		: 'A finger deep into the mix, halfway between trunk and rim; or push a probe in there.';
export type Feel = keyof typeof feelNames;
export const feels = wordsOf(feelNames);

export const moistureData = z
	.strictObject({
		feel: oneOf(feels).nullable().default(null).describe('Felt a finger deep; null when not felt'),
		probeShare: share()
			.nullable()
			.default(null)
			.describe('Water as a share of the volume, where a probe was pushed in')
	})
	.refine((data) => data.feel !== null || data.probeShare !== null, {
		path: ['probeShare'],
		error: 'must be felt, or a probe read'
	});
export type MoistureData = z.infer<typeof moistureData>;

/**
 * Dryness of a pot as the finger tells it, 0 drained … 1 dry [our own].
 * @returns 0 drained … 1 dry
 */
export const feltDryness = (feel: Feel, values: Values): number => values[`water.felt.${feel}`];
