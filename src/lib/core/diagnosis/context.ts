import { z } from 'zod';
import { addDays, within, yearOf } from '../climate/calendar';
import { growingSeason, type PlaceClimate } from '../climate/normals';
import { measure, oneOf } from '../fields/fields';
import { conditionIds, type ConditionId } from './conditions';
import { groups, isTender, type Kind } from '../kinds/kind';
import { situations, type Situation } from '../tree/tree';
import type { Values } from '../values/values';

/** Where a tree stands in its year. */
export const seasonPhases = ['rest', 'flush', 'summer', 'autumn'] as const;
export type SeasonPhase = (typeof seasonPhases)[number];
export const seasonPhaseNames: Record<SeasonPhase, string> = {
	rest: 'at rest',
	flush: 'in its first flush',
	summer: 'in full growth',
	autumn: 'growth ending'
};

/** What befell it in the last weeks and makes some causes likelier before anything is looked at. */
export const recentEvents = [
	'bought',
	'repotted',
	'moved',
	'dug',
	'cold-night',
	'hot-spell',
	'long-rain'
] as const;
export type RecentEvent = (typeof recentEvents)[number];
export const isRecentEvent = (word: unknown): word is RecentEvent =>
	(recentEvents as readonly unknown[]).includes(word);
export const recentEventNames: Record<RecentEvent, string> = {
	bought: 'just bought',
	repotted: 'repotted',
	moved: 'moved',
	dug: 'dug or root-cut',
	'cold-night': 'a cold night',
	'hot-spell': 'a hot spell',
	'long-rain': 'long rain'
};

/** What is known of a tree before anything is looked at; null where it is not known. */
export const diagnosisContext = z.strictObject({
	situation: oneOf(situations),
	group: oneOf(groups).nullable().default(null),
	season: oneOf(seasonPhases).nullable().default(null),
	events: z
		.array(oneOf(recentEvents))
		.max(recentEvents.length)
		.default([])
		.refine((events) => new Set(events).size === events.length, {
			error: 'must name each event at most once'
		}),
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
	tree: { situation: Situation },
	kind: Pick<Kind, 'group' | 'coldestC'>,
	place: PlaceClimate | null,
	date: string,
	events: readonly RecentEvent[],
	values: Values,
	before: NonNullable<DiagnosisContext['before']> = []
): DiagnosisContext => ({
	situation: tree.situation,
	group: kind.group,
	season: place ? seasonPhase(kind, place, date, values) : null,
	events: [...events],
	...(before.length > 0 && { before: [...before] })
});
