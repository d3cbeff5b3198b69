import type { TreeRecords } from '../core/tree/case';
import { lineOfCare, type LineOfCare } from '../core/tree/line-of-care';
import { standingOf, type Standing } from '../core/tree/standing';
import { pressingOf, type OpenCauses } from '../core/tree/urgent';
import { frozen } from './db/database';
import type { Values } from '../core/values/values';

/** What every page of a tree begins with. */
export interface TreeHead extends OpenCauses {
	stands: Standing;
	care: LineOfCare;
}

const known = new WeakMap<TreeRecords, { on: string; values: Values; head: TreeHead }>();

/** Worked out once for all pages of a tree: its records are one object as long as nothing of it is written, and so are the values. */
export function headOf(records: TreeRecords, on: string, values: Values): TreeHead {
	const kept = known.get(records);
	if (kept?.on === on && kept.values === values) return kept.head;
	const head = frozen<TreeHead>({
		...pressingOf(records, on, values),
		stands: standingOf(records, records.tree.closedOn ?? on, values),
		care: lineOfCare(records, on, values)
	});
	known.set(records, { on, values, head });
	return head;
}
