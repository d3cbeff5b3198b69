import './process';
import type { Database } from 'sql.js';
import initSqlJs from 'sql.js/dist/sql-wasm-inline.js';
import { Server } from '$built/index.js';
import { manifest } from '$built/manifest.js';
import type { Along } from '$core/vocabulary/along';
import { setDatabase } from './instead/libsql';
import type { LocalServer, WorkTold } from './local-server';

/*
 * The server of the yard once more, in the browser: the same pages, forms and calculations over a copy of the yard. Requests are answered
 * one after the other, by whoever calls it.
 */

let database: Database | null = null;
let server: Server | null = null;

const rowsOf = (sql: string): unknown[][] => database?.exec(sql)[0]?.values ?? [];
const textOf = (value: unknown): string | null => (typeof value === 'string' ? value : null);

const local: LocalServer = {
	async open(bytes, along) {
		const sql = await initSqlJs();
		database?.close();
		database = new sql.Database(bytes);
		setDatabase(database);
		if (along.clockAt) process.env.BRUNTLE_NOW = along.clockAt;
		else delete process.env.BRUNTLE_NOW;
		if (server) return;
		server = new Server(manifest);
		await server.init({
			env: {},
			read: () => {
				throw new Error('files of the server are not here');
			}
		});
	},
	async respond(request, who) {
		if (!server) throw new Error('no yard is open here');
		return server.respond(request, { getClientAddress: () => '', platform: { alone: { who } } });
	},
	export() {
		if (!database) throw new Error('no yard is open here');
		return database.export();
	},
	lastTold(): WorkTold | null {
		const [row] = rowsOf(
			'select j.id, j.what, j.treeId, t.tag, t.name from journal j left join tree t on t.id = j.treeId order by j.rowid desc limit 1'
		);
		return row
			? {
					entryId: String(row[0]),
					what: String(row[1]),
					treeId: textOf(row[2]),
					tag: textOf(row[3]),
					name: textOf(row[4])
				}
			: null;
	},
	pictures: (most) =>
		rowsOf(`select hash from picture order by takenOn desc limit ${most}`).map(([hash]) => String(hash))
};

(globalThis as { bruntleServer?: LocalServer }).bruntleServer = local;
export type { Along };
