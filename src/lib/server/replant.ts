import { measured } from '../core/text/measured';
import { ruleOf } from '../core/aftercare/tasks/source';
import { addDays, daysBetween } from '../core/maths/calendar';
import { usualCrownSchool } from '../core/aftercare/crown/crown';
import {
	groundAmounts,
	groundTasks,
	type GroundPlan,
	type GroundPlanInput
} from '../core/replant/ground/ground-plan';
import type { TreeRecords } from '../core/tree/case';
import type { Lift, LiftInput, LiftLog } from '../core/replant/lifting/lift';
import { endsOnceSet, liftTasks } from '../core/replant/lifting/lift-tasks';
import { holdingNames } from '../core/replant/pots/seat';
import { potShapeNames } from '../core/replant/pots/volume';
import type { Planting, PlantingInput, ReplantPlanInput } from '../core/replant/pots/replant-plan';
import type { WaterSchool } from '../core/vocabulary/words';
import { once, type DatedTask } from '../core/vocabulary/task';
import type { Values } from '../core/values/values';
import { proposeAftercare } from './aftercare';
import { addFollowing, closeAnswered } from './task-work';
import { today } from './clock';
import type { Store } from './db/database';
import { invalid, Refusal } from './errors';
import { groundPlans, lifts, places, plantings, replantPlans, tasks, trees } from './records/records';
import { doWork, type Work } from './records/work';
import { drawFromStock, type FromStock } from './stock';
import { sayForecast } from './recovery';
import { loadRecords } from './records/tree-records';
import { refuseCare, requireTree } from './trees';

/** Puts dated work on the list, unless its time has passed or it stands there already. */
const addTasks = (
	work: Work,
	treeId: string,
	wanted: readonly (DatedTask & { source: string })[]
): Promise<void> =>
	addFollowing(
		work,
		treeId,
		wanted.filter((task) => task.toOn >= today()).map((task) => ({ ...once, ...task }))
	);

/** Keeps what is planned for the planting; one plan a tree. @throws Refusal 404, 409 */
export async function keepReplantPlan(
	store: Store,
	treeId: string,
	input: ReplantPlanInput,
	version: number | null
): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId, stage: 'replant', what: 'Planting planned' },
		async (work) => {
			await requireTree(work, treeId);
			const [kept] = await replantPlans.list(work.tx, treeId);
			if (!kept) return work.add(replantPlans, input);
			return work.change(replantPlans, kept.id, version ?? 0, (before) => ({ ...before, ...input }));
		}
	);
	return entryId;
}

export interface PlantingChoices {
	waterSchool: WaterSchool;
	fromStock: FromStock | null;
}

/**
 * Writes a planting down: the tree stands in its pot, the first water (or the end of the dry rest) and the day on which ties
 * or stones come off are on the list, and the stock is less by what was used.
 * @returns what the stock did not reach for, in words
 * @throws Refusal 404, 409, 422
 */
export async function recordPlanting(
	store: Store,
	treeId: string,
	input: PlantingInput,
	choices: PlantingChoices,
	values: Values
): Promise<{ planting: Planting; entryId: string; missing: string[] }> {
	const records = await loadRecords(store.db, treeId);
	const water = proposeAftercare(
		records,
		{
			workOn: input.plantedOn,
			crownSchool: usualCrownSchool(records.kind.group),
			waterSchool: choices.waterSchool
		},
		values,
		true
	).filter((task) => task.source.startsWith('first-water@'));
	const { result, entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'replant',
			on: input.plantedOn,
			what: `Replanted in a ${potShapeNames[input.pot.shape]} pot, ${input.mix.name}`
		},
		async (work) => {
			const tree = await requireTree(work, treeId);
			refuseCare('planting.plantedOn', input.plantedOn, tree);
			if (input.placeId && !(await places.get(work.tx, input.placeId)))
				throw invalid([{ field: 'planting.placeId', message: 'must be a place of this yard' }]);
			if (input.seat?.offOn && input.seat.offOn < input.plantedOn)
				throw invalid([{ field: 'planting.seat.offOn', message: 'must not be before the day of planting' }]);
			const planting = await work.add(plantings, input);
			const missing = choices.fromStock
				? await drawFromStock(work, input, choices.fromStock, records.mates, values)
				: [];
			// What was planned is done.
			const [plan] = await replantPlans.list(work.tx, treeId);
			if (plan) await work.remove(replantPlans, plan.id, plan.version);
			const moves = input.placeId !== null && input.placeId !== tree.placeId;
			if (moves || tree.situation !== 'potted')
				await work.change(trees, treeId, tree.version, (before) => ({
					...before,
					situation: 'potted' as const,
					placeId: input.placeId ?? before.placeId
				}));
			await closeAnswered(work, treeId, moves ? ['planting', 'place'] : ['planting'], input.plantedOn);
			await askForEnds(work, records, input.plantedOn, values);
			await addTasks(work, treeId, [...water, ...seatTasks(planting)]);
			await sayForecast(work, treeId, input.plantedOn, values);
			return { planting, missing };
		}
	);
	return { ...result, entryId };
}

/** What lifts left to be cut clean lies in the soil now. */
async function askForEnds(
	work: Work,
	{ tree, lifts: done }: Pick<TreeRecords, 'tree' | 'lifts'>,
	setOn: string,
	values: Values
): Promise<void> {
	const standing = await tasks.list(work.tx, tree.id);
	for (const { log } of done) {
		const asked = log && log.liftedOn <= setOn ? endsOnceSet(log, setOn, today(), values) : null;
		const task = standing.find(({ state, source }) => state === 'open' && source === asked?.source);
		if (asked && task) await work.change(tasks, task.id, task.version, (open) => ({ ...open, ...asked }));
	}
}

/** Ties and stones are looked at, and come off on their day. */
function seatTasks({ seat, plantedOn, id }: Planting): (DatedTask & { source: string })[] {
	if (!seat || seat.holding === 'own-stance' || seat.offOn === null) return [];
	const what = seat.holding === 'wires' ? 'ties' : 'stones';
	return [
		{
			kind: 'other',
			title: seat.holding === 'wires' ? 'Ties: loosen or take them off' : 'Steadying stones come off',
			reason: `Held by ${holdingNames[seat.holding]} since ${plantedOn}. Try first whether it rocks; a loose tree tears its new roots, a forgotten tie bites.`,
			mark: 'trade',
			stage: 'aftercare',
			fromOn: seat.offOn,
			toOn: addDays(seat.offOn, 14),
			minutes: 10,
			source: `${what}-off@${id}`
		}
	];
}

/**
 * Keeps a lift: its plan and ticks, and its log once it is done; then the tree is just lifted.
 * @param at the lift that is changed, null for a new one
 * @throws Refusal 404, 409, 422
 */
export async function keepLift(
	store: Store,
	treeId: string,
	input: LiftInput,
	at: { id: string; version: number } | null
): Promise<{ lift: Lift; entryId: string; corrected: boolean }> {
	const before = at ? await lifts.get(store.db, at.id) : null;
	/** It came out of the ground before: what is kept now puts its log right. */
	const corrects = before?.log ?? null;
	const log = input.log && {
		...input.log,
		...(corrects && { corrected: (corrects.corrected ?? 0) + 1 })
	};
	if (corrects && !log)
		throw invalid([{ field: 'log', message: 'must not be empty once it was kept: correct it' }]);
	const { result, entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'replant',
			...(log && { on: log.liftedOn }),
			what: log
				? `${corrects ? 'Corrected the log of the lift' : 'Lifted'}: ball ${measured(log.ballDiameterMm, 'mm')} across${log.outMinutes === null ? '' : `, ${Math.round(log.outMinutes)} min out of the ground`}`
				: 'Lift planned',
			undoable: true
		},
		async (work) => {
			const tree = await requireTree(work, treeId);
			if (log) refuseCare('log.liftedOn', log.liftedOn, tree);
			if (at && !(await lifts.list(work.tx, treeId)).some((lift) => lift.id === at.id))
				throw new Refusal(404, 'This lift is not of this tree.', 'Load the page again.');
			const kept = at
				? await work.change(lifts, at.id, at.version, (before) => ({ ...before, ...input, log }))
				: await work.add(lifts, { ...input, log });
			if (log) await keepLeftBehind(work, treeId, log, corrects);
			if (log && !corrects && tree.situation === 'in-ground')
				await work.change(trees, treeId, tree.version, (before) => ({
					...before,
					situation: 'just-lifted' as const
				}));
			return kept;
		}
	);
	return { lift: result, entryId, corrected: log !== null && corrects !== null };
}

/** Day on which the tree was set anew first after a lift; null where it was not yet. */
async function setFirstAfter(work: Work, treeId: string, liftedOn: string): Promise<string | null> {
	const set = [
		...(await plantings.list(work.tx, treeId)).map(({ plantedOn }) => plantedOn),
		...(await groundPlans.list(work.tx, treeId)).flatMap(({ hole, doneOn }) =>
			hole && doneOn ? [doneOn] : []
		)
	];
	return set.filter((on) => on >= liftedOn).sort()[0] ?? null;
}

/**
 * Puts what a lift leaves to be done on the list; what its log asked for before it was corrected, and asks no more, comes off. Of a tree that
 * was set since nobody is sent to cut its ends.
 * @throws Refusal 422 a lift that lies after its setting
 */
async function keepLeftBehind(
	work: Work,
	treeId: string,
	log: LiftLog,
	corrects: LiftLog | null
): Promise<void> {
	const asked = liftTasks(log, today());
	if (!corrects) return addTasks(work, treeId, asked);
	const setOn = await setFirstAfter(work, treeId, corrects.liftedOn);
	if (setOn !== null && log.liftedOn > setOn)
		throw invalid([{ field: 'log.liftedOn', message: `must not be after ${setOn}, when it was set` }]);
	const idle = liftTasks(corrects, today()).filter(
		({ source }) => !asked.some((one) => one.source === source)
	);
	for (const task of await tasks.list(work.tx, treeId))
		if (task.state === 'open' && idle.some(({ source }) => source === task.source))
			await work.remove(tasks, task.id, task.version);
	await addTasks(
		work,
		treeId,
		asked.filter(({ source }) => setOn === null || ruleOf(source) !== 'clean')
	);
}

/** Keeps a plan of ground works and puts its dated work on the list. @throws Refusal 404, 409, 422 */
export async function keepGroundPlan(
	store: Store,
	treeId: string,
	input: GroundPlanInput,
	at: { id: string; version: number } | null,
	values: Values
): Promise<{ plan: GroundPlan; entryId: string }> {
	const records = await loadRecords(store.db, treeId);
	/** Roots that are set in the ground are watered in at once. */
	const firstWater = (kept: GroundPlan): ReturnType<typeof proposeAftercare> =>
		kept.hole === null || kept.doneOn === null
			? []
			: proposeAftercare(
					{
						...records,
						tree: { ...records.tree, situation: 'in-ground' },
						groundPlans: [...records.groundPlans, kept]
					},
					{
						workOn: kept.doneOn,
						crownSchool: usualCrownSchool(records.kind.group),
						waterSchool: 'at-once'
					},
					values,
					true
				).filter(({ source }) => ruleOf(source) === 'first-water');
	const { result, entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'replant',
			...(input.doneOn && { on: input.doneOn }),
			what: input.doneOn ? 'Ground works done' : 'Ground works planned'
		},
		async (work) => {
			if (input.doneOn) refuseCare('doneOn', input.doneOn, records.tree);
			if (input.placeId && !(await places.get(work.tx, input.placeId)))
				throw invalid([{ field: 'placeId', message: 'must be a place of this yard' }]);
			const tree = await requireTree(work, treeId);
			if (at && !records.groundPlans.some((plan) => plan.id === at.id))
				throw new Refusal(404, 'This plan is not of this tree.', 'Load the page again.');
			const kept = at
				? await work.change(groundPlans, at.id, at.version, (before) => ({ ...before, ...input }))
				: await work.add(groundPlans, input);
			const setOn = kept.hole ? kept.doneOn : null;
			if (setOn !== null && (tree.situation !== 'in-ground' || kept.placeId !== null))
				await work.change(trees, treeId, tree.version, (before) => ({
					...before,
					situation: 'in-ground' as const,
					placeId: kept.placeId ?? before.placeId
				}));
			if (setOn !== null) {
				const moves = kept.placeId !== null && kept.placeId !== tree.placeId;
				await closeAnswered(work, treeId, moves ? ['planting', 'place'] : ['planting'], setOn);
				await askForEnds(work, records, setOn, values);
			}
			const segments = records.rootMap?.frame === 'ground' ? records.rootMap.segments : [];
			const amounts = groundAmounts(kept, records.tree.trunkDiameterMm, segments, values);
			// A plan that is done, or changed, takes its own open reminder off the list.
			for (const task of records.tasks)
				if (task.source === `ground.work@${kept.id}` && task.state === 'open')
					await work.remove(tasks, task.id, task.version);
			// The collar that was opened for cuts of these days is seen again by theirs.
			const seenAgain = (task: { kind: string; fromOn: string }): boolean =>
				task.kind === 'collar' &&
				records.tasks.some(
					(open) =>
						open.state === 'open' &&
						ruleOf(open.source) === 'collar-again' &&
						Math.abs(daysBetween(open.fromOn, task.fromOn)) <= values['work.togetherDays']
				);
			await addTasks(
				work,
				treeId,
				[...firstWater(kept), ...groundTasks(kept, amounts, values)].filter((task) => !seenAgain(task))
			);
			if (setOn !== null) await sayForecast(work, treeId, setOn, values);
			return kept;
		}
	);
	return { plan: result, entryId };
}
