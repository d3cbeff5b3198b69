import { and, asc, desc, eq, lte, max, ne, sql } from 'drizzle-orm';
import { newId } from './acting';
import { addDays } from '../core/maths/calendar';
import { situationNames, treeStateNames } from '../core/vocabulary/words';
import { type ClosingInput, type KindBefore, type Tree, type TreeInput } from '../core/take-in/tree';
import type { TreeRecords } from '../core/tree/case';
import { today } from './clock';
import type { Reader, Store } from './db/database';
import * as tables from './db/schema';
import { invalid, notFound, Refusal } from './errors';
import { kinds, places, trees } from './records/records';
import { doWork, type Piece, type Work } from './records/work';
import { closeAnswered } from './task-work';

async function checkTree(work: Work, input: TreeInput, ownId: string | null): Promise<void> {
	const problems = [];
	if (!(await kinds.get(work.tx, input.kindId)))
		problems.push({ field: 'kindId', message: 'must be a kind known here' });
	if (!(await places.get(work.tx, input.placeId)))
		problems.push({ field: 'placeId', message: 'must be a place of this yard' });
	const [same] = await work.tx
		.select({ id: tables.tree.id, name: tables.tree.name })
		.from(tables.tree)
		.where(eq(sql`lower(${tables.tree.tag})`, input.tag.toLowerCase()));
	if (same && same.id !== ownId)
		problems.push({ field: 'tag', message: `is already on ${same.name}; every tag is used once` });
	if (input.takenInOn > today()) problems.push({ field: 'takenInOn', message: 'must not be after today' });
	if (problems.length > 0) throw invalid(problems);
}

/** Taking in as a piece of work, alone or with others; its identity is known before. */
export function takeInPiece(input: TreeInput): { id: string; piece: Piece<Tree> } {
	const id = newId();
	return {
		id,
		piece: {
			told: {
				treeId: id,
				stage: 'take-in',
				on: input.takenInOn,
				what: `Taken in: ${input.name}, ${situationNames[input.situation]}`
			},
			work: async (work) => {
				await checkTree(work, input, null);
				return work.add(
					trees,
					{
						...input,
						state: 'in-care' as const,
						closedOn: null,
						closingNote: '',
						lossCause: null,
						lossConditions: '',
						shownEarlier: ''
					},
					id
				);
			}
		}
	};
}

/** Takes a tree or a lot in. @throws Refusal 422 */
export async function takeIn(store: Store, input: TreeInput): Promise<{ tree: Tree; entryId: string }> {
	const { told, work } = takeInPiece(input).piece;
	const { result, entryId } = await doWork(store, told, work);
	return { tree: result, entryId };
}

/** Changes what was written at taking in. @throws Refusal 404, 409, 422 */
export async function changeTree(
	store: Store,
	id: string,
	version: number,
	input: TreeInput
): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId: id, stage: 'take-in', what: 'Changed what was taken in' },
		async (work) => {
			await checkTree(work, input, id);
			const stoodAt = (await trees.get(work.tx, id))?.placeId;
			const changed = await work.change(trees, id, version, (before) => ({ ...before, ...input }));
			if (changed.placeId !== stoodAt) await closeAnswered(work, id, ['place'], today());
			return changed;
		}
	);
	return entryId;
}

/** Closes a case, with what was learned. Open work is left standing but no longer shown. */
export async function closeTree(
	store: Store,
	id: string,
	version: number,
	closing: ClosingInput
): Promise<string> {
	const words = { 're-established': 'Re-established', dead: 'Lost', gone: 'Gone to another home' };
	const { entryId } = await doWork(
		store,
		{ treeId: id, stage: 'recovery', on: closing.closedOn, what: `${words[closing.state]}: case closed` },
		(work) =>
			work.change(trees, id, version, (before) => {
				if (closing.closedOn < before.takenInOn)
					throw invalid([
						{ field: 'closedOn', message: `must not be before ${before.takenInOn}, when it was taken in` }
					]);
				return { ...before, ...closing };
			})
	);
	return entryId;
}

/** Opens a closed case again; the closing note is kept. */
export async function reopenTree(store: Store, id: string, version: number): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId: id, stage: 'recovery', what: 'Case opened again' },
		(work) =>
			work.change(trees, id, version, (before) => ({ ...before, state: 'in-care' as const, closedOn: null }))
	);
	return entryId;
}

/** The tree that a record is written for. @throws Refusal 404 */
export async function requireTree(work: Pick<Work, 'tx'>, treeId: string): Promise<Tree> {
	const tree = await trees.get(work.tx, treeId);
	if (!tree) throw notFound('tree');
	return tree;
}

/**
 * Care lies on a day before the case was closed; of a closed case nothing goes on until it is opened again.
 * @throws Refusal 409 closed by then · 422 a day that cannot be
 */
export function refuseCare(field: string, on: string, tree: Tree): void {
	refuseDate(field, on, tree);
	if (tree.closedOn !== null && on > tree.closedOn)
		throw new Refusal(
			409,
			`The case of ${tree.tag} was closed on ${tree.closedOn}: ${treeStateNames[tree.state]}.`,
			'Open it again in Recovery first, or give a day before it was closed.'
		);
}

/** Work lies neither after today nor long before the tree was known. @throws Refusal 422 */
export function refuseDate(field: string, on: string, tree: Tree): void {
	if (on > today()) throw invalid([{ field, message: 'must not be after today' }]);
	if (on < addDays(tree.takenInOn, -3650))
		throw invalid([
			{ field, message: `must not be more than ten years before ${tree.takenInOn}, when it was taken in` }
		]);
}

/**
 * Shoots of a healthy tree, for comparison, mm: the best of the tree that is named for it; else those that were measured last of
 * one near by. Null when neither is there.
 */
export async function referenceShootMm(
	db: Reader,
	{ tree, observations }: Pick<TreeRecords, 'tree' | 'observations'>
): Promise<number | null> {
	const seen = tables.observation;
	const [row] = tree.referenceTreeId
		? await db
				.select({ most: max(seen.shootExtensionMm) })
				.from(seen)
				.where(eq(seen.treeId, tree.referenceTreeId))
		: [];
	return row?.most ?? observations.findLast((look) => look.healthyShootMm !== null)?.healthyShootMm ?? null;
}

/** So many earlier losses of a kind are told, the latest first. */
const LOSSES_TOLD = 5;

/** What became of the trees of its kind that were taken in before it. */
export async function kindBefore(db: Reader, tree: Tree): Promise<KindBefore> {
	const own = tables.tree;
	const before = and(eq(own.kindId, tree.kindId), ne(own.id, tree.id), lte(own.takenInOn, tree.takenInOn));
	const [counted, lost] = await Promise.all([
		db
			.select({ state: own.state, trees: sql<number>`count(*)` })
			.from(own)
			.where(before)
			.groupBy(own.state),
		db
			.select({
				id: own.id,
				tag: own.tag,
				name: own.name,
				closedOn: own.closedOn,
				lossCause: own.lossCause,
				closingNote: own.closingNote,
				shownEarlier: own.shownEarlier
			})
			.from(own)
			.where(and(before, eq(own.state, 'dead')))
			.orderBy(desc(own.closedOn), asc(own.id))
			.limit(LOSSES_TOLD)
	]);
	return {
		attempt: counted.reduce((sum, { trees: some }) => sum + some, 0) + 1,
		reEstablished: counted.find(({ state }) => state === 're-established')?.trees ?? 0,
		lost: lost.map((row) => ({ ...row, lossCause: row.lossCause as Tree['lossCause'] }))
	};
}
