import { eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { AnySQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import { z } from 'zod';
import type { Reader, Writer } from '../db/database';
import { tableRows, type TableRead, type TableRows } from '../db/json-rows';

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
	/** How the records of some trees are read, so that several kinds can be read in one round trip. */
	ofTrees(treeIds: readonly string[]): Reading<T>;
	/** Writes the record as given, version and all; replaces what stood under its identity. */
	put(tx: Writer, treeId: string | null, doc: T): Promise<void>;
	remove(tx: Writer, id: string): Promise<void>;
}

/** Rows to be read, and the records they make, each with the tree it belongs to; lists stand in the order of `list`. */
export interface Reading<T> {
	reads: TableRead[];
	take(rows: readonly TableRows[]): { doc: T; owner: unknown }[];
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
	const { table, part, treeId: treeColumn } = options;
	// A row has the columns of its table and no others, so that they need not be looked for in each.
	const schema =
		options.schema instanceof z.ZodObject
			? (options.schema.strip() as unknown as z.ZodType<T>)
			: options.schema;

	// Of one day as they were kept: the later kept is the later.
	const order = sql`order by ${options.orderBy}, ${table}.rowid`;
	/** Records that meet a condition, with their parts: what is asked, and what becomes of the answer. */
	const reading = (where: SQL): Reading<T> => ({
		reads: [
			{ table, rest: sql`${where} ${order}` },
			...(part
				? [
						{
							table: part.table,
							rest: sql`where ${part.table.ownerId} in (select ${table.id} from ${table} ${where}) order by ${part.table.position}`
						}
					]
				: [])
		],
		take: ([rows = [], parts = []]) => {
			if (part) {
				const ofOwner = new Map<unknown, Row[]>();
				for (const { row, owner } of parts) {
					const list = ofOwner.get(owner);
					if (list) list.push(row);
					else ofOwner.set(owner, [row]);
				}
				for (const { row } of rows) row[part.field] = ofOwner.get(row.id) ?? [];
			}
			return rows.map(({ row, owner }) => ({ doc: schema.parse(row), owner }));
		}
	});
	const read = async (db: Reader, where: SQL): Promise<T[]> => {
		const { reads, take } = reading(where);
		return take(await tableRows(db, reads)).map(({ doc }) => doc);
	};

	return {
		name: options.name,
		noun: options.noun,
		get: async (db, id) => (await read(db, sql`where ${table.id} = ${id}`))[0] ?? null,
		getAll: async (db, ids) => (ids.length === 0 ? [] : read(db, sql`where ${inArray(table.id, [...ids])}`)),
		list: (db, ofTree) =>
			read(db, treeColumn && ofTree !== undefined ? sql`where ${treeColumn} = ${ofTree}` : sql``),
		ofTrees: (treeIds) =>
			reading(treeColumn ? sql`where ${inArray(treeColumn, [...treeIds])}` : sql`where false`),
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
