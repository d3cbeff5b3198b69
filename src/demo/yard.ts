import { taskInput, type Task } from '$core/vocabulary/task';
import { addDays, daysBetween } from '$core/maths/calendar';
import { placeInput } from '$core/vocabulary/place';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { wiresOver } from '$core/replant/pots/seat';
import { plantingInput, replantPlanInput } from '$core/replant/pots/replant-plan';
import { observationInput } from '$core/examine/looks/observation';
import type { PlanInput } from '$core/roots/plan/plan';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { defaultValues } from '$core/values/values';
import { rootMapInput, segmentFromQuick } from '$core/roots/map/root-map';
import { keptOf, rehearse } from '$core/rehearse/rehearse';
import { stageDates } from '$core/roots/plan/stage-dates';
import { actingAs } from '$lib/server/acting';
import { rehearsalOf, takeOver } from '$lib/server/rehearse';
import { planFrom, proposalFor } from '$core/roots/plan/proposal';
import { reductionPlan } from '$core/roots/plan/reduction/reduction-plan';
import { loadSolver } from '$core/roots/plan/solver';
import { rootLosses } from '$core/tree/losses';
import { simulateLooks } from '$core/simulate/recovery';
import { ownMixInput, stockItemInput, stockPotInput } from '$core/replant/kit/stock';
import { closingInput, treeInput } from '$core/take-in/tree';
import type { Values } from '$core/values/values';
import { today } from '$lib/server/clock';
import type { Store } from '$lib/server/db/database';
import { readValues } from '$lib/server/settings';
import { resultAsked } from '$core/aftercare/tasks/result';
import { addTask, closeTask, makeAftercare } from '$lib/server/aftercare';
import { changeInput } from '$core/tree/changes';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { measuredFindings, measurementInput } from '$core/examine/measuring/measurement';
import { triageInput } from '$core/examine/triage/triage';
import { recordChange, recordExamination, recordMeasurement, recordTriage } from '$lib/server/examine';
import { addBackup, changeBackup, recordLook } from '$lib/server/recovery';
import { backupInput } from '$core/recovery/backup';
import { loadRecords } from '$lib/server/records/tree-records';
import { closeTree, takeIn } from '$lib/server/trees';
import { keepGroundPlan, keepLift, keepReplantPlan, recordPlanting } from '$lib/server/replant';
import { keepItem, keepMix, keepPot } from '$lib/server/stock';
import { recordCuts, saveRoots } from '$lib/server/roots';
import { places } from '$lib/server/records/records';
import { addPlace } from '$lib/server/yard';
import { keepDrawn, makeDemoPictures } from './pictures';
import { makeDemoDevice, makeDemoWeather, waterDemoTree } from './weather';
import { writeBook } from '$lib/server/book';
import { demoBook } from './book';
import { demoExamine, type DemoExamine } from './examine';
import { makeDemoPractice } from './practice';
import { demoGround, demoItems, demoLifts, demoMixes, demoPots, demoReplantPlans } from './works';
import { demoPlaces, demoTrees, type DemoPlace, type DemoTree } from './scenario';

/**
 * Makes the invented yard through the same functions that a person's clicks reach, from a fixed seed. Nothing in it lies
 * after the day on which the clock stands.
 */
export async function makeDemoYard(store: Store): Promise<void> {
	const values = await readValues(store.db);
	const placeIds = {} as Record<DemoPlace, string>;
	for (const [name, input] of Object.entries(demoPlaces))
		placeIds[name as DemoPlace] = (await addPlace(store, placeInput.parse(input))).id;
	const station = await places.get(store.db, placeIds.bench);
	if (station) await makeDemoWeather(store, station, values);
	const potIds = new Map<string, string>();
	for (const pot of demoPots) potIds.set(pot.name, (await keepPot(store, stockPotInput.parse(pot))).id);
	for (const item of demoItems) await keepItem(store, stockItemInput.parse(item));
	for (const mix of demoMixes) await keepMix(store, ownMixInput.parse(mix));
	const treeIds = new Map<string, string>();
	for (const spec of demoTrees) {
		const input = treeInput.parse({
			...spec.input,
			placeId: placeIds[spec.place],
			referenceTreeId: spec.reference ? (treeIds.get(spec.reference) ?? null) : null
		});
		const { tree } = await takeIn(store, input);
		treeIds.set(tree.tag, tree.id);
		await fillTree(store, tree.id, spec, values);
		for (const entry of demoBook[tree.tag] ?? []) await writeBook(store, tree.id, entry);
		await planWorks(store, tree.id, spec.input.tag, potIds, values);
	}
	const idOf = (tag: string): string => treeIds.get(tag) ?? '';
	await strikeBackups(store, idOf);
	await makeDemoPictures(store, idOf('H-03'), [
		{ takenOn: '2024-11-16', leaves: 0 },
		{ takenOn: '2025-05-28', leaves: 0.45 },
		{ takenOn: '2025-09-20', leaves: 0.92 }
	]);
	await keepDrawn(store, idOf('E-04'), [
		{ what: 'crown-then', view: 'front', takenOn: '2025-05-26' },
		{ what: 'crown-now', view: 'front', takenOn: '2025-10-06' }
	]);
	await keepDrawn(store, idOf('P-09'), [
		{ what: 'roots', view: 'roots', takenOn: '2026-04-12' },
		{ what: 'roots-side', view: 'front', takenOn: '2026-04-12' },
		{ what: 'wall', view: 'wall of the ball', takenOn: '2026-04-12' }
	]);
	await makeDemoPractice(store);
	// First what makes weather, since water follows from it.
	await makeDemoDevice(
		store,
		{ name: 'Air in the frame', kind: 'air', onTreeId: null, placeId: placeIds.frame },
		5,
		values
	);
	// The elm was forgotten for some days; the others are watered as they should be.
	for (const [i, tag] of ['H-03', 'J-02', 'C-07', 'B-05', 'E-04', 'A-01'].entries())
		await waterDemoTree(store, idOf(tag), 50 + i, addDays(today(), tag === 'E-04' ? -9 : -1), values);
	await makeDemoDevice(
		store,
		{ name: 'Scale under the juniper', kind: 'scale', onTreeId: idOf('J-02'), placeId: null },
		3,
		values
	);
	await makeDemoDevice(
		store,
		{ name: 'Probe in the bougainvillea', kind: 'soil-probe', onTreeId: idOf('B-05'), placeId: null },
		4,
		values
	);
}

/** Cuttings that were struck, and one that became a tree. */
async function strikeBackups(store: Store, idOf: (tag: string) => string): Promise<void> {
	const camellia = idOf('C-07');
	await addBackup(
		store,
		camellia,
		backupInput.parse({
			takenOn: '2026-03-05',
			kind: 'softwood',
			source: 'side shoots of last year, from the sound side',
			lengthMm: 110,
			treatment: 'clean cut, no powder; under a bag',
			count: 12,
			note: ''
		})
	);
	const fig = idOf('B-05');
	await addBackup(
		store,
		fig,
		backupInput.parse({
			takenOn: '2025-06-30',
			kind: 'hardwood',
			source: 'branches taken off with the top',
			lengthMm: 180,
			treatment: '',
			count: 8,
			note: ''
		})
	);
	const [batch] = (await loadRecords(store.db, fig)).backups;
	if (!batch) return;
	const change = { backupId: batch.id };
	await changeBackup(store, fig, { ...change, version: 1, on: '2025-08-14', what: 'struck', count: 4 });
	await changeBackup(store, fig, { ...change, version: 2, on: '2025-08-14', what: 'lost', count: 3 });
	await changeBackup(store, fig, { ...change, version: 3, on: '2025-10-02', what: 'given', count: 2 });
}

/** Lifts, plantings and ground works that are planned or done. */
async function planWorks(
	store: Store,
	treeId: string,
	tag: string,
	potIds: ReadonlyMap<string, string>,
	values: Values
): Promise<void> {
	for (const lift of demoLifts[tag] ?? []) await keepLift(store, treeId, lift, null);
	for (const plan of demoGround[tag] ?? []) await keepGroundPlan(store, treeId, plan, null, values);
	const planned = demoReplantPlans[tag];
	if (!planned) return;
	const { potName, ...plan } = planned;
	const { rootMap } = await loadRecords(store.db, treeId);
	const { seat } = plan.planting;
	const wires = rootMap && seat ? wiresOver(rootMap.segments, new Set(), values, 3) : [];
	await keepReplantPlan(
		store,
		treeId,
		replantPlanInput.parse({
			...plan,
			planting: { ...plan.planting, seat: seat ? { ...seat, wires, pads: wires.length } : null },
			stockPotId: potIds.get(potName) ?? null
		}),
		null
	);
}

async function fillTree(store: Store, treeId: string, spec: DemoTree, values: Values): Promise<void> {
	const examined = demoExamine[spec.input.tag];
	if (examined) await examine(store, treeId, examined, values);
	if (spec.roots) await workRoots(store, treeId, spec.roots, values);
	if (spec.planting) {
		const { on, mixId, ...planting } = spec.planting;
		await recordPlanting(
			store,
			treeId,
			plantingInput.parse({
				...planting,
				mix: pottingMixOf(mixId),
				plantedOn: on,
				headspaceMm: 20,
				plantCount: spec.input.plantCount ?? 1
			}),
			{ waterSchool: spec.aftercare?.waterSchool ?? 'at-once', fromStock: null },
			values
		);
	}
	if (spec.rehearsedOn) await rehearseAsPlanned(store, treeId, spec.rehearsedOn, values);
	if (spec.aftercare) {
		await makeAftercare(store, treeId, spec.aftercare, values, spec.aftercare.workOn);
		await doWhatCameDue(store, treeId, spec.forgotten ?? []);
	}
	await measure(store, treeId, spec, values);
	for (const task of spec.tasks ?? [])
		await addTask(store, treeId, taskInput.parse({ ...task, mark: 'ours' }));
	if (spec.closing) {
		const { tree } = await loadRecords(store.db, treeId);
		await closeTree(store, treeId, tree.version, closingInput.parse(spec.closing));
	}
}

/** A tree that was rehearsed on a day, beside one other plan, and went on as planned. */
async function rehearseAsPlanned(store: Store, treeId: string, on: string, values: Values): Promise<void> {
	await actingAs({ id: `rehearsed-${on}`, at: `${on}T18:00:00.000Z`, today: on }, null, async () => {
		const records = await loadRecords(store.db, treeId);
		const made = await rehearsalOf(store.db, records, values);
		if (!made) throw new Error('The demo tree stands in nothing.');
		const { scene, planned } = made;
		const plans = [planned, { ...planned, name: 'Shade cloth at first', shade: true }];
		// Fewer futures than a page plays: the demo is made before somebody waits for it.
		const played = rehearse(scene, plans, { futures: 81 }, values);
		await takeOver(store, treeId, keptOf(played, 0, on), records.plan?.version ?? null, values);
	});
}

async function examine(store: Store, treeId: string, spec: DemoExamine, values: Values): Promise<void> {
	for (const measurement of spec.measurements ?? [])
		await recordMeasurement(store, treeId, measurementInput.parse(measurement));
	const { tree, measurements } = await loadRecords(store.db, treeId);
	for (const { withMeasured = false, ...look } of spec.looks) {
		const byEye = new Set(look.findings.map((finding) => finding.signId));
		const measured = withMeasured
			? measuredFindings(measurements, look.examinedOn, tree, values).filter((f) => !byEye.has(f.signId))
			: [];
		await recordExamination(
			store,
			treeId,
			examinationInput.parse({ note: '', ...look, findings: [...look.findings, ...measured] })
		);
	}
	for (const decision of spec.decisions ?? []) await recordTriage(store, treeId, triageInput.parse(decision));
	for (const change of spec.changes ?? []) await recordChange(store, treeId, changeInput.parse(change));
}

async function workRoots(
	store: Store,
	treeId: string,
	roots: NonNullable<DemoTree['roots']>,
	values: Values
): Promise<void> {
	const { tree, kind, places } = await loadRecords(store.db, treeId);
	const place = places.find((candidate) => candidate.id === tree.placeId);
	if (!place) throw new Error(`No place for ${tree.tag}`);
	const map = rootMapInput.parse({
		mappedOn: roots.on,
		frame: roots.frame,
		trunkDiameterMm: tree.trunkDiameterMm,
		ballRadiusMm: roots.ballRadiusMm,
		segments: roots.lines.map((line, index) => {
			const entry = parseQuickRoot(line, roots.frame, tree.trunkDiameterMm, defaultValues);
			if (!entry.ok) throw new Error(`${tree.tag}: ${line}: ${entry.problem}`);
			return segmentFromQuick(
				entry.root,
				{ trunkDiameterMm: tree.trunkDiameterMm, ballRadiusMm: roots.ballRadiusMm, ...roots.more },
				`r${index + 1}`
			);
		}),
		...roots.more
	});
	const bare: PlanInput = {
		temper: roots.temper,
		vigour: tree.vigour,
		reserves: tree.reserves,
		stageDates: stageDates(
			{ kind, place },
			{ begun: [roots.on], count: roots.stages, today: roots.on },
			values
		),
		cuts: [],
		notBefore: [],
		consents: [],
		setting: roots.setting ?? null
	};
	const proposal = proposalFor({ tree, kind, place, today: roots.on }, map, bare, roots.temper, values);
	const proposed = reductionPlan(proposal.question, await loadSolver(), values);
	let count = 0;
	const saved = await saveRoots(store, treeId, {
		map,
		mapVersion: null,
		planVersion: null,
		plan: planFrom(bare, proposal, proposed, () => `c${++count}`)
	});
	let version = saved.plan.version;
	for (const [stage, on] of roots.cutOn.entries()) {
		const done = saved.plan.cuts
			.filter((cut) => cut.stage === stage)
			.map(({ id }) => ({ id, atMm: null, note: '' }));
		await recordCuts(
			store,
			treeId,
			{
				on,
				planVersion: version,
				done,
				left: [],
				treatments: [],
				because: 'Rot left no time to wait.'
			},
			values
		);
		version++;
	}
}

function lossesOf(records: Parameters<typeof rootLosses>[0], values: Values) {
	const { found, done } = rootLosses(records, values);
	return [...found, ...done];
}

/** Closes the aftercare whose time is over, in the middle of its window, but for what was forgotten. */
async function doWhatCameDue(store: Store, treeId: string, forgotten: readonly string[]): Promise<void> {
	const close = async (task: Task, on: string): Promise<void> => {
		await closeTask(store, treeId, {
			taskId: task.id,
			version: task.version,
			state: 'done',
			skipReason: '',
			...(resultAsked(task) === 'referral' && {
				result: `Rae Dunmore, arborist, on the spot that day: sound at the base by mallet and probe, no need to act; to be seen again when anything changes. Her letter is with the owner.`
			}),
			on
		});
	};
	const { tasks } = await loadRecords(store.db, treeId);
	for (const task of tasks) {
		const middle = addDays(task.fromOn, daysBetween(task.fromOn, task.toOn) / 2);
		if (middle > addDays(today(), -10) || forgotten.includes(task.source.split('@')[0] ?? '')) continue;
		// What comes up again was done again since; the last time is enough to tell.
		const recently = addDays(today(), -Math.ceil((task.everyDays ?? 0) / 2));
		await close(task, task.everyDays !== null && middle < recently ? recently : middle);
	}
}

async function measure(store: Store, treeId: string, spec: DemoTree, values: Values): Promise<void> {
	const records = await loadRecords(store.db, treeId);
	const place = records.places.find((candidate) => candidate.id === records.tree.placeId);
	if (spec.looks && place) {
		const until = spec.closing?.closedOn ?? addDays(today(), -4);
		const looks = simulateLooks(
			{
				...spec.looks,
				kind: records.kind,
				place,
				to: until,
				losses: lossesOf(records, values),
				diesOn: spec.looks.diesOn ?? null
			},
			values
		);
		for (const look of looks) await recordLook(store, treeId, look, false);
	}
	for (const loss of spec.lost ?? [])
		await recordLook(
			store,
			treeId,
			observationInput.parse({ observedOn: loss.on, lostCount: loss.count, note: loss.note })
		);
}
