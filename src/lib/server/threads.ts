import { wrap, type Remote } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Values } from '../core/values/values';
import type { Store } from './db/database';
import type { Reckoned } from './reckon';
import type { ReckonThread } from './threads/reckon.thread';

/** Reckons trees away from the requests, with a reader of its own. */
export interface Reckoner {
	reckon(treeIds: string[], on: string, values: Values): Promise<Reckoned[]>;
	end(): void;
}

const MOST_THREADS = 4;
/** Records live for one batch: with so much room for them they are gone before they are tidied up. */
const YOUNG_MB = 96;

/** Where the built threads lie; null where the sources run unbuilt, or the database is not a file that others can open. */
function threadFile(store: Store): string | null {
	const folder = process.env.BRUNTLE_THREADS;
	if (!folder || !store.url.startsWith('file:')) return null;
	const file = path.join(folder, 'reckon.thread.js');
	return existsSync(file) ? file : null;
}

/** A thread for each processor, each reading the same database; none where there are no threads to be had. */
export function openReckoners(store: Store): Reckoner[] {
	const file = threadFile(store);
	if (file === null) return [];
	return Array.from({ length: Math.min(MOST_THREADS, availableParallelism()) }, () => {
		const worker = new Worker(file, {
			workerData: { url: store.url },
			resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MB }
		});
		// A thread that ends leaves its question unanswered: then it is no longer waited for.
		const failed = new Promise<never>((_, reject) => {
			worker.once('error', reject);
			worker.once('exit', () => reject(new Error('a thread that reckons trees has ended')));
		});
		failed.catch(() => undefined);
		const thread: Remote<ReckonThread> = wrap<ReckonThread>(nodeEndpoint(worker));
		return {
			// Values are a frozen plain object; a copy of it crosses over.
			reckon: (treeIds, on, values) => Promise.race([thread.reckon(treeIds, on, { ...values }), failed]),
			end: () => void worker.terminate()
		};
	});
}
