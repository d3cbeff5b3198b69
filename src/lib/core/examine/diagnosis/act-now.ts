import { z } from 'zod';
import { calendarDate, oneOf, share, measure } from '../../vocabulary/fields';
import { daysBetween, MONTH_DAYS } from '../../maths/calendar';
import type { PlaceClimate } from '../../climate/normals';
import { nextWindowDay, seasonFit, seasonFits, type SeasonFit } from '../../climate/windows';
import type { Kind } from '../../vocabulary/kind';
import { vigours, type Vigour } from '../../vocabulary/words';
import type { Values } from '../../values/values';
import { conditionIds, conditionOf, type ConditionId } from '../../vocabulary/conditions';

/** How a tree stands to work at its roots today. */
export const standingToday = z.strictObject({
	seasonFit: oneOf(seasonFits),
	vigour: oneOf(vigours),
	windowOn: calendarDate()
		.nullable()
		.default(null)
		.describe('First day of the next window for root work; null when there is none'),
	monthsToWindow: measure(0, 36, 'months').default(0).describe('0 while the window is open'),
	failingFast: z.boolean().default(false).describe('It fails within weeks'),
	girdledOverThird: z.boolean().default(false).describe('More than a third of the trunk is girdled')
});
export type StandingToday = z.infer<typeof standingToday>;

export const actNowInput = standingToday.extend({
	conditionId: oneOf(conditionIds as [ConditionId, ...ConditionId[]]),
	chance: share()
});

export const actNowOutput = z.object({
	conditionId: z.enum(conditionIds as [ConditionId, ...ConditionId[]]),
	chance: z.number(),
	verdict: z
		.enum(['now', 'window', 'look'])
		.describe('Act now · wait for the window · not likely enough yet, look further'),
	actingCost: z.number().describe('Expected chance to live lost by acting now'),
	waitingCost: z.number().describe('Expected chance to live lost by waiting, and treating then'),
	threshold: z
		.number()
		.describe('Chance of the condition from which acting now loses less; above 1 when it never does'),
	waitMonths: z.number(),
	waitUntil: z.string().nullable(),
	disturbanceNow: z.number(),
	disturbanceThen: z.number(),
	lossWaiting: z.number().describe('Lost while waiting, if the condition holds and nothing is done')
});
export type ActNow = z.infer<typeof actNowOutput>;

/**
 * How much the same disturbance counts by season and vigour.
 * @returns factor on the harm, 1 of a fair tree in its window
 */
export const disturbanceFactor = (fit: SeasonFit, vigour: Vigour, values: Values): number =>
	values[`diagnosis.harm-season.${fit}`] * values[`diagnosis.harm-vigour.${vigour}`];

/**
 * Acting now against waiting, both as expected losses of the tree's chance to live [our own].
 * - acting: the disturbance at today's season and vigour, and what treatment cannot avert if the condition holds;
 * - waiting: if the condition holds, what it takes until then, and the disturbance in the window.
 * Work at the roots waits for the next window; everything else for the next look. Linear in the chance, so there is one
 * threshold from which acting loses less.
 * @param chance of the condition, 0–1
 */
export function actNow(
	condition: ConditionId,
	chance: number,
	standing: StandingToday,
	values: Values
): ActNow {
	const { atRoots } = conditionOf(condition);
	// However near the window is: work at the roots is put off until it opens, never until the next look.
	const waits = atRoots && standing.monthsToWindow > 0;
	const waitMonths = waits ? standing.monthsToWindow : values['diagnosis.look-again-months'];
	const pace =
		(standing.failingFast ? values['diagnosis.dying-speed'] : 1) *
		(condition === 'girdling-roots' && standing.girdledOverThird ? values['diagnosis.serious-girdling'] : 1);
	// A loss is at most the tree; what remains decays at the monthly rate.
	const lossWaiting =
		1 - Math.pow(1 - Math.min(0.95, values[`diagnosis.loss.${condition}`] * pace), waitMonths);
	const averts = values[`diagnosis.averts.${condition}`];
	const bare = values[`diagnosis.disturbance.${condition}`];
	const factor = (fit: SeasonFit): number => (atRoots ? disturbanceFactor(fit, standing.vigour, values) : 1);
	const disturbanceNow = Math.min(1, bare * factor(standing.seasonFit));
	const disturbanceThen = Math.min(1, bare * factor(atRoots ? 'in-window' : standing.seasonFit));
	const actingCost = disturbanceNow + chance * (1 - averts) * lossWaiting;
	const waitingCost = chance * Math.min(1, lossWaiting + disturbanceThen);
	const gain = Math.min(1, lossWaiting + disturbanceThen) - (1 - averts) * lossWaiting;
	const threshold = gain > 0 ? disturbanceNow / gain : Number.MAX_VALUE;
	return {
		conditionId: condition,
		chance,
		verdict:
			actingCost < waitingCost ? 'now' : waits && chance >= values['diagnosis.likely'] ? 'window' : 'look',
		actingCost,
		waitingCost,
		threshold,
		waitMonths,
		waitUntil: waits ? standing.windowOn : null,
		disturbanceNow,
		disturbanceThen,
		lossWaiting
	};
}

/**
 * How a tree stands to root work on a day, from its kind, place and last look.
 * @param look what makes waiting dearer: it fails fast; the grade of girdling found
 */
export function standingOn(
	{
		tree,
		kind,
		place
	}: {
		tree: { vigour: Vigour };
		kind: Pick<Kind, 'group' | 'coldestC' | 'liftingWindow'>;
		place: PlaceClimate | null;
	},
	date: string,
	look: { failingFast: boolean; girdlerGrade: number },
	values: Values
): StandingToday {
	const fit = place ? seasonFit(kind, place, date, values) : 'shoulder';
	const windowOn = place ? nextWindowDay(kind, place, date, values) : null;
	return {
		seasonFit: fit,
		vigour: tree.vigour,
		windowOn,
		// Without a window within three years, root work is as ill-timed in a year as today.
		monthsToWindow:
			windowOn === null ? (place ? 12 : 0) : Math.max(0, daysBetween(date, windowOn) / MONTH_DAYS),
		failingFast: look.failingFast,
		girdledOverThird: look.girdlerGrade >= 2
	};
}
