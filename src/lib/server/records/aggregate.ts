import { asc, eq, inArray, sql } from 'drizzle-orm';
import type { AnySQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { z } from 'zod';
import type { Reader, Writer } from '../db/database';

/** A record a person writes, kept whole: its row and, where it has parts, the rows of its parts. */
export interface Aggregate<T extends Identified> {
	name: string;
	/** What it is called in a sentence. */
	noun: string;
	get(db: Reader, id: string): Promise<T | null>;
	/** Records of one tree, oldest first; of all when the record belongs to no tree. */
	list(db: Reader, treeId?: string): Promise<T[]>;
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

	const withoutKeys = (row: Row): Row => {
		const { treeId: _tree, ownerId: _owner, position: _position, ...rest } = row;
		return rest;
	};
	/** Reads rows as records; the parts of all of them come at once. */
	const readAll = async (db: Reader, rows: Row[]): Promise<T[]> => {
		const docs = rows.map(withoutKeys);
		if (part && rows.length > 0) {
			const ofOwner = new Map<unknown, Row[]>();
			for (let from = 0; from < rows.length; from += INSERT_ROWS) {
				const owners = rows.slice(from, from + INSERT_ROWS).map((row) => String(row.id));
				const found: Row[] = await db
					.select()
					.from(part.table)
					.where(inArray(part.table.ownerId, owners))
					.orderBy(asc(part.table.position));
				for (const row of found) {
					const list = ofOwner.get(row.ownerId);
					if (list) list.push(row);
					else ofOwner.set(row.ownerId, [row]);
				}
			}
			for (const doc of docs) doc[part.field] = (ofOwner.get(doc.id) ?? []).map(withoutKeys);
		}
		return docs.map((doc) => schema.parse(doc));
	};

	return {
		name: options.name,
		noun: options.noun,
		async get(db, id) {
			const [found] = await readAll(db, await db.select().from(table).where(eq(table.id, id)));
			return found ?? null;
		},
		async list(db, ofTree) {
			const rows = await db
				.select()
				.from(table)
				.where(treeColumn && ofTree !== undefined ? eq(treeColumn, ofTree) : undefined)
				// Of one day as they were kept: the later kept is the later.
				.orderBy(asc(options.orderBy), sql`${table}.rowid`);
			return readAll(db, rows);
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
