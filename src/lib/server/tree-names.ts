import { and, asc, eq, inArray, ne, sql, type SQL } from 'drizzle-orm';
import { findBy } from '../core/text/search';
import type { TreeName } from '../core/take-in/tree';
import type { Reader } from './db/database';
import { tree } from './db/schema';
import { soundTree } from './records/sound';

/** So many trees are offered at once; the others are found by typing. */
const OFFERED_MOST = 30;

const named = { id: tree.id, tag: tree.tag, name: tree.name, state: tree.state };
const selected = async (
	db: Reader,
	where: SQL | undefined,
	order: SQL[],
	most?: number
): Promise<TreeName[]> => {
	const asked = db
		.select(named)
		.from(tree)
		.where(and(where, soundTree(db)))
		.orderBy(...order, asc(tree.tag), asc(tree.id));
	return (most === undefined ? await asked : await asked.limit(most)) as TreeName[];
};

/** Every tree of the yard by identity, tag, name and state, by tag. */
export const treeNames = (db: Reader): Promise<TreeName[]> => selected(db, undefined, []);

/** Every tree of the yard as it is named, with the place where it stands. */
export const treesPlaced = async (db: Reader): Promise<(TreeName & { placeId: string })[]> =>
	db
		.select({ ...named, placeId: tree.placeId })
		.from(tree)
		.where(soundTree(db))
		.orderBy(asc(tree.tag), asc(tree.id)) as Promise<(TreeName & { placeId: string })[]>;

/**
 * Trees that are offered to be named beside another: of its kind first, then of its place, with those that are named already.
 * @param of the tree they are to stand beside; null for one that is not taken in yet
 * @param also identities that are named already, whatever their state
 */
export async function treesBeside(
	db: Reader,
	of: { id: string; kindId: string; placeId: string } | null,
	also: readonly (string | null)[] = [],
	inCare = true
): Promise<TreeName[]> {
	const near = await selected(
		db,
		and(inCare ? eq(tree.state, 'in-care') : undefined, of ? ne(tree.id, of.id) : undefined),
		of ? [sql`${tree.kindId} = ${of.kindId} desc`, sql`${tree.placeId} = ${of.placeId} desc`] : [],
		OFFERED_MOST
	);
	const missing = also.filter((id) => id !== null && !near.some((one) => one.id === id)) as string[];
	return missing.length === 0 ? near : [...near, ...(await selected(db, inArray(tree.id, missing), []))];
}

/** Trees whose tag or name has words that begin as typed. */
export async function treesCalled(db: Reader, typed: string, inCare: boolean): Promise<TreeName[]> {
	const all = await selected(db, inCare ? eq(tree.state, 'in-care') : undefined, []);
	return findBy(typed, all, ({ tag, name }) => `${tag} ${name}`).slice(0, OFFERED_MOST);
}

/** A tag that no tree bears yet: T-01 and on. */
export async function freeTag(db: Reader): Promise<string> {
	const [counted] = await db.select({ trees: sql<number>`count(*)` }).from(tree);
	const like = await db
		.select({ tag: sql<string>`lower(${tree.tag})` })
		.from(tree)
		.where(sql`lower(${tree.tag}) like 't-%'`);
	const taken = new Set(like.map(({ tag }) => tag));
	const tagOf = (number: number): string => `T-${String(number).padStart(2, '0')}`;
	let number = (counted?.trees ?? 0) + 1;
	while (taken.has(tagOf(number).toLowerCase())) number++;
	return tagOf(number);
}
