import {
	seasonPhases,
	type SeasonPhase,
	recentEvents,
	type RecentEvent
} from '../../vocabulary/season-and-events';
import { z } from 'zod';
import { addDays, within, yearOf } from '../../maths/calendar';
import { growingSeason, type PlaceClimate } from '../../climate/normals';
import { measure, oneOf } from '../../vocabulary/fields';
import { conditionIds, type ConditionId } from '../../vocabulary/conditions';
import { bearsAlways, groups, isTender, type Kind } from '../../vocabulary/kind';
import { situations, type Situation } from '../../vocabulary/words';
import type { Values } from '../../values/values';

/** What befell a tree in the weeks before, each at most once. */
export const eventsSchema = z
	.array(oneOf(recentEvents))
	.max(recentEvents.length)
	.default([])
	.refine((events) => new Set(events).size === events.length, {
		error: 'must name each event at most once'
	});

/** What is known of a tree before anything is looked at; null where it is not known. */
export const diagnosisContext = z.strictObject({
	situation: oneOf(situations),
	group: oneOf(groups).nullable().default(null),
	season: oneOf(seasonPhases).nullable().default(null),
	bareAtRest: z
		.boolean()
		.optional()
		.describe('Whether its kind bears no leaves at rest, as a larch bears none; left out: as its group does'),
	events: eventsSchema,
	before: z
		.array(
			z.strictObject({
				conditionId: oneOf(conditionIds as unknown as readonly [ConditionId, ...ConditionId[]]),
				times: measure(0.0001, 10_000, '×')
			})
		)
		.max(60)
		.optional()
		.describe('What an earlier look leaves: factors on the usual odds of causes')
});
export type DiagnosisContext = z.infer<typeof diagnosisContext>;

/**
 * Where a kind stands in its year at a place on a day: at rest outside its growing season, in its first flush for the
 * first weeks of it, growth ending in the last weeks.
 */
export function seasonPhase(
	kind: Pick<Kind, 'group' | 'coldestC'>,
	place: PlaceClimate,
	date: string,
	values: Values
): SeasonPhase {
	const weeks = (key: 'diagnosis.flush-weeks' | 'diagnosis.ending-weeks'): number =>
		Math.round(7 * values[key]);
	for (const year of [yearOf(date) - 1, yearOf(date)]) {
		const season = growingSeason(place, isTender(kind), year, values);
		if (!season || !within(date, season)) continue;
		// Where growth never stops there is neither a first flush nor an end to it.
		if (addDays(season.from, 360) <= season.to) return 'summer';
		if (date < addDays(season.from, weeks('diagnosis.flush-weeks'))) return 'flush';
		if (date > addDays(season.to, -weeks('diagnosis.ending-weeks'))) return 'autumn';
		return 'summer';
	}
	return 'rest';
}

/** The context of a tree on a day, as the app knows it. */
export const contextOf = (
	{
		tree,
		kind,
		place
	}: {
		tree: { situation: Situation };
		kind: Pick<Kind, 'group' | 'genus' | 'coldestC'>;
		place: PlaceClimate | null;
	},
	date: string,
	events: readonly RecentEvent[],
	values: Values,
	before: NonNullable<DiagnosisContext['before']> = []
): DiagnosisContext => ({
	situation: tree.situation,
	group: kind.group,
	bareAtRest: !bearsAlways(kind),
	season: place ? seasonPhase(kind, place, date, values) : null,
	events: [...events],
	...(before.length > 0 && { before: [...before] })
});
