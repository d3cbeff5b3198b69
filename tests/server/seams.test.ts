import * as tables from '$lib/server/db/schema';
import { describe, expect, it } from 'vitest';
import { taskInput } from '$core/vocabulary/task';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { measurementInput } from '$core/examine/measuring/measurement';
import { observationInput } from '$core/examine/looks/observation';
import { openFlags } from '$core/aftercare/tasks/flags';
import { standingOf } from '$core/tree/standing';
import { defaultValues as values } from '$core/values/values';
import { wateringInput } from '$core/aftercare/water/watering';
import { addTask, closeTask, doTogether, taskResult, type TaskClosing } from '$lib/server/aftercare';
import { recordExamination, recordMeasurement, removeFromExamine } from '$lib/server/examine';
import { recordLook } from '$lib/server/recovery';
import { undo } from '$lib/server/records/work';
import { recordCuts, saveRoots } from '$lib/server/roots';
import { todayTrees } from '$lib/server/tree-lists';
import { loadRecords } from '$lib/server/records/tree-records';
import { recordWatering, removeWatering } from '$lib/server/water';
import { refreshWater, waterStates } from '$lib/server/kept-water';
import { refusal, rootsWith, storeWithTree } from './helpers';

const on = '2026-04-18';
const large = { situation: 'in-ground', trunkDiameterMm: 500, heightM: 14 };
const examined = (findings: [string, number][], examinedOn = on) =>
	examinationInput.parse({
		examinedOn,
		findings: findings.map(([signId, grade]) => ({ signId, grade }))
	});
const closing = (
	task: { id: string; version: number } | undefined,
	change: Partial<TaskClosing> = {}
): TaskClosing => ({
	taskId: task?.id ?? '',
	version: task?.version ?? 0,
	state: 'done',
	skipReason: '',
	on,
	...change
});

describe('what others have to see', () => {
	it('is put on the list by the look that found it, once, and closes only with what they said', async () => {
		const { store, tree } = await storeWithTree(large);
		const { entryId } = await recordExamination(store, tree.id, examined([['brackets', 1]]));
		const flagged = await loadRecords(store.db, tree.id);
		expect(flagged.tasks).toHaveLength(1);
		expect(flagged.tasks[0]).toMatchObject({
			kind: 'referral',
			fromOn: on,
			toOn: '2026-04-25',
			mark: 'trade'
		});
		expect(flagged.tasks[0]?.source).toBe(`referral@${flagged.examinations[0]?.id ?? ''}`);
		// Seen again it stays one.
		await recordExamination(store, tree.id, examined([['brackets', 1]]));
		const again = await loadRecords(store.db, tree.id);
		expect(again.tasks).toHaveLength(1);
		const [flag] = again.tasks;
		const refused = await refusal(closeTask(store, tree.id, closing(flag)));
		expect(refused.problems?.[0]?.field).toBe('result');
		expect(await refusal(closeTask(store, tree.id, closing(flag, { result: '  ' })))).toMatchObject({
			status: 422
		});
		await closeTask(store, tree.id, closing(flag, { result: 'R. Dunmore: sound.' }));
		const done = await loadRecords(store.db, tree.id);
		expect(openFlags(done.tasks)).toEqual([]);
		expect(done.tasks[0]).toMatchObject({ state: 'done', result: 'R. Dunmore: sound.' });
		expect(entryId).not.toBe('');
	});
	it('goes when the look that found it is taken back or taken out', async () => {
		const { store, tree } = await storeWithTree(large);
		const first = await recordExamination(store, tree.id, examined([['soil-lifted', 1]]));
		expect(openFlags((await loadRecords(store.db, tree.id)).tasks)[0]?.byOn).toBe(on);
		await undo(store, first.entryId);
		expect((await loadRecords(store.db, tree.id)).tasks).toEqual([]);
		const { examination } = await recordExamination(store, tree.id, examined([['brackets', 1]]));
		await removeFromExamine(store, tree.id, 'look', examination.id, examination.version);
		expect((await loadRecords(store.db, tree.id)).tasks).toEqual([]);
	});
	it('a small tree in a pot gets none', async () => {
		const { store, tree } = await storeWithTree({ situation: 'potted', trunkDiameterMm: 40, heightM: 0.6 });
		await recordExamination(
			store,
			tree.id,
			examined([
				['brackets', 1],
				['leans-rocks', 2]
			])
		);
		expect((await loadRecords(store.db, tree.id)).tasks).toEqual([]);
	});
	it('holds cuts of roots that hold the tree, and no others', async () => {
		const { store, tree } = await storeWithTree({ situation: 'in-ground', trunkDiameterMm: 60, heightM: 14 });
		const { plan } = await saveRoots(store, tree.id, rootsWith(['r0', 'r4']));
		await recordExamination(store, tree.id, examined([['brackets', 1]]));
		const cut = (segmentId: string) =>
			recordCuts(
				store,
				tree.id,
				{
					on,
					planVersion: plan.version,
					done: [
						{ id: plan.cuts.find((one) => one.segmentId === segmentId)?.id ?? '', atMm: null, note: '' }
					],
					left: [],
					treatments: [],
					because: 'Rot left no time.'
				},
				values
			);
		expect(await refusal(cut('r0'))).toMatchObject({ status: 409 });
		expect((await refusal(cut('r0'))).message).toMatch(/arborist.*no structural root/);
		await expect(cut('r4')).resolves.toBeTypeOf('string');
	});
});

describe('work that asks for a result', () => {
	const asking = async (kind: 'water' | 'look') => {
		const { store, tree } = await storeWithTree({ situation: 'potted' });
		await addTask(
			store,
			tree.id,
			taskInput.parse({ kind, title: 'Ask', fromOn: '2026-04-10', toOn: '2026-04-12' })
		);
		const { tasks } = await loadRecords(store.db, tree.id);
		return { store, tree, task: tasks[0] };
	};
	it('files it as the record it is', async () => {
		const { store, tree, task } = await asking('water');
		expect(
			await refusal(closeTask(store, tree.id, closing(task, { found: { kind: 'buds', buds: 'open' } })))
		).toMatchObject({ status: 422 });
		expect((await loadRecords(store.db, tree.id)).tasks[0]?.state).toBe('open');
		await closeTask(store, tree.id, closing(task, { found: { kind: 'watering', litres: 1.5 } }));
		const records = await loadRecords(store.db, tree.id);
		expect(records.waterings).toMatchObject([{ wateredOn: on, litres: 1.5 }]);
		expect(records.tasks[0]?.state).toBe('done');
	});
	it('of how a heavy pot feels is kept as what was felt, and what was felt elsewhere answers it too', async () => {
		for (const elsewhere of [false, true]) {
			const { store, tree } = await storeWithTree({ situation: 'potted' });
			await addTask(
				store,
				tree.id,
				taskInput.parse({
					kind: 'water',
					title: 'Feel it',
					fromOn: '2026-04-17',
					toOn: '2026-04-21'
				})
			);
			await store.db.update(tables.task).set({ source: 'water-by-feel@2026-04-12' });
			const { tasks } = await loadRecords(store.db, tree.id);
			if (elsewhere)
				await recordMeasurement(
					store,
					tree.id,
					measurementInput.parse({ measuredOn: on, raw: { tool: 'moisture', feel: 'drying' } })
				);
			else {
				expect(
					await refusal(
						closeTask(store, tree.id, closing(tasks[0], { found: { kind: 'weight', weightKg: 9 } }))
					)
				).toMatchObject({ status: 422 });
				expect(taskResult.safeParse({ kind: 'felt', feel: null, probeShare: null }).success).toBe(false);
				await closeTask(
					store,
					tree.id,
					closing(tasks[0], { found: { kind: 'felt', feel: 'drying', probeShare: 0.2 } })
				);
			}
			const records = await loadRecords(store.db, tree.id);
			expect(records.measurements).toMatchObject([
				{ measuredOn: on, raw: { tool: 'moisture', feel: 'drying', probeShare: elsewhere ? null : 0.2 } }
			]);
			expect(records.observations).toEqual([]);
			expect(records.tasks[0]?.state).toBe('done');
		}
	});
	it('that follows other work was not done before it', async () => {
		const { store, tree } = await storeWithTree({ situation: 'potted' });
		await addTask(
			store,
			tree.id,
			taskInput.parse({ kind: 'other', title: 'Ask', fromOn: '2026-04-10', toOn: '2026-04-12' })
		);
		await store.db.update(tables.task).set({ source: 'clean@2026-04-10' });
		const [task] = (await loadRecords(store.db, tree.id)).tasks;
		expect((await refusal(closeTask(store, tree.id, closing(task, { on: '2026-04-09' })))).problems).toEqual([
			{ field: 'on', message: 'must not be before 2026-04-10, the day of the work it follows' }
		]);
		await closeTask(store, tree.id, closing(task, { on: '2026-04-10' }));
		expect((await loadRecords(store.db, tree.id)).tasks[0]?.state).toBe('done');
		const skipped = await asking('look');
		await skipped.store.db.update(tables.task).set({ source: 'clean@2026-04-10' });
		const [open] = (await loadRecords(skipped.store.db, skipped.tree.id)).tasks;
		await closeTask(
			skipped.store,
			skipped.tree.id,
			closing(open, { state: 'skipped', skipReason: 'not needed', on: '2026-04-09' })
		);
		expect((await loadRecords(skipped.store.db, skipped.tree.id)).tasks[0]?.state).toBe('skipped');
	});
	it('one tick for many files that it was watered, and how much nobody measured', async () => {
		const { store, tree, task } = await asking('water');
		await doTogether(
			store,
			{ tasks: [{ treeId: tree.id, taskId: task?.id ?? '', version: 1 }], waterings: [] },
			on
		);
		expect((await loadRecords(store.db, tree.id)).waterings).toMatchObject([{ wateredOn: on, litres: null }]);
	});
	it('is closed by what was written elsewhere, and undone with it', async () => {
		const { store, tree } = await asking('water');
		const { entryId, watering } = await recordWatering(
			store,
			tree.id,
			wateringInput.parse({ wateredOn: on })
		);
		expect((await loadRecords(store.db, tree.id)).tasks[0]).toMatchObject({ state: 'done', closedOn: on });
		await undo(store, entryId);
		expect((await loadRecords(store.db, tree.id)).tasks[0]).toMatchObject({ state: 'open', closedOn: null });
		expect(watering.litres).toBeNull();
	});
	it('a watering can be taken out, of its own tree only', async () => {
		const { store, tree } = await storeWithTree({ situation: 'potted' });
		const { watering } = await recordWatering(store, tree.id, wateringInput.parse({ wateredOn: on }));
		expect(await refusal(removeWatering(store, tree.id, 'other', 1))).toMatchObject({ status: 404 });
		await removeWatering(store, tree.id, watering.id, watering.version);
		expect((await loadRecords(store.db, tree.id)).waterings).toEqual([]);
	});
});

describe('order within a day', () => {
	it('of two records of a day the one kept later is the later, in every list, however their names sort', async () => {
		const { store, tree } = await storeWithTree({ situation: 'potted' });
		const notes = Array.from({ length: 12 }, (_, i) => `look ${i}`);
		for (const note of notes) {
			await recordExamination(store, tree.id, examinationInput.parse({ examinedOn: on, note, findings: [] }));
			await recordLook(store, tree.id, observationInput.parse({ observedOn: on, note }), false);
			await recordMeasurement(
				store,
				tree.id,
				measurementInput.parse({ measuredOn: on, note, raw: { tool: 'moisture', feel: 'damp' } })
			);
		}
		const records = await loadRecords(store.db, tree.id);
		expect(records.examinations.map((one) => one.note)).toEqual(notes);
		expect(records.observations.map((one) => one.note)).toEqual(notes);
		expect(records.measurements.map((one) => one.note)).toEqual(notes);
		await recordExamination(store, tree.id, examined([['leans-rocks', 2]]));
		await recordExamination(store, tree.id, examined([['leans-rocks', 0]]));
		const { firmness } = standingOf(await loadRecords(store.db, tree.id), on, values);
		expect([firmness.value, firmness.against[0]?.value]).toEqual(['firm', 'loose']);
	});
});

describe('how a tree stands, as Today keeps it', () => {
	it('is kept for every tree in care, with or without a pot that is known, and follows what is written', async () => {
		const { store, tree } = await storeWithTree({ situation: 'just-lifted' });
		await refreshWater(store, values);
		const standing = async () => (await todayTrees(store.db, on))[0]?.standing;
		expect(await standing()).toMatchObject({ out: { on: '2026-03-01', how: 'out' }, pottedOn: null });
		expect((await waterStates(store.db)).size).toBe(0);
		await recordExamination(store, tree.id, examined([['leans-rocks', 1]]));
		await refreshWater(store, values);
		expect(await standing()).toMatchObject({ firmness: { value: 'moves', on } });
	});
});
