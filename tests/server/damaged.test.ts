import { sql, type SQL } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { cleanLine, cleanText } from '$core/text/clean';
import { plain } from '$core/text/format';
import { measured } from '$core/text/measured';
import { taskSchema } from '$core/vocabulary/task';
import { note, shortText } from '$core/vocabulary/fields';
import { damagedRows, findDamaged, mendDamaged, removeDamaged } from '$lib/server/damaged';
import type { Store } from '$lib/server/db/database';
import { everyRecord, observations, tasks, trees } from '$lib/server/records/records';
import { damagedCount } from '$lib/server/records/sound';
import { loadRecords, readAll } from '$lib/server/records/tree-records';
import { undo } from '$lib/server/records/work';
import { forecastSaid } from '$lib/server/recovery';
import { readValues } from '$lib/server/settings';
import { outcomeCases, yardReview } from '$lib/server/outcomes';
import { headOf } from '$lib/server/tree-head';
import { listedTrees, todayTrees } from '$lib/server/tree-lists';
import { treeNames } from '$lib/server/tree-names';
import { demoStore, refusal } from './helpers';

describe('a text as it is taken', () => {
	it('loses what cannot be seen, and control characters', () => {
		expect(shortText(16).parse('  A\u0000-\u200b\u202e1\ufeff\u007f ')).toBe('A-1');
		expect(shortText(40).parse('Beech\tby\r\nthe  gate')).toBe('Beech by the gate');
		expect(shortText(16).safeParse('\u0000\u200f ').success).toBe(false);
		expect(note().parse('one\r\ntwo\u2028three\u0000\u001b[0m\u202e!')).toBe('one\ntwo\nthree[0m!');
		expect(note().parse('tab\tstays')).toBe('tab\tstays');
	});
	it('keeps the joiners that scripts and signs need, marks of direction in notes, and is one character where it looks like one', () => {
		expect(cleanLine('می\u200cخواهم')).toBe('می\u200cخواهم');
		expect(cleanText('\u200fשלום')).toBe('\u200fשלום');
		expect(cleanLine('re\u0301')).toBe('r\u00e9');
		expect(cleanLine('a\ud800b')).toBe('a\ufffdb');
	});
	it('keeps the measures that the app says in it, in the title of a task too', () => {
		const title = `Water, ${measured(2, 'L')}`;
		expect(taskSchema.shape.title.parse(`${title}\u0000\u202e`)).toBe(title);
		expect(note().parse(title)).toBe(title);
		expect(shortText(40).parse(title)).not.toBe(title);
	});
	it('in every field of every record: none lets a control character through', () => {
		const seen: string[] = [];
		const walk = (schema: unknown, path: string): void => {
			const { def } = schema as { def: Record<string, unknown> & { type: string } };
			if (def.type === 'string') {
				const read = (schema as { safeParse(raw: unknown): { success: boolean; data?: unknown } }).safeParse(
					'2026\u0000-04'
				);
				seen.push(path);
				expect(read.success && String(read.data).includes('\u0000'), path).toBe(false);
			}
			for (const [name, part] of Object.entries((def.shape as Record<string, unknown> | undefined) ?? {}))
				walk(part, `${path}.${name}`);
			for (const inner of [def.innerType, def.element, def.valueType, def.in])
				if (inner !== undefined) walk(inner, path);
			for (const option of (def.options as unknown[] | undefined) ?? []) walk(option, path);
		};
		for (const record of everyRecord) walk(record.schema, record.name);
		expect(seen.length).toBeGreaterThan(150);
	});
});

describe('a row that does not fit its record', () => {
	let store: Store;
	let treeId = '';
	beforeAll(async () => {
		store = await demoStore();
	});
	const on = '2026-04-18';
	const run = (query: SQL) => store.write((tx) => tx.run(query));
	const lists = async () => {
		const values = await readValues(store.db);
		await todayTrees(store.db, on);
		return listedTrees(store, on, values);
	};
	beforeEach(async () => {
		store = await demoStore();
		treeId = (await trees.list(store.db)).find(({ tag }) => tag === 'H-03')?.id ?? '';
	});

	it('is left out of what is read with others, noted, and named on its own', async () => {
		const [look] = await observations.list(store.db, treeId);
		await run(sql`update observation set version = 0 where id = ${look?.id}`);
		expect((await loadRecords(store.db, treeId)).observations.map(({ id }) => id)).not.toContain(look?.id);
		expect(damagedCount(store.db)).toBe(1);
		expect((await refusal(observations.get(store.db, look?.id ?? ''))).message).toBe(
			'This look is damaged and cannot be read.'
		);
		const [row] = await damagedRows(store);
		expect(row).toMatchObject({ record: 'observation', id: look?.id, treeId, noun: 'look' });
		expect(row?.tree).toContain('H-03');
		expect(row?.cells).toEqual([
			{ field: 'version', message: 'must be a whole number from 1 to 1000000000', stands: '0' }
		]);
	});

	it('is mended in its fields, kept only when it is whole, and taken back', async () => {
		await run(sql`update tree set situation = 'afloat', tag = '' where id = ${treeId}`);
		expect(await trees.list(store.db)).not.toContainEqual(expect.objectContaining({ id: treeId }));
		const half = await refusal(mendDamaged(store, { record: 'tree', id: treeId }, { situation: 'potted' }));
		expect(half.problems.map(({ field }) => field)).toEqual(['tag']);
		const entry = await mendDamaged(
			store,
			{ record: 'tree', id: treeId },
			// A tag that reads as a number stays a text.
			{ situation: 'potted', tag: '17' }
		);
		expect(await trees.get(store.db, treeId)).toMatchObject({ situation: 'potted', tag: '17' });
		expect(damagedCount(store.db)).toBe(0);
		expect((await refusal(mendDamaged(store, { record: 'tree', id: treeId }, {}))).status).toBe(409);
		await undo(store, entry);
		expect(await findDamaged(store)).toHaveLength(1);
		expect(await trees.raw(store.db, treeId)).toMatchObject({ situation: 'afloat', tag: '' });
	});

	it('is taken out and put back as it was; a tree, a kind and a place that others hang on are mended instead', async () => {
		const [look] = await observations.list(store.db, treeId);
		const id = look?.id ?? '';
		await run(sql`update observation set observedOn = 'May' where id = ${id}`);
		const entry = await removeDamaged(store, { record: 'observation', id });
		expect(await observations.raw(store.db, id)).toBeNull();
		await undo(store, entry);
		expect(await observations.raw(store.db, id)).toMatchObject({ observedOn: 'May' });
		const tree = await trees.get(store.db, treeId);
		await run(sql`update tree set state = '?' where id = ${treeId}`);
		await run(sql`update kind set sap = '?' where id = ${tree?.kindId}`);
		await run(sql`update place set kind = '?' where id = ${tree?.placeId}`);
		for (const one of [
			{ record: 'tree', id: treeId },
			{ record: 'kind', id: tree?.kindId ?? '' },
			{ record: 'place', id: tree?.placeId ?? '' }
		])
			expect((await refusal(removeDamaged(store, one))).message).toMatch(/would go with this/);
		expect((await findDamaged(store)).map(({ record }) => record).sort()).toEqual([
			'kind',
			'observation',
			'place',
			'tree'
		]);
	});

	it('sinks no list, whichever of its cells it is, and says itself on its own page', async () => {
		const tree = await trees.get(store.db, treeId);
		const broken = [
			sql`update tree set name = '' where id = ${treeId}`,
			sql`update tree set situation = 'afloat' where id = ${treeId}`,
			sql`update tree set takenInOn = 'once' where id = ${treeId}`,
			sql`update tree set trunkDiameterMm = -3 where id = ${treeId}`,
			sql`update kind set sap = 'sweet' where id = ${tree?.kindId}`,
			sql`update place set latitudeDeg = 700 where id = ${tree?.placeId}`
		];
		for (const query of broken) {
			store = await demoStore();
			await run(query);
			await findDamaged(store);
			const listed = (await lists()).map(({ id }) => id);
			expect(listed.length, JSON.stringify(query)).toBeGreaterThan(5);
			expect(listed).not.toContain(treeId);
			expect((await treeNames(store.db)).map(({ id }) => id)).not.toContain(treeId);
			expect(await readAll(store.db, [treeId])).toEqual([]);
			expect((await refusal(loadRecords(store.db, treeId))).message).toMatch(/damaged and cannot be read/);
			expect(damagedCount(store.db)).toBe(1);
		}
	});

	it('is none of what the app writes itself: the yard it makes is whole and clean', async () => {
		const writes = store.writes();
		expect(await findDamaged(store)).toEqual([]);
		expect(store.writes()).toBe(writes);
		expect((await tasks.list(store.db)).some(({ title }) => title !== plain(title))).toBe(true);
	});

	it('kept before text was cleaned is cleaned where it stands, so that no list shows it', async () => {
		await run(sql`update tree set name = ${'Ap\u0000ple\u202e twin'} where id = ${treeId}`);
		await run(sql`update observation set note = ${'one\u0000two'} where treeId = ${treeId}`);
		expect(await findDamaged(store)).toEqual([]);
		expect((await lists()).find(({ id }) => id === treeId)?.name).toBe('Apple twin');
		for (const look of await observations.list(store.db, treeId))
			expect((await observations.raw(store.db, look.id))?.note).toBe('onetwo');
		// What somebody writes while it is looked through is not written over.
		await run(sql`update tree set name = ${'Ap\u0000ple'} where id = ${treeId}`);
		const racing: Store = {
			...store,
			write: async (work, touches) => {
				await run(sql`update tree set name = 'Renamed', version = 9 where id = ${treeId}`);
				return store.write(work, touches);
			}
		};
		await findDamaged(racing);
		expect(await trees.get(store.db, treeId)).toMatchObject({ name: 'Renamed', version: 9 });
		// Looked through once more there is nothing to write.
		const writes = store.writes();
		await findDamaged(store);
		expect(store.writes()).toBe(writes);
	});

	it('of what was written of trees says nothing in any list, and every page of its tree goes on', async () => {
		const broken = [
			sql`update observation set observedOn = 'May'`,
			sql`update examination set examinedOn = 'May'`,
			sql`update task set fromOn = 'May', toOn = 'June'`,
			sql`update task set release = '{'`,
			sql`update triage set decidedOn = 'May'`,
			sql`update planting set plantedOn = 'May'`,
			sql`update planting set mix = 'earth'`,
			sql`update watering set wateredOn = 'May'`,
			sql`update measurement set measuredOn = 'May'`,
			sql`update said_forecast set saidOn = 'May'`,
			sql`update cut set doneOn = 'May', state = 'done'`
		];
		for (const query of broken) {
			store = await demoStore();
			await run(query);
			const found = await findDamaged(store);
			expect(found.length, JSON.stringify(query)).toBeGreaterThan(0);
			const values = await readValues(store.db);
			expect((await lists()).length, JSON.stringify(query)).toBeGreaterThan(5);
			await outcomeCases(store.db);
			await yardReview(store.db, on, values);
			const records = await loadRecords(store.db, treeId);
			expect(headOf(records, on, values).care.today).toBe(on);
			await forecastSaid(store.db, records, 'look', on, values);
			const rows = await damagedRows(store);
			expect(rows.length).toBe(found.length);
			for (const { cells } of rows) expect(new Set(cells.map(({ field }) => field)).size).toBe(cells.length);
		}
	}, 240_000);
});
