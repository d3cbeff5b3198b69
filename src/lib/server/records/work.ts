import { and, eq, sql } from 'drizzle-orm';
import { newId, noteAct } from '../acting';
import { isDeepStrictEqual } from 'node:util';
import { sharedPotName } from '../../core/take-in/tree';
import type { Stage } from '../../core/vocabulary/words';
import { now, today } from '../clock';
import type { Reader, Store, Writer } from '../db/database';
import { journal, type Change } from '../db/schema';
import { notFound, Refusal, stale } from '../errors';
import { whoWorks } from '../people/who-works';
import type { Aggregate, Identified, RawRecord } from './aggregate';
import { aggregateNamed } from './records';

/** What a piece of work is told as in the journal. */
export interface Told {
	treeId: string | null;
	stage: Stage;
	what: string;
	/** Day the work was done on, when it is not today. */
	on?: string;
	/** False for long series of small steps, such as mapping, that have an undo of their own. */
	undoable?: boolean;
}

/** One write in progress: every change is noted, so that it can be told and taken back. */
export class Work {
	readonly changes: Change[] = [];

	constructor(
		readonly tx: Writer,
		private readonly treeId: string | null
	) {}

	/** Writes a new record and returns it with its identity. */
	async add<T extends Identified>(
		repository: Aggregate<T>,
		input: Omit<T, 'id' | 'version'>,
		id: string = newId()
	): Promise<T> {
		return this.addFor(this.owner(repository, id), repository, input, id);
	}

	/** Writes a new record of another tree than the one that is worked on. */
	async addFor<T extends Identified>(
		treeId: string | null,
		repository: Aggregate<T>,
		input: Omit<T, 'id' | 'version'>,
		id: string = newId()
	): Promise<T> {
		const doc = { ...input, id, version: 1 } as T;
		await repository.put(this.tx, treeId, doc);
		this.changes.push({ record: repository.name, treeId, id, before: null, after: doc });
		return doc;
	}

	/** Writes a record that comes from elsewhere with its identity and version, as it is. */
	async take<T extends Identified>(repository: Aggregate<T>, treeId: string | null, doc: T): Promise<void> {
		await repository.put(this.tx, treeId, doc);
		// Its version tells whether it was written on since; the whole of it need not stand twice.
		const { id, version } = doc;
		this.changes.push({ record: repository.name, treeId, id, before: null, after: { id, version } });
	}

	/**
	 * Changes a record that was read at `version`.
	 * @throws Refusal 404 when it is gone, 409 when it was written in between
	 */
	async change<T extends Identified>(
		repository: Aggregate<T>,
		id: string,
		readVersion: number,
		change: (before: NoInfer<T>) => NoInfer<T>
	): Promise<T> {
		const before = await repository.get(this.tx, id);
		if (!before) throw notFound(repository.noun);
		if (before.version !== readVersion) throw stale(repository.noun, before);
		const after = { ...change(before), id, version: before.version + 1 };
		const owner = this.owner(repository, id);
		await repository.put(this.tx, owner, after);
		this.changes.push({ record: repository.name, treeId: owner, id, before, after });
		return after;
	}

	/** Removes a record that was read at `version`; undo brings it back. */
	async remove<T extends Identified>(repository: Aggregate<T>, id: string, readVersion: number): Promise<T> {
		const before = await repository.get(this.tx, id);
		if (!before) throw notFound(repository.noun);
		if (before.version !== readVersion) throw stale(repository.noun);
		await repository.remove(this.tx, id);
		this.changes.push({
			record: repository.name,
			treeId: this.owner(repository, id),
			id,
			before,
			after: null
		});
		return before;
	}

	/**
	 * Puts a record in place of one that could not be made out, or takes that out; undo brings it back as it stood.
	 * @param after null to take it out
	 */
	async replace(
		repository: Aggregate<Identified>,
		of: { id: string; treeId: string | null },
		before: RawRecord,
		after: RawRecord | null
	): Promise<void> {
		const version = Math.max(0, Math.trunc(Number(before.version)) || 0) + 1;
		const doc = after && ({ ...after, id: of.id, version } as Identified);
		if (doc) await repository.put(this.tx, of.treeId, doc);
		else await repository.remove(this.tx, of.id);
		this.changes.push({ record: repository.name, ...of, before, after: doc });
	}

	private owner<T extends Identified>(repository: Aggregate<T>, id: string): string | null {
		return repository.name === 'tree' ? id : this.treeId;
	}
}

/**
 * Does a piece of work in one transaction and tells it in the journal.
 * @returns what the work returns, and the journal entry that undo takes
 */
export async function doWork<T>(
	store: Store,
	told: Told,
	work: (work: Work) => Promise<T>
): Promise<{ result: T; entryId: string }> {
	const touched: Change[] = [];
	return store.write(
		async (tx) => {
			await noteAct(tx, now());
			const running = new Work(tx, told.treeId);
			const result = await work(running);
			const entryId = await tell(tx, told, told.undoable === false ? null : running.changes);
			touched.push(...running.changes);
			return { result, entryId };
		},
		() => treesOf(touched)
	);
}

/** Takes a record of a tree out of it; undo brings it back. @throws Refusal 404 not of this tree · 409 changed since */
export async function takeOut<T extends Identified>(
	store: Store,
	repository: Aggregate<T>,
	of: { treeId: string; id: string; version: number },
	stage: Told['stage']
): Promise<string> {
	const told = { treeId: of.treeId, stage, what: `Took a ${repository.noun} out` };
	const { entryId } = await doWork(store, told, async (work) => {
		const own = await repository.list(work.tx, of.treeId);
		if (!own.some(({ id }) => id === of.id)) throw notFound(repository.noun);
		return work.remove(repository, of.id, of.version);
	});
	return entryId;
}

/** Trees that changes are of; null when one of them is of the yard. */
function treesOf(changes: readonly Change[]): Set<string> | null {
	const ids = new Set<string>();
	for (const { treeId, record, before, after } of changes) {
		if (treeId === null) return null;
		// Those it leaves in a pot rest on it as much as those it comes to, and are found by its pot no more.
		if (record === 'tree' && potOf(before) !== potOf(after)) return null;
		ids.add(treeId);
	}
	return ids;
}

/** Name of the pot that a tree, as it is written, shares with others; empty for none. */
const potOf = (tree: unknown): string =>
	typeof tree === 'object' && tree !== null && 'sharedPot' in tree && typeof tree.sharedPot === 'string'
		? sharedPotName(tree.sharedPot)
		: '';

/** A piece of work that can be done with others. */
export interface Piece<T = unknown> {
	told: Told;
	work: (work: Work) => Promise<T>;
}

/** Does several pieces of work in one transaction, all or none, each told in the journal of its tree. */
export function doWorks(store: Store, pieces: readonly Piece[]): Promise<string[]> {
	const touched: Change[] = [];
	return store.write(
		async (tx) => {
			await noteAct(tx, now());
			const entryIds: string[] = [];
			for (const { told, work } of pieces) {
				const running = new Work(tx, told.treeId);
				await work(running);
				entryIds.push(await tell(tx, told, running.changes));
				touched.push(...running.changes);
			}
			return entryIds;
		},
		() => treesOf(touched)
	);
}

/** When the latest entry of the journal was written; null where there is none. */
export async function lastEntryAt(db: Reader): Promise<string | null> {
	const [last] = await db.select({ at: sql<string | null>`max(${journal.at})` }).from(journal);
	return last?.at ?? null;
}

async function tell(tx: Writer, told: Told, changes: Change[] | null): Promise<string> {
	const on = told.on ?? today();
	if (changes === null && told.treeId !== null) {
		// A series of small steps is one entry a day.
		const [same] = await tx
			.select({ id: journal.id })
			.from(journal)
			.where(
				and(
					eq(journal.treeId, told.treeId),
					eq(journal.on, on),
					eq(journal.what, told.what),
					eq(sql`coalesce(${journal.byId}, '')`, whoWorks()?.id ?? '')
				)
			);
		if (same) return same.id;
	}
	const id = newId();
	await tx.insert(journal).values({
		id,
		treeId: told.treeId,
		at: now().toISOString(),
		on,
		stage: told.stage,
		what: told.what.slice(0, 400),
		by: whoWorks()?.name ?? null,
		byId: whoWorks()?.id ?? null,
		changes
	});
	return id;
}

/**
 * Takes journal entries back, record by record, when none of them was written since; all or none.
 * @throws Refusal 403 done by somebody else · 404 unknown entry · 409 something was changed since, or it cannot be undone
 */
export async function undo(store: Store, ...entryIds: readonly string[]): Promise<void> {
	const touched: Change[] = [];
	await store.write(
		async (tx) => {
			await noteAct(tx, now());
			for (const entryId of [...entryIds].reverse()) touched.push(...(await undoEntry(tx, entryId)));
		},
		() => treesOf(touched)
	);
}

async function undoEntry(tx: Writer, entryId: string): Promise<Change[]> {
	const [entry] = await tx.select().from(journal).where(eq(journal.id, entryId));
	if (!entry) throw notFound('entry to undo');
	const who = whoWorks();
	if (who?.role === 'helper' && entry.byId !== who.id)
		throw new Refusal(403, 'This was done by somebody else.', 'They can take it back, or an owner can.');
	if (!entry.changes || entry.changes.length === 0)
		throw new Refusal(409, 'This entry cannot be undone.', 'Change the record itself instead.');
	await refuseToLoseRecords(tx, entry.id, entry.changes);
	for (const change of [...entry.changes].reverse()) {
		const repository = aggregateNamed(change.record);
		if (!repository)
			throw new Refusal(409, 'This entry cannot be undone.', 'Change the record itself instead.');
		// As it stands: what cannot be made out can be taken back too.
		const current = (await repository.raw(tx, change.id)) as Identified | null;
		const after = change.after as Identified | null;
		if (!isAsLeft(current, after)) throw stale(repository.noun);
		const before = change.before as Identified | null;
		if (before) {
			const version = (current?.version ?? before.version) + 1;
			await repository.put(tx, change.treeId, { ...before, version });
		} else await repository.remove(tx, change.id);
	}
	await tx.delete(journal).where(eq(journal.id, entryId));
	return entry.changes;
}

/** Whether a record stands as a piece of work left it: not written since, or brought back to it by undo. */
function isAsLeft(current: Identified | null, after: Identified | null): boolean {
	if (!current || !after) return current === after;
	if (current.version === after.version) return true;
	const content = ({ version: _version, ...rest }: Identified): unknown => JSON.parse(JSON.stringify(rest));
	return isDeepStrictEqual(content(current), content(after));
}

/** Taking back a tree that was written on since would take those records with it. */
async function refuseToLoseRecords(tx: Writer, entryId: string, changes: readonly Change[]): Promise<void> {
	for (const change of changes) {
		if (change.record !== 'tree' || change.before !== null) continue;
		// What a case brought along was written before the entry that tells of it.
		const later = await tx
			.select({ id: journal.id })
			.from(journal)
			.where(
				and(
					eq(journal.treeId, change.id),
					sql`${journal}.rowid > (select rowid from ${journal} where ${journal.id} = ${entryId})`
				)
			);
		if (later.length > 0)
			throw new Refusal(
				409,
				'More was recorded on this tree since it was taken in.',
				'Undo those entries first, or close the tree with a note.'
			);
	}
}
