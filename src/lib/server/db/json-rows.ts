import { Column, getTableColumns, sql, type SQL } from 'drizzle-orm';
import { SQLiteReal, type AnySQLiteColumn, type SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Reader } from './database';

/**
 * Reads many short rows as one: SQLite writes them as JSON and they are parsed in one go. The client makes an object a
 * row and column by column, which takes ten times as long for the lists of a large yard.
 * @param columns what each row holds, by name; flags come as 0 and 1
 * @param from everything from `from` on
 */
export async function jsonRows<T>(
	db: Reader,
	columns: Record<keyof T & string, AnySQLiteColumn | SQL>,
	from: SQL
): Promise<T[]> {
	const entries = Object.entries(columns) as [string, AnySQLiteColumn | SQL][];
	const object = sql.join(
		entries.map(([name, column]) => sql`${sql.raw(`'${name}'`)}, ${column}`),
		sql`, `
	);
	const found = await db.get<{ list: string | null }>(
		sql`select json_group_array(json(line)) as list from (select json_object(${object}) as line ${from})`
	);
	return JSON.parse(found?.list ?? '[]') as T[];
}

/** How the rows of a table are read: what is selected, and what becomes of each cell. */
interface TableReading {
	cells: SQL;
	/** Columns of the record, by their place among the cells. */
	columns: readonly { at: number; name: string; read: ((cell: unknown) => unknown) | null }[];
	/** Place of the column that names the owner; −1 where there is none. */
	owner: number;
}
/** Columns that say where a row belongs and are no part of its record. */
const placing = ['treeId', 'ownerId', 'position'];
const readings = new WeakMap<SQLiteTable, TableReading>();

function readingOf(table: SQLiteTable): TableReading {
	const known = readings.get(table);
	if (known) return known;
	const columns = Object.entries(getTableColumns(table));
	const reading: TableReading = {
		cells: sql.join(
			columns.map(([, column]) => {
				const cell = sql.identifier(column.name);
				return column instanceof SQLiteReal
					? sql`iif(${cell} is null, null, printf('%!.17g', ${cell}))`
					: cell;
			}),
			sql`, `
		),
		columns: columns.flatMap(([name, column], at) =>
			placing.includes(name)
				? []
				: [
						{
							at,
							name,
							read:
								column instanceof SQLiteReal
									? Number
									: column.mapFromDriverValue === Column.prototype.mapFromDriverValue
										? null
										: (cell: unknown) => column.mapFromDriverValue(cell)
						}
					]
		),
		owner: columns.findIndex(([name]) => name === 'treeId' || name === 'ownerId')
	};
	readings.set(table, reading);
	return reading;
}

/** Rows of a table to be read: which, and in what order. */
export interface TableRead {
	table: SQLiteTable;
	/** Condition and order. */
	rest: SQL;
}
/** Rows without what says where they belong, and beside each the tree or record it belongs to. */
export type TableRows = { row: Record<string, unknown>; owner: unknown }[];

/** A cell that cannot be made out stays as it is, for the schema of its record to refuse: it must not sink the rows beside it. */
function readable(read: (cell: unknown) => unknown, cell: unknown): unknown {
	try {
		return read(cell);
	} catch {
		return cell;
	}
}

/**
 * Reads whole rows of some tables in one round trip, each column as Drizzle would give it. SQLite writes numbers of JSON with fifteen
 * digits, which is not always the number that was kept; so they come as text with seventeen.
 * @returns rows in the order of what was asked
 */
export async function tableRows(db: Reader, reads: readonly TableRead[]): Promise<TableRows[]> {
	if (reads.length === 0) return [];
	const lists = reads.map(
		({ table, rest }, i) =>
			sql`(select json_group_array(json_array(${readingOf(table).cells})) from (select ${table}.* from ${table} ${rest})) as ${sql.identifier(`list${i}`)}`
	);
	const found = await db.get<Record<string, string | null>>(sql`select ${sql.join(lists, sql`, `)}`);
	return reads.map(({ table }, i) => {
		const { columns, owner } = readingOf(table);
		return (JSON.parse(found?.[`list${i}`] ?? '[]') as unknown[][]).map((cells) => {
			const row: Record<string, unknown> = {};
			for (const { at, name, read } of columns) {
				const cell = cells[at] ?? null;
				row[name] = cell === null || read === null ? cell : readable(read, cell);
			}
			return { row, owner: cells[owner] };
		});
	});
}
