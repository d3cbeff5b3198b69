import { z } from 'zod';
import { percent } from '../text/percent';
import { conditionIds, type ConditionId } from '../vocabulary/conditions';
import { count, oneOf } from '../vocabulary/fields';
import { signIds, type SignId } from '../vocabulary/signs';
import { judged, judgementTold } from '../practice/judged';
import { playRound, canShow, seenOf } from '../practice/played';
import { dateOf, practiceTree } from '../practice/practice-tree';
import { feltOf, leavesOf } from '../practice/read';
import { practiceActs, practiceWish } from '../practice/round';
import { calculation, type Calculation } from './calculation';

const sign = z.enum(signIds as [SignId, ...SignId[]]);

/** Calculations of Practice. */
export const practiceCalculations: readonly Calculation[] = [
	calculation(
		'practice-step',
		'An invented tree with a hidden truth, played to a day by all that was done to it: what is seen of it then, and when it is over what was true and what each choice was worth',
		z.strictObject({
			wish: practiceWish,
			acts: practiceActs.describe('All that was done so far, in order'),
			day: count(0, 728).describe('Played to this day; 0 is the day on which it was taken in'),
			lookFor: z
				.array(oneOf(signIds as [SignId, ...SignId[]]))
				.max(signIds.length)
				.default([])
				.describe('Signs that are looked for on that day')
		}),
		z.object({
			on: z.string().describe('Calendar day'),
			day: z.number().describe('day of the round, count from 0'),
			days: z.number().describe('days that a round lasts, count'),
			kind: z.string(),
			alive: z.boolean(),
			over: z.boolean(),
			felt: z.string().describe('How it feels two knuckles deep'),
			leafCover: z.number().nullable().describe('share of its crown in leaf, 0 to 1; null while it is bare'),
			waterings: z.number().describe('times that it was watered, count'),
			minutes: z.number().describe('minutes that all of it took'),
			seen: z.array(z.object({ signId: sign, grade: z.number().describe('grade, 0 where it is not there') })),
			judged: judgementTold.nullable().describe('How it is judged; null until it is over'),
			conditions: z
				.array(z.enum(conditionIds as [ConditionId, ...ConditionId[]]))
				.nullable()
				.describe('What ails it; null until it is over')
		}),
		({ wish, acts, day, lookFor }, values) => {
			const tree = practiceTree(wish, values);
			const done = acts.filter((act) => act.day <= day);
			const played = playRound(tree, done, day);
			const { truth } = tree;
			const over = played.diedOn !== null || played.day >= tree.days;
			return {
				on: dateOf(tree, played.day),
				day: played.day,
				days: tree.days,
				kind: truth.kind.commonName,
				alive: played.diedOn === null,
				over,
				felt: feltOf(tree, played).words,
				leafCover: leavesOf(tree, played).leafCover,
				waterings: played.waterings,
				minutes: played.minutes,
				seen: lookFor
					.filter((id) => canShow(tree, played.day, id))
					.map((signId) => ({ signId, grade: seenOf(tree, played, signId) })),
				judged: over ? judged(tree, done, percent) : null,
				conditions: over ? truth.conditions : null
			};
		}
	)
];
