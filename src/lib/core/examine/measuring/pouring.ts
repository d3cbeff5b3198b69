import { z } from 'zod';
import { measure } from '../../vocabulary/fields';
import type { Values } from '../../values/values';

export const outflowData = z
	.strictObject({
		pouredL: measure(0.01, 500, 'L'),
		ranOutL: measure(0, 500, 'L'),
		firstDripS: measure(0, 7200, 's')
			.nullable()
			.default(null)
			.describe('Seconds to the first drip; null when not timed')
	})
	.refine((pour) => pour.ranOutL <= pour.pouredL, {
		path: ['ranOutL'],
		error: 'must not be more than was poured'
	});
export type OutflowData = z.infer<typeof outflowData>;

export const outflowOutput = z.object({
	share: z.number(),
	keptL: z.number(),
	channels: z.number().nullable().describe('1 channels through, 0 does not, null when it lies between'),
	advice: z.string()
});
export type OutflowResult = z.infer<typeof outflowOutput>;

/** What ran out of what was poured, and whether it channelled past the roots. */
export function outflow({ pouredL, ranOutL, firstDripS }: OutflowData, values: Values): OutflowResult {
	const share = ranOutL / pouredL;
	const quick = firstDripS === null || firstDripS <= values['measuring.first-drip-s'];
	const much = share >= values['measuring.channelling'];
	return {
		share,
		keptL: pouredL - ranOutL,
		channels:
			much && quick
				? 1
				: share <= values['measuring.outflow-most'] * values['measuring.no-channel-times']
					? 0
					: null,
		advice: much
			? 'Pour a fifth, wait ten minutes, pour the rest; or soak it from below, twice.'
			: share < values['measuring.outflow-least']
				? 'Pour until a tenth to a fifth runs through, or salts stay behind.'
				: share <= values['measuring.outflow-most']
					? 'As it should be.'
					: 'Pour less at once, more slowly, over the whole surface.'
	};
}

export const drainTimeData = z.strictObject({
	minutes: measure(0, 1440, 'min').describe('From pouring until no water stands')
});
export type DrainTimeData = z.infer<typeof drainTimeData>;

/** Grade of standing water by the minutes until it has sunk. */
export const drainGrade = ({ minutes }: DrainTimeData, values: Values): number =>
	minutes >= values['measuring.stands-min'] ? 2 : minutes > values['measuring.sinks-min'] ? 1 : 0;
