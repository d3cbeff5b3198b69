import type { TreeRecords } from './case';
import { contextFor } from './carried';
import { diagnose } from '../examine/diagnosis/diagnose';
import { measuredFindings, type Found } from '../examine/measuring/measurement';
import type { ConditionId } from '../vocabulary/conditions';
import type { Values } from '../values/values';

/** A cause, and its chance without and with a reading. */
export interface Moved {
	conditionId: ConditionId;
	was: number;
	is: number;
}

/**
 * What a reading changes: the last look as Examine judges it, with all that was measured lately, without and with what the reading
 * found. Where nobody looked yet, what was measured alone.
 * @param found signs that the reading speaks of
 * @param on day of the reading
 * @returns causes that move by a point of chance or more, what moves most first
 */
export function movedBy(records: TreeRecords, found: readonly Found[], on: string, values: Values): Moved[] {
	const look = records.examinations.findLast((one) => one.examinedOn <= on);
	// The look is read as of its own day: as a look before, it would be counted twice.
	const { context } = look
		? contextFor(records, look.examinedOn, look.events, look.id, values)
		: contextFor(records, on, [], null, values);
	const grades = new Map(
		[...(look?.findings ?? []), ...measuredFindings(records.measurements, on, records.tree, values)].map(
			({ signId, grade }) => [signId, grade]
		)
	);
	const chances = (): Map<ConditionId, number> =>
		new Map(
			diagnose(
				context,
				[...grades].map(([signId, grade]) => ({ signId, grade })),
				values
			).ranking.map(({ conditionId, chance }) => [conditionId, chance])
		);
	const was = chances();
	for (const { signId, grade } of found) grades.set(signId, grade);
	return [...chances()]
		.map(([conditionId, is]) => ({ conditionId, was: was.get(conditionId) ?? 0, is }))
		.filter((cause) => Math.abs(cause.is - cause.was) >= LEAST)
		.sort((a, b) => Math.abs(b.is - b.was) - Math.abs(a.is - a.was));
}
/** A point of chance: less is not told. */
const LEAST = 0.01;
