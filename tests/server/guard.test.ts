import { hostname } from 'node:os';
import { describe, expect, it } from 'vitest';
import { isOwnName, refuseForeign } from '$lib/server/edge/guard';
import { Refusal } from '$lib/server/errors';

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
