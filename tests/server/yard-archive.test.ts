import {
	existsSync,
	mkdirSync,
	mkdtempSync,
	readFileSync,
	readdirSync,
	rmSync,
	utimesSync,
	writeFileSync
} from 'node:fs';
import { createWriteStream } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import sharp from 'sharp';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ZipFile } from 'yazl';
import type { Store } from '$lib/server/db/database';
import * as tables from '$lib/server/db/schema';
import { importCase } from '$lib/server/case-file';
import {
	acceptInvitation,
	hasOwner,
	invite,
	makeOwner,
	peopleOf,
	recognise
} from '$lib/server/people/people';
import { hashOf, keepPicture } from '$lib/server/pictures';
import { exportCase } from '$lib/server/case-file';
import { readSetting, writeSetting } from '$lib/server/settings';
import { lookIntoArchive, readArchive, standsHere } from '$lib/server/yard-archive/read';
import { archiveOf, lookIntoSent, readSent, takePiece } from '$lib/server/yard-archive/yard';
import { rowsFromCsv, rowsToCsv } from '$lib/server/yard-archive/rows';
import { stockList, weatherList } from '$lib/server/yard-archive/parts';
import { writeArchive } from '$lib/server/yard-archive/write';
import { openZip } from '$lib/server/zip';
import type { Refusal } from '$lib/server/errors';
import { demoStore, freshStore, refusal } from './helpers';

const fresh = (): string => mkdtempSync(path.join(tmpdir(), 'bruntle-archive-test-'));
const folder = fresh();
const made = '2026-04-18T09:00:00.000Z';
let demo: Store;
let archive: string;
const picturesOf = new Map<string, string>();

/** Archives a yard with its pictures in a folder. */
const write = (store: Store, picturesFolder: string, madeAt = made): Promise<string> => {
	const file = path.join(fresh(), 'yard.zip');
	return writeArchive({ url: store.url, picturesFolder, file, madeAt }).then(() => file);
};
/** What is in an archive, by name. */
async function contents(file: string): Promise<Map<string, Buffer>> {
	const zip = await openZip(file);
	const found = new Map<string, Buffer>();
	for (const name of zip.names) found.set(name, await zip.read(name, 1e9));
	zip.close();
	return found;
}
/** An archive with some of its files changed, or without them. */
async function changed(change: Record<string, ((before: string) => string) | null>): Promise<string> {
	const zip = new ZipFile();
	const file = path.join(fresh(), 'changed.zip');
	for (const [name, bytes] of await contents(archive)) {
		const how = Object.entries(change).find(([wanted]) => name.startsWith(wanted));
		if (how?.[1] === null) continue;
		zip.addBuffer(how?.[1] ? Buffer.from(how[1](bytes.toString())) : bytes, name);
	}
	zip.end();
	await pipeline(zip.outputStream, createWriteStream(file));
	return file;
}
/** What of an archive is changed in these tests. */
interface Loose {
	version: number;
	tree: { tag: string };
	tasks: unknown[];
	places: unknown[];
	kinds: unknown[];
	devices: unknown[];
	values: Record<string, number>;
}
const inJson =
	(change: (value: Loose) => void) =>
	(text: string): string => {
		const value = JSON.parse(text) as Loose;
		change(value);
		return JSON.stringify(value);
	};
/** That something is refused so, and in what words. */
async function refused(work: Promise<unknown>, status: number, message = /./): Promise<Refusal> {
	const told = await refusal(work);
	expect(told.status).toBe(status);
	expect(told.message).toMatch(message);
	return told;
}
/** Sets where pictures are kept while something is done. */
async function withPictures<T>(at: string, work: () => Promise<T>): Promise<T> {
	const before = process.env.BRUNTLE_PICTURES;
	process.env.BRUNTLE_PICTURES = at;
	try {
		return await work();
	} finally {
		if (before === undefined) delete process.env.BRUNTLE_PICTURES;
		else process.env.BRUNTLE_PICTURES = before;
	}
}

beforeAll(async () => {
	demo = await demoStore();
	const at = path.join(folder, 'pictures');
	mkdirSync(at);
	picturesOf.set('demo', at);
	const [first] = await demo.db.select({ id: tables.tree.id }).from(tables.tree).orderBy(tables.tree.tag);
	const jpeg = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#2f6a2f' } })
		.jpeg()
		.toBuffer();
	await withPictures(at, () =>
		keepPicture(
			demo,
			first?.id ?? '',
			{ view: 'front', note: '', takenOn: '2026-04-10' } as never,
			jpeg,
			'2026-04-18'
		)
	);
	await makeOwner(demo, { name: 'Ada Weir', passphrase: 'nine slow herons wade' });
	await acceptInvitation(demo, await invite(demo, 'helper'), {
		name: 'Joss',
		passphrase: 'paper lantern over reeds'
	});
	await writeSetting(demo, 'format', { units: 'imperial', locale: 'en-US' });
	await writeSetting(demo, 'key-here', true);
	await writeSetting(demo, 'calendar-token', 'a-token-that-opens-the-calendar');
	await demo.write(async (tx) => {
		await tx
			.insert(tables.valueOverride)
			.values({ key: 'weather.readingOldestDays', value: 33 })
			.onConflictDoNothing();
	});
	archive = await write(demo, at);
}, 120_000);
afterAll(() => demo.close());

describe('the whole yard as open files', () => {
	it('holds every tree and everything that belongs to it, and is the same again when it is read into an empty yard', async () => {
		const store = await freshStore();
		const at = path.join(fresh(), 'pictures');
		const about = await withPictures(at, () => readArchive(store, archive));
		expect(about.trees).toBe(await demo.db.$count(tables.tree));
		expect(about.waterings).toBe(await demo.db.$count(tables.watering));
		expect(about.readings).toBe(await demo.db.$count(tables.reading));
		expect(about.trees).toBeGreaterThan(10);
		expect(about.readings).toBeGreaterThan(100);
		const again = await write(store, at);
		expect(readFileSync(again).equals(readFileSync(archive))).toBe(true);
		// On another day it alone says so.
		const later = await contents(await write(store, at, '2027-01-01T00:00:00.000Z'));
		const first = await contents(archive);
		expect([...later.keys()]).toEqual([...first.keys()]);
		for (const [name, bytes] of first)
			if (name !== 'about.json') expect(later.get(name)?.equals(bytes), name).toBe(true);
		// What is reckoned hour by hour from the readings is there again.
		const hours = (db: Store['db']) =>
			db.all(
				sql`select * from ${tables.readingHour} order by ${tables.readingHour.deviceId}, ${tables.readingHour.hour}`
			);
		expect(await hours(store.db)).toEqual(await hours(demo.db));
		for (const { id } of await demo.db.select({ id: tables.tree.id }).from(tables.tree))
			expect(await withPictures(at, () => exportCase(store.db, id))).toEqual(
				await withPictures(picturesOf.get('demo') ?? '', () => exportCase(demo.db, id))
			);
		expect(await readSetting(store.db, 'format')).toEqual({ units: 'imperial', locale: 'en-US' });
		expect(
			existsSync(path.join(at, readdirSync(at).find((name) => name.endsWith('.small.jpg')) ?? 'none'))
		).toBe(true);
		store.close();
	}, 120_000);

	it('holds no row of any table less, but for what opens doors or is reckoned', async () => {
		const store = await freshStore();
		await withPictures(path.join(fresh(), 'pictures'), () => readArchive(store, archive));
		const left = new Set([
			'session',
			'invitation',
			'shared_link',
			'sent_act',
			'tree_water',
			'revision',
			'setting'
		]);
		const names = (
			await demo.db.all<{ name: string }>(
				sql`select name from sqlite_master where type = 'table' and name not like 'sqlite_%' and name not like '\\_\\_%' escape '\\'`
			)
		).map(({ name }) => name);
		expect(names.length).toBeGreaterThan(25);
		for (const name of names.filter((one) => !left.has(one))) {
			const count = async (db: Store['db']) =>
				(await db.all<{ n: number }>(sql`select count(*) as n from ${sql.identifier(name)}`))[0]?.n;
			expect(await count(store.db), name).toBe(await count(demo.db));
		}
		store.close();
	}, 60_000);

	it('holds nothing that opens a door', async () => {
		const secrets = [
			...(
				await demo.db.all<{ h: string }>(
					sql`select passHash as h from person union select tokenHash from device`
				)
			).map(({ h }) => h),
			'a-token-that-opens-the-calendar'
		];
		expect(secrets.length).toBeGreaterThan(3);
		for (const [name, bytes] of await contents(archive))
			for (const secret of secrets) expect(bytes.includes(secret), `${name} holds ${secret}`).toBe(false);
		const store = await freshStore();
		await withPictures(path.join(fresh(), 'pictures'), () => readArchive(store, archive));
		// A yard that asks for a key which nobody has would be shut for good.
		expect(await readSetting(store.db, 'key-here')).toBeUndefined();
		store.close();
	}, 60_000);

	it('brings people along without a way in, until they take up an invitation of their role under their name', async () => {
		const store = await freshStore();
		await withPictures(path.join(fresh(), 'pictures'), () => readArchive(store, archive));
		expect((await peopleOf(store.db)).map(({ name, role, waits }) => [name, role, waits])).toEqual([
			['Ada Weir', 'owner', true],
			['Joss', 'helper', true]
		]);
		expect(await hasOwner(store.db)).toBe(false);
		for (const passphrase of ['', 'nine slow herons wade'])
			await refused(recognise(store.db, { name: 'Ada Weir', passphrase }, `at ${passphrase}`), 401);
		const before = await peopleOf(demo.db);
		const owner = await makeOwner(store, { name: 'ada weir', passphrase: 'nine slow herons wade' });
		expect(owner).toEqual({ id: before[0]?.id, name: 'Ada Weir', role: 'owner' });
		expect(await hasOwner(store.db)).toBe(true);
		// Who is invited to help does not become an owner by a name.
		await refused(
			acceptInvitation(store, await invite(store, 'owner'), {
				name: 'Joss',
				passphrase: 'paper lantern over reeds'
			}),
			422
		);
		await acceptInvitation(store, await invite(store, 'helper'), {
			name: 'Joss',
			passphrase: 'paper lantern over reeds'
		});
		expect((await peopleOf(store.db)).map(({ waits }) => waits)).toEqual([false, false]);
		await refused(
			acceptInvitation(store, await invite(store, 'helper'), {
				name: 'Joss',
				passphrase: 'another lantern over reeds'
			}),
			422
		);
		store.close();
	}, 60_000);

	it('has trees that can be read in alone', async () => {
		const store = await freshStore();
		const [name = '', bytes] = [...(await contents(archive))].find(([one]) => one.startsWith('trees/')) ?? [];
		const { tree } = await importCase(store, JSON.parse(String(bytes)));
		expect(name).toContain(tree.id);
		store.close();
	});

	it('leaves out what cannot be read, and says how much', async () => {
		const store = await demoStore();
		await store.db.run(sql`update watering set litres = -4 where rowid = (select min(rowid) from watering)`);
		const file = await write(store, picturesOf.get('demo') ?? '');
		const seen = await lookIntoArchive(file);
		expect(seen.about.leftOut).toBe(1);
		expect(seen.about.waterings).toBe((await demo.db.$count(tables.watering)) - 1);
		expect(seen.problems).toEqual([]);
		store.close();
	}, 60_000);

	it('counts pictures whose file is gone', async () => {
		const seen = await lookIntoArchive(await write(demo, path.join(folder, 'nowhere')));
		const all = await demo.db.all<{ n: number }>(sql`select count(distinct hash) as n from picture`);
		expect(seen.about).toMatchObject({ pictures: 0, picturesWithoutFile: all[0]?.n });
		const whole = await lookIntoArchive(archive);
		expect(whole.about.pictures).toBe(1);
	});
});

describe('an archive that is read in', () => {
	const some = 'trees/';
	const cases: [what: string, change: Parameters<typeof changed>[0], told: RegExp][] = [
		[
			'a tree at a place that is not there',
			{ [some]: inJson((tree) => (tree.places = [])) },
			/places must hold the place/
		],
		[
			'a place that is gone from the yard',
			{ 'yard.json': inJson((yard) => yard.places.splice(0, 1)) },
			/must be a place of yard\.json/
		],
		[
			'a kind that is gone from the yard',
			{ 'yard.json': inJson((yard) => (yard.kinds = [])) },
			/must be a kind of yard\.json/
		],
		['one tag twice', { [some]: inJson((one) => (one.tree.tag = 'SAME')) }, /tree\.tag must be used once/],
		['one identity twice', { [some]: inJson((one) => one.tasks.push(...one.tasks)) }, /once/],
		[
			'a place twice',
			{ 'yard.json': inJson((yard) => yard.places.push(yard.places[0])) },
			/places must be used once/
		],
		[
			'a working value that is not known',
			{ 'yard.json': inJson((yard) => (yard.values.unheard = 3)) },
			/values\.unheard is not a working value/
		],
		[
			'a device that is gone',
			{ 'yard.json': inJson((yard) => (yard.devices = [])) },
			/device that is not in yard/
		],
		[
			'a broken number',
			{ 'weather.csv': (text) => text.replace(/(\r\n[^\r]*?),-?\d+(\.\d+)?,/, '$1,warm,') },
			/weather\.csv: line 2/
		],
		[
			'a column that is gone',
			{ 'stock.csv': (text) => text.replace('packSize', 'size') },
			/packSize must be a column/
		],
		['readings twice', { readings: (text) => text + text.split('\r\n')[1] + '\r\n' }, /at must be used once/],
		['half a file', { 'yard.json': (text) => text.slice(0, 100) }, /yard\.json: file cannot be read/],
		['no yard', { 'yard.json': null }, /yard\.json: file cannot be read/],
		['a tree less', { [`${some}p`]: null, [`${some}c`]: null }, /trees must be \d+, as many/],
		['a picture that is another', { pictures: () => 'another' }, /another picture than its name/]
	];
	it.each(cases)(
		'with %s is told by file and field, and nothing of it is kept',
		async (_, change, said) => {
			const file = await changed(change);
			const seen = await lookIntoArchive(file);
			expect(seen.problems.map(({ field, message }) => `${field} ${message}`).join('\n')).toMatch(said);
			expect(seen.problems.length).toBeLessThanOrEqual(20);
			const store = await freshStore();
			const told = await refused(readArchive(store, file), 422);
			expect(told.problems).toEqual(seen.problems);
			expect(await standsHere(store.db)).toBeNull();
			store.close();
		},
		60_000
	);

	it('tells no more than twenty faults and counts the rest', async () => {
		const seen = await lookIntoArchive(
			await changed({ 'yard.json': inJson((yard) => (yard.kinds = yard.places = [])) })
		);
		expect(seen.problems).toHaveLength(20);
		// Each tree has neither its kind nor its place, and the weather no place.
		expect(seen.more).toBe(2 * seen.about.trees + 1 - 20);
	});

	it('has to be an archive, of this version', async () => {
		const file = path.join(fresh(), 'none.zip');
		writeFileSync(file, 'no archive');
		await refused(lookIntoArchive(file), 422, /no archive/);
		await refused(lookIntoArchive(await changed({ 'about.json': null })), 422, /no archive/);
		const newer = await changed({ 'about.json': inJson((about) => (about.version = 2)) });
		expect((await refused(lookIntoArchive(newer), 422)).advice).toContain('version must be 1');
	});

	it('is read into an empty yard only', async () => {
		const store = await freshStore();
		expect(await standsHere(store.db)).toBeNull();
		await withPictures(path.join(fresh(), 'pictures'), () => readArchive(store, archive));
		const before = await store.db.$count(tables.journal);
		await refused(readArchive(store, archive), 409, /trees already/);
		expect(await store.db.$count(tables.journal)).toBe(before);
		await store.db.run(sql`delete from tree`);
		await refused(readArchive(store, archive), 409, /places? already/);
		await store.db.run(sql`delete from device`);
		await store.db.run(sql`delete from place`);
		await refused(readArchive(store, archive), 409, /a stock already/);
		store.close();
	}, 60_000);

	it('that breaks off halfway leaves nothing', async () => {
		const store = await freshStore();
		// The last table that is written to refuses.
		await store.db.run(
			sql`create trigger halt before insert on reading begin select raise(abort, 'no more'); end`
		);
		await expect(
			withPictures(path.join(fresh(), 'pictures'), () => readArchive(store, archive))
		).rejects.toThrow();
		expect(await standsHere(store.db)).toBeNull();
		expect(await store.db.$count(tables.person)).toBe(0);
		store.close();
	}, 60_000);
});

describe('an archive that is sent', () => {
	it('comes in pieces, each taken once, and goes when it was read', async () => {
		const at = path.join(fresh(), 'pictures');
		await withPictures(at, async () => {
			const store = await freshStore();
			const bytes = readFileSync(archive);
			const half = Math.floor(bytes.length / 2);
			const lies = (): string[] => readdirSync(path.join(path.dirname(at), 'archive'));
			expect(await takePiece('1-2-3-4', 0, bytes.subarray(0, half))).toBe(half);
			// Another one takes its place.
			expect(await takePiece('5-6-7-8', 0, bytes.subarray(0, half))).toBe(half);
			expect(lies()).toEqual(['5-6-7-8.zip']);
			await refused(takePiece('1-2-3-4', half, bytes.subarray(half)), 409);
			await refused(takePiece('5-6-7-8', half + 1, bytes.subarray(half + 1)), 409);
			await refused(lookIntoSent(store, '5-6-7-8'), 422);
			expect(await takePiece('5-6-7-8', half, bytes.subarray(half))).toBe(bytes.length);
			expect(await takePiece('5-6-7-8', half, bytes.subarray(half))).toBe(bytes.length);
			const seen = await lookIntoSent(store, '5-6-7-8');
			expect(seen).toMatchObject({ problems: [], more: 0, people: 2, stands: null });
			expect((await readSent(store, '5-6-7-8')).trees).toBe(seen.about.trees);
			expect(lies()).toEqual([]);
			await refused(readSent(store, '5-6-7-8'), 409);
			await refused(takePiece('5-6-7-8', 17 * 1024 ** 3, Buffer.from('x')), 413);
			// Taken along again it goes when it was read, and when nobody reads on.
			const { stream, bytes: size } = await archiveOf(store);
			expect(lies()).toHaveLength(1);
			expect((await new Response(stream).arrayBuffer()).byteLength).toBe(size);
			expect(lies()).toEqual([]);
			await (await archiveOf(store)).stream.cancel();
			// What was broken off goes after a day, and not before.
			for (const [name, hoursAgo] of [
				['old', 25],
				['young', 23]
			] as const) {
				const file = path.join(path.dirname(at), 'archive', `${name}.zip`);
				writeFileSync(file, '');
				const then = new Date(Date.now() - hoursAgo * 3_600_000);
				utimesSync(file, then, then);
			}
			await (await archiveOf(store)).stream.cancel();
			expect(lies()).toEqual(['young.zip']);
			rmSync(path.join(path.dirname(at), 'archive', 'young.zip'));
			expect(lies()).toEqual([]);
			store.close();
		});
	}, 60_000);
});

describe('rows as CSV', () => {
	it('come back as they were, with texts that look like formulas, and nothing where nothing is known', () => {
		const day = {
			id: 'a-1',
			placeId: 'p-1',
			on: '2026-01-02',
			source: 'typed' as const,
			from: '=2+3',
			minC: -4.1,
			maxC: 0.30000000000000004,
			humidityPercent: null,
			windMs: 0,
			gustMs: null,
			sunMj: null,
			rainMm: 0.2,
			version: 3
		};
		const texts = [
			'',
			'"quoted", twice',
			"'=old",
			'-soon',
			'-5',
			'@home',
			'two\nlines',
			'#7',
			' kept as it is'
		];
		const days = texts.map((from, i) => ({ ...day, id: `a-${i}`, from }));
		const text = rowsToCsv(weatherList, days);
		expect(text).not.toMatch(/,=/);
		expect(rowsFromCsv(weatherList, text)).toEqual({
			// Texts are cleaned of blanks round them wherever they come in.
			rows: days.map((one) => ({ ...one, from: one.from.trim() })),
			problems: []
		});
	});
	it('that do not fit are told by line', () => {
		const { rows, problems } = rowsFromCsv(
			stockList,
			'item,packSize,packs,opened,price,note,id,version\nbark-composted,40,1,0,,,s-1,1\nnothing,40,1.5,0,,,s-2,1'
		);
		expect(rows.length + new Set(problems.map(({ field }) => field.split(',')[0])).size).toBe(2);
		expect(problems.map(({ field }) => field)).toEqual(
			expect.arrayContaining(['line 3, item', 'line 3, packs'])
		);
		expect(hashOf(Buffer.from(''))).toHaveLength(64);
	});
});
