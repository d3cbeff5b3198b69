import type {
	Client,
	InArgs,
	InStatement,
	InValue,
	ResultSet,
	Row,
	Transaction,
	Value
} from '@libsql/client';
import type { Database, SqlValue } from 'sql.js';

/*
 * Stands for the client of the database: the same interface over a SQLite that runs in the browser, all of it in memory. Requests are
 * answered one after the other, so that one connection serves reads and the one write.
 */

let opened: Database | null = null;

/** Puts the yard there that is opened next. */
export function setDatabase(database: Database): void {
	opened = database;
}

const toSql = (value: InValue): SqlValue => {
	if (typeof value === 'boolean') return value ? 1 : 0;
	if (typeof value === 'bigint') return Number(value);
	if (value instanceof Date) return value.getTime();
	if (value instanceof ArrayBuffer) return new Uint8Array(value);
	return value as SqlValue;
};
const fromSql = (value: SqlValue): Value =>
	value instanceof Uint8Array ? (value.slice().buffer as ArrayBuffer) : value;

function bound(args: InArgs | undefined): SqlValue[] | Record<string, SqlValue> {
	if (!args) return [];
	if (Array.isArray(args)) return (args as InValue[]).map(toSql);
	return Object.fromEntries(
		Object.entries(args).map(([name, value]) => [/^[:@$]/.test(name) ? name : `:${name}`, toSql(value)])
	);
}

/** A row is read by place and by name; only its names are counted up. */
function rowOf(columns: readonly string[], values: readonly SqlValue[]): Row {
	const row = {} as Record<string | number, Value>;
	Object.defineProperty(row, 'length', { value: values.length });
	values.forEach((value, at) => {
		const read = fromSql(value);
		Object.defineProperty(row, at, { value: read });
		const name = columns[at] ?? '';
		if (!Object.hasOwn(row, name)) row[name] = read;
	});
	return row as unknown as Row;
}

function run(statement: InStatement, given?: InArgs): ResultSet {
	if (!opened) throw new Error('no yard is open here');
	const { sql, args } = typeof statement === 'string' ? { sql: statement, args: given } : statement;
	const prepared = opened.prepare(sql);
	try {
		prepared.bind(bound(args));
		const rows: Row[] = [];
		let columns: string[] = [];
		while (prepared.step()) {
			if (rows.length === 0) columns = prepared.getColumnNames();
			rows.push(rowOf(columns, prepared.get()));
		}
		if (rows.length === 0) columns = prepared.getColumnNames();
		return {
			columns,
			columnTypes: columns.map(() => ''),
			rows,
			rowsAffected: columns.length === 0 ? opened.getRowsModified() : 0,
			lastInsertRowid: undefined,
			toJSON: () => ({ columns, rows })
		};
	} finally {
		prepared.free();
	}
}

/** Runs statements as one: all, or none. */
function together(statements: readonly (InStatement | [string, InArgs?])[]): ResultSet[] {
	run('SAVEPOINT together');
	try {
		const results = statements.map((one) => (Array.isArray(one) ? run(one[0], one[1]) : run(one)));
		run('RELEASE together');
		return results;
	} catch (cause) {
		run('ROLLBACK TO together');
		run('RELEASE together');
		throw cause;
	}
}

class Write implements Transaction {
	closed = false;

	constructor() {
		run('BEGIN IMMEDIATE');
	}

	private end(how: 'COMMIT' | 'ROLLBACK'): void {
		if (this.closed) return;
		this.closed = true;
		run(how);
	}

	async execute(statement: InStatement): Promise<ResultSet> {
		return run(statement);
	}
	async batch(statements: InStatement[]): Promise<ResultSet[]> {
		return together(statements);
	}
	async executeMultiple(sql: string): Promise<void> {
		opened?.exec(sql);
	}
	async commit(): Promise<void> {
		this.end('COMMIT');
	}
	async rollback(): Promise<void> {
		this.end('ROLLBACK');
	}
	close(): void {
		this.end('ROLLBACK');
	}
}

export function createClient(): Client {
	return {
		closed: false,
		protocol: 'file',
		execute: async (statement: InStatement, args?: InArgs) => run(statement, args),
		batch: async (statements) => together(statements),
		migrate: async (statements) => together(statements),
		transaction: async () => new Write(),
		executeMultiple: async (sql: string) => void opened?.exec(sql),
		sync: () => Promise.resolve(undefined),
		reconnect: () => undefined,
		close: () => undefined
	} as Client;
}
