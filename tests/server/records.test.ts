import { roundPot } from '$core/replant/pots/volume';
import { plain } from '$core/text/format';
import { describe, expect, it } from 'vitest';
import { taskInput, type TaskKind } from '$core/vocabulary/task';
import { placeInput } from '$core/vocabulary/place';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { newMix } from '$core/replant/mixes/bench-test';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { observationInput, observationSchema } from '$core/examine/looks/observation';
import { rootMapInput, rootMapSchema } from '$core/roots/map/root-map';
import { closingInput, treeInput } from '$core/take-in/tree';
import { defaultValues } from '$core/values/values';
import { tree as treeTable } from '$lib/server/db/schema';
import { kinds, observations, rootMaps, tasks, trees } from '$lib/server/records/records';
import { openTask } from '$lib/server/task-work';
import { seedKinds } from '$lib/server/store';
import { doWork, undo } from '$lib/server/records/work';
import { overrideValues, readOverrides, readValues } from '$lib/server/settings';
import { overForGood } from '$core/aftercare/tasks/release';
import { addDays } from '$core/maths/calendar';
import {
	addTask,
	aftercareFrom,
	aftercareToMake,
	closeTask,
	makeAftercare,
	proposeAftercare
} from '$lib/server/aftercare';
import { loadRecords } from '$lib/server/records/tree-records';
import { changeTree, closeTree, takeIn } from '$lib/server/trees';
import { recordLook } from '$lib/server/recovery';
import { recordPlanting } from '$lib/server/replant';
import { recordExamination } from '$lib/server/examine';
import { listedTrees } from '$lib/server/tree-lists';
import { addKind, addPlace, changeKind, removePlace } from '$lib/server/yard';
import { recordCuts, saveRoots } from '$lib/server/roots';
import { freshStore, refusal, rootsWith as roots, storeWithTree } from './helpers';
import type { Store } from '$lib/server/db/database';
import { plantingOn } from '../records';
import { groundPlanSchema } from '$core/replant/ground/ground-plan';

const inputOf = (
	tree: Awaited<ReturnType<typeof storeWithTree>>['tree'],
	change: Record<string, unknown> = {}
) => {
	const {
		id: _id,
		version: _version,
		state: _state,
		closedOn: _closedOn,
		closingNote: _closingNote,
		lossCause: _cause,
		lossConditions: _conditions,
		shownEarlier: _earlier,
		...input
	} = tree;
	return treeInput.parse({ ...input, ...change });
};
const emptyLook = { observedOn: '2026-04-01', buds: 'open' };

describe('taking in', () => {
	it('refuses a tag that is used, an unknown kind, a day to come, and writes nothing', async () => {
		const { store, tree } = await storeWithTree();
		const refused = await refusal(
			takeIn(store, inputOf(tree, { tag: 't-1', kindId: 'nothing', takenInOn: '2027-01-01' }))
		);
		expect(refused.status).toBe(422);
		expect(refused.problems.map((problem) => problem.field).sort()).toEqual(['kindId', 'tag', 'takenInOn']);
		expect(await trees.list(store.db)).toHaveLength(1);
	});
	it('refuses to overwrite what another tab wrote', async () => {
		const { store, tree } = await storeWithTree();
		await changeTree(store, tree.id, 1, inputOf(tree, { name: 'Beech, first tab' }));
		const refused = await refusal(changeTree(store, tree.id, 1, inputOf(tree, { name: 'second tab' })));
		expect(refused.status).toBe(409);
		expect((await trees.get(store.db, tree.id))?.name).toBe('Beech, first tab');
	});
	it('a tree that is carried to another place answers where it is to stand; any other change does not', async () => {
		const { store, tree } = await storeWithTree();
		const { id: placeId } = await addPlace(
			store,
			placeInput.parse({ name: 'Cold frame', kind: 'cold-frame', latitudeDeg: 52 })
		);
		const add = (source: string, kind: TaskKind) =>
			doWork(store, { treeId: tree.id, stage: 'aftercare', what: 'Test' }, (work) =>
				work.add(tasks, { ...taskInput.parse(asked), kind, ...openTask, source })
			);
		const asked = {
			kind: 'other',
			title: 'Where will it stand?',
			reason: '',
			stage: 'aftercare',
			fromOn: '2027-03-01',
			toOn: '2027-04-01',
			minutes: 5
		};
		await add('cold@2026-03-01', 'cold');
		await add('rehearsed-replant@2026-03-01', 'other');
		const states = async () => (await tasks.list(store.db, tree.id)).map((one) => one.state);
		await changeTree(store, tree.id, 1, inputOf(tree, { name: 'Beech' }));
		expect(await states()).toEqual(['open', 'open']);
		await changeTree(store, tree.id, 2, inputOf(tree, { name: 'Beech', placeId }));
		expect(await states()).toEqual(['done', 'open']);
		// Planted, what was rehearsed is done; of its place a planting where it stood says nothing.
		await add('cold@2026-03-02', 'cold');
		await recordPlanting(
			store,
			tree.id,
			plantingOn('2026-04-02'),
			{ waterSchool: 'at-once', fromStock: null },
			defaultValues
		);
		expect((await states()).slice(0, 3)).toEqual(['done', 'done', 'open']);
	});
	it('is undone, but not once more was recorded', async () => {
		const { store, tree } = await storeWithTree();
		const { entryId } = await takeIn(store, inputOf(tree, { tag: 'T-2' }));
		await undo(store, entryId);
		expect(await trees.list(store.db)).toHaveLength(1);
		const again = await takeIn(store, inputOf(tree, { tag: 'T-3' }));
		await recordLook(store, again.tree.id, observationInput.parse(emptyLook));
		expect((await refusal(undo(store, again.entryId))).message).toMatch(/More was recorded/);
	});
	it('keeps two hundred written at the same moment', async () => {
		const { store, tree } = await storeWithTree();
		const input = (i: number) => inputOf(tree, { tag: `L-${i}` });
		const results = await Promise.allSettled(Array.from({ length: 200 }, (_, i) => takeIn(store, input(i))));
		expect(results.filter((result) => result.status === 'rejected')).toEqual([]);
		expect(await store.db.$count(treeTable)).toBe(201);
	});
});

describe('work that fails halfway', () => {
	it('leaves nothing behind and does not block the next', async () => {
		const { store, tree } = await storeWithTree();
		await expect(
			store.write(async (tx) => {
				await trees.put(tx, tree.id, { ...tree, name: 'half' });
				throw new Error('stop');
			})
		).rejects.toThrow('stop');
		expect((await trees.get(store.db, tree.id))?.name).toBe(tree.name);
		await changeTree(store, tree.id, 1, inputOf(tree, { name: 'whole' }));
		expect((await trees.get(store.db, tree.id))?.name).toBe('whole');
	});
});

describe('many records written together', () => {
	it('stand in their order, with all their parts, and replace what stood under their identities', async () => {
		const { store, tree } = await storeWithTree();
		const looks = Array.from({ length: 1201 }, (_, i) =>
			observationSchema.parse({
				...observationInput.parse({ observedOn: '2026-04-01', firmness: 'firm', note: `look ${i}` }),
				id: `o${(i * 7) % 1201}`,
				version: 1
			})
		);
		const maps = ['m1'].map((id) =>
			rootMapSchema.parse({
				...roots().map,
				id,
				version: 1,
				segments: Array.from({ length: 400 }, (_, i) => ({
					...roots().map.segments[0],
					id: `${id}-${i}`,
					note: `root ${i}`
				}))
			})
		);
		await store.write(async (tx) => {
			await observations.putAll(tx, tree.id, looks);
			await rootMaps.putAll(tx, tree.id, maps);
			await rootMaps.putAll(tx, tree.id, []);
		});
		expect(await observations.list(store.db, tree.id)).toEqual(looks);
		expect(await rootMaps.list(store.db, tree.id)).toEqual(maps);
		const [first, second] = looks;
		if (!first || !second) throw new Error('no looks');
		const changed = [
			{ ...second, note: 'changed', version: 2 },
			{ ...first, firmness: null, version: 2 }
		];
		const fewer = maps.map((map) => ({ ...map, segments: map.segments.slice(0, 3), version: 2 }));
		await store.write(async (tx) => {
			await observations.putAll(tx, tree.id, changed);
			await rootMaps.putAll(tx, tree.id, fewer);
		});
		expect(await observations.get(store.db, second.id)).toEqual(changed[0]);
		expect(await observations.get(store.db, first.id)).toEqual(changed[1]);
		expect(await observations.list(store.db, tree.id)).toHaveLength(1201);
		expect(await rootMaps.list(store.db, tree.id)).toEqual(fewer);
	});
});

describe('examining and looking', () => {
	it('keeps findings and is undone', async () => {
		const { store, tree } = await storeWithTree();
		const { entryId } = await recordExamination(
			store,
			tree.id,
			examinationInput.parse({ examinedOn: '2026-04-01', findings: [{ signId: 'sour-smell', grade: 1 }] })
		);
		expect((await loadRecords(store.db, tree.id)).examinations[0]?.findings).toHaveLength(1);
		await undo(store, entryId);
		expect((await loadRecords(store.db, tree.id)).examinations).toHaveLength(0);
	});
	it('refuses days to come, days before it was taken in, and more losses than plants', async () => {
		const { store, tree } = await storeWithTree({ plantCount: 5 });
		const at = (observedOn: string, more = {}) =>
			recordLook(store, tree.id, observationInput.parse({ ...emptyLook, observedOn, ...more }));
		expect((await refusal(at('2026-04-19'))).message).toMatch(/after today/);
		expect((await refusal(at('2026-02-01'))).message).toMatch(/before 2026-03-01/);
		expect((await refusal(at('2026-04-02', { lostCount: 6 }))).message).toMatch(/the 5 of the lot/);
		expect((await refusal(recordLook(store, 'nobody', observationInput.parse(emptyLook)))).status).toBe(404);
	});
});

describe('roots', () => {
	it('are kept with their plan, guarded by version, and refuse cuts of strangers', async () => {
		const { store, tree } = await storeWithTree();
		const saved = await saveRoots(store, tree.id, roots(['r4', 'r5']));
		expect((await refusal(saveRoots(store, tree.id, roots()))).status).toBe(409);
		const stray = { ...roots(['r9']), mapVersion: saved.map.version, planVersion: saved.plan.version };
		expect((await refusal(saveRoots(store, tree.id, stray))).problems[0]?.field).toBe(
			'plan.cuts.0.segmentId'
		);
		// What an owner answered on a root is asked of the map too, and named in its own list.
		const known = roots(['r4', 'r5']);
		const asked = (segmentId: string) => ({ segmentId, answer: 'yes' as const, on: '2026-03-01', how: '' });
		const answered = {
			...known,
			plan: { ...known.plan, consents: [asked('r0'), asked('r9')] },
			mapVersion: saved.map.version,
			planVersion: saved.plan.version
		};
		expect((await refusal(saveRoots(store, tree.id, answered))).problems[0]?.field).toBe(
			'plan.consents.1.segmentId'
		);
		const { rootMap, plan, journal } = await loadRecords(store.db, tree.id);
		expect(rootMap?.segments.map((segment) => segment.id)).toEqual(['r0', 'r1', 'r2', 'r3', 'r4', 'r5']);
		expect(plan?.cuts).toHaveLength(2);
		expect(journal.filter((entry) => entry.stage === 'roots')).toHaveLength(1);
	});
	it('hold what was really cut, and what was left with its reason; undo brings the plan back', async () => {
		const { store, tree } = await storeWithTree();
		const { plan } = await saveRoots(store, tree.id, roots(['r4', 'r5']));
		const entryId = await recordCuts(
			store,
			tree.id,
			{
				on: '2026-03-03',
				planVersion: plan.version,
				done: [{ id: 'c1', atMm: null, note: '' }],
				left: [{ id: 'c0', why: 'bark damaged under it' }],
				treatments: [],
				because: 'Rot left no time.'
			},
			defaultValues
		);
		const after = (await loadRecords(store.db, tree.id)).plan;
		expect(after?.cuts.map((cut) => [cut.id, cut.state, cut.doneOn])).toEqual([
			['c0', 'left', null],
			['c1', 'done', '2026-03-03']
		]);
		// Rot was cut: the looks that follow from it are dated at once, whatever aftercare is chosen later.
		expect((await loadRecords(store.db, tree.id)).tasks.map((task) => task.source)).toEqual(
			expect.arrayContaining(['rot-recheck@2026-03-03', 'first-buds@2026-03-03'])
		);
		expect(
			(
				await refusal(
					recordCuts(
						store,
						tree.id,
						{
							on: '2026-03-04',
							planVersion: plan.version + 1,
							done: [{ id: 'c1', atMm: null, note: '' }],
							left: [],
							treatments: [],
							because: 'Rot left no time.'
						},
						defaultValues
					)
				)
			).status
		).toBe(422);
		await undo(store, entryId);
		const back = await loadRecords(store.db, tree.id);
		expect(back.plan?.cuts.every((cut) => cut.state === 'planned')).toBe(true);
		expect(back.tasks).toEqual([]);
	});
	it('hold the place of a cut that was made elsewhere, and where it was planned', async () => {
		const { store, tree } = await storeWithTree();
		const { plan } = await saveRoots(store, tree.id, roots(['r4', 'r5']));
		const done = [
			{ id: 'c0', atMm: 45, note: 'sound only from there' },
			{ id: 'c1', atMm: 0, note: '' }
		];
		const cuts = {
			on: '2026-03-03',
			planVersion: plan.version,
			done,
			left: [],
			treatments: [],
			because: 'Rot left no time.'
		};
		await recordCuts(store, tree.id, cuts, defaultValues);
		const after = (await loadRecords(store.db, tree.id)).plan;
		expect(after?.cuts.map((cut) => [cut.atMm, cut.plannedAtMm])).toEqual([
			[45, 0],
			[0, null]
		]);
	});
	it('keep outlines, lean, obstacles and the angle as they were given, and refuse stems that do not make the trunk', async () => {
		const { store, tree } = await storeWithTree();
		const given = roots();
		const stem = (id: string, diameterMm: number, radiusMm: number) => ({
			id,
			centre: { azimuthDeg: 90, radiusMm },
			outline: { shape: 'circle' as const, diameterMm },
			note: ''
		});
		given.map = rootMapInput.parse({
			...given.map,
			trunkDiameterMm: 50,
			stems: [stem('a', 40, 0), stem('b', 30, 60)],
			ballDepthMm: 90,
			lean: { towardDeg: 30, deg: 12 },
			obstacles: [
				{
					id: 'o',
					kind: 'kerb',
					points: [
						{ azimuthDeg: 10, radiusMm: 120 },
						{ azimuthDeg: 50, radiusMm: 140 }
					]
				}
			],
			segments: given.map.segments.map((segment, i) => (i === 1 ? { ...segment, seenToMm: 40 } : segment))
		});
		given.plan.setting = {
			frontDeg: 30,
			tiltDeg: 10,
			tiltTowardDeg: 30,
			planeDepthMm: 5,
			baseDepthMm: 80,
			thisTimeDeg: 6
		};
		await saveRoots(store, tree.id, given);
		const { rootMap, plan } = await loadRecords(store.db, tree.id);
		expect(rootMap).toMatchObject(given.map);
		expect(plan).toMatchObject(given.plan);
		const wrong = rootMapInput.safeParse({ ...given.map, trunkDiameterMm: 60 });
		expect(plain(wrong.error?.issues[0]?.message ?? '')).toMatch(/50 mm, what the stems make together/);
	});
});

describe('a cut against what stands against it', () => {
	it('asks for a reason, and keeps it with the cut and in the journal', async () => {
		const { store, tree } = await storeWithTree();
		const { plan } = await saveRoots(store, tree.id, roots(['r3', 'r4']));
		const input = {
			on: '2026-03-03',
			planVersion: plan.version,
			done: plan.cuts.slice(0, 1).map(({ id }) => ({ id, atMm: null, note: '' })),
			left: [],
			treatments: []
		};
		const refused = await refusal(recordCuts(store, tree.id, { ...input, because: ' ' }, defaultValues));
		expect([refused.status, refused.problems[0]?.field]).toEqual([422, 'because']);
		expect(refused.problems[0]?.message).toMatch(/It takes a hold: An anchor/);
		await recordCuts(store, tree.id, { ...input, because: 'It was dying where it stood.' }, defaultValues);
		const records = await loadRecords(store.db, tree.id);
		expect(records.plan?.cuts.find((cut) => cut.state === 'done')).toMatchObject({
			because: 'It was dying where it stood.',
			ofPlanned: { count: plan.cuts.length }
		});
		expect(records.journal.some((entry) => /because: It was dying where it stood/.test(entry.what))).toBe(
			true
		);
	});
});

describe('replanting', () => {
	it('moves the tree and makes it potted, in one step that is undone whole', async () => {
		const { store, tree, placeId } = await storeWithTree();
		const pot = roundPot(300, 240, 200);
		const { entryId } = await recordPlanting(
			store,
			tree.id,
			{
				plantedOn: '2026-03-05',
				pot,
				sizeRule: 'normal',
				ballDiameterMm: 240,
				ballDepthMm: 140,
				mix: pottingMixOf('pumice'),
				reuse: newMix,
				seat: null,
				crownWidthMm: null,
				coarseId: 'grit-coarse',
				topId: null,
				assumed: [],
				coarseLayerMm: 0,
				topLayerMm: 0,
				headspaceMm: 20,
				plantCount: 1,
				placeId,
				note: ''
			},
			{ waterSchool: 'at-once', fromStock: null },
			defaultValues
		);
		expect((await loadRecords(store.db, tree.id)).tree.situation).toBe('potted');
		await undo(store, entryId);
		const { tree: back, plantings } = await loadRecords(store.db, tree.id);
		expect(back.situation).toBe('just-lifted');
		expect(plantings).toHaveLength(0);
	});
});

/** Two roots of a map cut on a day. */
async function cutBoth(store: Store, treeId: string, on: string): Promise<void> {
	const { plan } = await saveRoots(store, treeId, roots(['r4', 'r5']));
	const done = ['c0', 'c1'].map((id) => ({ id, atMm: null, note: '' }));
	await recordCuts(
		store,
		treeId,
		{ on, planVersion: plan.version, done, left: [], treatments: [], because: 'Rot left no time.' },
		defaultValues
	);
}

describe('aftercare', () => {
	it('offers and makes nothing whose days are over for good, and says so', async () => {
		const { store, tree } = await storeWithTree();
		const workOn = '2026-03-03';
		await cutBoth(store, tree.id, workOn);
		const records = await loadRecords(store.db, tree.id);
		const schools = { workOn, crownSchool: 'keep-leaves', waterSchool: 'at-once' } as const;
		const of = (on: string) => aftercareToMake(records, schools, on, defaultValues);
		const first = of(workOn);
		expect(first.over).toEqual([]);
		const ends = [
			['first-water', 'aftercare.lapsesDays'],
			['neighbours', 'aftercare.lapsesSeasonDays']
		] as const;
		for (const [rule, days] of ends) {
			const task = first.toMake.find(({ source }) => source === `${rule}@${workOn}`);
			if (!task) continue;
			const last = addDays(task.toOn, defaultValues[days]);
			const isOver = (on: string) => of(on).over.some(({ source }) => source === task.source);
			expect([isOver(last), isOver(addDays(last, 1))], rule).toEqual([false, true]);
		}
		expect(first.toMake.map(({ source }) => source)).toContain(`first-water@${workOn}`);
		const late = addDays(workOn, 400);
		const { toMake, over } = of(late);
		expect(over.length).toBeGreaterThan(0);
		expect([...toMake, ...over]).toHaveLength(first.toMake.length);
		await makeAftercare(store, tree.id, schools, defaultValues, late);
		const made = (await loadRecords(store.db, tree.id)).tasks.map(({ source }) => source);
		expect(made).toEqual(expect.arrayContaining(toMake.map(({ source }) => source)));
		for (const { source } of over) expect(made).not.toContain(source);
		expect((await refusal(makeAftercare(store, tree.id, schools, defaultValues, late))).message).toMatch(
			/had its days before today/
		);
	});
	it('set some days after its roots were worked on, it is looked after for all of it from then, and nothing is asked twice', async () => {
		const { store, tree } = await storeWithTree();
		const cutOn = '2026-03-03';
		await cutBoth(store, tree.id, cutOn);
		const schools = { crownSchool: 'keep-leaves', waterSchool: 'at-once' } as const;
		await makeAftercare(store, tree.id, { ...schools, workOn: cutOn }, defaultValues, cutOn);
		const records = await loadRecords(store.db, tree.id);
		expect(aftercareFrom(records, defaultValues)).toBe(cutOn);
		const last = addDays(cutOn, defaultValues['work.togetherDays']);
		const set = (on: string) => ({ ...records, plantings: [plantingOn(on)] });
		expect(aftercareFrom(set(last), defaultValues)).toBe(last);
		expect(aftercareFrom(set(addDays(last, 1)), defaultValues)).toBe(cutOn);
		expect(aftercareFrom(set(addDays(cutOn, -1)), defaultValues)).toBe(cutOn);
		// Planted out it was set as well; a day on which nothing was done is none of it.
		const planted = groundPlanSchema.parse({
			id: 'g',
			version: 1,
			plannedOn: last,
			doneOn: last,
			hole: { widthMm: 900, depthMm: 350, ballDiameterMm: 450, ballDepthMm: 320 }
		});
		expect(aftercareFrom({ ...records, groundPlans: [planted] }, defaultValues)).toBe(last);
		expect(aftercareFrom({ ...records, groundPlans: [{ ...planted, doneOn: null }] }, defaultValues)).toBe(
			cutOn
		);
		expect(aftercareFrom({ ...records, groundPlans: [{ ...planted, hole: null }] }, defaultValues)).toBe(
			cutOn
		);
		const ofNoWork = proposeAftercare(records, { ...schools, workOn: addDays(cutOn, 2) }, defaultValues);
		expect(ofNoWork.map(({ source }) => source)).not.toContain(`first-water@${addDays(cutOn, 2)}`);
		const bare = { ...records, plan: null, lifts: [], book: [] };
		expect(aftercareFrom({ ...bare, plantings: [plantingOn(last)] }, defaultValues)).toBe(last);
		expect(aftercareFrom({ ...bare, plantings: [] }, defaultValues)).toBe(tree.takenInOn);
		// What is too heavy for a scale is felt.
		const asked = (change: object) =>
			proposeAftercare(
				{ ...bare, plantings: [plantingOn(last, change)] },
				{ ...schools, workOn: last },
				defaultValues
			).flatMap(({ source }) => (source.startsWith('water-by') ? [source] : []));
		expect(asked({})).toEqual([`water-by-weight@${last}`]);
		expect(asked({ pot: roundPot(900, 800, 500) })).toEqual([`water-by-feel@${last}`]);
		// Of what was made for the cuts only the water is asked anew, and it knows of the cuts.
		const offered = (on: string) =>
			proposeAftercare(set(on), { ...schools, workOn: on }, defaultValues).map(
				({ source, reason }) => `${source} ${reason}`
			);
		expect(offered('2026-03-06')).toEqual([
			expect.stringMatching(/^first-water@2026-03-06 Roots are watered in at once/)
		]);
		// Of a planting long after, it is another matter.
		const later = addDays(last, 1);
		expect(offered(later)[0]).toMatch(new RegExp(`^first-water@${later} No living root was cut`));
		expect(offered(later).length).toBeGreaterThan(1);
	});
	it('what waits for the tree is offered as long as the last day it may wait for gives', () => {
		const task = {
			source: 'first-buds@2026-03-03',
			toOn: '2026-03-10',
			release: { condition: 'buds-move', value: 0, byOn: '2026-05-01', after: '' },
			everyDays: null
		} as const;
		const days = defaultValues['aftercare.lapsesSeasonDays'];
		const over = (on: string, one: Parameters<typeof overForGood>[0] = task) =>
			overForGood(one, on, defaultValues);
		expect([over(addDays('2026-05-01', days)), over(addDays('2026-05-01', days + 1))]).toEqual([false, true]);
		expect(over(addDays('2026-03-10', days + 1), { ...task, release: null })).toBe(true);
	});
	it('is made once for a day of work, follows what was cut, and closes with reasons', async () => {
		const { store, tree } = await storeWithTree();
		const { plan } = await saveRoots(store, tree.id, roots(['r4', 'r5']));
		await recordCuts(
			store,
			tree.id,
			{
				on: '2026-03-03',
				planVersion: plan.version,
				done: [
					{ id: 'c0', atMm: null, note: '' },
					{ id: 'c1', atMm: null, note: '' }
				],
				left: [],
				treatments: [],
				because: 'Rot left no time.'
			},
			defaultValues
		);
		const schools = { workOn: '2026-03-03', crownSchool: 'keep-leaves', waterSchool: 'at-once' } as const;
		const make = () => makeAftercare(store, tree.id, schools, defaultValues, schools.workOn);
		await make();
		const made = (await loadRecords(store.db, tree.id)).tasks;
		expect(made.map((task) => task.source)).toContain('neighbours@2026-03-03');
		expect((await refusal(make())).message).toMatch(/planned already/);

		const [first, second] = made;
		if (!first || !second) throw new Error('no tasks');
		const close = { taskId: first.id, version: 1, on: '2026-04-18', skipReason: '' };
		expect(
			(await refusal(closeTask(store, tree.id, { ...close, state: 'skipped' }))).problems[0]?.message
		).toMatch(/why it is skipped/);
		const entryIds = await closeTask(store, tree.id, {
			...close,
			state: 'skipped',
			skipReason: 'rain did it'
		});
		expect(
			(await refusal(closeTask(store, tree.id, { ...close, version: 2, state: 'done' }))).message
		).toMatch(/closed already/);
		await undo(store, ...entryIds);
		expect((await tasks.get(store.db, first.id))?.state).toBe('open');
	});
	it('what comes up again does so from the day it was done on, or from today where that turn is over too', async () => {
		const { store, tree } = await storeWithTree();
		const again = async (on: string, againFrom?: string) => {
			const one = {
				...taskInput.parse({ kind: 'turning', title: 'Turn it', fromOn: '2025-09-01', toOn: '2025-09-11' }),
				...openTask,
				release: null,
				everyDays: 21,
				source: `turning@${on}`,
				id: `turn-${on}-${againFrom ?? ''}`,
				version: 1
			};
			await store.write(async (tx) => tasks.put(tx, tree.id, one));
			await closeTask(store, tree.id, {
				taskId: one.id,
				version: 1,
				state: 'done',
				skipReason: '',
				on,
				againFrom
			});
			const all = await tasks.list(store.db, tree.id);
			expect(all.find(({ id }) => id === one.id)).toMatchObject({ state: 'done', closedOn: on });
			const next = all.find(({ state, source }) => state === 'open' && source === `again@${on}`);
			if (next) await store.write(async (tx) => tasks.remove(tx, next.id));
			return next && [next.fromOn, next.toOn];
		};
		expect(await again('2026-04-10', '2026-04-18')).toEqual(['2026-05-01', '2026-05-11']);
		// Its next turn ends on the day itself, or ended the day before.
		expect(await again('2026-03-18', '2026-04-18')).toEqual(['2026-04-08', '2026-04-18']);
		expect(await again('2026-03-17', '2026-04-18')).toEqual(['2026-04-18', '2026-04-28']);
		expect(await again('2026-02-17')).toEqual(['2026-03-10', '2026-03-20']);
	});
	it('takes a task by hand and refuses one that ends before it begins', async () => {
		const { store, tree } = await storeWithTree();
		const input = { kind: 'look', title: 'Look', fromOn: '2026-05-01', toOn: '2026-05-08' };
		await addTask(store, tree.id, taskInput.parse(input));
		expect(taskInput.safeParse({ ...input, toOn: '2026-04-01' }).error?.issues[0]?.path).toEqual(['toOn']);
		const listed = async (on: string) => (await listedTrees(store, on, defaultValues))[0];
		await recordLook(store, tree.id, observationInput.parse(emptyLook));
		expect(await listed('2026-04-30')).toMatchObject({ nextOn: '2026-05-01', nextTask: 'Look' });
		// Beyond the days of Today what waits for the tree is named last, though its day comes first.
		const waiting = {
			...taskInput.parse({
				...input,
				kind: 'shelter',
				title: 'Shade off',
				fromOn: '2026-04-20',
				toOn: '2026-04-25'
			}),
			...openTask,
			release: { condition: 'buds-move' as const, value: 0, byOn: '2026-04-25', after: '' },
			everyDays: null,
			source: 'shelter-half@2026-02-01',
			id: 'waits',
			version: 1
		};
		await store.write(async (tx) => tasks.put(tx, tree.id, waiting));
		expect(await listed('2026-03-01')).toMatchObject({ nextOn: '2026-05-01', nextTask: 'Look' });
	});
});

describe('a task of one tree', () => {
	it('is never closed by way of another', async () => {
		const { store, tree } = await storeWithTree();
		const { tree: other } = await takeIn(store, inputOf(tree, { tag: 'T-2' }));
		await addTask(
			store,
			tree.id,
			taskInput.parse({ kind: 'look', title: 'Look', fromOn: '2026-05-01', toOn: '2026-05-08' })
		);
		const [task] = (await loadRecords(store.db, tree.id)).tasks;
		const closing = {
			taskId: task?.id ?? '',
			version: 1,
			state: 'done',
			skipReason: '',
			on: '2026-04-18'
		} as const;
		expect((await refusal(closeTask(store, other.id, closing))).status).toBe(404);
		expect((await loadRecords(store.db, tree.id)).tasks[0]?.state).toBe('open');
	});
});

describe('shipped kinds', () => {
	it('are brought up to date at a start, but what the owner changed stays', async () => {
		const store = await freshStore();
		const alder = await kinds.get(store.db, 'alnus');
		const birch = await kinds.get(store.db, 'betula');
		if (!alder || !birch) throw new Error('no kinds');
		await store.write((tx) => kinds.put(tx, null, { ...birch, coldestC: -1 }));
		const { id: _id, origin: _origin, version: _version, ...input } = alder;
		await changeKind(store, 'alnus', 1, { ...input, coldestC: -3 });
		await seedKinds(store);
		expect((await kinds.get(store.db, 'betula'))?.coldestC).toBe(birch.coldestC);
		expect(await kinds.get(store.db, 'alnus')).toMatchObject({ coldestC: -3, origin: 'own' });
	});
});

describe('closing', () => {
	it('is refused before it was taken in, and undone', async () => {
		const { store, tree } = await storeWithTree();
		const closing = closingInput.parse({ state: 're-established', closedOn: '2026-04-10', closingNote: '' });
		expect(
			(await refusal(closeTree(store, tree.id, 1, { ...closing, closedOn: '2026-01-01' }))).problems[0]?.field
		).toBe('closedOn');
		const entryId = await closeTree(store, tree.id, 1, closing);
		expect((await trees.get(store.db, tree.id))?.state).toBe('re-established');
		await undo(store, entryId);
		expect(await trees.get(store.db, tree.id)).toMatchObject({ state: 'in-care', closedOn: null });
	});
});

describe('kinds, places and values', () => {
	it('add and change kinds; shipped ones become the owner’s own', async () => {
		const store = await freshStore();
		const input = {
			genus: 'Nothofagus',
			commonName: 'Southern beech',
			group: 'deciduous',
			coldestC: -8,
			wetnessTrigger: 0.4,
			liftingWindow: 'leafless',
			sap: 'none',
			caution: ''
		} as const;
		const { kind } = await addKind(store, input);
		expect(kind.id).toBe('nothofagus-southern-beech');
		expect(
			(await refusal(addKind(store, { ...input, commonName: 'southern BEECH' }))).problems[0]?.field
		).toBe('commonName');
		await changeKind(store, kind.id, 1, { ...input, coldestC: -10 });
		expect((await refusal(changeKind(store, kind.id, 1, input))).status).toBe(409);
	});
	it('keep a place while trees stand there', async () => {
		const { store, placeId } = await storeWithTree();
		expect((await refusal(removePlace(store, placeId, 1))).message).toMatch(/Trees stand/);
	});
	it('take the owner’s numbers within bounds, and give the shipped ones back', async () => {
		const store = await freshStore();
		await overrideValues(store, { 'crown.reserve': 1.4 });
		expect((await readValues(store.db))['crown.reserve']).toBe(1.4);
		expect((await refusal(overrideValues(store, { 'crown.reserve': NaN }))).message).toMatch(/from 1 to 2/);
		expect((await refusal(overrideValues(store, { 'made.up': 1 }))).status).toBe(404);
		await overrideValues(store, { 'crown.reserve': null });
		expect(await readOverrides(store.db)).toEqual({});
	});
});
