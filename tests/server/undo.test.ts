import { roundPot } from '$core/replant/pots/volume';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { taskInput } from '$core/vocabulary/task';
import { changeInput } from '$core/tree/changes';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { groundPlanInput } from '$core/replant/ground/ground-plan';
import { liftInput } from '$core/replant/lifting/lift';
import { measurementInput } from '$core/examine/measuring/measurement';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { plantingInput } from '$core/replant/pots/replant-plan';
import { backupInput } from '$core/recovery/backup';
import { observationInput } from '$core/examine/looks/observation';
import { decisionInput } from '$core/recovery/said';
import { closingInput, treeInput } from '$core/take-in/tree';
import { triageInput } from '$core/examine/triage/triage';
import { defaultValues as values } from '$core/values/values';
import { wateringInput } from '$core/aftercare/water/watering';
import { addTask, closeTask, makeAftercare } from '$lib/server/aftercare';
import { exportCase } from '$lib/server/case-file';
import type { Store } from '$lib/server/db/database';
import { recordChange, recordExamination, recordMeasurement, recordTriage } from '$lib/server/examine';
import { keepPicture, removePicture } from '$lib/server/pictures';
import { undo } from '$lib/server/records/work';
import {
	addBackup,
	changeBackup,
	decisionsOf,
	potBackup,
	recordDecision,
	recordLook,
	recoveryOf
} from '$lib/server/recovery';
import { keepGroundPlan, keepLift, recordPlanting } from '$lib/server/replant';
import { recordCuts, saveRoots } from '$lib/server/roots';
import { todayTrees, todayTreesKept } from '$lib/server/tree-lists';
import { loadRecords } from '$lib/server/records/tree-records';
import { changeTree, closeTree, reopenTree, takeIn } from '$lib/server/trees';
import { recordWatering } from '$lib/server/water';
import { refusal, rootsWith, storeWithTree } from './helpers';

process.env.BRUNTLE_PICTURES = mkdtempSync(path.join(tmpdir(), 'bruntle-undo-'));
const on = '2026-04-18';
const pot = roundPot(300, 240, 200);
const planting = plantingInput.parse({
	plantedOn: '2026-03-05',
	pot,
	sizeRule: 'normal',
	ballDiameterMm: 240,
	ballDepthMm: 140,
	mix: pottingMixOf('pumice-bark'),
	headspaceMm: 20
});

/** All that is known of a tree, without the counts of how often it was written and without the journal's own words. */
async function known(store: Store, treeId: string): Promise<unknown> {
	const { journal: _journal, ...rest } = await exportCase(store.db, treeId);
	return JSON.parse(JSON.stringify(rest, (key, value: unknown) => (key === 'version' ? undefined : value)));
}

/** What is kept in memory for Today is what the database holds. */
const expectKept = async (store: Store, what: string): Promise<void> =>
	expect(await todayTreesKept(store, on), what).toEqual(await todayTrees(store.db, on));

/** Every kind of work, one after the other as in a life; each returns what undo takes. */
const works: { name: string; do: (store: Store, treeId: string) => Promise<string | string[]> }[] = [
	{
		name: 'a change of the tree itself',
		do: async (store, treeId) => {
			const { tree } = await loadRecords(store.db, treeId);
			const {
				id: _id,
				version,
				state: _state,
				closedOn: _on,
				closingNote: _note,
				lossCause: _cause,
				lossConditions: _conditions,
				shownEarlier: _earlier,
				...input
			} = tree;
			return changeTree(
				store,
				treeId,
				version,
				treeInput.parse({ ...input, name: 'Beech, renamed', heightM: 2 })
			);
		}
	},
	{
		name: 'a measurement',
		do: async (store, treeId) =>
			(
				await recordMeasurement(
					store,
					treeId,
					measurementInput.parse({ measuredOn: on, raw: { tool: 'squeeze-test', result: 'drips' } })
				)
			).entryId
	},
	{
		name: 'an examination',
		do: async (store, treeId) =>
			(
				await recordExamination(
					store,
					treeId,
					examinationInput.parse({ examinedOn: on, findings: [{ signId: 'sour-smell', grade: 1 }] })
				)
			).entryId
	},
	{
		name: 'a decision before the work',
		do: (store, treeId) =>
			recordTriage(
				store,
				treeId,
				triageInput.parse({
					decidedOn: on,
					purpose: 'treat',
					vitality: 'fair',
					permission: 'own',
					pests: 'none',
					decision: 'go'
				})
			)
	},
	{
		name: 'a change of factors',
		do: (store, treeId) =>
			recordChange(store, treeId, changeInput.parse({ changedOn: on, factors: ['light'], note: '' }))
	},
	{
		name: 'cuts, with the looks and the forecast they bring',
		do: async (store, treeId) => {
			const { plan } = await saveRoots(store, treeId, rootsWith(['r4', 'r5']));
			return recordCuts(
				store,
				treeId,
				{
					on: '2026-03-04',
					planVersion: plan.version,
					done: [{ id: 'c1', atMm: 5, note: 'soft' }],
					left: [{ id: 'c0', why: 'bark under it' }],
					treatments: ['powder'],
					because: 'Rot left no time.'
				},
				values
			);
		}
	},
	{
		name: 'a planting, with its first water',
		do: async (store, treeId) =>
			(await recordPlanting(store, treeId, planting, { waterSchool: 'dry-rest', fromStock: null }, values))
				.entryId
	},
	{
		name: 'the aftercare of a work',
		do: async (store, treeId) =>
			makeAftercare(
				store,
				treeId,
				{ workOn: '2026-03-04', crownSchool: 'balance', waterSchool: 'at-once' },
				values
			)
	},
	{
		name: 'a task, and one that comes up again when it is done',
		do: async (store, treeId) => {
			const added = await addTask(
				store,
				treeId,
				taskInput.parse({
					kind: 'turning',
					title: 'Turn it',
					fromOn: '2026-04-10',
					toOn: '2026-04-12',
					mark: 'ours',
					stage: 'aftercare',
					everyDays: 14
				})
			);
			const { tasks } = await loadRecords(store.db, treeId);
			const task = tasks.find((one) => one.title === 'Turn it');
			const closed = await closeTask(store, treeId, {
				taskId: task?.id ?? '',
				version: task?.version ?? 0,
				state: 'done',
				skipReason: '',
				on
			});
			expect(
				(await loadRecords(store.db, treeId)).tasks.filter((one) => one.title === 'Turn it')
			).toHaveLength(2);
			return [added, ...closed];
		}
	},
	{
		name: 'a watering',
		do: async (store, treeId) =>
			(await recordWatering(store, treeId, wateringInput.parse({ wateredOn: on, litres: 3, ranOutL: 0.5 })))
				.entryId
	},
	{
		name: 'a look, with its forecast',
		do: async (store, treeId) =>
			(
				await recordLook(
					store,
					treeId,
					observationInput.parse({ observedOn: on, buds: 'open', shootsMm: [4, 6, 8], smell: 'none' })
				)
			).entryId
	},
	{
		name: 'a decision of recovery',
		do: async (store, treeId) => {
			const of = await recoveryOf(store.db, await loadRecords(store.db, treeId), values);
			const advised = of && decisionsOf(of, values).due[0]?.kind;
			return recordDecision(
				store,
				treeId,
				decisionInput.parse({ decidedOn: on, advised, decided: advised, note: '' })
			);
		}
	},
	{
		name: 'cuttings, some lost, one potted into a tree of its own',
		do: async (store, treeId) => {
			const added = await addBackup(
				store,
				treeId,
				backupInput.parse({ takenOn: '2026-03-05', kind: 'hardwood', source: 'top', count: 9 })
			);
			const batch = async () => {
				const found = (await loadRecords(store.db, treeId)).backups.at(-1);
				if (!found) throw new Error('no batch');
				return { backupId: found.id, version: found.version };
			};
			const lost = await changeBackup(store, treeId, { ...(await batch()), on, what: 'lost', count: 2 });
			const { tree } = await loadRecords(store.db, treeId);
			const { entryIds } = await potBackup(
				store,
				treeId,
				{ ...(await batch()), on, count: 1 },
				treeInput.parse({
					tag: 'T-9',
					name: 'Its child',
					kindId: tree.kindId,
					placeId: tree.placeId,
					situation: 'potted',
					trunkDiameterMm: 4,
					takenInOn: on,
					parentTreeId: treeId
				})
			);
			return [added, lost, ...entryIds];
		}
	},
	{
		name: 'a picture, and one taken out again',
		do: async (store, treeId) => {
			const image = await sharp({ create: { width: 80, height: 60, channels: 3, background: '#454' } })
				.png()
				.toBuffer();
			const keep = (view: string) =>
				keepPicture(store, treeId, { view, takenOn: '2026-04-01', note: '' }, image, on);
			const first = await keep('front');
			const second = await keep('back');
			return [
				first.entryId,
				second.entryId,
				await removePicture(store, treeId, second.picture.id, second.picture.version)
			];
		}
	},
	{
		name: 'a lift that makes it just lifted',
		do: async (store, treeId) =>
			(
				await keepLift(
					store,
					treeId,
					liftInput.parse({
						plannedOn: on,
						school: 'field',
						reading: 'across',
						ballDiameterMm: 340,
						ballDepthMm: 230,
						route: {},
						ticks: ['permission']
					}),
					null
				)
			).entryId
	},
	{
		name: 'ground works that plant it out',
		do: async (store, treeId) =>
			(
				await keepGroundPlan(
					store,
					treeId,
					groundPlanInput.parse({
						plannedOn: on,
						hole: { widthMm: 900, depthMm: 350, ballDiameterMm: 450, ballDepthMm: 320 },
						doneOn: on
					}),
					null,
					values
				)
			).entryId
	},
	{
		name: 'the case closed, and opened again',
		do: async (store, treeId) => {
			const version = async () => (await loadRecords(store.db, treeId)).tree.version;
			const closed = await closeTree(
				store,
				treeId,
				await version(),
				closingInput.parse({ state: 'dead', closedOn: on, closingNote: 'x', lossCause: 'drought' })
			);
			return [closed, await reopenTree(store, treeId, await version())];
		}
	}
];

describe('undo', () => {
	it('of each kind of work gives back exactly what was before, one after the other to the first', async () => {
		const { store, tree, placeId } = await storeWithTree({ heightM: 0.9 });
		const beside = treeInput.parse({
			tag: 'A-1',
			name: 'Beside it',
			kindId: 'fagus',
			placeId,
			situation: 'potted',
			trunkDiameterMm: 30,
			takenInOn: '2026-03-01'
		});
		await takeIn(store, beside);
		await expectKept(store, 'at first');
		const done: { name: string; before: unknown; entries: string[] }[] = [];
		for (const work of works) {
			const before = await known(store, tree.id);
			const entries = [await work.do(store, tree.id)].flat();
			expect(await known(store, tree.id), work.name).not.toEqual(before);
			await expectKept(store, work.name);
			done.push({ name: work.name, before, entries });
		}
		for (const { name, before, entries } of done.reverse()) {
			await undo(store, ...entries);
			const after = (await known(store, tree.id)) as Record<string, unknown>;
			await expectKept(store, `${name}, undone`);
			// Drawing roots has an undo of its own: the map and its plan stay.
			if (name.startsWith('cuts')) {
				const { rootMap: _map, plan, ...rest } = after;
				const { rootMap: _before, plan: _plan, ...expected } = before as Record<string, unknown>;
				expect(rest, name).toEqual(expected);
				expect((plan as { cuts: { state: string }[] }).cuts.map((cut) => cut.state)).toEqual([
					'planned',
					'planned'
				]);
				continue;
			}
			if (done.findIndex((one) => one.name === name) > done.findIndex((one) => one.name.startsWith('cuts'))) {
				const { rootMap: _map, plan: _plan, ...rest } = after;
				const { rootMap: _before, plan: _was, ...expected } = before as Record<string, unknown>;
				expect(rest, name).toEqual(expected);
			} else expect(after, name).toEqual(before);
		}
	}, 60_000);
	it('is refused once, with a reason, when the record was written since, and does nothing by half', async () => {
		const { store, tree } = await storeWithTree({ heightM: 0.9 });
		const closed = await closeTree(
			store,
			tree.id,
			1,
			closingInput.parse({ state: 'gone', closedOn: on, closingNote: '' })
		);
		await reopenTree(store, tree.id, 2);
		const before = await known(store, tree.id);
		const first = (await recordLook(store, tree.id, observationInput.parse({ observedOn: on, buds: 'open' })))
			.entryId;
		const answer = await refusal(undo(store, first, closed));
		expect(answer.status).toBe(409);
		// The look stays too: all or none.
		expect((await loadRecords(store.db, tree.id)).observations).toHaveLength(1);
		await undo(store, first);
		expect(await known(store, tree.id)).toEqual(before);
		expect((await refusal(undo(store, first))).status).toBe(404);
	});
});
