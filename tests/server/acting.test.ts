import { existsSync } from 'node:fs';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClient } from '@libsql/client';
import type { RequestEvent } from '@sveltejs/kit';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { ACT_HEADER, YARD_HEADER } from '$core/vocabulary/along';
import { wateringInput } from '$core/aftercare/water/watering';
import { actIsNoted, actingAs, answerOfAct, newId } from '$lib/server/acting';
import { yardFile, yardPrint } from '$lib/server/along/yard-file';
import { yardIdOf } from '$lib/server/along/yard-id';
import { inTime, now, today } from '$lib/server/clock';
import type { Store } from '$lib/server/db/database';
import { onceByName } from '$lib/server/edge/act-sent';
import { isDoneAlone } from '$lib/server/people/access';
import * as people from '$lib/server/people/people';
import { waterings } from '$lib/server/records/records';
import { recordWatering } from '$lib/server/water';
import { renewFeed } from '$lib/server/calendar';
import { demoStore, freshStore, refusal, storeWithTree } from './helpers';

const opened = vi.hoisted(() => ({ store: null as unknown }));
vi.mock('$lib/server/store', async (original) => ({
	...(await original<object>()),
	getStore: () => Promise.resolve(opened.store)
}));

const act = { id: 'phone-1', at: '2026-04-17T15:30:00.000Z', today: '2026-04-17' };

describe('work that is sent under a name of its own', () => {
	it('happens at its own instant, and makes the same identities wherever it is done', () => {
		const made = (name: string): string[] => actingAs({ ...act, id: name }, null, () => [newId(), newId()]);
		expect(actingAs(act, null, () => now().toISOString())).toBe(act.at);
		expect(actingAs(act, null, today)).toBe('2026-04-17');
		expect(today()).toBe('2026-04-18');
		expect(made('a')).toEqual(made('a'));
		expect(new Set([...made('a'), ...made('b'), newId(), newId()]).size).toBe(6);
		// RFC 9562, 4: version in the 13th digit, variant in the 17th.
		for (const one of made('a'))
			expect(one).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-8[0-9a-f]{3}-[0-9a-f]{12}$/);
	});

	it('is never of the future, beyond what clocks differ by', () => {
		const of = (at: string) => inTime({ ...act, at, today: '2026-04-19' });
		expect(of('2026-04-18T09:14:00.000Z').at).toBe('2026-04-18T09:14:00.000Z');
		expect(of('2026-04-18T09:16:00.000Z')).toMatchObject({
			at: '2026-04-18T09:00:00.000Z',
			today: '2026-04-18'
		});
		expect(of('2025-01-01T09:00:00.000Z').today).toBe('2026-04-19');
	});

	describe('to a server', () => {
		let store: Store;
		let treeId: string;
		let worked = 0;
		beforeAll(async () => {
			const made = await storeWithTree();
			store = made.store;
			treeId = made.tree.id;
			opened.store = store;
		});
		const event = (
			headers: Record<string, string>,
			id: string | null = null
		): Pick<RequestEvent, 'request' | 'locals'> => ({
			request: new Request('http://127.0.0.1/trees', { method: 'POST', headers }),
			locals: { who: id ? { id, name: id, role: 'helper' } : null } as App.Locals
		});
		const named = (name: string, more: Record<string, string> = {}): Record<string, string> => ({
			[ACT_HEADER]: JSON.stringify({ ...act, id: name }),
			...more
		});
		const pour = async (): Promise<Response> => {
			worked++;
			const { entryId } = await recordWatering(
				store,
				treeId,
				wateringInput.parse({ wateredOn: '2026-04-17', litres: 1 })
			);
			return Response.json({ type: 'success', entryId });
		};
		const poured = async (): Promise<number> => (await waterings.list(store.db, treeId)).length;

		it('is done once, and answered the second time as the first', async () => {
			const first = await (await onceByName(event(named('once')), pour)).json();
			expect(actIsNoted()).toBe(false);
			const before = worked;
			const second = await onceByName(event(named('once')), pour);
			expect(await second.json()).toEqual(first);
			expect(second.headers.get('content-type')).toContain('json');
			expect(worked).toBe(before);
			expect(await poured()).toBe(1);
		});

		it('that was kept, and whose answer was lost with the server, is not done again', async () => {
			await actingAs({ ...act, id: 'killed' }, null, pour);
			expect(await answerOfAct(store.db, { ...act, id: 'killed' }, null)).toEqual({
				status: 200,
				answer: '{}'
			});
			const count = await poured();
			expect(await (await onceByName(event(named('killed')), pour)).json()).toEqual({});
			expect(await poured()).toBe(count);
		});

		it('at the same time twice, is kept once', async () => {
			const count = await poured();
			const both = await Promise.allSettled([
				onceByName(event(named('twice')), pour),
				onceByName(event(named('twice')), pour)
			]);
			expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
			expect(await poured()).toBe(count + 1);
		});

		it('that was refused is done when it is sent again', async () => {
			const refused = () => Promise.resolve(Response.json({ type: 'failure' }));
			await onceByName(event(named('refused')), refused);
			const count = await poured();
			await onceByName(event(named('refused')), pour);
			expect(await poured()).toBe(count + 1);
		});

		it('is nobody else’s, and no other yard’s', async () => {
			const { id: ben } = await people.makeOwner(store, { name: 'Ben', passphrase: 'kelp verse tin arch' });
			await onceByName(event(named('mine'), ben), pour);
			expect(await refusal(onceByName(event(named('mine')), pour))).toMatchObject({ status: 403 });
			const elsewhere = named('other', { [YARD_HEADER]: 'another' });
			expect(await refusal(onceByName(event(elsewhere), pour))).toMatchObject({ status: 409 });
			const here = named('here', { [YARD_HEADER]: await yardIdOf(store) });
			expect((await onceByName(event(here), pour)).status).toBe(200);
		});

		it('has a name that can be read', async () => {
			for (const name of [
				'',
				'{',
				'{"id":"x"}',
				JSON.stringify({ ...act, id: '../x' }),
				JSON.stringify({ ...act, more: 1 })
			])
				expect(await refusal(onceByName(event({ [ACT_HEADER]: name }), pour)), name).toMatchObject({
					status: 400
				});
		});

		it('is a form that its page sends again: done once, also by a server that was started anew meanwhile', async () => {
			const form = new FormData();
			form.set('sent', 'page 1');
			form.set('litres', '1');
			const once = async <T>(work: () => Promise<T>): Promise<T> => {
				vi.resetModules();
				return (await import('$lib/server/edge/sent-once')).once(form, work);
			};
			const kept = async () => {
				const { recordWatering: record } = await import('$lib/server/water');
				const { entryId } = await record(
					store,
					treeId,
					wateringInput.parse({ wateredOn: '2026-04-17', litres: 2 })
				);
				return { told: 'Watered.', entryId };
			};
			const count = await poured();
			const first = await once(kept);
			expect(await once(kept)).toEqual(first);
			expect(await poured()).toBe(count + 1);
			form.set('litres', '2');
			await once(kept);
			expect(await poured()).toBe(count + 2);
			// What was refused is done anew.
			form.set('sent', 'page 2');
			await once(() => Promise.reject(new Error('refused'))).catch(() => undefined);
			await once(kept);
			expect(await poured()).toBe(count + 3);
		});

		it('leaves no key that was shown once behind, by whichever name it was sent', async () => {
			const token = 'a-token-that-is-shown-once';
			const form = new FormData();
			form.set('sent', 'page 3');
			const { once } = await import('$lib/server/edge/sent-once');
			const { recordWatering: record } = await import('$lib/server/water');
			const watered = wateringInput.parse({ wateredOn: '2026-04-17', litres: 3 });
			const answered = await once(form, async () => {
				const { entryId } = await record(store, treeId, watered);
				return { told: 'Added.', entryId, token };
			});
			expect(answered).toMatchObject({ token });
			for (const page of ['devices', 'people']) {
				const { locals } = event({});
				const request = new Request(`http://127.0.0.1/yard/${page}?/add`, {
					method: 'POST',
					headers: named(page)
				});
				const response = await onceByName({ request, locals }, async () => {
					await pour();
					return Response.json({ token });
				});
				expect(await response.text()).toContain(token);
			}
			const { rows } = await store.db.$client.execute('select answer from sent_act');
			expect(rows.length).toBeGreaterThan(3);
			expect(JSON.stringify(rows)).not.toContain(token);
			expect(JSON.stringify(rows)).toContain('Added.');
		});

		it('without a name is done each time', async () => {
			const count = await poured();
			await onceByName(event({}), pour);
			await onceByName(event({}), pour);
			expect(await poured()).toBe(count + 2);
		});
	});
});

describe('what may be done alone', () => {
	const sends = (route: string, action: string): boolean => isDoneAlone({ method: 'POST', route, action });
	it('is the work on the trees, and every page is read', () => {
		expect(sends('/trees/[id]/examine', 'record')).toBe(true);
		expect(isDoneAlone({ method: 'PUT', route: '/trees/[id]/roots', action: null })).toBe(true);
		expect(isDoneAlone({ method: 'GET', route: '/yard/people', action: null })).toBe(true);
	});
	it('is nothing that opens a door, changes what is of everybody, or wants the computer', () => {
		for (const [route, action] of [
			['/yard/people', 'signOut'],
			['/yard/people', 'passphrase'],
			['/yard/weather', 'file'],
			['/yard/devices', 'add'],
			['/yard/settings', 'format'],
			['/key', 'default']
		] as const)
			expect(sends(route, action), route).toBe(false);
		expect(sends('/yard/weather', 'day')).toBe(true);
	});
});

describe('the copy of a yard that goes along', () => {
	const openCopy = (bytes: Buffer) => {
		const file = path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-copy-')), 'copy.db');
		writeFileSync(file, bytes);
		return createClient({ url: `file:${file}` });
	};
	const counts = async (client: ReturnType<typeof openCopy>, table: string): Promise<number> =>
		Number((await client.execute(`select count(*) as n from "${table}"`)).rows[0]?.n);

	it('holds every record of a small yard, whole, with its indexes and triggers, and no key', async () => {
		const store = await demoStore();
		const { id } = await people.makeOwner(store, { name: 'Ana', passphrase: 'kelp verse tin arch' });
		await people.signIn(store, id ?? '', 'phone');
		await people.invite(store, 'helper');
		await renewFeed(store);
		const { bytes, trees, ofTrees } = await yardFile(store, '2026-04-18');
		expect(trees).toBe(ofTrees);
		expect(trees).toBeGreaterThan(10);
		const copy = openCopy(bytes);
		expect((await copy.execute('PRAGMA integrity_check')).rows[0]?.integrity_check).toBe('ok');
		expect((await copy.execute('PRAGMA foreign_key_check')).rows).toEqual([]);
		const { rows } = await store.db.$client.execute(
			"select type, name, sql from sqlite_master where name not like 'sqlite_%' order by type, name"
		);
		const { rows: there } = await copy.execute(
			"select type, name, sql from sqlite_master where name not like 'sqlite_%' order by type, name"
		);
		expect(there.map(({ type, name }) => [type, name])).toEqual(rows.map(({ type, name }) => [type, name]));
		for (const { type, name } of rows) {
			if (type !== 'table') continue;
			const table = String(name);
			const stays = ['session', 'invitation', 'shared_link', 'reading', 'sent_act'].includes(table);
			const { rows: all } = await store.db.$client.execute(`select count(*) as n from "${table}"`);
			if (stays) expect(await counts(copy, table), table).toBe(0);
			else if (!['setting', 'reading_hour'].includes(table))
				expect(await counts(copy, table), table).toBe(Number(all[0]?.n));
		}
		const text = bytes.toString('latin1');
		const hashes = await store.db.$client.execute(
			'select passHash as h from person union select tokenHash from device'
		);
		expect(hashes.rows.length).toBeGreaterThan(1);
		for (const { h } of hashes.rows) expect(text.includes(String(h))).toBe(false);
		expect(text.includes('calendar-token')).toBe(false);
		copy.close();
	});

	it('of a large yard holds the trees whose work comes first, with those in their pots, and nothing of the others', async () => {
		const store = await demoStore();
		const { bytes, trees, ofTrees } = await yardFile(store, '2026-04-18', 3);
		expect(ofTrees).toBeGreaterThan(10);
		expect(trees).toBeLessThan(6);
		expect(trees).toBeGreaterThanOrEqual(3);
		const copy = openCopy(bytes);
		expect((await copy.execute('PRAGMA foreign_key_check')).rows).toEqual([]);
		const { rows: due } = await store.db.$client.execute(
			`select t.id from tree t order by t.state = 'in-care' desc, coalesce((select min(k.toOn) from task k where k.treeId = t.id and k.state = 'open'), '9999'), t.tag limit 3`
		);
		const { rows: here } = await copy.execute('select id from tree');
		const ids = here.map(({ id }) => String(id));
		for (const { id } of due) expect(ids).toContain(String(id));
		const { rows: tables } = await copy.execute(
			"select m.name as name from sqlite_master m join pragma_table_info(m.name) c on c.name = 'treeId' where m.type = 'table'"
		);
		for (const { name } of tables)
			expect(
				(
					await copy.execute(
						`select count(*) as n from "${String(name)}" where treeId is not null and treeId not in (select id from tree)`
					)
				).rows[0]?.n,
				String(name)
			).toBe(0);
		copy.close();
	});

	it('is told apart by what was written since', async () => {
		const { store, tree } = await storeWithTree();
		const before = await yardPrint(store.db, '2026-04-18');
		expect(await yardPrint(store.db, '2026-04-18')).toBe(before);
		expect(await yardPrint(store.db, '2026-04-19')).not.toBe(before);
		await recordWatering(store, tree.id, wateringInput.parse({ wateredOn: '2026-04-17', litres: 1 }));
		expect(await yardPrint(store.db, '2026-04-18')).not.toBe(before);
	});

	it('leaves no file behind, and is refused where the database is no file', async () => {
		const store = await freshStore();
		await yardFile(store, '2026-04-18');
		expect(existsSync(path.join(tmpdir(), 'along.db'))).toBe(false);
		expect(await refusal(yardFile({ ...store, url: 'libsql://yard.example' }, '2026-04-18'))).toMatchObject({
			status: 409
		});
	});
});
