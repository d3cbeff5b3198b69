import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Along } from '$core/vocabulary/along';

/** The copy of the yard on this phone. */
export interface KeptYard {
	along: Along;
	bytes: Uint8Array;
	/** By what the yard tells whether the copy is of now. */
	etag: string | null;
	/** The Bruntle whose database it is. */
	build: string;
}

/** A request as it was sent, to be sent again. */
export interface SentRequest {
	/** Path and question of the address. */
	path: string;
	method: string;
	headers: Record<string, string>;
	body: ArrayBuffer;
}

/** What the yard said when it did not take a piece of work. */
export interface RefusedWork {
	status: number;
	message: string;
	advice: string;
	/** What stands there by now, by the names of the fields; null where nothing was changed meanwhile. */
	meanwhile: Record<string, string> | null;
}

/** A piece of work under the name it is sent by, with its instant. */
export interface NamedWork extends SentRequest {
	id: string;
	at: string;
	today: string;
}

/** A piece of work that was done alone. */
export interface KeptAct extends NamedWork {
	/** What was done, and on which tree, in words. */
	what: string;
	tree: { id: string; tag: string; name: string } | null;
	/** Who did it; null at the computer itself. */
	by: string | null;
	/** Null while it waits to be sent. */
	refused: RefusedWork | null;
}

/** Where a phone keeps what it has; each of its steps is kept whole or not at all. */
export interface Keeping {
	yard(): Promise<KeptYard | null>;
	/**
	 * Puts a copy of the yard in the place of the one before.
	 * @param holds the work done there that it holds now; all of it for a copy that was just taken
	 */
	keepYard(yard: KeptYard, holds: 'all' | string | null): Promise<void>;
	/** Keeps that a piece of work was done at the yard and is not in the copy yet. */
	keepDoneThere(act: NamedWork): Promise<void>;
	/** Work done at the yard that is not in the copy yet, in its order. */
	doneThere(): Promise<NamedWork[]>;
	/** Keeps a piece of work and the yard as it stands after it, together. */
	keepAct(act: KeptAct, yard: KeptYard): Promise<void>;
	/** Pieces of work in the order they were done. */
	acts(): Promise<KeptAct[]>;
	/** Puts a piece of work in the place of itself. */
	changeAct(act: KeptAct): Promise<void>;
	dropAct(id: string): Promise<void>;
	/** Since when the phone is alone; null while it is not. */
	aloneSince(): Promise<string | null>;
	keepAloneSince(since: string | null): Promise<void>;
	clear(): Promise<void>;
}

interface Tables extends DBSchema {
	yard: { key: string; value: KeptYard };
	acts: { key: number; value: KeptAct; indexes: { id: string } };
	done: { key: number; value: NamedWork; indexes: { id: string } };
	told: { key: string; value: string | null };
}

const NAME = 'bruntle-along';
const YARD = 'yard';
const SINCE = 'alone-since';

/** Keeps in the database of the browser. Nothing counts as kept before it is written through. */
export function browserKeeping(): Keeping {
	let opened: Promise<IDBPDatabase<Tables>> | null = null;
	const db = (): Promise<IDBPDatabase<Tables>> =>
		(opened ??= openDB<Tables>(NAME, 1, {
			upgrade(made) {
				made.createObjectStore('yard');
				made.createObjectStore('acts', { autoIncrement: true }).createIndex('id', 'id', { unique: true });
				made.createObjectStore('done', { autoIncrement: true }).createIndex('id', 'id', { unique: true });
				made.createObjectStore('told');
			}
		}));
	const strict = { durability: 'strict' } as const;
	return {
		yard: async () => (await (await db()).get('yard', YARD)) ?? null,
		keepYard: async (yard, holds) => {
			const tx = (await db()).transaction(['yard', 'done'], 'readwrite', strict);
			const done = tx.objectStore('done');
			const key = holds === null || holds === 'all' ? undefined : await done.index('id').getKey(holds);
			await Promise.all([
				tx.objectStore('yard').put(yard, YARD),
				holds === 'all' ? done.clear() : key === undefined ? undefined : done.delete(key),
				tx.done
			]);
		},
		keepDoneThere: async (act) => {
			const tx = (await db()).transaction('done', 'readwrite', strict);
			await Promise.all([tx.store.add(act), tx.done]);
		},
		doneThere: async () => (await db()).getAll('done'),
		keepAct: async (act, yard) => {
			const tx = (await db()).transaction(['yard', 'acts'], 'readwrite', strict);
			await Promise.all([tx.objectStore('acts').add(act), tx.objectStore('yard').put(yard, YARD), tx.done]);
		},
		acts: async () => (await db()).getAll('acts'),
		changeAct: async (act) => {
			const tx = (await db()).transaction('acts', 'readwrite', strict);
			const key = await tx.store.index('id').getKey(act.id);
			await Promise.all([key === undefined ? undefined : tx.store.put(act, key), tx.done]);
		},
		dropAct: async (id) => {
			const tx = (await db()).transaction('acts', 'readwrite', strict);
			const key = await tx.store.index('id').getKey(id);
			await Promise.all([key === undefined ? undefined : tx.store.delete(key), tx.done]);
		},
		aloneSince: async () => (await (await db()).get('told', SINCE)) ?? null,
		keepAloneSince: async (since) => void (await (await db()).put('told', since, SINCE)),
		clear: async () => {
			const tx = (await db()).transaction(['yard', 'acts', 'done', 'told'], 'readwrite', strict);
			await Promise.all([
				tx.objectStore('yard').clear(),
				tx.objectStore('acts').clear(),
				tx.objectStore('done').clear(),
				tx.objectStore('told').clear(),
				tx.done
			]);
		}
	};
}
