import { and, eq, ne, or } from 'drizzle-orm';
import { resultAsked } from '../core/aftercare/tasks/result';
import { ruleOf } from '../core/aftercare/tasks/source';
import type { Task } from '../core/vocabulary/task';
import { bookKind, bookSentence, type BookEntry, type BookInput } from '../core/aftercare/book/book';
import { broughtUp, ruleDone, spokenAgainst, type BookFacts } from '../core/aftercare/book/effects';
import { bookFacts } from '../core/tree/booked';
import type { Tree } from '../core/take-in/tree';
import type { Reader, Store } from './db/database';
import * as tables from './db/schema';
import { invalid } from './errors';
import { bookEntries, tasks } from './records/records';
import { doWork, doWorks, type Piece, type Work } from './records/work';
import { readValues } from './settings';
import { closeInWork, openTask } from './task-work';
import { loadRecords } from './records/tree-records';
import { refuseDate, requireTree } from './trees';

const sourceOf = ({ id }: { id: string }): string => `book-${id}`;

/**
 * Writes an entry into the field book, or one anew in its place: what it brings up becomes work, what it does closes the work that asked
 * for it, and what speaks against it wants a word of why.
 * @throws Refusal 404 · 409 written in between · 422
 */
export async function writeBook(
	store: Store,
	treeId: string,
	input: BookInput,
	corrects: { id: string; version: number } | null = null
): Promise<string> {
	const [entryId = ''] = await doWorks(store, [await bookPiece(store.db, treeId, input, corrects)]);
	return entryId;
}

/**
 * Writes the same down for several trees, for all of them or for none.
 * @returns entries that undo takes back together
 * @throws Refusal 404 · 422 where it may not be written for one of them; the message names that tree
 */
export async function writeBookForAll(
	store: Store,
	treeIds: readonly string[],
	input: BookInput
): Promise<string[]> {
	const pieces: Piece[] = [];
	for (const id of new Set(treeIds)) pieces.push(await bookPiece(store.db, id, input));
	return doWorks(store, pieces);
}

/** Trees that the same may be written down for: of its batch, or of its kind at its place. */
export async function likeTrees(
	db: Reader,
	tree: Tree
): Promise<{ id: string; tag: string; name: string }[]> {
	const own = tables.tree;
	const ofKindHere = and(eq(own.kindId, tree.kindId), eq(own.placeId, tree.placeId));
	return db
		.select({ id: own.id, tag: own.tag, name: own.name })
		.from(own)
		.where(
			and(
				ne(own.id, tree.id),
				eq(own.state, 'in-care'),
				tree.batch === '' ? ofKindHere : or(ofKindHere, eq(own.batch, tree.batch))
			)
		)
		.orderBy(own.tag)
		.limit(30);
}

async function bookPiece(
	db: Reader,
	treeId: string,
	input: BookInput,
	corrects: { id: string; version: number } | null = null
): Promise<Piece> {
	const [values, records] = await Promise.all([readValues(db), loadRecords(db, treeId)]);
	const book = records.book.filter((one) => one.id !== corrects?.id);
	const facts: BookFacts = bookFacts({ ...records, book }, input.on, values);
	const stops = spokenAgainst(input, book, facts, values).filter((one) => one.stop);
	if (stops.length > 0 && input.note === '')
		throw invalid([
			{
				field: 'note',
				message: `must say why all the same for ${records.tree.tag}: ${stops.map((one) => one.text).join(' ')}`
			}
		]);
	const inGround = records.tree.situation === 'in-ground';
	const sentence = bookSentence(input, inGround);
	return {
		told: {
			treeId,
			stage: bookKind(input.kind).stage,
			on: input.on,
			what: `${corrects ? 'Field book, corrected' : 'Field book'}: ${sentence}`.slice(0, 400)
		},
		work: async (work) => {
			const tree = await requireTree(work, treeId);
			refuseDate('on', input.on, tree);
			const entry: BookEntry = corrects
				? await work.change(bookEntries, corrects.id, corrects.version, (before) => ({ ...before, ...input }))
				: await work.add(bookEntries, input);
			if (corrects) await dropOpen(work, treeId, entry);
			for (const task of broughtUp(input, sentence, values))
				await work.add(tasks, { ...task, release: null, ...openTask, source: sourceOf(entry) });
			const rule = ruleDone(input);
			const done = (task: Task): boolean =>
				ruleOf(task.source) === rule || (rule === 'crown' && resultAsked(task) === 'crown');
			if (rule !== null)
				for (const task of await tasks.list(work.tx, treeId))
					if (task.state === 'open' && task.fromOn <= input.on && done(task))
						await closeInWork(work, task.id, task.version, { state: 'done', skipReason: '', on: input.on });
		}
	};
}

/** Takes an entry out, with the work that it brought up and that is open still. @throws Refusal 404, 409 */
export async function removeBook(
	store: Store,
	treeId: string,
	{ id, version }: { id: string; version: number }
): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId, stage: 'aftercare', what: 'Took an entry of the field book out' },
		async (work) => {
			const entry = await work.remove(bookEntries, id, version);
			await dropOpen(work, treeId, entry);
		}
	);
	return entryId;
}

async function dropOpen(work: Work, treeId: string, entry: { id: string }): Promise<void> {
	for (const task of await tasks.list(work.tx, treeId))
		if (task.state === 'open' && task.source === sourceOf(entry))
			await work.remove(tasks, task.id, task.version);
}
