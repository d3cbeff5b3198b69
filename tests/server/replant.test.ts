import { roundPot } from '$core/replant/pots/volume';
import { createClient } from '@libsql/client';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { CASE_VERSION, treeCaseSchema, upgradeCase } from '$core/tree/case';
import { bookEntrySchema } from '$core/aftercare/book/book';
import { groundPlanInput } from '$core/replant/ground/ground-plan';
import { liftInput } from '$core/replant/lifting/lift';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { plantingInput, replantPlanInput } from '$core/replant/pots/replant-plan';
import { ownMixInput, stockItemInput, stockPotInput } from '$core/replant/kit/stock';
import { defaultValues as values } from '$core/values/values';
import { closeTask, proposeAftercare } from '$lib/server/aftercare';
import { exportCase, importCase } from '$lib/server/case-file';
import { openStore } from '$lib/server/db/database';
import { openTask } from '$lib/server/task-work';
import { placeInput } from '$core/vocabulary/place';
import { taskInput, type Task } from '$core/vocabulary/task';
import { addDays } from '$core/maths/calendar';
import { tasks } from '$lib/server/records/records';
import { doWork, undo } from '$lib/server/records/work';
import { keepGroundPlan, keepLift, keepReplantPlan, recordPlanting } from '$lib/server/replant';
import { keepItem, keepMix, keepPot, loadStock, removeFromStock } from '$lib/server/stock';
import { loadRecords } from '$lib/server/records/tree-records';
import { changeTree, takeIn } from '$lib/server/trees';
import { addPlace } from '$lib/server/yard';
import { asTakenIn, freshStore, refusal, storeWithTree } from './helpers';

const pot = roundPot(300, 240, 200);
const seat = {
	height: 'mound',
	flareOverRimMm: 5,
	moundMm: 25,
	screens: 2,
	extraHoles: 0,
	holeMm: 20,
	pockets: 'stick',
	firming: 'loose',
	holding: 'stones',
	wires: [],
	pads: 0,
	stones: 3,
	stoneKg: 6,
	offOn: '2026-09-01'
} as const;
const planting = (change: object = {}) =>
	plantingInput.parse({
		plantedOn: '2026-04-18',
		pot,
		sizeRule: 'normal',
		ballDiameterMm: 240,
		ballDepthMm: 140,
		mix: pottingMixOf('pumice-bark'),
		seat,
		headspaceMm: 20,
		...change
	});

describe('a planting', () => {
	it('takes pots and materials from the stock, puts first water and stones on the list, ends the plan; undo gives all back', async () => {
		const { store, tree } = await storeWithTree();
		const { id: potId } = await keepPot(store, stockPotInput.parse({ name: 'Clay', pot, count: 2 }));
		await keepItem(
			store,
			stockItemInput.parse({ item: 'pumice-medium', packSize: 5, packs: 2, opened: 1, price: 4 })
		);
		await keepItem(store, stockItemInput.parse({ item: 'bark-fine', packSize: 50, packs: 0, opened: 0.5 }));
		await keepReplantPlan(
			store,
			tree.id,
			replantPlanInput.parse({ planting: planting(), stockPotId: potId, waterSchool: 'dry-rest' }),
			null
		);
		const before = await loadStock(store.db);
		const { entryId, missing } = await recordPlanting(
			store,
			tree.id,
			planting(),
			{ waterSchool: 'dry-rest', fromStock: { potId, materials: true } },
			values
		);
		const after = await loadStock(store.db);
		expect(after.pots[0]?.count).toBe(1);
		const left = (stock: typeof after, item: string): number => {
			const found = stock.items.find((entry) => entry.item === item);
			return found ? found.packs * found.packSize + found.opened : NaN;
		};
		expect(left(after, 'pumice-medium')).toBeLessThan(left(before, 'pumice-medium'));
		expect(left(after, 'bark-fine')).toBe(0);
		expect(missing.join()).toMatch(/L\u2063 composted pine bark/);
		const records = await loadRecords(store.db, tree.id);
		expect(records.replantPlan).toBeNull();
		expect(records.tree.situation).toBe('potted');
		expect(records.tasks.map((task) => task.source.split('@')[0]).sort()).toEqual([
			'first-water',
			'stones-off'
		]);
		expect(records.tasks.find((task) => task.source.startsWith('first-water'))?.title).toMatch(/dry rest/);
		await undo(store, entryId);
		const back = await loadStock(store.db);
		expect(back.pots[0]?.count).toBe(2);
		expect(left(back, 'pumice-medium')).toBe(left(before, 'pumice-medium'));
		const undone = await loadRecords(store.db, tree.id);
		expect([undone.plantings, undone.tasks, undone.replantPlan?.stockPotId]).toEqual([[], [], potId]);
	});
	it('takes as many pots as it has plants, and says how many were missing', async () => {
		for (const [plants, stands, missing, left] of [
			[1, 1, [], 0],
			[3, 3, [], 0],
			[3, 5, [], 2],
			[3, 2, ['1 × Clay'], 0],
			[3, 0, ['3 × Clay'], 0]
		] as const) {
			const { store, tree } = await storeWithTree({ plantCount: plants });
			const { id: potId } = await keepPot(store, stockPotInput.parse({ name: 'Clay', pot, count: stands }));
			const done = await recordPlanting(
				store,
				tree.id,
				planting({ plantCount: plants }),
				{ waterSchool: 'at-once', fromStock: { potId, materials: false } },
				values
			);
			expect(done.missing, `${plants} of ${stands}`).toEqual(missing);
			expect((await loadStock(store.db)).pots[0]?.count, `${plants} of ${stands}`).toBe(left);
		}
	});
	it('beside another in its pot takes less mix, and none where the pot was filled for the other that day', async () => {
		const used = async (sharedPot: string, daysBefore: number): Promise<number> => {
			const { store, tree } = await storeWithTree({ situation: 'potted', sharedPot });
			const { tree: mate } = await takeIn(store, asTakenIn(tree, { tag: 'T-2' }));
			const choices = { waterSchool: 'at-once' as const, fromStock: null };
			await recordPlanting(
				store,
				mate.id,
				planting({
					plantedOn: addDays(planting().plantedOn, -daysBefore),
					ballDiameterMm: 150,
					ballDepthMm: 100
				}),
				choices,
				values
			);
			await keepItem(
				store,
				stockItemInput.parse({ item: 'pumice-medium', packSize: 50, packs: 2, opened: 0 })
			);
			const litres = async (): Promise<number> => {
				const [item] = (await loadStock(store.db)).items;
				return item ? item.packs * item.packSize + item.opened : NaN;
			};
			const before = await litres();
			const fromStock = { potId: null, materials: true };
			await recordPlanting(store, tree.id, planting(), { ...choices, fromStock }, values);
			return before - (await litres());
		};
		const [beside, alone] = [await used('Trough', 1), await used('', 1)];
		expect(beside).toBeGreaterThan(0);
		expect(beside).toBeLessThan(alone * 0.95);
		expect([await used('Trough', 0), await used('', 0)]).toEqual([0, alone]);
	});
	it('of long ago puts nothing on the list that is over', async () => {
		const { store, tree } = await storeWithTree({ takenInOn: '2024-03-01' });
		await recordPlanting(
			store,
			tree.id,
			planting({ plantedOn: '2024-04-01', seat: { ...seat, offOn: '2024-09-01' } }),
			{ waterSchool: 'at-once', fromStock: null },
			values
		);
		expect((await loadRecords(store.db, tree.id)).tasks).toEqual([]);
	});
	it('is refused whole when its pot is not of the stock, or it lies ahead; nothing is half written', async () => {
		const { store, tree } = await storeWithTree();
		const choices = {
			waterSchool: 'at-once' as const,
			fromStock: { potId: 'none', materials: false }
		};
		expect(
			(await refusal(recordPlanting(store, tree.id, planting(), choices, values))).problems[0]
		).toMatchObject({
			field: 'potId'
		});
		const ahead = planting({ plantedOn: '2026-05-01' });
		expect(
			(await refusal(recordPlanting(store, tree.id, ahead, { ...choices, fromStock: null }, values)))
				.problems[0]
		).toMatchObject({ field: 'planting.plantedOn', message: 'must not be after today' });
		const records = await loadRecords(store.db, tree.id);
		expect([records.plantings, records.tasks]).toEqual([[], []]);
	});
	it('two tabs do not overwrite each other’s plan', async () => {
		const { store, tree } = await storeWithTree();
		const plan = replantPlanInput.parse({ planting: planting(), waterSchool: 'at-once' });
		await keepReplantPlan(store, tree.id, plan, null);
		await keepReplantPlan(store, tree.id, plan, 1);
		expect((await refusal(keepReplantPlan(store, tree.id, plan, 1))).status).toBe(409);
		expect((await loadRecords(store.db, tree.id)).replantPlan?.version).toBe(2);
	});
});

describe('the stock', () => {
	it('holds each thing once, each own mix under its own name, and takes back what was removed', async () => {
		const store = await freshStore();
		const item = stockItemInput.parse({ item: 'perlite', packSize: 100, packs: 1 });
		const { id } = await keepItem(store, item);
		expect((await refusal(keepItem(store, item))).problems[0]).toMatchObject({ field: 'item' });
		await keepItem(store, { ...item, packs: 4 }, { id, version: 1 });
		const mix = ownMixInput.parse({ ...pottingMixOf('pumice'), name: 'Ours' });
		await keepMix(store, mix);
		expect((await refusal(keepMix(store, { ...mix, name: 'OURS' }))).problems[0]).toMatchObject({
			field: 'name'
		});
		const entry = await removeFromStock(store, 'item', id, 2);
		expect((await loadStock(store.db)).items).toEqual([]);
		await undo(store, entry);
		expect((await loadStock(store.db)).items[0]).toMatchObject({ packs: 4 });
	});
});

describe('lift and ground works', () => {
	it('a lift keeps its ticks, its log makes the tree just lifted, and another tree’s lift is not changed', async () => {
		const { store, tree } = await storeWithTree({ situation: 'in-ground' });
		const plan = liftInput.parse({
			plannedOn: '2026-04-18',
			school: 'field',
			reading: 'across',
			ballDiameterMm: 340,
			ballDepthMm: 230,
			route: {},
			ticks: ['permission']
		});
		const { lift } = await keepLift(store, tree.id, plan, null);
		const ticked = { ...plan, ticks: [...plan.ticks, 'rings' as const] };
		const { lift: second } = await keepLift(store, tree.id, ticked, { id: lift.id, version: 1 });
		expect((await loadRecords(store.db, tree.id)).tree.situation).toBe('in-ground');
		const log = {
			liftedOn: '2026-04-18',
			ballDiameterMm: 320,
			ballDepthMm: 200,
			massKg: null,
			cutRoots: [{ azimuthDeg: 20, diameterMm: 22, how: 'saw' as const }],
			outMinutes: 40,
			soak: 'wetted' as const,
			soakMinutes: 0,
			rooting: null,
			after: 'wrapped' as const,
			backfilled: true,
			assumed: [],
			note: ''
		};
		const { lift: third } = await keepLift(
			store,
			tree.id,
			{ ...ticked, log },
			{ id: lift.id, version: second.version }
		);
		const records = await loadRecords(store.db, tree.id);
		expect(records.tree.situation).toBe('just-lifted');
		expect(records.lifts[0]?.log).toEqual(log);
		const left = async () =>
			(await loadRecords(store.db, tree.id)).tasks
				.filter(({ stage }) => stage === 'replant')
				.map(({ source }) => source);
		expect(await left()).toEqual([]);
		// The hole was not filled after all: that stands on the list once, however often the log is kept.
		const open = { ...ticked, log: { ...log, backfilled: false } };
		const { lift: fourth } = await keepLift(store, tree.id, open, { id: lift.id, version: third.version });
		await keepLift(store, tree.id, open, { id: lift.id, version: fourth.version });
		expect(await left()).toEqual(['hole@2026-04-18']);
		expect((await refusal(keepLift(store, tree.id, plan, { id: 'other', version: 1 }))).status).toBe(404);

		// A log is put right in its place: what it asked for by mistake comes off the list, and it says so.
		const at = { id: lift.id, version: fourth.version + 1 };
		const ragged = {
			...log,
			backfilled: true,
			cutRoots: [{ azimuthDeg: 20, diameterMm: 22, how: 'torn' as const }]
		};
		await keepLift(store, tree.id, { ...ticked, log: ragged }, at);
		expect(await left()).toEqual(['clean@2026-04-18']);
		const corrected = async () =>
			(await loadRecords(store.db, tree.id)).lifts.map(({ log }) => log?.corrected);
		expect(await corrected()).toEqual([3]);
		const emptied = { ...ticked, log: null };
		expect(
			(await refusal(keepLift(store, tree.id, emptied, { ...at, version: at.version + 1 }))).problems
		).toEqual([{ field: 'log', message: 'must not be empty once it was kept: correct it' }]);
		expect(await corrected()).toEqual([3]);
	});
	it('a log that is corrected after the tree was set leaves it standing, sends nobody to cut ends in the soil, and lies before that', async () => {
		const { store, tree } = await storeWithTree({ situation: 'in-ground' });
		const lifted = (change: object) =>
			liftInput.parse({
				plannedOn: '2026-04-14',
				school: 'field',
				reading: 'across',
				ballDiameterMm: 340,
				ballDepthMm: 230,
				route: {},
				ticks: [],
				log: { liftedOn: '2026-04-14', ballDiameterMm: 340, ballDepthMm: 230, backfilled: true, ...change }
			});
		const { lift } = await keepLift(store, tree.id, lifted({}), null);
		await recordPlanting(
			store,
			tree.id,
			planting({ plantedOn: '2026-04-16' }),
			{ waterSchool: 'at-once', fromStock: null },
			values
		);
		const torn = { cutRoots: [{ azimuthDeg: 20, diameterMm: 22, how: 'torn' }], backfilled: false };
		const at = { id: lift.id, version: lift.version };
		expect(
			(await refusal(keepLift(store, tree.id, lifted({ ...torn, liftedOn: '2026-04-17' }), at))).problems
		).toEqual([{ field: 'log.liftedOn', message: 'must not be after 2026-04-16, when it was set' }]);
		const { lift: kept } = await keepLift(store, tree.id, lifted({ ...torn, liftedOn: '2026-04-16' }), at);
		expect(kept.log).toMatchObject({ liftedOn: '2026-04-16', cutRoots: torn.cutRoots });
		const records = await loadRecords(store.db, tree.id);
		expect(records.tree.situation).toBe('potted');
		const left = records.tasks.map(({ source }) => source).filter((source) => /^(hole|clean)@/.test(source));
		expect(left).toEqual(['hole@2026-04-16']);
		// In the ground again it is not lifted a second time by it either.
		const { tree: now } = records;
		await changeTree(store, now.id, now.version, asTakenIn(now, { situation: 'in-ground' }));
		await keepLift(store, tree.id, lifted({ ...torn, liftedOn: '2026-04-15' }), {
			id: lift.id,
			version: kept.version
		});
		expect((await loadRecords(store.db, tree.id)).tree.situation).toBe('in-ground');
	});
	it('a collar that is opened for cuts is seen again once: by the task of the cuts, where that stands open of these days', async () => {
		const looks = async (collarAgainFrom: string | null): Promise<string[]> => {
			const { store, tree, placeId } = await storeWithTree({ trunkDiameterMm: 300, situation: 'in-ground' });
			if (collarAgainFrom !== null)
				await doWork(store, { treeId: tree.id, stage: 'aftercare', what: 'Made' }, (work) =>
					work.add(tasks, {
						...taskInput.parse({
							kind: 'collar',
							title: 'See the collar again',
							reason: '',
							mark: 'trade',
							fromOn: collarAgainFrom,
							toOn: addDays(collarAgainFrom, 15),
							minutes: 20,
							stage: 'examine'
						}),
						...openTask,
						source: 'collar-again@2026-04-18'
					})
				);
			await keepGroundPlan(
				store,
				tree.id,
				groundPlanInput.parse({
					plannedOn: '2026-04-18',
					doneOn: '2026-04-18',
					placeId,
					collar: { openMm: 300, depthMm: 150, tool: 'hand' }
				}),
				null,
				values
			);
			return (await loadRecords(store.db, tree.id)).tasks
				.filter(({ kind }) => kind === 'collar')
				.map(({ source }) => source.split('@')[0] ?? '');
		};
		const from = addDays('2026-04-18', values['aftercare.collarFrom']);
		expect(await looks(null)).toEqual(['ground.collar-60']);
		expect(await looks(from)).toEqual(['collar-again']);
		const apart = values['work.togetherDays'];
		expect(await looks(addDays(from, -apart))).toEqual(['collar-again']);
		expect((await looks(addDays(from, -apart - 1))).toSorted()).toEqual(['collar-again', 'ground.collar-60']);
	});
	describe('a lifted tree that is set', () => {
		const lifted = async () => {
			const { store, tree, placeId } = await storeWithTree({ trunkDiameterMm: 60, situation: 'in-ground' });
			await keepLift(
				store,
				tree.id,
				liftInput.parse({
					plannedOn: '2026-04-16',
					school: 'field',
					reading: 'across',
					ballDiameterMm: 450,
					ballDepthMm: 320,
					route: {},
					ticks: [],
					log: {
						liftedOn: '2026-04-16',
						ballDiameterMm: 450,
						ballDepthMm: 320,
						backfilled: true,
						cutRoots: [{ azimuthDeg: 210, diameterMm: 12, how: 'torn' }]
					}
				}),
				null
			);
			for (const [kind, source] of [
				['other', 'rehearsed-replant@2026-04-16'],
				['cold', 'cold@2026-04-16']
			] as const)
				await doWork(store, { treeId: tree.id, stage: 'replant', what: 'Made' }, (work) =>
					work.add(tasks, {
						...taskInput.parse({
							kind,
							title: source,
							reason: '',
							mark: 'ours',
							fromOn: '2026-04-16',
							toOn: '2026-04-30',
							minutes: 20,
							stage: 'replant'
						}),
						...openTask,
						source
					})
				);
			const open = async () =>
				(await loadRecords(store.db, tree.id)).tasks.filter(({ state }) => state === 'open');
			return { store, tree, placeId, open };
		};
		const hole = { widthMm: 900, depthMm: 320, ballDiameterMm: 450, ballDepthMm: 320 };
		const rules = (list: readonly Task[]) => list.map(({ source }) => source.split('@')[0]).toSorted();

		it('in the ground closes what asked for it, as in a pot, and asks for its first water, its ties and its torn ends', async () => {
			const { store, tree, placeId, open } = await lifted();
			expect(rules(await open())).toEqual(['clean', 'cold', 'rehearsed-replant']);
			const other = await addPlace(
				store,
				placeInput.parse({ name: 'Garden', kind: 'garden', latitudeDeg: 51 })
			);
			const works = groundPlanInput.parse({
				plannedOn: '2026-04-18',
				doneOn: '2026-04-18',
				placeId: other.id,
				hole: { ...hole, drainMinutes: 200 },
				holding: { by: 'stakes' }
			});
			await keepGroundPlan(store, tree.id, works, null, values);
			const now = await open();
			expect(rules(now)).toEqual(['clean', 'first-water', 'ground.ties', 'ground.ties-off']);
			expect(now.find(({ source }) => source.startsWith('clean@'))?.title).toMatch(/^Were the torn/);
			expect(now.find(({ source }) => source.startsWith('first-water@'))).toMatchObject({
				title: 'Soak the ground over its roots, slowly',
				fromOn: '2026-04-18'
			});
			const from = (rule: string) => now.find(({ source }) => source.startsWith(`${rule}@`))?.fromOn;
			expect(from('ground.ties')).toBe(addDays('2026-04-18', values['hole.tiesEvery']));
			expect(from('ground.ties-off')).toBe(addDays('2026-04-18', values['hole.tiesOff']));
			const records = await loadRecords(store.db, tree.id);
			expect(records.groundPlans[0]?.hole?.drainMinutes).toBe(200);
			expect(records.forecasts.at(-1)?.saidOn).toBe('2026-04-18');
			expect(records.tree.placeId).toBe(other.id);
			// Ties are seen, and how it stands is kept as the look that it is.
			const ties = now.find(({ source }) => source.startsWith('ground.ties@'));
			const seen = {
				taskId: ties?.id ?? '',
				version: ties?.version ?? 0,
				state: 'done',
				skipReason: '',
				on: '2026-04-18',
				found: { kind: 'firmness', firmness: 'moves' }
			} as const;
			expect(
				await refusal(closeTask(store, tree.id, { ...seen, found: { kind: 'smell', smell: 'none' } }))
			).toMatchObject({ status: 422 });
			await closeTask(store, tree.id, seen);
			expect((await loadRecords(store.db, tree.id)).observations).toMatchObject([
				{ observedOn: '2026-04-18', firmness: 'moves' }
			]);
			expect(rules(await open())).not.toContain('ground.ties');
			expect(placeId).not.toBe(other.id);
		});
		it('where it stands asks on for its place; by its own stance it has no ties; other works set nothing', async () => {
			const { store, tree, placeId, open } = await lifted();
			const plan = { plannedOn: '2026-04-18', doneOn: '2026-04-18', placeId };
			const mulch = { innerM: 0.2, outerM: 1, depthMm: 75 };
			await keepGroundPlan(store, tree.id, groundPlanInput.parse({ ...plan, mulch }), null, values);
			expect(rules(await open())).toEqual(['clean', 'cold', 'rehearsed-replant']);
			await keepGroundPlan(store, tree.id, groundPlanInput.parse({ ...plan, hole }), null, values);
			expect(rules(await open())).toEqual(['clean', 'cold', 'first-water']);
		});
		it('whose crown was cut that day or since is not asked to be cut again, before it is', async () => {
			const { store, tree, placeId } = await lifted();
			const works = groundPlanInput.parse({ plannedOn: '2026-04-18', doneOn: '2026-04-18', placeId, hole });
			await keepGroundPlan(store, tree.id, works, null, values);
			const records = await loadRecords(store.db, tree.id);
			const asks = (...cutOn: string[]) =>
				proposeAftercare(
					{
						...records,
						book: cutOn.map((on) =>
							bookEntrySchema.parse({
								id: on,
								version: 1,
								on,
								kind: 'crown-cut',
								details: { choice: 'living', share: 0.3 }
							})
						)
					},
					{ workOn: '2026-04-18', crownSchool: 'balance', waterSchool: 'at-once' },
					values
				).some(({ source }) => source.startsWith('crown@'));
			expect(asks()).toBe(true);
			expect(asks('2026-04-18')).toBe(false);
			expect(asks('2026-05-02')).toBe(false);
			// What was cut before went with the roots it had then.
			expect(asks('2026-04-17')).toBe(true);
		});
		it('before a later lift has nothing of its ends in the soil', async () => {
			const { store, tree, placeId, open } = await lifted();
			const works = groundPlanInput.parse({ plannedOn: '2026-04-15', doneOn: '2026-04-15', placeId, hole });
			await keepGroundPlan(store, tree.id, works, null, values);
			expect((await open()).find(({ source }) => source.startsWith('clean@'))?.title).toMatch(
				/^Cut the torn/
			);
		});
		it('in a pot asks for its torn ends too', async () => {
			const { store, tree, open } = await lifted();
			await recordPlanting(store, tree.id, planting(), { waterSchool: 'at-once', fromStock: null }, values);
			expect((await open()).find(({ source }) => source.startsWith('clean@'))?.title).toMatch(
				/^Were the torn/
			);
		});
	});
	it('ground works stand on the list until they are done, then ask for their looks and doses', async () => {
		const { store, tree, placeId } = await storeWithTree({ trunkDiameterMm: 300 });
		const input = groundPlanInput.parse({
			plannedOn: '2026-04-18',
			placeId,
			hole: { widthMm: 900, depthMm: 350, ballDiameterMm: 450, ballDepthMm: 350 },
			collar: { openMm: 300, depthMm: 150, tool: 'hand' },
			loosening: { method: 'holes', innerM: 1, outerM: 2.5, depthMm: 300, widthMm: 75 },
			sulphur: { phNow: 6.5, phAim: 5, soil: 'loam', areaM2: 6 }
		});
		const { plan } = await keepGroundPlan(store, tree.id, input, null, values);
		const first = await loadRecords(store.db, tree.id);
		expect(first.tasks.map((task) => task.source)).toEqual([`ground.work@${plan.id}`]);
		expect(first.tree.situation).toBe('just-lifted');
		await keepGroundPlan(
			store,
			tree.id,
			{ ...input, doneOn: '2026-04-18' },
			{ id: plan.id, version: 1 },
			values
		);
		const done = await loadRecords(store.db, tree.id);
		expect(done.tree.situation).toBe('in-ground');
		const rules = done.tasks.map((task) => task.source.split('@')[0]);
		expect(rules).not.toContain('ground.work');
		expect(rules).toContain('ground.collar-60');
		expect(done.tasks.find(({ source }) => source.startsWith('ground.collar-60'))?.everyDays).toBe(
			values['aftercare.collarEvery']
		);
		expect(rules).toContain('ground.measure-again');
		expect(rules.filter((rule) => rule?.startsWith('ground.sulphur')).length).toBeGreaterThan(1);
		// All of it is part of the export and reads back the same.
		const written = await exportCase(store.db, tree.id);
		const elsewhere = await freshStore();
		await importCase(elsewhere, written);
		expect(await exportCase(elsewhere.db, tree.id)).toEqual(written);
	});
});

describe('what was written when a planting kept the name of a recipe', () => {
	it('a case of version 2 reads back with the parts of that recipe', async () => {
		const { store, tree } = await storeWithTree();
		await recordPlanting(
			store,
			tree.id,
			planting({ seat: null }),
			{ waterSchool: 'at-once', fromStock: null },
			values
		);
		const {
			lifts: _l,
			replantPlan: _r,
			groundPlans: _g,
			plantings,
			...rest
		} = await exportCase(store.db, tree.id);
		const old = {
			...rest,
			version: 2,
			plantings: plantings.map(
				({ mix: _mix, reuse: _reuse, seat: _seat, crownWidthMm: _crown, ...kept }) => ({
					...kept,
					mixId: 'pumice-bark'
				})
			)
		};
		const read = treeCaseSchema.parse(upgradeCase(old));
		expect(read.version).toBe(CASE_VERSION);
		expect(read.plantings[0]?.mix).toEqual(pottingMixOf('pumice-bark'));
		expect(read.plantings[0]?.reuse.history).toBe('new');
	});
	it('a database of that time is brought up to date, its plantings with their parts', async () => {
		const file = `file:${path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-old-')), 'old.db')}`;
		const client = createClient({ url: file });
		const folder = path.resolve('drizzle');
		const journal = JSON.parse(readFileSync(path.join(folder, 'meta/_journal.json'), 'utf8')) as {
			entries: { idx: number; when: number; tag: string }[];
		};
		expect(readdirSync(folder)).toContain('0007_stock-lift-ground.sql');
		await client.execute(
			'create table __drizzle_migrations (id integer primary key, hash text not null, created_at numeric)'
		);
		for (const { tag, when } of journal.entries.filter((entry) => entry.idx < 7)) {
			for (const statement of readFileSync(path.join(folder, `${tag}.sql`), 'utf8').split(
				'--> statement-breakpoint'
			))
				await client.execute(statement);
			await client.execute({
				sql: 'insert into __drizzle_migrations (hash, created_at) values (?, ?)',
				args: [tag, when]
			});
		}
		await client.executeMultiple(`
			pragma foreign_keys=off;
			insert into planting (id, treeId, plantedOn, pot, sizeRule, ballDiameterMm, ballDepthMm, mixId, coarseLayerMm, topLayerMm, headspaceMm, plantCount, note)
			values ('p', 't', '2025-01-01', '${JSON.stringify(pot)}', 'normal', 200, 100, 'coir-grit', 0, 0, 20, 1, '');
		`);
		client.close();
		const store = await openStore(file);
		const [row] = await store.db.query.planting.findMany();
		expect(row?.mix).toEqual(pottingMixOf('coir-grit'));
	});
});
