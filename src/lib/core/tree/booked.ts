import { ruleOf } from '../aftercare/tasks/source';
import type { BookFacts } from '../aftercare/book/effects';
import type { TreeRecords } from './case';
import { steadyLimit } from '../recovery/decisions';
import type { Values } from '../values/values';
import { rootLosses } from './losses';
import { looksSeen } from './looks';
import { standingOf } from './standing';

/** What of a tree speaks for or against an entry of the field book on a day. */
export function bookFacts(records: TreeRecords, on: string, values: Values): BookFacts {
	const looks = looksSeen(records, values).filter((look) => look.observedOn <= on);
	return {
		rootsCutOn: rootLosses(records, values).done.findLast((loss) => loss.on <= on)?.on ?? null,
		feedingWaits: records.tasks.some((task) => task.state === 'open' && ruleOf(task.source) === 'feeding'),
		livingLimitMm: standingOf(records, on, values).livingLimitMm.value,
		limitSteady: steadyLimit(looks, values) !== null
	};
}
