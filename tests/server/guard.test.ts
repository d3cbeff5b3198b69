import { hostname } from 'node:os';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { fieldProblems } from '$core/vocabulary/fields';
import { faultOf } from '$lib/server/edge/fault';
import { acting } from '$lib/server/edge/http';
import { guardForm, isOwnName, refuseForeign } from '$lib/server/edge/guard';
import { Refusal } from '$lib/server/errors';
import { freshStore } from './helpers';

const opened = vi.hoisted(() => ({ store: null as unknown }));
vi.mock('$lib/server/store', async (original) => ({
	...(await original<object>()),
	getStore: () => Promise.resolve(opened.store)
}));

const alone = {};
const shared = { HOST: '0.0.0.0' };
const status = (
	headers: Record<string, string>,
	{ method = 'POST', at = 'http://127.0.0.1:4747/trees', surroundings = alone as object } = {}
): number | null => {
	const url = new URL(at);
	try {
		refuseForeign(new Request(url, { method, headers: { host: url.host, ...headers } }), url, surroundings);
	} catch (cause) {
		if (cause instanceof Refusal) return cause.status;
		throw cause;
	}
	return null;
};

describe('the name a server is called by', () => {
	it('is one of this machine alone, however it is written', () => {
		for (const host of [
			'localhost',
			'LOCALHOST:4747',
			'localhost.',
			'127.0.0.1:4747',
			'127.8.9.1',
			'[::1]:4747',
			'yard.localhost'
		])
			expect(isOwnName(host, alone), host).toBe(true);
		for (const host of [
			null,
			'',
			'evil.example',
			'evil.example:4747',
			'localhost.evil.example',
			'127.0.0.1.evil.example',
			'evil-localhost',
			'10.0.0.5',
			'0.0.0.0',
			'[::2]',
			'127.0.0.1:4747@evil.example',
			'a b',
			hostname() === 'localhost' ? 'other' : hostname()
		])
			expect(isOwnName(host, alone), String(host)).toBe(false);
	});
	it('is also that of ORIGIN, what it is told, and of the machine where it is shared', () => {
		expect(isOwnName('yard.example', { ORIGIN: 'https://yard.example:8443' })).toBe(true);
		expect(isOwnName('yard.example', { ORIGIN: 'no address' })).toBe(false);
		expect(isOwnName('shed.lan:80', { BRUNTLE_HOSTS: 'other, Shed.lan' })).toBe(true);
		expect(isOwnName('lan', { BRUNTLE_HOSTS: 'other, shed.lan' })).toBe(false);
		expect(isOwnName('', { BRUNTLE_HOSTS: '' })).toBe(false);
		expect(isOwnName(hostname(), shared)).toBe(true);
		expect(isOwnName('evil.example', shared)).toBe(false);
		for (const HOST of ['127.0.0.1', '::1', 'localhost'])
			expect(isOwnName(`${hostname()}.x`, { HOST })).toBe(false);
	});
});

describe('what is sent from elsewhere', () => {
	it('by a name that is not this server’s is misdirected, even to read', () => {
		expect(status({ host: 'evil.example' }, { method: 'GET' })).toBe(421);
		expect(status({}, { method: 'GET' })).toBeNull();
	});
	it('from a page of another site changes nothing, as a form or as JSON', () => {
		for (const type of [
			'application/json',
			'application/x-www-form-urlencoded',
			'multipart/form-data; boundary=x',
			'text/plain'
		]) {
			const content = { 'content-type': type };
			expect(status({ ...content, origin: 'http://127.0.0.1:4747' }), type).toBeNull();
			for (const origin of ['https://evil.example', 'null', 'http://127.0.0.1:4748', 'http://localhost:4747'])
				expect(status({ ...content, origin }), `${type} ${origin}`).toBe(403);
			for (const site of ['cross-site', 'same-site'])
				expect(status({ ...content, 'sec-fetch-site': site }), `${type} ${site}`).toBe(403);
		}
		for (const method of ['PUT', 'PATCH', 'DELETE'])
			expect(status({ origin: 'https://evil.example' }, { method }), method).toBe(403);
		expect(status({ origin: 'https://evil.example' }, { method: 'GET' })).toBeNull();
	});
	it('by a program, which says no site, is taken as JSON and not as a form', () => {
		expect(status({ 'content-type': 'application/json' })).toBeNull();
		expect(status({ 'content-type': 'application/x-www-form-urlencoded' })).toBe(403);
		expect(status({ 'content-type': 'Multipart/Form-Data; boundary=x' })).toBe(403);
	});
	it('through a proxy that nobody told of says what to start it with', () => {
		const url = new URL('http://yard.example/trees');
		const request = new Request(url, {
			method: 'POST',
			headers: { host: 'yard.example', origin: 'https://yard.example' }
		});
		expect(() => refuseForeign(request, url, { BRUNTLE_HOSTS: 'yard.example' })).toThrow(
			'Bruntle is reached as https://yard.example and does not know it.'
		);
		expect(
			status(
				{ host: 'yard.example', origin: 'https://yard.example' },
				{ at: 'https://yard.example/trees', surroundings: { ORIGIN: 'https://yard.example' } }
			)
		).toBeNull();
	});
});

describe('a form that is sent', () => {
	const post = (address: string, body = 'a=1', type = 'application/x-www-form-urlencoded') => {
		const url = new URL(address, 'http://127.0.0.1:4747');
		return { url, request: new Request(url, { method: 'POST', body, headers: { 'content-type': type } }) };
	};
	it('to an action by a name that every object has finds none', () => {
		for (const name of ['__proto__', 'constructor', 'toString', 'hasOwnProperty'])
			expect(() => guardForm(post(`/yard?/${name}`)), name).toThrow('There is no such form here.');
		for (const address of ['/yard?/remove', '/yard?constructor=1', '/yard'])
			expect(() => guardForm(post(address)), address).not.toThrow();
	});
	it('and breaks off is refused in words; a whole one is read', async () => {
		const whole = post('/yard?/remove');
		guardForm(whole);
		expect((await whole.request.formData()).get('a')).toBe('1');
		const cut = post(
			'/yard?/remove',
			'--x\r\nContent-Disposition: form-data; name="a"\r\n\r\nhal',
			'multipart/form-data; boundary=x'
		);
		guardForm(cut);
		await expect(cut.request.formData()).rejects.toMatchObject({
			status: 400,
			body: { message: 'What was sent broke off on its way.' }
		});
	});
});

describe('a fault of the database or the disk', () => {
	it('is told as what a person can do, however deep it lies; any other is none of theirs', () => {
		const said = (code: string) =>
			faultOf(
				new Error('Failed query: insert', {
					cause: Object.assign(new Error('x'), { code: 'SQLITE_ERROR', extendedCode: code })
				})
			);
		expect(said('SQLITE_CONSTRAINT_FOREIGNKEY')).toMatchObject({
			status: 409,
			message: 'What this belongs to is not here any more.'
		});
		expect(said('SQLITE_CONSTRAINT_UNIQUE')).toMatchObject({ status: 409 });
		expect(said('SQLITE_FULL')).toMatchObject({ status: 507, message: 'There is no room on the disk.' });
		expect(said('SQLITE_READONLY_DBMOVED')).toMatchObject({ status: 507 });
		for (const code of ['SQLITE_IOERR_WRITE', 'SQLITE_CANTOPEN', 'SQLITE_CORRUPT', 'SQLITE_BUSY'])
			expect(said(code), code).toMatchObject({ status: 503 });
		expect(faultOf(new Error('x is not a function'))).toBeNull();
		expect(faultOf('SQLITE_FULL')).toBeNull();
	});
});

describe('what a field must be', () => {
	it('is never said in the words of the validator', () => {
		const schema = z.strictObject({
			one: z.enum(['a', 'b']),
			only: z.literal('c'),
			text: z.string().max(2),
			long: z.string().min(2),
			list: z.array(z.number()),
			either: z.union([z.number(), z.boolean()]),
			url: z.url()
		});
		const said = fieldProblems(
			schema.safeParse({ one: 'x', only: 'x', text: 'xxx', long: 'x', list: 'x', either: 'x', url: 'x' })
				.error as z.ZodError
		);
		expect(Object.fromEntries(said.map(({ field, message }) => [field, message]))).toEqual({
			one: 'must be one of: a, b',
			only: 'must be c',
			text: 'must be at most 2',
			long: 'must be at least 2',
			list: 'must be array',
			either: 'must be one of the forms described for it',
			url: 'is not as it should be'
		});
	});
});

describe('a form that is sent again', () => {
	const form = (sent: string, litres: string) => {
		const data = new FormData();
		if (sent) data.set('sent', sent);
		data.set('litres', litres);
		return data;
	};
	beforeAll(async () => void (opened.store = await freshStore()));
	it('is done once: with the same name and the same words, before the answer or after it', async () => {
		let done = 0;
		const water = async () => {
			await new Promise((resolve) => setTimeout(resolve, 5));
			return { told: `Watered, ${++done}` };
		};
		const [first, beside] = await Promise.all([acting(form('a', '2'), water), acting(form('a', '2'), water)]);
		expect([first, beside, await acting(form('a', '2'), water)]).toEqual(
			Array(3).fill({ told: 'Watered, 1' })
		);
		// Other words, another sending, and a page that names none are work of their own.
		await acting(form('a', '3'), water);
		await acting(form('b', '2'), water);
		await acting(form('', '2'), water);
		await acting(form('', '2'), water);
		expect(done).toBe(5);
	});
	it('is done anew where it was refused', async () => {
		let tries = 0;
		const work = async () => {
			if (++tries === 1) throw new Refusal(409, 'Not now.');
			return { told: 'Done' };
		};
		expect(await acting(form('c', '1'), work)).toMatchObject({ status: 409 });
		expect(await acting(form('c', '1'), work)).toEqual({ told: 'Done' });
	});
});
