// A small server of the Hrana 2 protocol over HTTP (its published specification, "Hrana over HTTP", v2, JSON) in front of one SQLite file, for
// tests: no server of that kind is to be had here. It counts what it is asked, and can be as far away as one likes.
import Database from 'libsql';
import { randomUUID } from 'node:crypto';
import { createServer } from 'node:http';

/** @param {any} value a value of the protocol */
const fromWire = (value) => {
	if (value.type === 'integer') return BigInt(value.value);
	if (value.type === 'blob') return Buffer.from(value.base64, 'base64');
	return value.type === 'null' ? null : value.value;
};
/** @param {unknown} value as SQLite gives it */
const toWire = (value) => {
	if (value === null) return { type: 'null' };
	if (typeof value === 'bigint') return { type: 'integer', value: String(value) };
	if (typeof value === 'number') return { type: 'float', value };
	if (typeof value === 'string') return { type: 'text', value };
	return { type: 'blob', base64: Buffer.from(/** @type {Uint8Array} */ (value)).toString('base64') };
};
/** @param {unknown} cause */
const fault = (cause) => ({
	message: cause instanceof Error ? cause.message : String(cause),
	code: /** @type {{ code?: string }} */ (cause).code ?? 'SQLITE_ERROR'
});

class Stream {
	/** @type {Map<number, string>} */
	texts = new Map();
	/** @param {string} file */
	constructor(file) {
		this.db = new Database(file, { timeout: 5000 });
		this.db.exec('PRAGMA foreign_keys = on');
	}
	/** @param {any} asked */
	text = (asked) => asked.sql ?? this.texts.get(asked.sql_id) ?? '';
	/** @param {any} stmt */
	execute(stmt) {
		const named = stmt.named_args ?? [];
		const args = named.length
			? Object.fromEntries(
					named.map((/** @type {any} */ one) => [one.name.replace(/^[@:$]/, ''), fromWire(one.value)])
				)
			: (stmt.args ?? []).map(fromWire);
		const prepared = /** @type {any} */ (this.db.prepare(this.text(stmt)));
		prepared.safeIntegers(true);
		try {
			prepared.raw(true);
		} catch {
			const done = prepared.run(args);
			return {
				cols: [],
				rows: [],
				affected_row_count: done.changes,
				last_insert_rowid: String(done.lastInsertRowid)
			};
		}
		return {
			cols: prepared.columns().map((/** @type {any} */ one) => ({ name: one.name, decltype: one.type })),
			rows: prepared.all(args).map((/** @type {unknown[]} */ row) => row.map(toWire)),
			affected_row_count: 0,
			last_insert_rowid: null
		};
	}
	/** @param {any} batch */
	batch({ steps }) {
		/** @type {any[]} */
		const [results, errors] = [[], []];
		/** @type {(cond: any) => boolean} */
		const holds = (cond) =>
			!cond ||
			(cond.type === 'ok'
				? results[cond.step] !== null
				: cond.type === 'error'
					? errors[cond.step] !== null
					: cond.type === 'not'
						? !holds(cond.cond)
						: cond.type === 'and'
							? cond.conds.every(holds)
							: cond.conds.some(holds));
		for (const [i, { stmt, condition }] of steps.entries()) {
			[results[i], errors[i]] = [null, null];
			if (!holds(condition)) continue;
			try {
				results[i] = this.execute(stmt);
			} catch (cause) {
				errors[i] = fault(cause);
			}
		}
		return { step_results: results, step_errors: errors };
	}
	/** @param {any} asked */
	answer(asked) {
		const { type } = asked;
		if (type === 'execute') return { type, result: this.execute(asked.stmt) };
		if (type === 'batch') return { type, result: this.batch(asked.batch) };
		if (type === 'sequence') this.db.exec(this.text(asked));
		if (type === 'store_sql') this.texts.set(asked.sql_id, asked.sql);
		if (type === 'close_sql') this.texts.delete(asked.sql_id);
		if (type === 'close') this.db.close();
		return { type };
	}
}

/**
 * Serves one SQLite file.
 * @param {{ file: string, port?: number, token?: string, awayMs?: number }} options
 */
export async function openPeer({ file, port = 0, token, awayMs = 0 }) {
	/** @type {Map<string, Stream>} */
	const streams = new Map();
	const peer = {
		asked: 0,
		statements: 0,
		/** @type {number} */ awayMs,
		url: '',
		/** @type {() => Promise<void>} */ close: async () => {}
	};
	const server = createServer(async (request, response) => {
		let body = '';
		for await (const piece of request) body += piece;
		const send = (/** @type {number} */ status, /** @type {unknown} */ answer) =>
			response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(answer));
		if (request.url !== '/v2/pipeline')
			return send(request.url === '/v2' ? 200 : 404, { message: 'not here' });
		if (token && request.headers.authorization !== `Bearer ${token}`)
			return send(401, { message: 'the token is not known', code: 'AUTH' });
		peer.asked++;
		if (peer.awayMs > 0) await new Promise((resolve) => setTimeout(resolve, peer.awayMs));
		const { baton, requests } = JSON.parse(body);
		const stream = baton ? streams.get(baton) : new Stream(file);
		if (!stream) return send(400, { message: 'the stream has expired', code: 'STREAM_EXPIRED' });
		if (baton) streams.delete(baton);
		let open = true;
		const results = requests.map((/** @type {any} */ asked) => {
			peer.statements += asked.type === 'batch' ? asked.batch.steps.length : asked.type === 'execute' ? 1 : 0;
			if (asked.type === 'close') open = false;
			try {
				return { type: 'ok', response: stream.answer(asked) };
			} catch (cause) {
				return { type: 'error', error: fault(cause) };
			}
		});
		const next = open ? randomUUID() : null;
		if (next) streams.set(next, stream);
		send(200, { baton: next, base_url: null, results });
	});
	await new Promise((resolve) => server.listen(port, '127.0.0.1', () => resolve(undefined)));
	const { port: at } = /** @type {import('node:net').AddressInfo} */ (server.address());
	peer.url = `http://127.0.0.1:${at}`;
	peer.close = async () => {
		server.closeAllConnections();
		await new Promise((resolve) => server.close(resolve));
		for (const stream of streams.values()) stream.db.close();
	};
	return peer;
}
