import type { Client, InStatement, ResultSet, Transaction } from '@libsql/client';

/** A statement that waits to be sent. */
interface Waiting {
	statement: InStatement;
	resolve: (result: ResultSet) => void;
	reject: (cause: unknown) => void;
}

/** So many statements are sent at once at the most. */
const MOST_AT_ONCE = 200;

const sqlOf = (statement: InStatement): string => (typeof statement === 'string' ? statement : statement.sql);
const isRead = (statement: InStatement): boolean => /^\s*select\b/i.test(sqlOf(statement));
/** Whether somebody waits for what a statement gives back. */
const gives = (statement: InStatement): boolean =>
	isRead(statement) || /\breturning\b/i.test(sqlOf(statement));

/** What a write gives back that is sent later: nobody here reads how many rows it met. */
const later = (): ResultSet => ({
	columns: [],
	columnTypes: [],
	rows: [],
	rowsAffected: 0,
	lastInsertRowid: undefined,
	toJSON: () => ({})
});

const asStatement = (statement: InStatement, args?: unknown): InStatement =>
	typeof statement === 'string' && args !== undefined ? ({ sql: statement, args } as InStatement) : statement;

/**
 * A client of a database that is far away, where each question costs the way there and back: what is read at one time is asked together, and
 * within a transaction a write goes along with the next question, or with the commit.
 */
export function withFewTrips(client: Client): Client {
	let waiting: Waiting[] = [];
	const send = async (): Promise<void> => {
		const asked = waiting;
		waiting = [];
		const alone = ({ statement, resolve, reject }: Waiting): Promise<void> =>
			client.execute(statement).then(resolve, reject);
		const [only] = asked;
		if (asked.length === 1 && only) return alone(only);
		try {
			const results = await client.batch(
				asked.map(({ statement }) => statement),
				'deferred'
			);
			for (const [i, { resolve }] of asked.entries()) resolve(results[i] ?? later());
		} catch {
			// One of them is at fault; the others are not to suffer from it.
			await Promise.all(asked.map(alone));
		}
	};
	const execute = (statement: InStatement): Promise<ResultSet> =>
		isRead(statement)
			? new Promise((resolve, reject) => {
					// When all that is asked at one time has asked.
					if (waiting.length === 0) setImmediate(() => void send());
					waiting.push({ statement, resolve, reject });
				})
			: client.execute(statement);
	return new Proxy(client, {
		get(target, name) {
			if (name === 'execute')
				return (statement: InStatement, args?: unknown) => execute(asStatement(statement, args));
			if (name === 'transaction')
				return async (mode?: 'write' | 'read' | 'deferred') =>
					transactionWithFewTrips(await target.transaction(mode ?? 'write'));
			const found = Reflect.get(target, name) as unknown;
			return typeof found === 'function' ? (found.bind(target) as unknown) : found;
		}
	});
}

function transactionWithFewTrips(tx: Transaction): Transaction {
	let queue: Waiting[] = [];
	let asked = false;
	/** What became of a write that was sent later; the transaction is over with it. */
	let broken: { cause: unknown } | null = null;
	const nothing = (): void => undefined;
	const send = async (): Promise<void> => {
		asked = false;
		const sent = queue;
		queue = [];
		if (sent.length === 0) return;
		try {
			if (broken) throw broken.cause;
			const results = await tx.batch(sent.map(({ statement }) => statement));
			for (const [i, { resolve }] of sent.entries()) resolve(results[i] ?? later());
		} catch (cause) {
			broken ??= { cause };
			for (const { reject } of sent) reject(cause);
		}
	};
	const execute = (statement: InStatement): Promise<ResultSet> => {
		if (broken) return Promise.reject(broken.cause as Error);
		if (gives(statement))
			return new Promise((resolve, reject) => {
				queue.push({ statement, resolve, reject });
				if (!asked) setImmediate(() => void send());
				asked = true;
			});
		queue.push({ statement, resolve: nothing, reject: nothing });
		return queue.length < MOST_AT_ONCE ? Promise.resolve(later()) : send().then(later);
	};
	return new Proxy(tx, {
		get(target, name) {
			if (name === 'execute')
				return (statement: InStatement, args?: unknown) => execute(asStatement(statement, args));
			if (name === 'batch') return (list: InStatement[]) => Promise.all(list.map(execute));
			if (name === 'commit')
				return async () => {
					await send();
					if (broken) throw broken.cause;
					await target.commit();
				};
			if (name === 'rollback')
				return () => {
					queue = [];
					return target.rollback();
				};
			const found = Reflect.get(target, name) as unknown;
			return typeof found === 'function' ? (found.bind(target) as unknown) : found;
		}
	});
}
