import { readFileSync, readdirSync, mkdtempSync, statSync } from 'node:fs';
import { X509Certificate } from 'node:crypto';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { newPersonInput } from '$core/vocabulary/people';
import { isFromHere, listensAlone } from '$lib/server/edge/guard';
import { acting } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { refusedAccess } from '$lib/server/people/access';
import { deviceOf, placeToGo, toKey } from '$lib/server/people/at-the-door';
import { linked, openLinks, shareLink, takeLinkBack } from '$lib/server/people/links';
import { noteTry, refuseTooSoon } from '$lib/server/people/misses';
import { hashPassphrase, isPassphrase, refuseGuessable } from '$lib/server/people/passphrase';
import * as people from '$lib/server/people/people';
import { workingAs } from '$lib/server/people/who-works';
import { places } from '$lib/server/records/records';
import { loadRecords } from '$lib/server/records/tree-records';
import { doWork, undo } from '$lib/server/records/work';
import * as tables from '$lib/server/db/schema';
import { certificatesIn } from '$lib/server/share/certificates';
import { freshStore, refusal, storeWithTree } from './helpers';

const PASS = 'kelp verse tin arch';
const person = (name: string, passphrase = PASS) => newPersonInput.parse({ name, passphrase });
const at = (day: string, work: () => Promise<void>): Promise<void> => {
	const before = process.env.BRUNTLE_NOW;
	process.env.BRUNTLE_NOW = `${day}T09:00:00Z`;
	return work().finally(() => (process.env.BRUNTLE_NOW = before));
};
const owned = async () => {
	const store = await freshStore();
	return { store, owner: await people.makeOwner(store, person('Ana')) };
};
const helper = async (store: Awaited<ReturnType<typeof freshStore>>, name = 'Ben') =>
	people.acceptInvitation(store, await people.invite(store, 'helper'), person(name));

describe('a passphrase', () => {
	it('is kept as argon2id with what OWASP asks for at the least, and known again', async () => {
		// OWASP Password Storage Cheat Sheet: argon2id, 19 MiB and 2 passes at the least.
		const kept = await hashPassphrase(PASS);
		const [, kind, , cost] = kept.split('$');
		expect(kind).toBe('argon2id');
		const { m, t } = Object.fromEntries((cost ?? '').split(',').map((part) => part.split('='))) as Record<
			string,
			string
		>;
		expect(Number(m)).toBeGreaterThanOrEqual(19 * 1024);
		expect(Number(t)).toBeGreaterThanOrEqual(2);
		expect(await isPassphrase(PASS, kept)).toBe(true);
		expect(await isPassphrase(`${PASS} `, kept)).toBe(false);
		expect(await isPassphrase('nobody goes by this name', null)).toBe(false);
		expect(await hashPassphrase(PASS)).not.toBe(kept);
	});
	it('that many people use, or that is the name, is refused; length has bounds that are said', () => {
		const refused = (pass: string, name = 'Ana'): string | null => {
			try {
				refuseGuessable(pass, name);
				return null;
			} catch (cause) {
				return cause instanceof Refusal ? (cause.problems[0]?.message ?? '') : 'broke';
			}
		};
		expect(refused(PASS)).toBeNull();
		expect(refused('passwordpassword')).toMatch(/many people use/);
		expect(refused('aaaaaaaaaaaaaaa')).toMatch(/easy to guess/);
		expect(refused('AnaAnaAnaAna1')).toMatch(/easy to guess/);
		expect(refused('bruntlebruntle')).toMatch(/easy to guess/);
		// Five different signs are enough, four are not; so are five beside the name of a person or of the product.
		expect(refused('qzqzvjvjkxkx')).toBeNull();
		expect(refused('qzqzvjvjvzqj')).toMatch(/easy to guess/);
		expect(refused('bruntleqzvjk')).toBeNull();
		expect(refused('bruntlebruntleqzvj')).toMatch(/easy to guess/);
		expect(newPersonInput.safeParse({ name: 'Ana', passphrase: 'x'.repeat(11) }).success).toBe(false);
		expect(newPersonInput.safeParse({ name: 'Ana', passphrase: 'kelp verse t' }).success).toBe(true);
		expect(newPersonInput.safeParse({ name: 'Ana', passphrase: 'x'.repeat(129) }).success).toBe(false);
	});
	it('that was typed never comes back with a refused form', async () => {
		const form = new FormData();
		form.set('name', 'Ana');
		form.set('passphrase', PASS);
		form.set('before', PASS);
		const answer = await acting(form, () => Promise.reject(new Refusal(401, 'No.')));
		expect(JSON.stringify(answer)).toContain('Ana');
		expect(JSON.stringify(answer)).not.toContain(PASS);
	});
});

describe('people of a yard', () => {
	it('begin with one owner, made once', async () => {
		const { store } = await owned();
		expect(await people.hasOwner(store.db)).toBe(true);
		expect((await refusal(people.makeOwner(store, person('Eve')))).status).toBe(409);
		expect(await people.hasOwner((await freshStore()).db)).toBe(false);
	});
	it('come in by an invitation: once, within a day, as what it says', async () => {
		const { store } = await owned();
		const key = await people.invite(store, 'helper');
		expect(await people.invitedTo(store.db, key)).toBe('helper');
		expect((await refusal(people.acceptInvitation(store, key, person('ANA')))).problems[0]?.field).toBe(
			'name'
		);
		expect(await people.acceptInvitation(store, key, person('Ben'))).toMatchObject({
			name: 'Ben',
			role: 'helper'
		});
		expect((await refusal(people.acceptInvitation(store, key, person('Cy')))).status).toBe(404);
		const late = await people.invite(store, 'owner');
		await at('2026-04-19', async () => {
			expect((await refusal(people.invitedTo(store.db, late))).status).toBe(404);
		});
		expect((await refusal(people.invitedTo(store.db, 'guessed'))).status).toBe(404);
		const [open] = await people.openInvitations(store.db);
		await people.takeInvitationBack(store, open?.id ?? '');
		expect((await refusal(people.invitedTo(store.db, late))).status).toBe(404);
	});
	it('of two who take one invitation up at once, one comes in', async () => {
		const { store } = await owned();
		const key = await people.invite(store, 'helper');
		const done = await Promise.allSettled(
			['Ben', 'Cy'].map((name) => people.acceptInvitation(store, key, person(name)))
		);
		expect(done.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
	});
	it('have keys on devices that are kept as hashes, end by themselves and are taken back', async () => {
		const { store, owner } = await owned();
		const key = await people.signIn(store, owner.id ?? '', 'iPhone, Safari');
		expect(await people.whoHas(store, key)).toEqual(owner);
		expect(await people.whoHas(store, `${key}x`)).toBeNull();
		const [row] = await store.db.select().from(tables.session);
		expect(JSON.stringify(row)).not.toContain(key);
		// Used within a month each time, for half a year at the most.
		for (const day of [
			'2026-05-17',
			'2026-06-15',
			'2026-07-14',
			'2026-08-12',
			'2026-09-10',
			'2026-10-09',
			'2026-10-14'
		])
			await at(day, async () => expect(await people.whoHas(store, key)).toEqual(owner));
		await at('2026-10-15', async () => expect(await people.whoHas(store, key)).toBeNull());
		const idle = await people.signIn(store, owner.id ?? '', 'Windows');
		await at('2026-05-18', async () => expect(await people.whoHas(store, idle)).toBeNull());
		const other = await people.signIn(store, owner.id ?? '', 'Android');
		await people.signOut(store, { key: other });
		expect(await people.whoHas(store, other)).toBeNull();
	});
	it('sign their own devices out, and an owner all', async () => {
		const { store, owner } = await owned();
		const ben = await helper(store);
		const key = await people.signIn(store, owner.id ?? '', 'Mac');
		const [device] = (await people.peopleOf(store.db)).find(({ id }) => id === owner.id)?.sessions ?? [];
		// Each person is told with their own devices alone.
		expect(
			(await people.peopleOf(store.db)).find((one) => one.id === ben.id)?.sessions.map(({ id }) => id)
		).not.toContain(device?.id);
		const id = device?.id ?? '';
		expect((await refusal(people.signOut(store, { id, personId: ben.id ?? '' }))).status).toBe(404);
		expect(await people.whoHas(store, key)).toEqual(owner);
		await people.signOut(store, { id });
		expect(await people.whoHas(store, key)).toBeNull();
	});
	it('with another passphrase have to sign in anew on their other devices', async () => {
		const { store, owner } = await owned();
		const [here, there] = [
			await people.signIn(store, owner.id ?? '', 'Mac'),
			await people.signIn(store, owner.id ?? '', 'iPad')
		];
		const change = { before: 'wrong words here', passphrase: 'slate moth raft dune' };
		expect((await refusal(people.changePassphrase(store, owner, change, here))).status).toBe(401);
		await people.changePassphrase(store, owner, { ...change, before: PASS }, here);
		expect(await people.whoHas(store, here)).toEqual(owner);
		expect(await people.whoHas(store, there)).toBeNull();
		expect(await people.recognise(store.db, { name: 'ana', passphrase: change.passphrase }, 'a')).toEqual(
			owner
		);
	});
	it('are slowed down where a name or an address misses again and again, and told how long', async () => {
		const { store, owner } = await owned();
		const miss = () =>
			refusal(people.recognise(store.db, { name: 'Ana', passphrase: 'not this one' }, '10.0.0.9'));
		const statuses = [];
		for (let tried = 0; tried < 6; tried++) statuses.push((await miss()).status);
		expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
		// Whoever has it right has to wait as well; so nobody learns by trying.
		expect(
			(await refusal(people.recognise(store.db, { name: 'ana ', passphrase: PASS }, '10.0.0.1'))).status
		).toBe(429);
		expect(
			(await refusal(people.recognise(store.db, { name: 'Cy', passphrase: PASS }, '10.0.0.9'))).status
		).toBe(429);
		expect(owner.role).toBe('owner');
	});
	it('wait twice as long with each miss, a quarter of an hour at the most, and no more once it was right', () => {
		const wait = (name: string, at: number): number => {
			for (let ms = at; ; ms += 1000)
				try {
					refuseTooSoon([name], ms);
					return (ms - at) / 1000;
				} catch {
					// Longer.
				}
		};
		const waits: number[] = [];
		for (let count = 1; count <= 14; count++) {
			noteTry(['walls'], false, 0);
			waits.push(wait('walls', 0));
		}
		expect(waits).toEqual([0, 0, 0, 0, 5, 10, 20, 40, 80, 160, 320, 640, 900, 900]);
		noteTry(['walls'], true, 0);
		expect(wait('walls', 0)).toBe(0);
	});
	it('never leave a yard without an owner', async () => {
		const { store, owner } = await owned();
		const ben = await helper(store);
		expect((await refusal(people.removePerson(store, owner.id ?? ''))).status).toBe(409);
		expect((await refusal(people.changeRole(store, owner.id ?? '', 'helper'))).status).toBe(409);
		await people.changeRole(store, ben.id ?? '', 'owner');
		const key = await people.signIn(store, owner.id ?? '', 'Mac');
		await people.removePerson(store, owner.id ?? '');
		expect(await people.whoHas(store, key)).toBeNull();
		expect((await people.peopleOf(store.db)).map(({ name }) => name)).toEqual(['Ben']);
	});
	it('ask for a key at the computer itself only where somebody owns the yard', async () => {
		const empty = await freshStore();
		expect((await refusal(people.askKeyHere(empty, true))).status).toBe(409);
		const { store } = await owned();
		expect(await people.keyAskedHere(store.db)).toBe(false);
		await people.askKeyHere(store, true);
		expect(await people.keyAskedHere(store.db)).toBe(true);
		process.env.BRUNTLE_OPEN_HERE = '1';
		expect(await people.keyAskedHere(store.db)).toBe(false);
		delete process.env.BRUNTLE_OPEN_HERE;
	});
});

describe('what is done', () => {
	it('stands in the journal with who did it, and a helper takes back what is their own', async () => {
		const { store, tree, placeId } = await storeWithTree();
		const owner = await people.makeOwner(store, person('Ana'));
		const ben = await helper(store);
		const rename = (name: string, version: number) =>
			doWork(store, { treeId: tree.id, stage: 'take-in', what: `Renamed to ${name}` }, (work) =>
				work.change(places, placeId, version, (place) => ({ ...place, name }))
			);
		const first = await workingAs(owner, () => rename('North', 1));
		const second = await workingAs(ben, () => rename('South', 2));
		await rename('East', 3);
		const { journal } = await loadRecords(store.db, tree.id);
		expect(journal.slice(-3).map(({ by }) => by)).toEqual(['Ana', 'Ben', null]);
		const refused = await workingAs(ben, () => refusal(undo(store, first.entryId)));
		expect(refused.status).toBe(403);
		const [last] = await store.db
			.select()
			.from(tables.journal)
			.where(eq(tables.journal.what, 'Renamed to East'));
		await workingAs(owner, () => undo(store, last?.id ?? ''));
		await workingAs(ben, () => undo(store, second.entryId));
		expect((await places.get(store.db, placeId))?.name).toBe('North');
	});
	it('is for owners unless it is the work on the trees', () => {
		const [ana, ben] = (['owner', 'helper'] as const).map((role) => ({ id: role, name: role, role }));
		const send = (
			who: typeof ana | null,
			route: string | null,
			action: string | null = null,
			method = 'POST'
		) => refusedAccess(who ?? null, { method, route, action });
		expect(send(null, '/', null, 'GET')).toBe('key');
		expect(send(null, null, null, 'GET')).toBe('key');
		expect(send(null, '/undo')).toBe('key');
		for (const open of ['/key', '/invited/[key]', '/shared/[key]', '/calendar/[token]', '/api/v1/readings'])
			expect(send(null, open, null, 'GET'), open).toBeNull();
		expect(send(ben ?? null, '/trees/[id]/aftercare', 'water')).toBeNull();
		expect(send(ben ?? null, '/trees/[id]/roots', null, 'PUT')).toBeNull();
		for (const reads of ['GET', 'HEAD', 'OPTIONS'])
			expect(send(ben ?? null, '/reference/values', null, reads), reads).toBeNull();
		for (const sends of ['POST', 'PUT', 'PATCH', 'DELETE']) {
			expect(send(ben ?? null, '/reference/values', null, sends), sends).toBe('owner');
			expect(send(ana ?? null, '/reference/values', null, sends), sends).toBeNull();
			expect(send(null, '/reference/values', null, sends), sends).toBe('key');
			// What is not there is told by the page itself.
			expect(send(ben ?? null, null, null, sends), sends).toBeNull();
		}
		expect(send(ben ?? null, '/trees/[id]/roots', null, 'DELETE')).toBe('owner');
		expect(send(ben ?? null, '/trees/[id]/roots', 'remove', 'PUT')).toBeNull();
		for (const [route, action] of [
			['/reference/values', 'set'],
			['/trees/[id]/examine', 'numbers'],
			['/yard/people', 'invite'],
			['/yard/people', 'remove'],
			['/yard/devices', 'add'],
			['/calendar', 'renew'],
			['/yard/settings', 'format'],
			['/trees/[id]/recovery/letter', 'share'],
			['/what/comes/later', 'default']
		] as const) {
			expect(send(ben ?? null, route, action), `${route} ${action}`).toBe('owner');
			expect(send(ana ?? null, route, action), `${route} ${action}`).toBeNull();
		}
	});
	it('by a helper is told for each form there is: none is named that is not, none of the work is forgotten', () => {
		const forms = readdirSync('src/routes', { recursive: true, encoding: 'utf8' })
			.filter((file) => file.endsWith('+page.server.ts'))
			.flatMap((file) => {
				const text = readFileSync(`src/routes/${file}`, 'utf8');
				const from = text.indexOf('export const actions');
				if (from < 0) return [];
				const route = `/${path.dirname(file)}`.replace(/\/\.$/, '/');
				const named = text.includes('= measurementActions')
					? ['measure', 'remove']
					: [
							...text.slice(from).matchAll(/(?:^\t|\{ )(\w+)(?=: (?:async|\(|removing|sharing|takingOut))/gm)
						].map(([, name]) => name ?? '');
				return named.map((action) => ({ route, action }));
			});
		expect(forms.length).toBeGreaterThan(50);
		const ben = { id: 'b', name: 'Ben', role: 'helper' as const };
		const owners = forms.filter((form) => refusedAccess(ben, { method: 'POST', ...form }) === 'owner');
		expect(owners.map(({ route, action }) => `${route} ${action}`).sort()).toEqual([
			'/calendar renew',
			'/calendar revoke',
			'/reference/values reset',
			'/reference/values set',
			'/trees/[id]/examine numbers',
			'/trees/[id]/recovery/letter share',
			'/trees/[id]/recovery/report share',
			'/yard/backups look',
			'/yard/backups make',
			'/yard/backups take',
			'/yard/damaged mend',
			'/yard/damaged remove',
			'/yard/devices add',
			'/yard/devices remove',
			'/yard/people invite',
			'/yard/people keyHere',
			'/yard/people makeOwner',
			'/yard/people remove',
			'/yard/people role',
			'/yard/people uninvite',
			'/yard/people unlink',
			'/yard/settings format',
			'/yard/weather forecast',
			'/yard/weather simulate'
		]);
	});
});

describe('a link to read by', () => {
	it('shows one page of one tree until its day, and is taken back', async () => {
		const { store, tree } = await storeWithTree();
		const input = { treeId: tree.id, page: 'letter', untilOn: '2026-05-18' } as const;
		const key = await shareLink(store, input);
		expect(await linked(store.db, key)).toEqual({ treeId: tree.id, page: 'letter' });
		expect((await store.db.select().from(tables.sharedLink))[0]?.keyHash).not.toBe(key);
		await at('2026-05-18', async () => void (await linked(store.db, key)));
		await at('2026-05-19', async () => expect((await refusal(linked(store.db, key))).status).toBe(404));
		for (const untilOn of ['2026-04-17', '2027-04-20'])
			expect((await refusal(shareLink(store, { ...input, untilOn }))).problems[0]?.field).toBe('untilOn');
		const [open] = await openLinks(store.db);
		expect(open).toMatchObject({ tag: 'T-1', page: 'letter' });
		await takeLinkBack(store, open?.id ?? '');
		expect((await refusal(linked(store.db, key))).status).toBe(404);
		expect((await refusal(takeLinkBack(store, open?.id ?? ''))).status).toBe(404);
	});
});

describe('at the door', () => {
	const here = (address: string | null, headers: Record<string, string>, ORIGIN?: string): boolean =>
		isFromHere(
			new Headers({ host: 'localhost:4747', ...headers }),
			address,
			ORIGIN === undefined ? {} : { ORIGIN }
		);
	it('only this computer itself is known without a key, not what is handed on by it', () => {
		for (const address of ['127.0.0.1', '::1', '::ffff:127.0.0.1', '127.3.2.1'])
			expect(here(address, {}), address).toBe(true);
		for (const address of [null, '', '10.0.0.5', '::ffff:10.0.0.5', 'fe80::1', '0.0.0.0'])
			expect(here(address, {}), String(address)).toBe(false);
		for (const header of [
			'x-forwarded-for',
			'forwarded',
			'via',
			'x-real-ip',
			'x-forwarded-host',
			'x-forwarded-proto'
		])
			expect(here('127.0.0.1', { [header]: '1.2.3.4' }), header).toBe(false);
		expect(here('127.0.0.1', { host: '192.168.1.5:4747' })).toBe(false);
		expect(here('127.0.0.1', {}, 'https://yard.example')).toBe(false);
		expect(here('127.0.0.1', {}, 'http://localhost:4747')).toBe(true);
		expect(here('127.0.0.1', {}, 'no address')).toBe(true);
	});
	it('a yard listens alone unless it is told otherwise', () => {
		for (const HOST of ['', '127.0.0.1', 'LOCALHOST', '::1']) expect(listensAlone({ HOST }), HOST).toBe(true);
		for (const HOST of ['0.0.0.0', '::', '192.168.1.5']) expect(listensAlone({ HOST }), HOST).toBe(false);
		expect(listensAlone({})).toBe(true);
	});
	it('whoever signed in is led back to a page of this server alone', () => {
		expect(placeToGo('/trees/1?x=2')).toBe('/trees/1?x=2');
		for (const to of [
			null,
			'',
			'https://evil.example/',
			'//evil.example',
			'/\\evil.example',
			'/..//evil.example',
			'javascript:alert(1)'
		])
			expect(placeToGo(to), String(to)).not.toMatch(/evil|javascript/);
		const led = toKey({ url: new URL('http://localhost/trees?a=b&c=d'), isDataRequest: false });
		expect(led.status).toBe(303);
		expect(new URL(led.headers.get('location') ?? '', 'http://localhost').searchParams.get('to')).toBe(
			'/trees?a=b&c=d'
		);
	});
	it('a device is told by what its browser says', () => {
		expect(
			deviceOf(
				'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605 Version/18.0 Mobile Safari/604.1'
			)
		).toBe('iPhone, Safari');
		expect(
			deviceOf('Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537 (KHTML) Chrome/130.0 Safari/537 Edg/130.0')
		).toBe('Windows, Edge');
		expect(deviceOf('Mozilla/5.0 (Linux; Android 15) AppleWebKit/537 Chrome/130.0 Mobile Safari/537')).toBe(
			'Android, Chrome'
		);
		for (const [sign, name] of [
			['iPad', 'iPad'],
			['Macintosh', 'Mac'],
			['X11; CrOS x86_64', 'Chromebook'],
			['X11; Linux x86_64', 'Linux']
		] as const)
			expect(deviceOf(`Mozilla/5.0 (${sign}) Firefox/140.0`)).toBe(`${name}, Firefox`);
		expect(deviceOf('Mozilla/5.0 (Windows NT 10.0) Chrome/130.0 Safari/537 OPR/115.0')).toBe(
			'Windows, Opera'
		);
		expect(deviceOf('Mozilla/5.0 (Windows NT 10.0)')).toBe('Windows');
		expect(deviceOf(null)).toBe('unknown device');
	});
});

describe('the certificates of a yard', () => {
	it('are made once, vouch for its names, and are made anew for others or when they end', async () => {
		const folder = path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-share-')), 'share');
		const now = new Date();
		const names = ['localhost', '127.0.0.1', '192.168.7.9', 'shed.local'];
		const first = await certificatesIn(folder, names, now);
		const [server, authority] = [
			new X509Certificate(first.cert),
			new X509Certificate(readFileSync(first.authorityFile))
		];
		expect(server.verify(authority.publicKey)).toBe(true);
		expect([server.ca, authority.ca]).toEqual([false, true]);
		expect(server.checkIP('192.168.7.9')).toBe('192.168.7.9');
		expect(server.checkHost('shed.local')).toBe('shed.local');
		expect(server.checkHost('evil.example')).toBeUndefined();
		expect(first.fingerprint).toBe(authority.fingerprint256);
		// CA/Browser Forum Baseline Requirements, 6.3.2: 398 days.
		expect(Date.parse(server.validTo) - Date.parse(server.validFrom)).toBeLessThanOrEqual(398 * 86_400_000);
		for (const file of ['authority.key', 'server.key'])
			expect(statSync(path.join(folder, file)).mode & 0o077).toBe(0);
		expect((await certificatesIn(folder, names.slice(1), now)).cert).toBe(first.cert);
		const moved = await certificatesIn(folder, [...names, '10.1.2.3'], now);
		expect(moved.cert).not.toBe(first.cert);
		expect(moved.fingerprint).toBe(first.fingerprint);
		const late = new Date(now.getTime() + 380 * 86_400_000);
		expect((await certificatesIn(folder, names, late)).cert).not.toBe(moved.cert);
	});
});
