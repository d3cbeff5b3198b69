import { eq, inArray, sql } from 'drizzle-orm';
import type { AnySQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { z } from 'zod';
import type { Reader, Writer } from '../db/database';
import { tableRows } from '../db/json-rows';

/** A record a person writes, kept whole: its row and, where it has parts, the rows of its parts. */
export interface Aggregate<T extends Identified> {
	name: string;
	/** What it is called in a sentence. */
	noun: string;
	get(db: Reader, id: string): Promise<T | null>;
	/** Those of some identities that stand here, in no order. */
	getAll(db: Reader, ids: readonly string[]): Promise<T[]>;
	/** Records of one tree, oldest first; of all when the record belongs to no tree. */
	list(db: Reader, treeId?: string): Promise<T[]>;
	/** Records of several trees at once, by tree, each list as `list` gives it. */
	listOf(db: Reader, treeIds: readonly string[]): Promise<Map<string, T[]>>;
	/** Writes the record as given, version and all; replaces what stood under its identity. */
	put(tx: Writer, treeId: string | null, doc: T): Promise<void>;
	remove(tx: Writer, id: string): Promise<void>;
}

export interface Identified {
	id: string;
	version: number;
}

type KeyedTable = SQLiteTable & { id: AnySQLiteColumn };
type PartTable = SQLiteTable & { ownerId: AnySQLiteColumn; position: AnySQLiteColumn };

interface AggregateOptions<T extends Identified> {
	name: string;
	noun: string;
	schema: z.ZodType<T>;
	table: KeyedTable;
	/** Column that names the tree, for records of a tree. */
	treeId?: AnySQLiteColumn;
	/** Column that orders a list; of equals the one kept first comes first. */
	orderBy: AnySQLiteColumn;
	/** A field of the record that is a list kept in a table of its own. */
	part?: { field: keyof T & string; table: PartTable };
}

type Row = Record<string, unknown>;

/** Most rows sent in one insert: SQLite takes at most 32,766 bound values. */
const INSERT_ROWS = 400;

/**
 * One repository from a Drizzle table and the record's schema. Columns carry the names of the fields, so that the
 * mapping is the schema itself: every row read is parsed by it, and a row that does not fit is an error, not a guess.
 */
export function aggregate<T extends Identified>(options: AggregateOptions<T>): Aggregate<T> {
	const { table, part, schema, treeId: treeColumn } = options;

	/** Reads rows as records; the parts of all of them come at once. */
	const readAll = async (db: Reader, rows: readonly { row: Row }[]): Promise<T[]> => {
		if (part && rows.length > 0) {
			const ofOwner = new Map<unknown, Row[]>();
			for (let from = 0; from < rows.length; from += INSERT_ROWS) {
				const owners = rows.slice(from, from + INSERT_ROWS).map(({ row }) => String(row.id));
				const found = await tableRows(
					db,
					part.table,
					sql`where ${inArray(part.table.ownerId, owners)} order by ${part.table.position}`
				);
				for (const { row, owner } of found) {
					const list = ofOwner.get(owner);
					if (list) list.push(row);
					else ofOwner.set(owner, [row]);
				}
			}
			for (const { row } of rows) row[part.field] = ofOwner.get(row.id) ?? [];
		}
		return rows.map(({ row }) => schema.parse(row));
	};
	// Of one day as they were kept: the later kept is the later.
	const order = sql`order by ${options.orderBy}, ${table}.rowid`;

	return {
		name: options.name,
		noun: options.noun,
		async get(db, id) {
			const [found] = await readAll(db, await tableRows(db, table, sql`where ${table.id} = ${id}`));
			return found ?? null;
		},
		async getAll(db, ids) {
			return ids.length === 0
				? []
				: readAll(db, await tableRows(db, table, sql`where ${inArray(table.id, [...ids])}`));
		},
		async list(db, ofTree) {
			return readAll(
				db,
				await tableRows(
					db,
					table,
					treeColumn && ofTree !== undefined ? sql`where ${treeColumn} = ${ofTree} ${order}` : order
				)
			);
		},
		async listOf(db, treeIds) {
			const of = new Map<string, T[]>(treeIds.map((id) => [id, []]));
			if (!treeColumn || treeIds.length === 0) return of;
			const rows = await tableRows(db, table, sql`where ${inArray(treeColumn, [...treeIds])} ${order}`);
			for (const [i, doc] of (await readAll(db, rows)).entries()) of.get(String(rows[i]?.owner))?.push(doc);
			return of;
		},
		async put(tx, ofTree, doc) {
			const row: Row = Object.fromEntries(Object.entries(doc));
			if (treeColumn) row.treeId = ofTree;
			if (part) delete row[part.field];
			await tx.insert(table).values(row).onConflictDoUpdate({ target: table.id, set: row });
			if (!part) return;
			await tx.delete(part.table).where(eq(part.table.ownerId, doc.id));
			const list = (doc[part.field] as Row[]).map((item, position) => ({
				...item,
				ownerId: doc.id,
				position
			}));
			for (let from = 0; from < list.length; from += INSERT_ROWS)
				await tx.insert(part.table).values(list.slice(from, from + INSERT_ROWS));
		},
		async remove(tx, id) {
			await tx.delete(table).where(eq(table.id, id));
		}
	};
}
