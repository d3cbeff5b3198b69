import { eq, getTableColumns, sql } from 'drizzle-orm';
import { mkdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { shippedKinds } from '../core/vocabulary/shipped';
import { now } from './clock';
import { findDamaged } from './damaged';
import { migrationsFolder, openStore, type Store } from './db/database';
import { faultOf } from './edge/fault';
import { checkFile, holdAlone, NotOpened, startFault } from './db/opening';
import { kind } from './db/schema';
import { sweepPictures } from './pictures';
import { practising } from './practice/under-way';
import { trees } from './records/records';
import { makeBackup } from './yard-backup/make';
import { backupTaskOf, keepBackedUp } from './yard-backup/yard';
import { readSetting, writeSetting } from './settings';

const FIRST_PAGES_MS = 3000;
const DEFAULT_URL = 'file:data/bruntle.db';

let opened: Promise<Store> | null = null;

/** Yards that this process holds, through any reading anew of its modules. */
const held: Set<string> = ((globalThis as { bruntleHeld?: Set<string> }).bruntleHeld ??= new Set());

/** Lets go of the store of this process, the database whole in its one file; nothing where none was opened. */
export async function closeStore(): Promise<void> {
	const store = await opened?.catch(() => null);
	opened = null;
	if (!store) return;
	if (store.url.startsWith('file:')) await store.db.$client.execute('PRAGMA wal_checkpoint(TRUNCATE)');
	store.close();
}

/** How a store is filled when it is a demo: given from outside, since the demo stands on the server. */
export type Fill = (store: Store) => Promise<void>;

/**
 * The yard of this process, opened once with the shipped kinds in it.
 * @param demo fills a demo database; a demo whose making was interrupted is made anew
 */
export const yardStore = (demo?: Fill): Promise<Store> => (opened ??= open(yardUrl(), demo));

/** The store that is worked on: the yard, or that of the practice round under way. */
export const getStore = (): Promise<Store> => practising()?.store() ?? yardStore();

/** Where the yard lies, as it is told to open it. */
export const yardUrl = (): string => process.env.DATABASE_URL ?? DEFAULT_URL;

async function open(url: string, demo?: Fill): Promise<Store> {
	// A clock that was set to no instant is told before anything is opened.
	now();
	const file = url.startsWith('file:') ? url.slice('file:'.length) : null;
	if (file) {
		mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
		// Read anew while developing, this module finds the yard held by its own process.
		if (!held.has(file)) await holdAlone(file);
		held.add(file);
		if ((await checkFile(file, migrationsFolder())) && !demo) await backUpBefore(url);
	}
	try {
		return await filled(url, file, demo);
	} catch (cause) {
		if (file && !process.env.DATABASE_SYNC_URL) throw startFault(file, cause);
		const fault = faultOf(cause);
		throw fault ? new NotOpened(`${fault.message} ${fault.advice}`) : cause;
	}
}

/** What changes the database for good is done once the yard as it was is safe. @throws NotOpened */
async function backUpBefore(url: string): Promise<void> {
	const task = backupTaskOf(url);
	try {
		if (task) await makeBackup(task);
	} catch (cause) {
		console.error(cause);
		throw new NotOpened(
			'This yard is of an older Bruntle and could not be backed up before it is brought up to date. Is there room on its disk? It was not touched.'
		);
	}
}

async function filled(url: string, file: string | null, demo?: Fill): Promise<Store> {
	let store = await openStore(url);
	const made = await readSetting(store.db, 'demo');
	if (demo && made !== 'complete') {
		if (made === 'making' && file) {
			store.close();
			for (const ending of ['', '-wal', '-shm']) rmSync(file + ending, { force: true });
			store = await openStore(url);
		} else if ((await trees.list(store.db)).length > 0)
			throw new Error(
				'this database holds a yard of its own; the demo is never put into it. Give the demo another folder.'
			);
		await writeSetting(store, 'demo', 'making');
		await seedKinds(store);
		await demo(store);
		await writeSetting(store, 'demo', 'complete');
	}
	await seedKinds(store);
	// In their own time, when the first pages are out; what is not swept today is swept at the next start.
	setTimeout(() => {
		findDamaged(store).catch((cause: unknown) => console.error('Records were not looked through:', cause));
	}, FIRST_PAGES_MS).unref();
	keepBackedUp(store);
	void sweepPictures().catch((cause: unknown) => console.error('Pictures were not swept:', cause));
	return store;
}

/** Puts the shipped kinds in, and newer shipped numbers over older ones; what the owner changed stays. */
export async function seedKinds(store: Store): Promise<void> {
	const { id: _id, version: _version, ...columns } = getTableColumns(kind);
	const newer = Object.fromEntries(
		Object.entries(columns).map(([name, column]) => [name, sql`excluded.${sql.identifier(column.name)}`])
	);
	await store.write(async (tx) => {
		await tx
			.insert(kind)
			.values([...shippedKinds])
			.onConflictDoUpdate({ target: kind.id, set: newer, setWhere: eq(kind.origin, 'shipped') });
	});
}
