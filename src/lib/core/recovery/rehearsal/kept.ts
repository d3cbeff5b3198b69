import { z } from 'zod';
import { calendarDate, count, id, measure, oneOf, share, version } from '../../vocabulary/fields';
import { wordsOf } from '../../vocabulary/words-of';
import { PLANS_MOST, rehearsedPlan } from './plan';

/** What a tree can die of in a rehearsal, as it is said. */
export const causeNames = {
	stood: 'how it stands already',
	drowned: 'drowned',
	dried: 'dried out',
	frost: 'frost',
	scorched: 'heat',
	roots: 'too little root',
	rot: 'rot that goes on',
	girdled: 'its trunk girdled'
};
export type DeathCause = keyof typeof causeNames;
export const deathCauses = wordsOf(causeNames);

const point = z.strictObject({ on: calendarDate(), low: share(), mean: share(), high: share() });
const POINTS_MOST = 120;
const points = () =>
	z
		.array(point)
		.min(1)
		.max(POINTS_MOST, { error: `must be at most ${POINTS_MOST} points` });

/** What one plan came to, as it is kept. */
export const keptOutcome = z.strictObject({
	plan: rehearsedPlan,
	alive: points().describe('Chance to be alive, by day'),
	established: points().describe('Chance to be re-established, by day'),
	roots: points().describe('Root function, by day'),
	end: z.strictObject({
		alive: share().describe('Chance to be alive at the end'),
		stands: share().describe('Chance to come through'),
		established: share().describe('Chance to be re-established by the end')
	}),
	dies: z
		.array(
			z.strictObject({
				cause: oneOf(deathCauses),
				chance: share(),
				showsOn: calendarDate().nullable().describe('Day from which it shows; null where it has none')
			})
		)
		.max(8),
	waterings: measure(0, 5000, 'times').describe('Waterings over the whole of it, in the mean'),
	minutes: measure(0, 1_000_000, 'min').describe('Minutes over the whole of it, in the mean')
});
export type KeptOutcome = z.infer<typeof keptOutcome>;

/** A rehearsal of which one plan was taken over, kept beside the tree to be set against what comes. */
export const rehearsalInput = z
	.strictObject({
		rehearsedOn: calendarDate(),
		futures: count(1, 10_000).describe('Futures that it was played through'),
		seed: count(0, 2_147_483_647).describe('They are drawn from this number'),
		outcomes: z.array(keptOutcome).min(1).max(PLANS_MOST),
		taken: count(0, PLANS_MOST - 1).describe('Which of the plans was taken over, from 0')
	})
	.refine((rehearsal) => rehearsal.taken < rehearsal.outcomes.length, {
		path: ['taken'],
		error: 'must be one of the plans'
	});
export type RehearsalInput = z.infer<typeof rehearsalInput>;
export const rehearsalSchema = rehearsalInput.safeExtend({ id: id(), version: version() });
export type KeptRehearsal = z.infer<typeof rehearsalSchema>;
