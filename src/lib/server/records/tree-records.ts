import { and, eq, inArray, ne, sql } from 'drizzle-orm';
import { isSingle, type PotMateRecords, type TreeRecordField, type TreeRecords } from '../../core/tree/case';
import { isFirstWater } from '../../core/aftercare/tasks/pressing';
import { lookWeights } from '../../core/tree/shared-pot';
import type { Tree } from '../../core/take-in/tree';
import type { Kind } from '../../core/vocabulary/kind';
import { frozen, keepIn, rememberedBy, type Reader } from '../db/database';
import { jsonRows, tableRows } from '../db/json-rows';
import { recordsKey, toldKey } from '../db/revisions';
import * as tables from '../db/schema';
import { notFound } from '../errors';
import type { Aggregate, Identified } from './aggregate';
import {
	examinations,
	kinds,
	measurements,
	observations,
	ofTree,
	places,
	plantings,
	tasks,
	trees,
	waterings
} from './records';

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
	const records = known?.key === row.key ? known.records : frozen(await readRecords(db, treeId));
	// Asked for again, it is the last to go.
	if (memory?.keeps) keepIn(memory.records, treeId, { key: row.key, records }, REMEMBERED_TREES);
	return records;
}

async function readRecords(db: Reader, treeId: string): Promise<TreeRecords> {
	const [records] = await readAll(db, [treeId]);
	if (records) return records;
	// Left out of what is read together, it says itself what is wrong: with it, with its kind, or with where it stands.
	const tree = await trees.get(db, treeId);
	if (!tree) throw notFound('tree');
	if (!(await kinds.get(db, tree.kindId))) throw notFound('kind');
	await places.get(db, tree.placeId);
	throw notFound('place');
}

/**
 * Every record of many trees, read together and not remembered.
 * @param treeIds those that do not stand here are left out, and those that cannot be made out
 */
export async function readAll(db: Reader, treeIds: readonly string[]): Promise<TreeRecords[]> {
	const found = await trees.getAll(db, treeIds);
	if (found.length === 0) return [];
	const fields = Object.entries(ofTree) as [TreeRecordField, Aggregate<Identified>][];
	const readings = fields.map(([, repository]) => repository.ofTrees(treeIds));
	const [kindsOf, everywhere, journal, rows] = await Promise.all([
		kinds.getAll(db, [...new Set(found.map((tree) => tree.kindId))]),
		places.list(db),
		jsonRows<TreeRecords['journal'][number] & { treeId: string }>(
			db,
			{
				id: tables.journal.id,
				treeId: tables.journal.treeId,
				at: tables.journal.at,
				on: tables.journal.on,
				stage: tables.journal.stage,
				what: tables.journal.what,
				by: tables.journal.by
			},
			// Of one instant, as they were written.
			sql`from ${tables.journal} where ${inArray(tables.journal.treeId, [...treeIds])} order by ${tables.journal.at}, ${tables.journal.on}, ${tables.journal}.rowid`
		),
		tableRows(
			db,
			readings.flatMap(({ reads }) => reads)
		)
	]);
	let next = 0;
	const held = fields.map(([field], i) => {
		const { reads, take } = readings[i] ?? { reads: [], take: () => [] };
		const lists = new Map<unknown, Identified[]>(treeIds.map((id) => [id, []]));
		for (const { doc, owner } of take(db, rows.slice(next, (next += reads.length))))
			lists.get(owner)?.push(doc);
		return [field, lists] as const;
	});
	const kindOf = new Map(kindsOf.map((kind) => [kind.id, kind]));
	const told = new Map<string, TreeRecords['journal']>(treeIds.map((id) => [id, []]));
	for (const { treeId, ...entry } of journal) told.get(treeId)?.push(entry);
	const placed = new Set(everywhere.map(({ id }) => id));
	const whole = async (tree: Tree, kind: Kind): Promise<TreeRecords> => {
		const records = Object.fromEntries(
			held.map(([field, lists]) => {
				const list = lists.get(tree.id) ?? [];
				return [field, isSingle(field) ? (list[0] ?? null) : list];
			})
		) as unknown as Pick<TreeRecords, TreeRecordField>;
		const stood = new Set([
			tree.placeId,
			...[...records.plantings, ...records.groundPlans].map((work) => work.placeId)
		]);
		return {
			...records,
			mates: await potMateRecords(db, tree),
			tree,
			kind,
			places: everywhere.filter(({ id }) => stood.has(id)).sort((a, b) => (a.id < b.id ? -1 : 1)),
			journal: told.get(tree.id) ?? []
		};
	};
	return Promise.all(
		found.flatMap((tree) => {
			const kind = kindOf.get(tree.kindId);
			return kind && placed.has(tree.placeId) ? [whole(tree, kind)] : [];
		})
	);
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
			const [planted, watered, measured, examined, looks, asked] = await Promise.all([
				plantings.list(db, mate.id),
				waterings.list(db, mate.id),
				measurements.list(db, mate.id),
				examinations.list(db, mate.id),
				observations.list(db, mate.id),
				tasks.list(db, mate.id)
			]);
			return {
				tree: mate,
				plantings: planted,
				waterings: watered,
				measurements: measured,
				examinations: examined,
				weights: lookWeights(looks),
				firstWater: asked.find(isFirstWater) ?? null
			};
		})
	);
