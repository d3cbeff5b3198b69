import { createClient } from '@libsql/client';
import { createHash } from 'node:crypto';
import { closeSync, existsSync, openSync, readFileSync, readSync, rmSync, statSync } from 'node:fs';
import { createConnection, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** Why a yard is not opened, in a sentence that says what to do. */
export class NotOpened extends Error {}

/** First bytes of every database [SQLite documentation: Database File Format, 1.3]. */
const HEADER = 'SQLite format 3\0';

/**
 * Looks whether a database can be opened, before anything is written to it.
 * @param file path of the database; one that is not there yet is new
 * @returns whether it was written by an older Bruntle, and is brought up to date when it is opened
 * @throws NotOpened
 */
export async function checkFile(file: string, migrations: string): Promise<boolean> {
	if (!existsSync(file)) return false;
	if (statSync(file).size === 0 && !existsSync(`${file}-wal`))
		throw new NotOpened(
			`${file} is empty: it was cut off, or never written. Put a copy of it in its place, or take it away to begin anew.`
		);
	const first = Buffer.alloc(HEADER.length);
	const handle = openSync(file, 'r');
	readSync(handle, first, 0, first.length, 0);
	closeSync(handle);
	if (statSync(file).size > 0 && first.toString('latin1') !== HEADER)
		throw new NotOpened(
			`${file} is no database, or its beginning is damaged. Put a copy of it in its place; nothing was written to it.`
		);
	const client = createClient({ url: `file:${file}` });
	try {
		const { rows } = await client.execute('PRAGMA quick_check(1)');
		if (rows[0]?.quick_check !== 'ok') throw new Error('not whole');
		const { rows: tables } = await client.execute(
			"select name from sqlite_master where name = '__drizzle_migrations'"
		);
		if (tables.length > 0) {
			const { rows: done } = await client.execute('select max(created_at) as last from __drizzle_migrations');
			const { entries } = JSON.parse(readFileSync(path.join(migrations, 'meta/_journal.json'), 'utf8')) as {
				entries: { when: number }[];
			};
			const [last, newest] = [Number(done[0]?.last), Math.max(...entries.map(({ when }) => when))];
			if (last > newest)
				throw new NotOpened(
					`${file} was written by a newer Bruntle. Start that one, or a copy of the database from before it; nothing was written to this one.`
				);
			return last < newest;
		}
		return false;
	} catch (cause) {
		if (cause instanceof NotOpened) throw cause;
		const known = startFault(file, cause);
		throw known instanceof NotOpened
			? known
			: new NotOpened(`${file} is damaged. Put a copy of it in its place; nothing was written to it.`);
	} finally {
		client.close();
	}
}

/** What became of a write at the start, in words. */
export function startFault(file: string, cause: unknown): unknown {
	const said = String(cause) + String(cause instanceof Error ? cause.cause : '');
	if (/READONLY|readonly/.test(said))
		return new NotOpened(`${file} cannot be written to. Is the disk or the file write-protected?`);
	if (/SQLITE_FULL|disk is full|ENOSPC/.test(said))
		return new NotOpened(`There is no room on the disk of ${file}. Make room, then start again.`);
	if (/BUSY|locked/.test(said))
		return new NotOpened(`${file} is held by another program. Close that, then start again.`);
	if (/CORRUPT|NOTADB/.test(said)) return new NotOpened(`${file} is damaged. Put a copy of it in its place.`);
	return cause;
}

/** Where the holder of a database listens: one name for one file, whoever asks, and short enough for a socket. */
export function socketOf(file: string): string {
	const name = createHash('sha256').update(path.resolve(file)).digest('hex').slice(0, 24);
	return process.platform === 'win32'
		? `\\\\.\\pipe\\bruntle-${name}`
		: path.join(tmpdir(), `bruntle-${name}.sock`);
}

/**
 * Takes a yard for this process alone until it ends, however it ends: the system lets go of a socket by itself.
 * @param file path of the database
 * @throws NotOpened when another Bruntle has it
 */
export async function holdAlone(file: string): Promise<void> {
	const socket = socketOf(file);
	const listen = (): Promise<boolean> =>
		new Promise((resolve, reject) => {
			const server = createServer((other) => other.end());
			server.once('error', (error: NodeJS.ErrnoException) =>
				error.code === 'EADDRINUSE' ? resolve(false) : reject(error)
			);
			server.listen(socket, () => {
				server.unref();
				resolve(true);
			});
		});
	if (await listen()) return;
	const answers = await new Promise<boolean>((resolve) => {
		const ask = createConnection(socket);
		ask.once('connect', () => {
			ask.destroy();
			resolve(true);
		});
		ask.once('error', () => resolve(false));
	});
	// Left by one that was killed.
	if (!answers) rmSync(socket, { force: true });
	if (answers || !(await listen()))
		throw new NotOpened(
			`Another Bruntle has ${file} open. Use that one, or stop it, or give this one another folder with --data.`
		);
}
