import { createClient, type Client } from '@libsql/client';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { calculations } from '$core/compute/calculations';
import { defaultValues } from '$core/values/values';
import { trees } from '$lib/server/records/records';
import { closeStore, yardStore } from '$lib/server/store';
import { demoToken } from '../../src/demo/weather';
import { decoded } from '../decoded';
import { calculationExamples } from '../examples';
import { demoStore } from './helpers';

/**
 * What the house promises of bad input, tried on every door it has: a clear refusal, nothing half written, and never the
 * answer "something went wrong here".
 */

process.env.BRUNTLE_NOW = '2026-04-18T09:00:00Z';
const file = path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-hostile-')), 'yard.db');
process.env.DATABASE_URL = `file:${file}`;

type Answer = { type?: string; status?: number; data?: unknown; location?: string };
type Action = (event: object) => Promise<Answer | undefined>;
interface PageModule {
	actions?: Record<string, Action>;
}
type Handler = (event: object) => Response | Promise<Response>;
type ServerModule = Partial<Record<'GET' | 'POST' | 'PUT' | 'DELETE', Handler>>;

const pages = import.meta.glob<PageModule>('../../src/routes/**/+page.server.ts', { eager: true });
const servers = import.meta.glob<ServerModule>('../../src/routes/**/+server.ts', { eager: true });
const sources = import.meta.glob<string>('../../src/**/*.{svelte,ts}', {
	eager: true,
	query: '?raw',
	import: 'default'
});
const routeOf = (module: string): string =>
	module.replace('../../src/routes', '').replace(/\/\+(page\.)?server\.ts$/, '') || '/';

let watcher: Client;
let treeId: string;
beforeAll(async () => {
	// Another file of tests may have opened a yard in this process.
	await closeStore();
	process.env.DATABASE_URL = `file:${file}`;
	const made = await demoStore();
	await made.db.$client.execute({ sql: 'VACUUM INTO ?', args: [file] });
	made.close();
	const store = await yardStore();
	treeId = (await trees.list(store.db)).find((tree) => tree.tag === 'C-07')?.id ?? '';
	watcher = createClient({ url: `file:${file}` });
});
afterAll(async () => {
	watcher.close();
	await closeStore();
});

/** Changes whenever another connection commits something [SQLite documentation: PRAGMA data_version]. */
const written = async (): Promise<number> =>
	Number((await watcher.execute('PRAGMA data_version')).rows[0]?.data_version);

/** Every name that any field of the app has. */
const fieldNames = [
	...new Set(
		Object.entries(sources)
			.filter(([at]) => at.includes('/views/') || at.includes('/ui/') || at.includes('/routes/'))
			.flatMap(([, text]) => [
				...[...text.matchAll(/\bname="([\w.]+)"/g)].map((match) => match[1] ?? ''),
				...[...text.matchAll(/form\.get(?:All)?\('(\w+)'\)/g)].map((match) => match[1] ?? ''),
				...[...text.matchAll(/jsonIn\(form, '(\w+)'\)/g)].map((match) => match[1] ?? '')
			])
	)
].filter((name) => name !== '');

const hostileTexts = [
	'',
	'   ',
	'-1',
	'1e999',
	'NaN',
	'9'.repeat(400),
	'2026-02-30',
	'9999-12-31',
	'0001-01-01',
	'null',
	'[]',
	'{}',
	'[[[[[[[[[[]]]]]]]]]]',
	'{"__proto__":{"x":1}}',
	'{"constructor":1}',
	'[null]',
	'true',
	'\u0000\uFFFF',
	'<img src=x onerror=alert(1)>',
	"'; DROP TABLE tree; --",
	'../../etc/passwd',
	'x'.repeat(5000)
];

function hostileForm(text: string): FormData {
	const form = new FormData();
	for (const name of fieldNames) form.set(name, text);
	form.set('file', new File([text], text.slice(0, 30) || 'empty'));
	return form;
}
const event = (route: string, request: Request, id = treeId) => ({
	request,
	params: { id, key: id, name: 'diagnosis', token: id, file: id, rest: id },
	url: new URL(request.url),
	route: { id: route },
	cookies: { get: () => undefined, set: () => undefined, delete: () => undefined },
	locals: {}
});
const isRedirect = (thrown: unknown): boolean =>
	typeof thrown === 'object' && thrown !== null && 'status' in thrown && 'location' in thrown;

const actions = Object.entries(pages).flatMap(([module, { actions: of = {} }]) =>
	Object.entries(of).map(([name, action]): [string, Action] => [`${routeOf(module)} ${name}`, action])
);

describe('every form action', () => {
	it('is found: the test would say nothing of an empty list', () => {
		expect(actions.length).toBeGreaterThan(40);
		expect(fieldNames.length).toBeGreaterThan(100);
	});

	it.each(actions)('%s refuses in words, and writes nothing when it refuses', async (name, action) => {
		for (const text of hostileTexts)
			for (const id of [treeId, 'nobody']) {
				const before = await written();
				// As the framework hands it over: taking a form of hundreds of fields apart is its own work.
				const form = hostileForm(text);
				const request = Object.assign(new Request('http://127.0.0.1/', { method: 'POST' }), {
					formData: () => Promise.resolve(form)
				});
				let answer: Answer | undefined;
				try {
					answer = await action(event(name, request, id));
				} catch (thrown) {
					if (isRedirect(thrown)) continue;
					throw new Error(`${name} broke on ${JSON.stringify(text.slice(0, 40))}`, { cause: thrown });
				}
				if (answer?.status === undefined) continue;
				const { refusal } = answer.data as { refusal: { message: string; advice: string } };
				expect(answer.status, name).toBeGreaterThanOrEqual(400);
				expect(answer.status, name).toBeLessThan(500);
				expect(refusal.message, `${name}: ${text.slice(0, 40)}`).toMatch(/^\S.{5,}/s);
				expect(refusal.message).not.toMatch(/ZodError|SQLITE|undefined|\[object|\bat .+:\d+/);
				expect(await written(), `${name} wrote on ${text.slice(0, 40)}`).toBe(before);
			}
	});
});

const bodies = [
	'',
	'{',
	'null',
	'[]',
	'{}',
	'"x"',
	'1e400',
	'[null]',
	'{"__proto__":{"x":1}}',
	`[${'['.repeat(3000)}${']'.repeat(3000)}]`,
	JSON.stringify({ a: 'x'.repeat(100_000) }),
	JSON.stringify(Array.from({ length: 5000 }, () => ({})))
];
const doors = Object.entries(servers).flatMap(([module, of]) =>
	(['POST', 'PUT', 'DELETE'] as const).flatMap((method): [string, 'POST' | 'PUT' | 'DELETE', Handler][] => {
		const handler = of[method];
		return handler ? [[routeOf(module), method, handler]] : [];
	})
);

describe('every address of the JSON interface', () => {
	it.each(doors)('%s %s answers problem+json, and writes nothing', async (route, method, handler) => {
		const before = await written();
		for (const body of bodies)
			for (const type of ['application/json', 'text/csv', 'text/plain'])
				for (const id of [treeId, 'nobody', '__proto__', '../x']) {
					const request = new Request('http://127.0.0.1/api', {
						method,
						body,
						headers: { 'content-type': type, authorization: `Bearer ${id}` }
					});
					const answer = await handler(event(route, request, id));
					const at = `${method} ${route} ${type} ${body.slice(0, 30)}`;
					expect(answer.status, at).toBeLessThan(500);
					if (answer.status < 400) {
						// Only a question to a calculation may be answered by so little.
						expect(route, at).toBe('/api/v1/compute/[name]');
						continue;
					}
					expect(answer.headers.get('content-type'), at).toBe('application/problem+json');
					const problem = (await answer.json()) as { title: string; status: number; detail: string };
					expect(problem.status, at).toBe(answer.status);
					expect(problem.title.length, at).toBeGreaterThan(5);
					expect(problem.detail, at).not.toMatch(/\bat .+:\d+/);
				}
		expect(await written()).toBe(before);
	});
});

const hostileThings: unknown[] = [
	null,
	'',
	'x',
	-1,
	0,
	1e-9,
	1e9,
	1e308,
	NaN,
	Infinity,
	true,
	[],
	{},
	'2026-02-30',
	'0001-01-01',
	'9999-12-31',
	'y'.repeat(10_000)
];

describe('a device with its token', () => {
	const post = servers['../../src/routes/api/v1/readings/+server.ts']?.POST;
	const send = async (body: string, type: string): Promise<Response> => {
		if (!post) throw new Error('no door for readings');
		const headers = { 'content-type': type, authorization: `Bearer ${demoToken('scale')}` };
		return post(
			event('/api/v1/readings', new Request('http://127.0.0.1/', { method: 'POST', body, headers }))
		);
	};
	const good = { at: '2026-04-17T06:00:00Z', weightKg: 12 };

	it('is told what is wrong with a reading, and nothing of a batch with a bad one is kept', async () => {
		for (const thing of [...hostileThings, '+275760-09-13T00:00:00Z', '2026-04-17', '2026-04-17T25:00:00Z'])
			for (const key of Object.keys(good)) {
				const before = await written();
				const bad = { ...good, [key]: thing };
				const where = `${key} = ${String(JSON.stringify(thing)).slice(0, 40)}`;
				const json = await send(
					JSON.stringify([{ ...good, at: '2026-04-17T05:00:00Z' }, bad]),
					'application/json'
				);
				const canBe = key === 'weightKg' && typeof thing === 'number' && thing >= -5 && thing <= 10_000;
				if (!canBe) expect(json.status, where).toBeGreaterThanOrEqual(400);
				expect(json.status, where).toBeLessThan(500);
				const csv = await send(`at,weight_kg\n${String(bad.at)},${String(bad.weightKg)}\n`, 'text/csv');
				expect(csv.status, `${where} as CSV`).toBeLessThan(500);
				if (csv.status >= 400) expect(await written(), where).toBe(before);
			}
	});
	it('may send what is right', async () => {
		expect((await send(JSON.stringify(good), 'application/json')).status).toBe(201);
	});
});

/** Every place in a question that holds a single thing. */
function leaves(of: unknown, at: (string | number)[] = []): (string | number)[][] {
	if (Array.isArray(of)) return of.flatMap((item, i) => leaves(item, [...at, i]));
	if (of !== null && typeof of === 'object')
		return Object.entries(of).flatMap(([key, value]) => leaves(value, [...at, key]));
	return [at];
}
/** The same question with another thing in one place. */
function withAt(of: unknown, [key, ...rest]: (string | number)[], value: unknown): unknown {
	if (key === undefined) return value;
	if (Array.isArray(of)) return of.map((item, i) => (i === key ? withAt(item, rest, value) : item));
	const object = of as Record<string, unknown>;
	return { ...object, [key]: withAt(object[key], rest, value) };
}
/** Too slow to be asked everything: they are asked each thing in a few places. */
const slow = new Set(['recovery-forecast', 'rehearsal', 'strongest-other-plan', 'reduction-plan']);
/** Those that read a whole picture for each answer are asked every other thing in three places, one of them the picture's own. */
const ofPictures = new Set(['picture-root', 'picture-line-up', 'root-wall', 'leaf-cover']);

describe('every calculation', () => {
	it.each(calculations.map((entry) => [entry.name, entry] as const))(
		'%s refuses what it cannot take, and answers whole where it can',
		async (name, { output, run }) => {
			const example = calculationExamples[name];
			const places = leaves(example);
			const most = ofPictures.has(name) ? 3 : slow.has(name) ? 4 : 24;
			const step = Math.ceil(places.length / most);
			const things = ofPictures.has(name) ? hostileThings.filter((_, i) => i % 2 === 0) : hostileThings;
			for (const at of places.filter((_, i) => i % step === 0))
				for (const thing of things) {
					const asked = withAt(example, at, thing);
					const where = `${name} ${at.join('.')} = ${String(JSON.stringify(thing)).slice(0, 30)}`;
					let answer: unknown;
					try {
						answer = await run(asked, defaultValues, decoded);
					} catch (thrown) {
						// The edge turns both into a refusal with words.
						if (thrown instanceof z.ZodError || (thrown instanceof Error && 'advice' in thrown)) continue;
						throw new Error(where, { cause: thrown });
					}
					expect(output.safeParse(answer).error, where).toBeUndefined();
				}
		}
	);
});
