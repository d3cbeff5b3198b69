import { expose } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { parentPort, workerData } from 'node:worker_threads';
import type { Values } from '../../core/values/values';
import { openReader } from '../db/database';
import { reckonTrees } from '../reckon';

/** The reckoning of trees in a thread of its own: it only reads. */
const db = openReader((workerData as { url: string }).url);
const thread = {
	reckon: (treeIds: string[], on: string, values: Values) => reckonTrees(db, treeIds, on, values)
};
export type ReckonThread = typeof thread;
if (parentPort) expose(thread, nodeEndpoint(parentPort));
