import { timed, type ReleaseFacts } from '../aftercare/tasks/release';
import type { ReleaseCondition } from '../vocabulary/task';
import { climateOf } from '../climate/normals';
import type { TreeRecords } from './case';
import { bearsAlways, isTender } from '../vocabulary/kind';
import { stageGate, type StageGate } from '../roots/plan/stage-gate';
import type { Values } from '../values/values';
import { looksSeen } from './looks';

/** Whether the last root stage is paid back, by everything seen; null where no stage waits. */
export const gateOf = (
	records: TreeRecords,
	referenceShootMm: number | null,
	values: Values
): StageGate | null =>
	records.plan
		? stageGate(records.plan, looksSeen(records, values), referenceShootMm, bearsAlways(records.kind), values)
		: null;

/** What its work waits for, as far as it was seen. */
export const releaseFacts = (
	records: TreeRecords,
	functionLow: ReleaseFacts['functionLow'],
	referenceShootMm: number | null,
	values: Values
): ReleaseFacts => ({
	looks: looksSeen(records, values),
	functionLow,
	evergreen: bearsAlways(records.kind),
	gate: gateOf(records, referenceShootMm, values),
	closed: records.tasks.flatMap((task) =>
		task.state !== 'open' && task.closedOn !== null ? [{ source: task.source, on: task.closedOn }] : []
	),
	...growsIn(records)
});

/** Where it grows; nothing where its place is gone. */
function growsIn({ tree, kind, places }: TreeRecords): Pick<ReleaseFacts, 'grows'> {
	const place = places.find(({ id }) => id === tree.placeId);
	return place ? { grows: { place: climateOf(place), tender: isTender(kind) } } : {};
}

/** What a look may answer that open work still waits for: what was seen since the work is not asked again. */
export function stillWaitedFor(records: TreeRecords, today: string, values: Values): ReleaseCondition[] {
	// Of roots that drink no look tells: only the scale does.
	const facts = releaseFacts(records, [], null, values);
	return records.tasks.flatMap((task) =>
		task.state === 'open' && task.release && timed(task, facts, today, values).released?.on === null
			? [task.release.condition]
			: []
	);
}
