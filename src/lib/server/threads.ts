import { wrap, type Remote } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Values } from '../core/values/values';
import type { Store } from './db/database';
import { Refusal } from './errors';
import type { Reckoned } from './reckon';
import type { Answered, Asked } from './threads/compute.thread';
import type { About } from './yard-archive/parts';
import type { ArchiveTask } from './yard-archive/write';
import type { BackupProof, BackupTask } from './yard-backup/make';
import type { ReckonThread } from './threads/reckon.thread';

/** Reckons trees away from the requests, with a reader of its own. */
export interface Reckoner {
	reckon(treeIds: string[], on: string, values: Values): Promise<Reckoned[]>;
	end(): void;
}

const MOST_THREADS = 4;
/** Records live for one batch: with so much room for them they are gone before they are tidied up. */
const YOUNG_MB = 96;

/** Where a built thread lies; null where the sources run unbuilt. */
function threadFile(name: 'reckon' | 'compute' | 'backup' | 'archive'): string | null {
	const folder = process.env.BRUNTLE_THREADS;
	if (!folder) return null;
	const file = path.join(folder, `${name}.thread.js`);
	return existsSync(file) ? file : null;
}

/** A thread for each processor, each reading the same database; none where there are no threads to be had. */
export function openReckoners(store: Store): Reckoner[] {
	// Only a file can be opened by others beside.
	const file = store.url.startsWith('file:') ? threadFile('reckon') : null;
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

/** A calculation that takes longer is given up, ms. */
const DEADLINE_MS = 20_000;
const IDLE_MS = 60_000;
/** So many calculations wait for a thread at the most. */
const WAITING = 40;
const pools = new Map<string, Piscina>();

/** Threads that do one kind of work, made when it is first asked for; null where the sources run unbuilt. */
function poolOf(name: 'compute' | 'backup' | 'archive', maxThreads: number): Piscina | null {
	const filename = threadFile(name);
	if (filename === null) return null;
	const pool =
		pools.get(name) ??
		new Piscina({
			filename: pathToFileURL(filename).href,
			maxThreads,
			idleTimeout: IDLE_MS,
			maxQueue: WAITING
		});
	pools.set(name, pool);
	return pool;
}

/**
 * Works a calculation out away from the requests, and gives up on one that takes too long.
 * @param deadlineMs after which it is given up, ms
 * @returns the answer as JSON text
 * @throws Refusal as the calculation refuses · 503 given up, or too many wait
 */
export async function computeApart(asked: Asked, deadlineMs = DEADLINE_MS): Promise<string> {
	const answered = await runApart(asked, deadlineMs);
	if ('answer' in answered) return answered.answer;
	const { status, message, advice, problems } = answered.refused;
	throw new Refusal(status, message, advice, problems);
}

async function runApart(asked: Asked, deadlineMs: number): Promise<Answered> {
	const pool = poolOf('compute', Math.min(MOST_THREADS, availableParallelism()));
	if (pool === null) return (await import('./threads/compute.thread')).default(asked);
	if (pool.queueSize >= WAITING)
		throw new Refusal(503, 'Too many calculations wait already.', 'Ask again in a moment.');
	const signal = AbortSignal.timeout(deadlineMs);
	try {
		// Values are a frozen plain object; a copy of it crosses over.
		return (await pool.run({ ...asked, values: { ...asked.values } }, { signal })) as Answered;
	} catch (cause) {
		if (!signal.aborted) throw cause;
		throw new Refusal(
			503,
			`This takes longer than ${deadlineMs / 1000} seconds and was given up.`,
			'Ask for less: fewer roots, futures or days.'
		);
	}
}

/** Backs a yard up away from the requests. @throws BackupFault, or what the disk said */
export async function backUpApart(task: BackupTask): Promise<BackupProof> {
	const pool = poolOf('backup', 1);
	return pool === null
		? (await import('./threads/backup.thread')).default(task)
		: ((await pool.run(task)) as BackupProof);
}

/** Writes a yard as open files away from the requests. @throws what the disk said */
export async function archiveApart(task: ArchiveTask): Promise<About> {
	const pool = poolOf('archive', 1);
	return pool === null
		? (await import('./threads/archive.thread')).default(task)
		: ((await pool.run(task)) as About);
}
