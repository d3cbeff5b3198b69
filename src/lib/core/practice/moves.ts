import { z } from 'zod';
import { conditionIds, type ConditionId } from '../vocabulary/conditions';
import { count, oneOf, share } from '../vocabulary/fields';
import { signIds, type SignId } from '../vocabulary/signs';
import { careRule, readingKinds, remedies, type CareRule, type PracticeAct } from './round';

/** What a trainee does with a practice tree that has no page of its own. */
export const practiceMove = z.discriminatedUnion('move', [
	z.strictObject({ move: z.literal('see'), signId: oneOf(signIds as [SignId, ...SignId[]]) }),
	z.strictObject({ move: z.literal('read'), reading: oneOf(readingKinds) }),
	z.strictObject({
		move: z.literal('say'),
		chances: z
			.array(
				z.strictObject({
					conditionId: oneOf(conditionIds as [ConditionId, ...ConditionId[]]),
					chance: share()
				})
			)
			.max(conditionIds.length)
	}),
	z.strictObject({
		move: z.literal('treat'),
		remedy: oneOf(remedies),
		forDays: count(1, 365).nullable().default(null)
	}),
	z.strictObject({ move: z.literal('care'), rule: careRule }),
	z.strictObject({ move: z.literal('days'), days: count(1, 364) }),
	z.strictObject({ move: z.literal('end') })
]);
export type PracticeMove = z.infer<typeof practiceMove>;

/** What came of a move. */
export interface MoveAnswer {
	told: string;
	/** Grade of the sign that was looked for. */
	grade?: number;
	day: number;
	over: boolean;
}

/** What a page knows of the round under way: never what ails the tree. */
export interface PracticeNow {
	id: string;
	treeId: string;
	/** Day of the round, of so many. */
	day: number;
	days: number;
	/** Calendar day that it is in the round. */
	on: string;
	over: boolean;
	/** Weather of the day that went by last; null on the first. */
	weather: { minC: number; maxC: number; rainMm: number } | null;
	care: CareRule;
	/** Chances that were given last; null where none were. */
	said: Extract<PracticeAct, { what: 'say' }>['chances'] | null;
	/** What was told of it when it came in. */
	story: string;
	potted: boolean;
	/** Signs that were looked for today. */
	checked: readonly SignId[];
	/** Its roots were laid bare. */
	mapped: boolean;
}
