import { eq, getTableColumns, inArray, sql, type SQL } from 'drizzle-orm';
import type { AnySQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import { z } from 'zod';
import { fieldProblems, type FieldProblem } from '../../core/vocabulary/fields';
import type { DamagedRecord } from '../../core/vocabulary/damaged';
import { rememberedBy, type Reader, type Writer } from '../db/database';
import { jsonRows, tableRows, type TableRead, type TableRows } from '../db/json-rows';
import { damagedHere } from '../errors';

/** A record a person writes, kept whole: its row and, where it has parts, the rows of its parts. */
export interface Aggregate<T extends Identified> {
	name: string;
	/** What it is called in a sentence. */
	noun: string;
	schema: z.ZodType<T>;
	/** @throws Refusal 422 where it stands here and cannot be made out */
	get(db: Reader, id: string): Promise<T | null>;
	/** As it stands in its tables, whether it can be made out or not. */
	raw(db: Reader, id: string): Promise<RawRecord | null>;
	/** Looks through all that are kept. */
	check(db: Reader): Promise<Checked<T>>;
	/** Whether any is kept of a tree, readable or not. */
	anyOf(db: Reader, treeId: string): Promise<boolean>;
	/** What in a record as it stands does not fit; empty where all does. */
	problemsOf(raw: RawRecord): FieldProblem[];
	/** Those of some identities that stand here, in no order. What cannot be made out is left out here and in every list, and noted. */
	getAll(db: Reader, ids: readonly string[]): Promise<T[]>;
	/** Records of one tree, oldest first; of all when the record belongs to no tree. */
	list(db: Reader, treeId?: string): Promise<T[]>;
	/** How the records of some trees are read, so that several kinds can be read in one round trip. */
	ofTrees(treeIds: readonly string[]): Reading<T>;
	/** Which of some identities stand here, readable or not. */
	standing(db: Reader, ids: readonly string[]): Promise<string[]>;
	/** Writes the record as given, version and all; replaces what stood under its identity. */
	put(tx: Writer, treeId: string | null, doc: T): Promise<void>;
	/** Writes many records as they are given, in their order. */
	putAll(tx: Writer, treeId: string | null, docs: readonly T[]): Promise<void>;
	remove(tx: Writer, id: string): Promise<void>;
}

/** A record as its tables hold it, its parts in their field. */
export type RawRecord = Record<string, unknown>;

/** What was found by looking through the records of a kind. */
export interface Checked<T> {
	/** Those that cannot be made out. */
	damaged: DamagedRecord[];
	/** Those whose text holds what is cleaned out of every text by now, as they are without it. */
	unclean: { doc: T; treeId: string | null }[];
}

/** Rows to be read, and the records they make, each with the tree it belongs to; lists stand in the order of `list`. */
export interface Reading<T> {
	reads: TableRead[];
	/** @param db where what cannot be made out is noted */
	take(db: Reader, rows: readonly TableRows[]): { doc: T; owner: unknown }[];
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

type Row = RawRecord;

/** So many records are looked through before others get their turn. */
const CHECKED_ROWS = 300;
/** Most rows sent in one insert: SQLite takes at most 32,766 bound values. */
const INSERT_ROWS = 400;

/**
 * One repository from a Drizzle table and the record's schema. Columns carry the names of the fields, so that the
 * mapping is the schema itself: every row read is parsed by it. A row that does not fit is not guessed at: it is noted, and lists go on
 * without it.
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
		take: (db, rows) =>
			joined(rows).flatMap(({ row, owner }) => {
				const parsed = schema.safeParse(row);
				if (parsed.success) return [{ doc: parsed.data, owner }];
				note(db, row, owner, parsed.error);
				return [];
			})
	});
	/** Rows with those of their parts in them. */
	const joined = ([rows = [], parts = []]: readonly TableRows[]): TableRows => {
		if (part) {
			const ofOwner = new Map<unknown, Row[]>();
			for (const { row, owner } of parts) {
				const list = ofOwner.get(owner);
				if (list) list.push(row);
				else ofOwner.set(owner, [row]);
			}
			for (const { row } of rows) row[part.field] = ofOwner.get(row.id) ?? [];
		}
		return rows;
	};
	const treeOf = (row: Row, owner: unknown): string | null =>
		options.name === 'tree' ? String(row.id) : typeof owner === 'string' ? owner : null;
	const damagedRecord = (row: Row, owner: unknown, error: z.ZodError): DamagedRecord => ({
		record: options.name,
		id: String(row.id),
		treeId: treeOf(row, owner),
		problems: fieldProblems(error)
	});
	const note = (db: Reader, row: Row, owner: unknown, error: z.ZodError): void => {
		rememberedBy(db)?.damaged.set(`${options.name}/${String(row.id)}`, damagedRecord(row, owner, error));
	};
	const read = async (db: Reader, where: SQL): Promise<T[]> => {
		const { reads, take } = reading(where);
		return take(db, await tableRows(db, reads)).map(({ doc }) => doc);
	};
	const rawOf = async (db: Reader, where: SQL): Promise<TableRows> =>
		joined(await tableRows(db, reading(where).reads));

	const columns = getTableColumns(table);
	const inParts = (rows: Row[]): Row[][] =>
		Array.from({ length: Math.ceil(rows.length / INSERT_ROWS) }, (_, i) =>
			rows.slice(i * INSERT_ROWS, (i + 1) * INSERT_ROWS)
		);
	const putAll: Aggregate<T>['putAll'] = async (tx, ofTree, docs) => {
		const rows = docs.map((doc): Row => {
			const row: Row = Object.fromEntries(Object.entries(doc));
			if (treeColumn) row.treeId = ofTree;
			if (part) delete row[part.field];
			return row;
		});
		// The records of one kind have the same fields.
		const set = Object.fromEntries(
			Object.keys(rows[0] ?? {}).flatMap((field) => {
				const column = columns[field];
				return column ? [[field, sql.raw(`excluded."${column.name}"`)]] : [];
			})
		);
		for (const some of inParts(rows))
			await tx.insert(table).values(some).onConflictDoUpdate({ target: table.id, set });
		if (!part || docs.length === 0) return;
		await tx.delete(part.table).where(
			inArray(
				part.table.ownerId,
				docs.map(({ id }) => id)
			)
		);
		const items = docs.flatMap((doc) =>
			(doc[part.field] as Row[]).map((item, position) => ({ ...item, ownerId: doc.id, position }))
		);
		for (const some of inParts(items)) await tx.insert(part.table).values(some);
	};

	return {
		name: options.name,
		noun: options.noun,
		schema: options.schema,
		async get(db, id) {
			const [found] = await rawOf(db, sql`where ${table.id} = ${id}`);
			if (!found) return null;
			const parsed = schema.safeParse(found.row);
			if (parsed.success) return parsed.data;
			note(db, found.row, found.owner, parsed.error);
			throw damagedHere(options.noun);
		},
		raw: async (db, id) => (await rawOf(db, sql`where ${table.id} = ${id}`))[0]?.row ?? null,
		async check(db) {
			const found: Checked<T> = { damaged: [], unclean: [] };
			for (let last = ''; ;) {
				// A page at a time: whoever asks for something else meanwhile is answered in between.
				const rows = await rawOf(
					db,
					sql`where ${table.id} in (select ${table.id} from ${table} where ${table.id} > ${last} order by ${table.id} limit ${CHECKED_ROWS})`
				);
				for (const { row, owner } of rows) {
					const parsed = schema.safeParse(row);
					if (!parsed.success) found.damaged.push(damagedRecord(row, owner, parsed.error));
					else if (
						Object.entries(parsed.data).some(
							([name, value]) => typeof value === 'string' && value !== row[name]
						)
					)
						found.unclean.push({ doc: parsed.data, treeId: treeOf(row, owner) });
					if (String(row.id) > last) last = String(row.id);
				}
				if (rows.length < CHECKED_ROWS) return found;
				await new Promise(setImmediate);
			}
		},
		anyOf: async (db, ofTree) =>
			treeColumn !== undefined &&
			(await db.select({ id: table.id }).from(table).where(eq(treeColumn, ofTree)).limit(1)).length > 0,
		problemsOf(raw) {
			const parsed = schema.safeParse(raw);
			return parsed.success ? [] : fieldProblems(parsed.error);
		},
		getAll: async (db, ids) => (ids.length === 0 ? [] : read(db, sql`where ${inArray(table.id, [...ids])}`)),
		standing: async (db, ids) =>
			ids.length === 0
				? []
				: (
						await jsonRows<{ id: string }>(
							db,
							{ id: table.id },
							sql`from ${table} where ${table.id} in (select value from json_each(${JSON.stringify(ids)}))`
						)
					).map(({ id }) => id),
		list: (db, ofTree) =>
			read(db, treeColumn && ofTree !== undefined ? sql`where ${treeColumn} = ${ofTree}` : sql``),
		ofTrees: (treeIds) =>
			reading(treeColumn ? sql`where ${inArray(treeColumn, [...treeIds])}` : sql`where false`),
		put: (tx, ofTree, doc) => putAll(tx, ofTree, [doc]),
		putAll,
		async remove(tx, id) {
			await tx.delete(table).where(eq(table.id, id));
		}
	};
}
