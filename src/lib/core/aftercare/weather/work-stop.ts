import { z } from 'zod';
import type { Kind } from '../../vocabulary/kind';
import { coldLimit, type NewShoots } from '../../climate/cold-limit';
import type { Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import { guardKinds, limitsOf, warningsFor, type GuardKind } from './guards';
import type { SeriesDay } from '../../climate/series';

export const workStopOutput = z.object({
	on: z.string(),
	kind: z.enum(guardKinds),
	figure: z.number().describe('What is forecast or was measured, in °C, m/s or kPa'),
	limit: z.number().describe('What it stands, in the same unit')
});
export type WorkStop = z.infer<typeof workStopOutput>;

/**
 * What speaks against root work today: days from today on that would be beyond what the tree stands with freshly cut roots.
 * Only what is forecast or measured counts; the usual climate is judged by the window of the kind.
 * @param days today and the days ahead
 */
export function workStops(
	tree: Pick<Tree, 'id' | 'tag' | 'situation'>,
	kind: Pick<Kind, 'group' | 'coldestC'>,
	newShoots: NewShoots,
	days: readonly SeriesDay[],
	values: Values
): WorkStop[] {
	const on = days[0]?.on ?? '';
	const limits = limitsOf(
		{
			id: tree.id,
			tag: tree.tag,
			cold: coldLimit(
				{ kind, place: null, lastCutOn: on, inGround: tree.situation === 'in-ground', newShoots },
				on,
				values
			),
			// As it will be after the work, whatever it is now.
			rootFunction: 0,
			tipsMs: null
		},
		values
	);
	const known = days.filter((day) => day.how === '').slice(0, values['guard.workDays']);
	const first = new Map<GuardKind, WorkStop>();
	for (const { kind: danger, on, figure, trees } of warningsFor(known, [limits])) {
		const limit = trees[0]?.limit;
		if (limit !== undefined && !first.has(danger)) first.set(danger, { on, kind: danger, figure, limit });
	}
	return [...first.values()];
}
