import { and, asc, eq, ne, sql } from 'drizzle-orm';
import { isSingle, type PotMateRecords, type TreeRecordField, type TreeRecords } from '../../core/tree/case';
import { lookWeights } from '../../core/tree/shared-pot';
import type { Tree } from '../../core/take-in/tree';
import { frozen, keepIn, rememberedBy, type Reader } from '../db/database';
import { recordsKey, toldKey } from '../db/revisions';
import * as tables from '../db/schema';
import { notFound } from '../errors';
import type { Aggregate, Identified } from './aggregate';
import { kinds, measurements, observations, ofTree, places, plantings, trees, waterings } from './records';

/** So many trees are remembered as they were last read. */
const REMEMBERED_TREES = 64;

/**
 * Every record of one tree, frozen: whoever asks shares it. Read anew only where something of it was written since it was last read,
 * by whomever; the database counts that.
 * @throws Refusal 404
 */
export async function loadRecords(db: Reader, treeId: string): Promise<TreeRecords> {
	const memory = rememberedBy(db);
	const [row] = await db
		.select({ key: sql<string>`${recordsKey()} || '|' || ${toldKey()}` })
		.from(tables.tree)
		.where(eq(tables.tree.id, treeId));
	if (!row) throw notFound('tree');
	const known = memory?.records.get(treeId);
	if (known?.key === row.key) return known.records;
	const records = frozen(await readRecords(db, treeId));
	if (memory?.keeps) keepIn(memory.records, treeId, { key: row.key, records }, REMEMBERED_TREES);
	return records;
}

async function readRecords(db: Reader, treeId: string): Promise<TreeRecords> {
	const tree = await trees.get(db, treeId);
	if (!tree) throw notFound('tree');
	const [kind, everywhere, mates, journal, ...held] = await Promise.all([
		kinds.get(db, tree.kindId),
		places.list(db),
		potMateRecords(db, tree),
		db
			.select({
				id: tables.journal.id,
				at: tables.journal.at,
				on: tables.journal.on,
				stage: tables.journal.stage,
				what: tables.journal.what
			})
			.from(tables.journal)
			.where(eq(tables.journal.treeId, treeId))
			// Of one instant, as they were written.
			.orderBy(asc(tables.journal.at), asc(tables.journal.on), sql`${tables.journal}.rowid`),
		...(Object.entries(ofTree) as [TreeRecordField, Aggregate<Identified>][]).map(
			async ([field, repository]) => {
				const list = await repository.list(db, treeId);
				return [field, isSingle(field) ? (list[0] ?? null) : list] as const;
			}
		)
	]);
	if (!kind) throw notFound('kind');
	const records = Object.fromEntries(held) as unknown as Pick<TreeRecords, TreeRecordField>;
	const stood = new Set([
		tree.placeId,
		...[...records.plantings, ...records.groundPlans].map((work) => work.placeId)
	]);
	return {
		...records,
		mates,
		tree,
		kind,
		places: everywhere.filter(({ id }) => stood.has(id)).sort((a, b) => (a.id < b.id ? -1 : 1)),
		journal: journal as TreeRecords['journal']
	};
}

/** Other trees in care that stand in the same pot, by its name. */
export async function matesInPot(db: Reader, tree: Tree): Promise<PotMateRecords['tree'][]> {
	if (tree.sharedPot.trim() === '' || tree.situation !== 'potted') return [];
	const own = tables.tree;
	return db
		.select({
			id: own.id,
			tag: own.tag,
			name: own.name,
			heightM: own.heightM,
			trunkDiameterMm: own.trunkDiameterMm
		})
		.from(own)
		.where(
			and(
				ne(own.id, tree.id),
				eq(own.state, 'in-care'),
				eq(own.situation, 'potted'),
				sql`lower(trim(${own.sharedPot})) = lower(trim(${tree.sharedPot}))`
			)
		)
		.orderBy(own.tag)
		.limit(20);
}

const potMateRecords = async (db: Reader, tree: Tree): Promise<PotMateRecords[]> =>
	Promise.all(
		(await matesInPot(db, tree)).map(async (mate) => {
			const [planted, watered, measured, looks] = await Promise.all([
				plantings.list(db, mate.id),
				waterings.list(db, mate.id),
				measurements.list(db, mate.id),
				observations.list(db, mate.id)
			]);
			return {
				tree: mate,
				plantings: planted,
				waterings: watered,
				measurements: measured,
				weights: lookWeights(looks)
			};
		})
	);
