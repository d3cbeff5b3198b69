import type { TreeRecords } from '../../core/tree/case';
import type { Store } from '../db/database';
import { Refusal } from '../errors';
import { loadRecords } from './tree-records';
import { doWork, type Told, type Work } from './work';

class WrittenMeanwhile extends Error {}
const TRIES = 5;

/**
 * Does a piece of work whose reckoning is done before it holds the writer; anew where something of the tree was written meanwhile.
 * @param reckon from the records as they stand; refuses what cannot be
 * @param write only writes
 * @throws Refusal 409 when the tree is written on all the time
 */
export async function doReckoned<P, T>(
	store: Store,
	told: Told & { treeId: string },
	reckon: (records: TreeRecords) => Promise<P>,
	write: (work: Work, reckoned: P) => Promise<T>
): Promise<{ result: T; entryId: string }> {
	for (let tried = 0; tried < TRIES; tried++) {
		const records = await loadRecords(store.db, told.treeId);
		const reckoned = await reckon(records);
		try {
			return await doWork(store, told, async (work) => {
				// What is remembered is the same object for as long as nothing was written.
				if ((await loadRecords(work.tx, told.treeId)) !== records) throw new WrittenMeanwhile();
				return write(work, reckoned);
			});
		} catch (cause) {
			if (!(cause instanceof WrittenMeanwhile)) throw cause;
		}
	}
	throw new Refusal(409, 'This tree is being written on elsewhere.', 'Try again.');
}
