import { createClient as createReal, type Client, type InStatement } from '@libsql/client';
import fc from 'fast-check';
import { createHash } from 'node:crypto';
import { AsyncLocalStorage } from 'node:async_hooks';
import path from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import initSqlJs from 'sql.js';
import { beforeEach, describe, expect, it } from 'vitest';
import { AsyncLocalStorage as StandIn } from '../../src/alone/instead/async-hooks';
import * as crypto from '../../src/alone/instead/crypto';
import { createClient, setDatabase } from '../../src/alone/instead/libsql';
import standInPath from '../../src/alone/instead/path';
import * as util from '../../src/alone/instead/util';

/* What stands for parts of a computer where the server runs in a browser, against those parts themselves. */

describe('the database of the browser answers as the client of the server does', () => {
	let both: [standIn: Client, real: Client];
	beforeEach(async () => {
		const sql = await initSqlJs();
		setDatabase(new sql.Database());
		both = [createClient(), createReal({ url: ':memory:' })];
		for (const client of both)
			await client.executeMultiple(
				'create table tree (id text primary key, mm real, n integer, part blob, name text default null); create index by_n on tree (n);'
			);
	});
	const same = async (ask: (client: Client) => Promise<unknown>): Promise<unknown> => {
		const [standIn, real] = await Promise.all(
			both.map((client) =>
				ask(client).catch((cause: unknown) => (cause instanceof Error ? 'refused' : cause))
			)
		);
		expect(standIn).toEqual(real);
		return standIn;
	};
	const rowsOf = async (client: Client, statement: InStatement) => {
		const { columns, rows, rowsAffected } = await client.execute(statement);
		return {
			columns,
			rowsAffected,
			rows: rows.map((row) => ({ named: { ...row }, inOrder: Array.from(row), length: row.length }))
		};
	};

	it('in what it reads and counts', async () => {
		for (const args of [
			['a', 12.5, 3, new Uint8Array([1, 2]), null],
			['b', null, 0, null, 'ö'],
			['c', -1, 2 ** 40, null, '']
		])
			await same((client) => rowsOf(client, { sql: 'insert into tree values (?, ?, ?, ?, ?)', args }));
		await same((client) => rowsOf(client, 'select * from tree order by id'));
		await same((client) => rowsOf(client, "select id as x, mm as x, count(*) from tree where id = 'none'"));
		await same((client) => rowsOf(client, { sql: 'select id from tree where n = :n', args: { n: 3 } }));
		await same((client) => rowsOf(client, { sql: 'update tree set n = 1 where n > ?', args: [2] }));
		await same((client) =>
			rowsOf(client, { sql: 'insert into tree (id, n) values (?, ?) returning id, n', args: ['d', true] })
		);
		await same((client) => rowsOf(client, 'select json_group_array(id) as ids from tree'));
		await same((client) => rowsOf(client, "delete from tree where id = 'a'"));
	});

	it('in what it refuses, and keeps nothing of a batch of which one part is', async () => {
		const add = (id: string) => ({ sql: 'insert into tree (id) values (?)', args: [id] });
		await same((client) => rowsOf(client, add('a')));
		expect(await same((client) => rowsOf(client, add('a')))).toBe('refused');
		expect(await same((client) => rowsOf(client, 'select nothing from nowhere'))).toBe('refused');
		expect(await same((client) => client.batch([add('b'), add('a')], 'write'))).toBe('refused');
		await same((client) => rowsOf(client, 'select id from tree'));
		await same(
			async (client) =>
				(await client.batch([add('c'), 'select count(*) as n from tree'], 'write'))[1]?.rows[0]?.n
		);
	});

	it('in a write that is taken back, or kept', async () => {
		const [standIn] = both;
		for (const end of ['rollback', 'commit', 'close'] as const) {
			const write = await standIn.transaction('write');
			await write.execute({ sql: 'insert into tree (id) values (?)', args: [end] });
			await write.batch([{ sql: 'insert into tree (id) values (?)', args: [`${end} 2`] }]);
			await write[end]();
			expect(write.closed).toBe(true);
			// Once more it does nothing.
			write.close();
		}
		expect((await standIn.execute('select id from tree order by id')).rows.map(({ id }) => id)).toEqual([
			'commit',
			'commit 2'
		]);
	});
});

describe('other parts', () => {
	it('SHA-256 is that of Node, in one piece and in several', () => {
		fc.assert(
			fc.property(fc.string(), fc.uint8Array(), (text, bytes) => {
				const by = (
					make: (name: 'sha256') => {
						update(data: string | Uint8Array): { update(data: Uint8Array): { digest(as: 'hex'): string } };
					}
				) => make('sha256').update(text).update(bytes).digest('hex');
				expect(by(crypto.createHash as never)).toBe(by(createHash as never));
			})
		);
		expect(() => crypto.createHash('md5')).toThrow();
		expect(() => crypto.randomBytes()).toThrow();
	});
	it('two values of JSON are the same where Node says so', () => {
		fc.assert(
			fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
				const again = JSON.parse(JSON.stringify(a)) as unknown;
				expect(util.isDeepStrictEqual(again, a)).toBe(
					isDeepStrictEqual(again, JSON.parse(JSON.stringify(a)))
				);
				expect(util.isDeepStrictEqual(a, b)).toBe(isDeepStrictEqual(a, b));
			})
		);
		expect(util.isDeepStrictEqual([], {})).toBe(false);
		expect(util.isDeepStrictEqual({ a: 1, b: 2 }, { b: 2, a: 1 })).toBe(true);
		expect(util.isDeepStrictEqual({ a: undefined }, { b: undefined })).toBe(false);
	});
	it('names of files are put together and taken apart', () => {
		expect(standInPath.join('a', '', 'b.jpg')).toBe(path.posix.join('a', '', 'b.jpg'));
		expect(standInPath.dirname('a/b/c.jpg')).toBe(path.posix.dirname('a/b/c.jpg'));
		expect(standInPath.basename('a/b/c.jpg')).toBe(path.posix.basename('a/b/c.jpg'));
	});
	it('what is current is so for the work under way, and goes back after it, also when it breaks', async () => {
		for (const storage of [new StandIn<string>(), new AsyncLocalStorage<string>()]) {
			const seen = await storage.run('outer', async () => {
				await Promise.resolve();
				const inner = await storage.run('inner', async () => {
					await Promise.resolve();
					return storage.getStore();
				});
				await storage.run('broken', () => Promise.reject(new Error())).catch(() => undefined);
				try {
					storage.run('broken at once', () => {
						throw new Error();
					});
				} catch {
					// Only what is current afterwards matters.
				}
				return [inner, storage.getStore(), storage.run('short', () => storage.getStore())];
			});
			expect(seen).toEqual(['inner', 'outer', 'short']);
			expect(storage.getStore()).toBeUndefined();
		}
	});
});
