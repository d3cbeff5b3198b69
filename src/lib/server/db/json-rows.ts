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
	columns: readonly { name: string; read: ((cell: unknown) => unknown) | null }[];
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
			columns.map(([, column]) =>
				column instanceof SQLiteReal
					? sql`iif(${column} is null, null, printf('%!.17g', ${column}))`
					: sql`${column}`
			),
			sql`, `
		),
		columns: columns.map(([name, column]) => ({
			name,
			read:
				column instanceof SQLiteReal
					? Number
					: column.mapFromDriverValue === Column.prototype.mapFromDriverValue
						? null
						: (cell) => column.mapFromDriverValue(cell)
		})),
		owner: columns.findIndex(([name]) => name === 'treeId' || name === 'ownerId')
	};
	readings.set(table, reading);
	return reading;
}

/**
 * Reads whole rows of a table as one, each column as Drizzle would give it. SQLite writes numbers of JSON with fifteen digits, which
 * is not always the number that was kept; so they come as text with seventeen.
 * @param rest condition and order
 * @returns each row without what says where it belongs, and beside it the tree or record it belongs to
 */
export async function tableRows(
	db: Reader,
	table: SQLiteTable,
	rest: SQL
): Promise<{ row: Record<string, unknown>; owner: unknown }[]> {
	const { cells, columns, owner } = readingOf(table);
	const found = await db.get<{ list: string | null }>(
		sql`select json_group_array(json(line)) as list from (select json_array(${cells}) as line from ${table} ${rest})`
	);
	return (JSON.parse(found?.list ?? '[]') as unknown[][]).map((cellsOfRow) => {
		const row: Record<string, unknown> = {};
		for (let i = 0; i < columns.length; i++) {
			const column = columns[i];
			if (!column || placing.includes(column.name)) continue;
			const cell = cellsOfRow[i] ?? null;
			row[column.name] = cell === null || column.read === null ? cell : column.read(cell);
		}
		return { row, owner: cellsOfRow[owner] };
	});
}
