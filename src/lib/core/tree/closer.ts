import type { TreeRecords } from './case';
import { daysBetween } from '../maths/calendar';
import type { Place } from '../vocabulary/place';
import { standingOn } from '../examine/diagnosis/act-now';
import { contextOf } from '../examine/diagnosis/context';
import { nextChecks, type Check } from '../examine/diagnosis/next-check';
import type { Tree } from '../take-in/tree';
import type { Values } from '../values/values';

/**
 * Which check to look closer with: the one that tells most for its minutes and its harm on this tree today, given what its
 * last examination found. One that is older than a look that counts as fresh says nothing of today.
 * @returns null where no check would change what is done
 */
export function checkNow(
	records: { tree: Pick<Tree, 'situation' | 'vigour'> } & Pick<TreeRecords, 'kind' | 'examinations'>,
	place: Place | null,
	today: string,
	values: Values
): Check | null {
	const { tree, kind } = records;
	const last = records.examinations.findLast((one) => one.examinedOn <= today);
	const fresh = last && daysBetween(last.examinedOn, today) <= values['look.routineDays'] ? last : null;
	const findings = fresh?.findings ?? [];
	const standing = standingOn(
		{ tree, kind, place },
		today,
		{
			failingFast: fresh?.failingFast ?? false,
			girdlerGrade: findings.find((finding) => finding.signId === 'girdler-seen')?.grade ?? 0
		},
		values
	);
	const context = contextOf({ tree, kind, place }, today, fresh?.events ?? [], values);
	return nextChecks(context, findings, standing, values).checks[0] ?? null;
}
