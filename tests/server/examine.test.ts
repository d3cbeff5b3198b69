import { createClient } from '@libsql/client';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { changeInput } from '$core/tree/changes';
import { CASE_VERSION, upgradeCase } from '$core/tree/case';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { neighbourChecks } from '$core/examine/diagnosis/neighbours';
import { measurementInput } from '$core/examine/measuring/measurement';
import { treeInput } from '$core/take-in/tree';
import { triageInput } from '$core/examine/triage/triage';
import { todayItems } from '$core/today/today';
import { defaultValues } from '$core/values/values';
import { exportCase, importCase } from '$lib/server/case-file';
import { openStore } from '$lib/server/db/database';
import {
	nameTwin,
	planNeighbourChecks,
	planOneByOne,
	recordChange,
	recordExamination,
	recordMeasurement,
	recordTriage,
	removeFromExamine,
	treesAround
} from '$lib/server/examine';
import { undo } from '$lib/server/records/work';
import { recordCuts, saveRoots } from '$lib/server/roots';
import { seedKinds } from '$lib/server/store';
import { todayTrees } from '$lib/server/tree-lists';
import { loadRecords } from '$lib/server/records/tree-records';
import { takeIn } from '$lib/server/trees';
import { freshStore, refusal, rootsWith, storeWithTree } from './helpers';

const squeeze = (measuredOn = '2026-04-10') =>
	measurementInput.parse({ measuredOn, raw: { tool: 'squeeze-test', result: 'drips' } });
const decision = (change: object = {}) =>
	triageInput.parse({
		decidedOn: '2026-04-01',
		purpose: 'treat',
		vitality: 'fair',
		permission: 'own',
		pests: 'none',
		decision: 'go',
		...change
	});

describe('records of Examine', () => {
	it('are kept raw, exported, read back identically elsewhere, and taken back', async () => {
		const { store, tree } = await storeWithTree();
		const { measurement } = await recordMeasurement(store, tree.id, squeeze());
		await recordExamination(
			store,
			tree.id,
			examinationInput.parse({
				examinedOn: '2026-04-11',
				events: ['dug', 'cold-night'],
				failingFast: true,
				findings: [
					{ signId: 'lump-squeezed', grade: 2, measuredBy: measurement.id },
					{ signId: 'sour-smell', grade: 0 }
				]
			})
		);
		await recordTriage(store, tree.id, decision({ backups: 4, note: 'first the pot' }));
		const changed = await recordChange(
			store,
			tree.id,
			changeInput.parse({ changedOn: '2026-04-12', factors: ['light', 'watering'], note: '' })
		);
		const written = await exportCase(store.db, tree.id);
		expect(written.measurements[0]?.raw).toEqual({ tool: 'squeeze-test', result: 'drips' });
		expect(written.examinations[0]?.events).toEqual(['dug', 'cold-night']);
		const elsewhere = await freshStore();
		await importCase(elsewhere, JSON.parse(JSON.stringify(written)));
		expect(await exportCase(elsewhere.db, tree.id)).toEqual(written);
		await undo(store, changed);
		expect((await loadRecords(store.db, tree.id)).factorChanges).toEqual([]);
	});
	it('can be taken out and brought back; a stale or foreign one is refused', async () => {
		const { store, tree, placeId } = await storeWithTree();
		const { measurement } = await recordMeasurement(store, tree.id, squeeze());
		const remove = (version: number, from = tree.id) =>
			removeFromExamine(store, from, 'measurement', measurement.id, version);
		expect((await refusal(remove(7))).status).toBe(409);
		const { tree: other } = await takeIn(
			store,
			treeInput.parse({
				tag: 'T-2',
				name: 'Other',
				kindId: 'fagus',
				placeId,
				situation: 'potted',
				trunkDiameterMm: 20,
				takenInOn: '2026-03-01'
			})
		);
		expect((await refusal(remove(1, other.id))).status).toBe(404);
		const entryId = await remove(measurement.version);
		expect((await loadRecords(store.db, tree.id)).measurements).toEqual([]);
		await undo(store, entryId);
		expect((await loadRecords(store.db, tree.id)).measurements[0]?.raw).toEqual(measurement.raw);
	});
	it('refuse days outside the tree’s time, a stranger’s measurement, a twin that is itself', async () => {
		const { store, tree } = await storeWithTree();
		expect((await refusal(recordMeasurement(store, tree.id, squeeze('2012-02-01')))).problems[0]?.field).toBe(
			'measuredOn'
		);
		expect((await refusal(recordMeasurement(store, tree.id, squeeze('2026-05-01')))).status).toBe(422);
		const look = examinationInput.parse({
			examinedOn: '2026-04-11',
			findings: [{ signId: 'sour-smell', grade: 1, measuredBy: 'not-mine' }]
		});
		expect((await refusal(recordExamination(store, tree.id, look))).problems[0]).toEqual({
			field: 'findings.0.measuredBy',
			message: 'must be a measurement, an entry or the root map of this tree'
		});
		expect((await refusal(nameTwin(store, tree.id, tree.id))).status).toBe(422);
		expect((await refusal(recordTriage(store, tree.id, decision({ secondTreeId: tree.id })))).status).toBe(
			422
		);
		expect((await loadRecords(store.db, tree.id)).triages).toEqual([]);
	});
});

describe('around the diagnosis', () => {
	it('lists the trees that share something, and puts each check on Today once', async () => {
		const { store, tree, placeId } = await storeWithTree({ batch: 'ridge', situation: 'potted' });
		const more = async (tag: string, change: object) =>
			(
				await takeIn(
					store,
					treeInput.parse({
						tag,
						name: tag,
						kindId: 'fagus',
						placeId,
						situation: 'potted',
						trunkDiameterMm: 20,
						takenInOn: '2026-03-01',
						...change
					})
				)
			).tree;
		const mate = await more('T-2', { batch: 'Ridge' });
		const around = await treesAround(store.db, tree.id);
		expect(around.map((entry) => entry.id).sort()).toEqual([tree.id, mate.id].sort());
		const sick = around.find((entry) => entry.id === tree.id);
		if (!sick) throw new Error('the tree itself is missing');
		const checks = neighbourChecks(sick, ['root-rot'], around, defaultValues);
		expect((await planNeighbourChecks(store, tree, checks)).made).toBe(1);
		expect((await planNeighbourChecks(store, tree, checks)).made).toBe(0);
		const items = todayItems(await todayTrees(store.db, '2026-04-18'), '2026-04-18', defaultValues);
		expect(items.find((item) => item.tag === 'T-2' && item.task)?.reason).toMatch(/^T-1 may have /);
	});
	it('plans changes one by one as dated tasks of their own', async () => {
		const { store, tree } = await storeWithTree();
		await planOneByOne(store, tree.id, ['pot', 'light'], '2026-04-18', defaultValues);
		const { tasks } = await loadRecords(store.db, tree.id);
		expect(tasks.map((task) => [task.title, task.fromOn])).toEqual([
			['Change one thing: light', '2026-04-18'],
			['Change one thing: pot', '2026-05-09']
		]);
	});
	it('brings a decision that is too old to Today, and no longer once it was looked at again', async () => {
		const { store, tree } = await storeWithTree();
		const asked = async () =>
			todayItems(await todayTrees(store.db, '2026-04-18'), '2026-04-18', defaultValues).filter(
				(item) => item.sentence === 'Look again before the work'
			);
		await recordTriage(store, tree.id, decision({ decidedOn: '2026-03-20' }));
		expect(await asked()).toMatchObject([{ figure: '29 days old', stage: 'examine' }]);
		await recordTriage(store, tree.id, decision({ decidedOn: '2026-04-15' }));
		expect(await asked()).toEqual([]);
	});
});

describe('a decision that was acted on', () => {
	it.each([
		['before it leaves it open', '2026-03-19', 1],
		['on its day settles it', '2026-03-20', 0]
	] as const)('a cut %s', async (_, cutOn, asked) => {
		const { store, tree } = await storeWithTree();
		await recordTriage(store, tree.id, decision({ decidedOn: '2026-03-20' }));
		const { plan } = await saveRoots(store, tree.id, rootsWith(['r4']));
		await recordCuts(
			store,
			tree.id,
			{
				on: cutOn,
				planVersion: plan.version,
				done: [{ id: 'c0', atMm: null, note: '' }],
				left: [],
				treatments: [],
				because: 'It was loose.'
			},
			defaultValues
		);
		const items = todayItems(await todayTrees(store.db, '2026-04-18'), '2026-04-18', defaultValues);
		expect(items.filter(({ sentence }) => sentence === 'Look again before the work')).toHaveLength(asked);
	});
});

describe('what was written before there were grades', () => {
	it('reads a case of version 1: seen is the top of three, or the only one of two', () => {
		const upgraded = upgradeCase({
			schema: 'bruntle.tree-case',
			version: 1,
			examinations: [
				{
					findings: [
						{ signId: 'sour-smell', state: 'present' },
						{ signId: 'wilts-wet', state: 'present' },
						{ signId: 'crown-thin', state: 'absent' }
					]
				}
			]
		}) as { version: number; examinations: { findings: { signId: string; grade: number }[] }[]; triages: [] };
		expect(upgraded.version).toBe(CASE_VERSION);
		expect(upgraded.triages).toEqual([]);
		const grades = Object.fromEntries(
			(upgraded.examinations[0]?.findings ?? []).map(({ signId, grade }) => [signId, grade])
		);
		expect(grades['wilts-wet']).toBe(1);
		expect(grades['crown-thin']).toBe(0);
		expect(grades['sour-smell']).toBeGreaterThanOrEqual(1);
	});
	it('carries a database of the first version over, findings and all', async () => {
		const file = path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-old-')), 'old.db');
		const folder = path.resolve('drizzle');
		const [first] = readdirSync(folder).filter((name) => name.startsWith('0000'));
		const client = createClient({ url: `file:${file}` });
		for (const statement of readFileSync(path.join(folder, first ?? ''), 'utf8').split(
			'--> statement-breakpoint'
		))
			if (statement.trim()) await client.execute(statement);
		const journal = JSON.parse(readFileSync(path.join(folder, 'meta/_journal.json'), 'utf8')) as {
			entries: { when: number }[];
		};
		await client.execute(
			'create table __drizzle_migrations (id integer primary key, hash text not null, created_at numeric)'
		);
		await client.execute({
			sql: 'insert into __drizzle_migrations (hash, created_at) values (?, ?)',
			args: ['first', journal.entries[0]?.when ?? 0]
		});
		await client.execute('pragma foreign_keys = off');
		await client.execute(
			"insert into examination (id, treeId, examinedOn, note, version) values ('e1', 't1', '2026-01-01', 'old', 1)"
		);
		await client.execute(
			"insert into finding (ownerId, position, signId, state) values ('e1', 0, 'wilts-wet', 'present'), ('e1', 1, 'sour-smell', 'absent')"
		);
		client.close();
		const store = await openStore(`file:${file}`);
		await seedKinds(store);
		const read = createClient({ url: `file:${file}` });
		const rows = (await read.execute('select signId, grade from finding order by signId')).rows;
		expect(rows.map((row) => [row.signId, Number(row.grade)])).toEqual([
			['sour-smell', 0],
			['wilts-wet', 1]
		]);
		read.close();
		store.close();
	});
});
