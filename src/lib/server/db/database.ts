import { createClient } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import type { TreeRecords } from '../../core/tree/case';
import type { DamagedRecord } from '../../core/vocabulary/damaged';
import { countWrites } from './count-writes';
import { withFewTrips } from './few-trips';
import { Refusal } from '../errors';
import * as schema from './schema';

/** Whether a database is reached over a network: each question costs the way there and back. */
export const isFarAway = (url: string): boolean => /^(libsql|https?|wss?):/.test(url);

/** How often a replica asks its server for what others wrote, s. */
const SYNC_S = 30;

/** @param syncUrl server that a file is a replica of: what is read comes from the file, what is written goes there */
const open = (url: string, syncUrl?: string) => {
	const client = createClient({
		url,
		timeout: 5000,
		authToken: process.env.DATABASE_AUTH_TOKEN,
		...(syncUrl && { syncUrl, syncInterval: SYNC_S })
	});
	return drizzle(isFarAway(url) ? withFewTrips(client) : client, { schema });
};
export type Db = ReturnType<typeof open>;
type Transaction = Parameters<Parameters<Db['transaction']>[0]>[0];
/** Reads work the same on the database and inside a write. */
export type Reader = Db | Transaction;
export type Writer = Transaction;

/** What a store remembers of what was read, each under the counts of writes that it rests on. */
export interface Remembered {
	/** False within a write, whose own changes may yet be taken back: there it is only read. */
	keeps: boolean;
	records: Map<string, { key: string; records: TreeRecords }>;
	lists: Map<string, { key: string; value: unknown }>;
	/** Records that a read met and could not make out, by kind of record and identity. */
	damaged: Map<string, DamagedRecord>;
}

const noMemory = (): Remembered => ({
	keeps: true,
	records: new Map(),
	lists: new Map(),
	damaged: new Map()
});

/**
 * Puts one into a memory of at most so many, the longest unasked first to go.
 * @param most entries at the most; the oldest goes first
 */
export function keepIn<T>(memory: Map<string, T>, name: string, value: T, most: number): void {
	memory.delete(name);
	memory.set(name, value);
	for (const oldest of memory.keys()) {
		if (memory.size <= most) break;
		memory.delete(oldest);
	}
}

/** Freezes a value through and through, since more than one shares it. */
export function frozen<T>(value: T): T {
	if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
		Object.freeze(value);
		for (const part of Object.values(value)) frozen(part);
	}
	return value;
}
const remembered = new WeakMap<Reader, Remembered>();
/** What the store behind a reader remembers; null for a reader of no store. */
export const rememberedBy = (db: Reader): Remembered | null => remembered.get(db) ?? null;

export interface Store {
	/** Where the database is, as it was opened. */
	url: string;
	db: Db;
	/**
	 * Runs one write in a transaction; writes of the whole process wait for each other.
	 * @param touches trees that it wrote on, asked once it is done; null where that is not known
	 */
	write<T>(work: (tx: Writer) => Promise<T>, touches?: () => Iterable<string> | null): Promise<T>;
	/** How many writes of this process are done. Taken before a read, it tells later whether that read still holds. */
	writes(): number;
	/** Trees written on since so many writes were done; null where more, or others, may be. */
	touchedSince(writes: number): Set<string> | null;
	close(): void;
}

const REMEMBERED_WRITES = 200;

/**
 * Watches that a database is the file it was when it was opened: one that is taken away or put in another's place is still written to,
 * where nobody finds it.
 * @returns throws Refusal 503 once it is another
 */
function watched(file: string): () => void {
	const identity = (): string => {
		const found = statSync(file, { throwIfNoEntry: false });
		return found ? `${found.dev}:${found.ino}` : '';
	};
	const opened = identity();
	return () => {
		if (identity() !== opened)
			throw new Refusal(
				503,
				'The database of this yard is gone from its folder, or another was put there.',
				'Put it back, or restart Bruntle to go on with what is there now; nothing was saved.'
			);
	};
}

/** Where the migrations lie: beside the source, or given for a built server started elsewhere. */
export function migrationsFolder(): string {
	const given = process.env.BRUNTLE_MIGRATIONS;
	const folder = given ?? path.resolve('drizzle');
	if (!existsSync(path.join(folder, 'meta/_journal.json')))
		throw new Error(
			`The database migrations are not in ${folder}. Set BRUNTLE_MIGRATIONS to the folder "drizzle".`
		);
	return folder;
}

/** A reader of a database that the server has opened and brought up to date, for a thread that only reads. */
export function openReader(url: string): Db {
	const db = open(url);
	remembered.set(db, noMemory());
	return db;
}

/**
 * Opens a database, brings it up to date and returns its one door. SQLite allows one writer, and the libSQL client pools
 * connections, so every write goes through a queue; reads go on beside it.
 * @param url `file:…` or the address of a libSQL server; with `DATABASE_SYNC_URL` the file is a replica of that server, unless `replica` is false
 */
export async function openStore(url: string, { replica = true } = {}): Promise<Store> {
	const syncUrl = replica && url.startsWith('file:') ? process.env.DATABASE_SYNC_URL : undefined;
	const db = open(url, syncUrl);
	if (syncUrl) await db.$client.sync();
	else if (url.startsWith('file:')) await db.$client.execute('PRAGMA journal_mode = WAL');
	// A copy that runs in a browser comes as it is to be.
	if (!url.startsWith('alone:')) await migrate(db, { migrationsFolder: migrationsFolder() });
	await countWrites(db.$client);
	const memory = noMemory();
	remembered.set(db, memory);
	const refuseGone = url.startsWith('file:') ? watched(url.slice('file:'.length)) : () => undefined;
	let queue: Promise<unknown> = Promise.resolve();
	/** What the last writes touched, the newest last. */
	const touched: (readonly string[] | null)[] = [];
	let written = 0;
	return {
		url,
		db,
		write: (work, touches = () => null) => {
			const run = queue.then(async () => {
				refuseGone();
				const result = await db.transaction(
					(tx) => {
						remembered.set(tx, { ...memory, keeps: false });
						return work(tx);
					},
					{ behavior: 'immediate' }
				);
				// Taken away meanwhile, it was written into nothing.
				refuseGone();
				const ids = touches();
				touched.push(ids && [...ids]);
				if (touched.length > REMEMBERED_WRITES) touched.shift();
				written++;
				return result;
			});
			queue = run.catch(() => undefined);
			return run;
		},
		writes: () => written,
		touchedSince: (writes) => {
			const count = written - writes;
			if (count > touched.length) return null;
			const recent = count > 0 ? touched.slice(-count) : [];
			return recent.some((ids) => ids === null) ? null : new Set(recent.flatMap((ids) => ids ?? []));
		},
		close: () => db.$client.close()
	};
}
