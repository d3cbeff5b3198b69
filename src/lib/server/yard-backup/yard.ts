import path from 'node:path';
import { now } from '../clock';
import type { Store } from '../db/database';
import { Refusal } from '../errors';
import { picturesFolder } from '../pictures';
import { backUpApart } from '../threads';
import { listBackups, type BackupProof, type BackupTask } from './make';

const HOUR_MS = 3_600_000;
const DAILY_MS = 24 * HOUR_MS;
const FIRST_LOOK_MS = 10_000;

/** What is backed up where; null for a yard whose database is on a server of its own, which has its own backups. */
export function backupTaskOf(url: string): BackupTask | null {
	if (!url.startsWith('file:')) return null;
	const database = path.resolve(url.slice('file:'.length));
	return {
		database,
		picturesFolder: picturesFolder(),
		folder: path.join(path.dirname(database), 'backups'),
		madeAt: now().toISOString()
	};
}

/** Whether this yard is backed up by itself. What is invented, or tried, is not. */
const byItself = (): boolean => process.env.BRUNTLE_BACKUPS !== '0' && process.env.BRUNTLE_DEMO !== '1';

let running: Promise<BackupProof> | null = null;
/** Why the last backup failed; null where it did not. */
let failed: string | null = null;

/** Backs the yard up now; one at a time. @throws Refusal 409 its database is elsewhere · 503 it could not be made */
export async function backUp(store: Store): Promise<BackupProof> {
	const task = backupTaskOf(store.url);
	if (!task)
		throw new Refusal(
			409,
			'The database of this yard is on a server of its own.',
			'Backups are made there; its pictures lie in the data folder.'
		);
	running ??= backUpApart(task).finally(() => (running = null));
	try {
		const proof = await running;
		failed = null;
		return proof;
	} catch (cause) {
		failed = now().toISOString();
		console.error('The yard was not backed up:', cause);
		throw new Refusal(
			503,
			'The backup could not be made.',
			'Is there room on the disk, and may Bruntle write beside its database? The backups before it stand as they were.'
		);
	}
}

/** The backups of the yard, the newest first, and how they stand. */
export async function backupsOf(store: Store): Promise<{
	backups: BackupProof[];
	folder: string | null;
	byItself: boolean;
	failedAt: string | null;
}> {
	const task = backupTaskOf(store.url);
	return {
		backups: task ? await listBackups(task.folder) : [],
		folder: task?.folder ?? null,
		byItself: task !== null && byItself(),
		failedAt: failed
	};
}

/** Whether the last backup is a day old, or lies in a time to come. */
export function isDue(lastAt: string | null, nowMs: number): boolean {
	return lastAt === null || Math.abs(nowMs - Date.parse(lastAt)) >= DAILY_MS;
}

async function backUpIfDue(store: Store): Promise<void> {
	const { backups } = await backupsOf(store);
	if (isDue(backups[0]?.madeAt ?? null, now().getTime())) await backUp(store);
}

/** Has the yard backed up by itself, once a day while it runs. */
export function keepBackedUp(store: Store): void {
	if (!byItself() || !backupTaskOf(store.url)) return;
	const look = (): void => {
		// Why it failed is said where it does, and under Backups.
		backUpIfDue(store).catch(() => undefined);
	};
	setTimeout(look, FIRST_LOOK_MS).unref();
	setInterval(look, HOUR_MS).unref();
}
