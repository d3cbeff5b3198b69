import { roundPot } from '$core/replant/pots/volume';
import { describe, expect, it } from 'vitest';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { plantingInput } from '$core/replant/pots/replant-plan';
import { backupInput } from '$core/recovery/backup';
import { observationInput } from '$core/examine/looks/observation';
import { decisionInput } from '$core/recovery/said';
import { closingInput, treeInput } from '$core/take-in/tree';
import { defaultValues as values } from '$core/values/values';
import { upgradeCase } from '$core/tree/case';
import { exportCase, importCase } from '$lib/server/case-file';
import { readForm } from '$lib/server/edge/form';
import { lossRows, outcomeCases, saidAgainstCame, yardReview } from '$lib/server/outcomes';
import { tasks, trees } from '$lib/server/records/records';
import { openTask } from '$lib/server/task-work';
import { doWork, undo } from '$lib/server/records/work';
import {
	addBackup,
	backupRecord,
	changeBackup,
	childrenOf,
	potBackup,
	recordDecision,
	recordLook,
	recoveryOf
} from '$lib/server/recovery';
import { recordPlanting } from '$lib/server/replant';
import { loadRecords } from '$lib/server/records/tree-records';
import { changeTree, closeTree, referenceShootMm, reopenTree, takeIn } from '$lib/server/trees';
import { addTask, closeTask, doTogether, togetherInput } from '$lib/server/aftercare';
import { recordWatering, waterFor, waterOf } from '$lib/server/water';
import { refreshWater } from '$lib/server/kept-water';
import { todayTrees } from '$lib/server/tree-lists';
import { taskInput } from '$core/vocabulary/task';
import { wateringInput } from '$core/aftercare/water/watering';
import { seatHeldBy } from '../records';
import { asTakenIn, freshStore, refusal, storeWithTree } from './helpers';

const on = '2026-04-18';
const planting = plantingInput.parse({
	plantedOn: '2026-03-05',
	pot: roundPot(300, 240, 200),
	sizeRule: 'normal',
	ballDiameterMm: 240,
	ballDepthMm: 140,
	mix: pottingMixOf('pumice-bark'),
	headspaceMm: 20
});
const planted = async (change: Record<string, unknown> = {}) => {
	const made = await storeWithTree({ heightM: 0.9, ...change });
	await recordPlanting(
		made.store,
		made.tree.id,
		planting,
		{ waterSchool: 'at-once', fromStock: null },
		values
	);
	return made;
};

describe('the verdict', () => {
	it('of a tree in a pot too heavy for a scale asks nobody to weigh or to lift it, here and on Today', async () => {
		for (const heavy of [false, true]) {
			const pot = heavy ? roundPot(900, 800, 500) : planting.pot;
			const { store, tree } = await storeWithTree({ heightM: 0.9 });
			const choices = { waterSchool: 'at-once', fromStock: null } as const;
			await recordPlanting(store, tree.id, { ...planting, pot }, choices, values);
			const of = await recoveryOf(store.db, await loadRecords(store.db, tree.id), values);
			expect(of?.verdict.owed.some((one) => /weigh it/i.test(one))).toBe(!heavy);
			await refreshWater(store, values);
			const [entry] = await todayTrees(store.db, on);
			expect(entry?.standing?.tooHeavy).toBe(heavy || undefined);
		}
	});
	it('knows what holds a tree, and that its leaves have hardly begun to come', async () => {
		const made = await storeWithTree({ heightM: 0.9 });
		const { store, tree } = made;
		const judged = async (name: string) => {
			const of = await recoveryOf(store.db, await loadRecords(store.db, tree.id), values);
			return of?.verdict.criteria.find((one) => one.name === name);
		};
		const tied = { ...planting, seat: seatHeldBy('wires') };
		await recordPlanting(store, tree.id, tied, { waterSchool: 'at-once', fromStock: null }, values);
		await recordLook(
			store,
			tree.id,
			observationInput.parse({ observedOn: on, firmness: 'firm', leafCover: 0.25, leafState: 'turgid' })
		);
		expect(await judged('firm')).toMatchObject({
			answer: 'unknown',
			because: `It stood firm on ${on}, with what has held it since 2026-03-05; whether it does by itself is not known.`
		});
		expect((await judged('last-look'))?.because).toBe(
			`Leaf cover 25 % on ${on}, in the weeks in which leaves come or fall.`
		);
	});
});

describe('shoots of a healthy one near by', () => {
	it('are what its own are read against, the last that were measured, until a tree of the yard is named', async () => {
		const { store, tree } = await planted();
		const { db } = store;
		const keep = (observedOn: string, seen: Record<string, unknown>) =>
			recordLook(store, tree.id, observationInput.parse({ observedOn, ...seen }));
		const known = async () => referenceShootMm(db, await loadRecords(db, tree.id));
		expect(await known()).toBeNull();
		await keep('2026-04-16', { shootExtensionMm: 170 });
		expect(await known()).toBeNull();
		await keep('2026-04-17', { healthyShootMm: 200 });
		await keep('2026-04-10', { healthyShootMm: 90 });
		await keep('2026-04-18', { firmness: 'firm' });
		expect(await known()).toBe(200);
		const of = await recoveryOf(db, await loadRecords(db, tree.id), values);
		expect(of?.verdict.criteria.find(({ name }) => name === 'function')).toMatchObject({ answer: 'met' });
		expect(of?.case.referenceShootMm).toBe(200);

		const { tree: twin } = await takeIn(store, asTakenIn(tree, { tag: 'N-1' }));
		await changeTree(
			store,
			tree.id,
			(await trees.get(db, tree.id))?.version ?? 0,
			asTakenIn(tree, { referenceTreeId: twin.id })
		);
		expect(await known()).toBe(200);
		await recordLook(
			store,
			twin.id,
			observationInput.parse({ observedOn: '2026-04-17', shootExtensionMm: 400 })
		);
		expect(await known()).toBe(400);
	});
});

describe('what is late', () => {
	it('leaves the criterion of open alarms unmet or unknown as long as Today says that it cannot wait', async () => {
		const { store, tree } = await planted();
		const alarm = async () => {
			const of = await recoveryOf(store.db, await loadRecords(store.db, tree.id), values);
			return of?.verdict.criteria.find(({ name }) => name === 'no-alarm')?.answer;
		};
		expect(await alarm()).toBe('met');
		const task = (kind: string) =>
			taskInput.parse({
				kind,
				title: kind,
				reason: '',
				stage: 'aftercare',
				fromOn: '2026-04-01',
				toOn: '2026-04-10',
				minutes: 5
			});
		await addTask(store, tree.id, task('turning'));
		expect(await alarm()).toBe('met');
		await addTask(store, tree.id, task('shelter'));
		expect(await alarm()).toBe('unknown');
		await addTask(store, tree.id, task('cold'));
		expect(await alarm()).toBe('not-met');
	});
});

describe('looks and what they say', () => {
	it('a work and a look of today each say a forecast, kept with the case; undo takes it back', async () => {
		const { store, tree } = await planted();
		const before = (await loadRecords(store.db, tree.id)).forecasts;
		expect(before).toMatchObject([{ occasion: 'work', saidOn: '2026-03-05', context: { livingLoss: 0 } }]);
		const { entryId } = await recordLook(
			store,
			tree.id,
			observationInput.parse({ observedOn: on, leafState: 'turgid', shootsMm: [10, 14, 18], smell: 'none' })
		);
		const after = await loadRecords(store.db, tree.id);
		expect(after.forecasts).toHaveLength(2);
		expect(after.observations[0]).toMatchObject({ shootExtensionMm: 14, shootsMm: [10, 14, 18] });
		await undo(store, entryId);
		expect((await loadRecords(store.db, tree.id)).forecasts).toEqual(before);
		// A look of an earlier day is a record, not a forecast of that day.
		await recordLook(store, tree.id, observationInput.parse({ observedOn: '2026-04-01', buds: 'none' }));
		expect((await loadRecords(store.db, tree.id)).forecasts).toHaveLength(1);
	});
	it('refuses a look before it was taken in, more than the lot holds, and shoots that are no numbers', async () => {
		const { store, tree } = await storeWithTree({ plantCount: 12 });
		const look = (change: object) => observationInput.parse({ observedOn: on, ...change });
		expect(
			(await refusal(recordLook(store, tree.id, look({ observedOn: '2026-02-01', buds: 'none' }))))
				.problems[0]?.field
		).toBe('observedOn');
		expect(
			(await refusal(recordLook(store, tree.id, look({ sample: { looked: 13, alive: 3 } })))).problems[0]
				?.field
		).toBe('sample.looked');
		expect(observationInput.safeParse({ observedOn: on, sample: { looked: 3, alive: 4 } }).success).toBe(
			false
		);
		const form = new FormData();
		form.set('observedOn', on);
		form.append('shootsMm', '40');
		form.append('shootsMm', 'long');
		form.set('sample.looked', '');
		form.set('sample.alive', '');
		expect(
			(await refusal(Promise.resolve().then(() => readForm(observationInput, form)))).problems[0]?.field
		).toMatch(/shootsMm/);
		form.delete('shootsMm');
		form.append('shootsMm', '40,5');
		expect(readForm(observationInput, form)).toMatchObject({ shootsMm: [40.5], sample: null });
	});
});

describe('decisions', () => {
	it('are kept with the evidence as it stood; what is no longer due is refused', async () => {
		const { store, tree } = await planted();
		const decision = decisionInput.parse({ decidedOn: on, advised: 'look-closer', decided: 'look-closer' });
		await recordDecision(store, tree.id, decision);
		const [kept] = (await loadRecords(store.db, tree.id)).decisions;
		expect(kept).toMatchObject({ advised: 'look-closer', decided: 'look-closer' });
		expect(kept?.probability).toBeGreaterThan(0);
		expect(
			(
				await refusal(
					recordDecision(
						store,
						tree.id,
						decisionInput.parse({ ...decision, advised: 're-cut', decided: 're-cut' })
					)
				)
			).status
		).toBe(409);
	});
	it('rest on the season, the water and what was seen', async () => {
		const { store, tree } = await planted();
		const of = await recoveryOf(store.db, await loadRecords(store.db, tree.id), values);
		expect(of).toMatchObject({ since: { on: '2026-03-05', what: 'planting' } });
		// Nobody has watered, weighed or felt it since: how wet it stands is only reckoned, and no advice rests on it.
		expect(of?.facts.dryness).toBeNull();
		await recordWatering(store, tree.id, wateringInput.parse({ wateredOn: on, litres: 2 }));
		const then = await recoveryOf(store.db, await loadRecords(store.db, tree.id), values);
		expect(then?.facts.dryness).not.toBeNull();
		expect(of?.case.odds).toBeGreaterThan(0);
	});
});

describe('backups', () => {
	const batch = backupInput.parse({ takenOn: '2026-03-05', kind: 'hardwood', source: 'top', count: 10 });
	it('become trees with their parent named, never more than were taken, and count for the next', async () => {
		const { store, tree, placeId } = await storeWithTree();
		await addBackup(store, tree.id, batch);
		const [own] = (await loadRecords(store.db, tree.id)).backups;
		if (!own) throw new Error('no batch');
		await changeBackup(store, tree.id, { backupId: own.id, version: 1, on, what: 'struck', count: 6 });
		const child = treeInput.parse({
			tag: 'C-1',
			name: 'Struck',
			kindId: tree.kindId,
			placeId,
			situation: 'potted',
			trunkDiameterMm: 6,
			takenInOn: on
		});
		const { treeId: madeId, entryIds } = await potBackup(
			store,
			tree.id,
			{ backupId: own.id, version: 2, on, count: 2 },
			child
		);
		expect(await trees.get(store.db, madeId)).toMatchObject({ parentTreeId: tree.id, plantCount: 2 });
		// A page that is out of date takes nothing in.
		expect(
			(
				await refusal(
					potBackup(store, tree.id, { backupId: own.id, version: 1, on, count: 1 }, { ...child, tag: 'C-3' })
				)
			).status
		).toBe(409);
		expect((await trees.list(store.db)).map((one) => one.tag)).not.toContain('C-3');
		expect(await childrenOf(store.db, tree.id)).toMatchObject([{ tag: 'C-1' }]);
		expect(
			(
				await refusal(
					changeBackup(store, tree.id, { backupId: own.id, version: 3, on, what: 'lost', count: 9 })
				)
			).problems[0]?.field
		).toBe('count');
		expect(
			(
				await refusal(
					potBackup(store, tree.id, { backupId: own.id, version: 3, on, count: 9 }, { ...child, tag: 'C-2' })
				)
			).problems[0]?.field
		).toBe('count');
		expect((await trees.list(store.db)).map((one) => one.tag)).not.toContain('C-2');
		// Six struck of the six whose fate is known.
		expect(await backupRecord(store.db, 'hardwood')).toEqual({ struck: 6, known: 6 });
		await undo(store, ...entryIds);
		expect(await childrenOf(store.db, tree.id)).toEqual([]);
	});
});

describe('what the yard learns', () => {
	it('outcomes, losses, forecasts against what came, and the review', async () => {
		const { store, tree } = await planted();
		expect(await outcomeCases(store.db)).toMatchObject([
			{ tag: 'T-1', state: 'in-care', fromOn: '2026-03-05', livingLoss: 0, mixName: planting.mix.name }
		]);
		expect(await saidAgainstCame(store.db, on)).toEqual([]);
		expect(await saidAgainstCame(store.db, '2036-01-01')).toMatchObject([{ tag: 'T-1', happened: false }]);
		const review = await yardReview(store.db, on, values);
		expect(review.unseen).toEqual([]);
		expect((await yardReview(store.db, '2026-08-01', values)).unseen).toMatchObject([{ tag: 'T-1' }]);
		expect((await yardReview(store.db, '2028-08-01', values)).pots).toMatchObject([
			{ tag: 'T-1', why: 'planted long ago' }
		]);
		const { version } = (await loadRecords(store.db, tree.id)).tree;
		await closeTree(
			store,
			tree.id,
			version,
			closingInput.parse({
				state: 'dead',
				closedOn: on,
				closingNote: 'Too wet.',
				lossCause: 'root-rot',
				shownEarlier: 'its weight'
			})
		);
		expect(await lossRows(store.db)).toMatchObject([
			{ tag: 'T-1', lossCause: 'root-rot', shownEarlier: 'its weight' }
		]);
		expect(await saidAgainstCame(store.db, on)).toMatchObject([{ happened: false }]);
		expect((await yardReview(store.db, '2028-08-01', values)).pots).toEqual([]);
		expect(
			closingInput.safeParse({ state: 'dead', closedOn: on, closingNote: 'x', lossCause: 'ghosts' }).success
		).toBe(false);
	});
	it('is part of a case and reads back identically; a case of version 3 is read', async () => {
		const { store, tree } = await planted();
		await recordLook(
			store,
			tree.id,
			observationInput.parse({ observedOn: on, woundwoodMm: 4, pests: 'some' })
		);
		await addBackup(
			store,
			tree.id,
			backupInput.parse({ takenOn: on, kind: 'root', source: 'cut roots', count: 5, lengthMm: 60 })
		);
		await recordDecision(
			store,
			tree.id,
			decisionInput.parse({
				decidedOn: on,
				advised: 'carry-on',
				decided: 'look-closer',
				note: 'it looks dull'
			})
		);
		const written = await exportCase(store.db, tree.id);
		expect([written.backups.length, written.decisions.length, written.forecasts.length]).toEqual([1, 1, 2]);
		const elsewhere = await freshStore();
		await importCase(elsewhere, JSON.parse(JSON.stringify(written)));
		expect(await exportCase(elsewhere.db, tree.id)).toEqual(written);
		const {
			pictures: _p,
			backups: _b,
			decisions: _d,
			forecasts: _f,
			book: _k,
			rehearsals: _r,
			...third
		} = written;
		const upgraded = upgradeCase({ ...third, version: 3 }) as typeof written;
		expect(upgraded).toMatchObject({
			version: 6,
			pictures: [],
			backups: [],
			decisions: [],
			forecasts: [],
			book: [],
			rehearsals: []
		});
		await importCase(await freshStore(), upgraded);
	});
});

describe('work that is late', () => {
	it('stands against the verdict where it is of the tree itself; cuttings and neighbours tell of others', async () => {
		const answer = async (kind: 'water' | 'pest' | 'backup' | 'neighbours', toOn: string, source = '') => {
			const { store, tree } = await planted({ kindId: 'juniperus' });
			const records = await loadRecords(store.db, tree.id);
			for (const task of records.tasks)
				await closeTask(store, tree.id, {
					taskId: task.id,
					version: task.version,
					state: 'skipped',
					skipReason: 'of no matter here',
					on,
					againFrom: on
				});
			const late = taskInput.parse({
				kind,
				title: 'Late',
				reason: '',
				mark: 'ours',
				fromOn: toOn,
				toOn,
				minutes: 5,
				stage: 'aftercare'
			});
			await doWork(store, { treeId: tree.id, stage: 'aftercare', what: 'Made' }, (work) =>
				work.add(tasks, { ...late, ...openTask, source })
			);
			const of = await recoveryOf(store.db, await loadRecords(store.db, tree.id), values);
			return of?.verdict.criteria.find(({ name }) => name === 'no-alarm')?.answer;
		};
		expect(await answer('water', '2026-04-10')).toBe('not-met');
		expect(await answer('pest', '2026-04-10')).toBe('not-met');
		// Of the tree’s own work whose days are over for good it is asked whether it was done.
		expect(await answer('water', '2025-01-10', 'first-water@2025-01-08')).toBe('unknown');
		for (const kind of ['backup', 'neighbours'] as const) {
			expect(await answer(kind, '2026-04-10'), kind).toBe('met');
			expect(await answer(kind, '2025-01-10', `${kind}@2025-01-08`), kind).toBe('met');
		}
	});
});

describe('a closed case', () => {
	const closing = closingInput.parse({
		state: 'dead',
		closedOn: '2026-04-10',
		closingNote: 'Water less.',
		lossCause: 'root-rot'
	});
	it('is judged as it was on the day it was closed, by its weighings too', async () => {
		const { store, tree } = await planted({ kindId: 'juniperus' });
		const judged = async () => {
			const records = await loadRecords(store.db, tree.id);
			return (await recoveryOf(store.db, records, values))?.verdict.criteria;
		};
		for (const [wateredOn, beforeKg] of [
			['2026-04-12', null],
			['2026-04-15', 12.8],
			['2026-04-18', 12.8]
		] as const)
			await recordWatering(
				store,
				tree.id,
				wateringInput.parse({ wateredOn, litres: null, beforeKg, afterKg: 14 })
			);
		const before = await judged();
		expect(before?.find(({ name }) => name === 'function')?.because).toMatch(
			/by weighings|weighings tell little/i
		);
		const { version } = (await loadRecords(store.db, tree.id)).tree;
		await closeTree(
			store,
			tree.id,
			version,
			closingInput.parse({ state: 're-established', closedOn: on, closingNote: '' })
		);
		expect(await judged()).toEqual(before);
		// As of that day, not of the one it is read on.
		const closed = await loadRecords(store.db, tree.id);
		const earlier = { ...closed, tree: { ...closed.tree, closedOn: '2026-04-16' } };
		const { pot } = await waterFor(store.db, earlier, values);
		expect(pot?.course.at(-1)?.on).toBe('2026-04-16');
		// Nothing is to be watered, or decided, any more.
		expect(await waterOf(store.db, tree.id, values)).toEqual({ pot: null, ground: null, fall: '' });
		const records = await loadRecords(store.db, tree.id);
		expect((await recoveryOf(store.db, records, values))?.facts.dryness).toBeNull();
	});
	it('is not watered, looked at, worked on or planted after its day; before it, and once opened again, it is', async () => {
		const { store, tree } = await planted();
		const { version } = (await loadRecords(store.db, tree.id)).tree;
		await addTask(
			store,
			tree.id,
			taskInput.parse({ kind: 'look', title: 'Look', fromOn: on, toOn: on, mark: 'ours', stage: 'recovery' })
		);
		await closeTree(store, tree.id, version, closing);
		const { tasks } = await loadRecords(store.db, tree.id);
		const [task] = tasks.filter((one) => one.title === 'Look');
		const water = (wateredOn: string) =>
			recordWatering(store, tree.id, wateringInput.parse({ wateredOn, litres: 1 }));
		for (const refused of [
			() => water(on),
			() => recordLook(store, tree.id, observationInput.parse({ observedOn: on, buds: 'open' })),
			() =>
				recordPlanting(
					store,
					tree.id,
					{ ...planting, plantedOn: on },
					{ waterSchool: 'at-once', fromStock: null },
					values
				),
			() =>
				addBackup(
					store,
					tree.id,
					backupInput.parse({ takenOn: on, kind: 'hardwood', source: 'top', count: 3 })
				),
			() =>
				closeTask(store, tree.id, {
					taskId: task?.id ?? '',
					version: task?.version ?? 0,
					state: 'done',
					skipReason: '',
					on
				}),
			() =>
				doTogether(store, togetherInput.parse({ tasks: [], waterings: [{ treeId: tree.id, litres: 2 }] }), on)
		]) {
			const answer = await refusal(refused());
			expect(answer.status, String(refused)).toBe(409);
			expect(`${answer.message} ${answer.advice}`).toMatch(/closed on 2026-04-10: dead.*Open it again/);
		}
		expect((await waterOf(store.db, tree.id, values)).pot).toBeNull();
		// What was done before and is written down late is taken.
		await water('2026-04-09');
		const closed = (await loadRecords(store.db, tree.id)).tree;
		await reopenTree(store, tree.id, closed.version);
		await water(on);
		expect((await loadRecords(store.db, tree.id)).waterings.map((one) => one.wateredOn)).toEqual([
			'2026-04-09',
			on
		]);
	});
});

describe('a reading that nature does not give', () => {
	it('is taken only with a note that says why, and nothing is written before', async () => {
		const { store, tree } = await planted();
		const look = (change: object) => observationInput.parse({ diebackLimitMm: 400, ...change });
		await recordLook(store, tree.id, look({ observedOn: '2026-03-20' }));
		const higher = look({ observedOn: on, diebackLimitMm: 700 });
		expect((await refusal(recordLook(store, tree.id, higher))).problems[0]).toMatchObject({ field: 'note' });
		expect((await loadRecords(store.db, tree.id)).observations).toHaveLength(1);
		await recordLook(store, tree.id, { ...higher, note: 'misread then' });
		expect((await loadRecords(store.db, tree.id)).observations).toHaveLength(2);
	});
});
