import { midSentence } from '../core/text/mid-sentence';
import { eq, sql } from 'drizzle-orm';
import { answeredByExamination, answeredByMeasurement } from '../core/aftercare/tasks/result';
import { once, type DatedTask } from '../core/vocabulary/task';
import { factorNames, staggeredPlan, type ChangeInput, type Factor } from '../core/tree/changes';
import { addDays, daysBetween } from '../core/maths/calendar';
import { conditionOf } from '../core/vocabulary/conditions';
import type { Examination, ExaminationInput } from '../core/examine/diagnosis/examination';
import type { NeighbourCheck, YardNeighbour } from '../core/examine/diagnosis/neighbours';
import { howToLook, signOf } from '../core/vocabulary/signs';
import { toolNames, type Measurement, type MeasurementInput } from '../core/examine/measuring/measurement';
import { triageDecisionNames, type TriageInput } from '../core/examine/triage/triage';
import type { Values } from '../core/values/values';
import { closeAnswered, openTask } from './task-work';
import type { Reader, Store } from './db/database';
import { jsonRows } from './db/json-rows';
import * as tables from './db/schema';
import { today } from './clock';
import { invalid, notFound } from './errors';
import { contextFor, eventsTold } from '../core/tree/carried';
import { redFlags } from '../core/examine/diagnosis/red-flags';
import type { Tree } from '../core/take-in/tree';
import { readValues } from './settings';
import { impossibleIn } from '../core/examine/measuring/impossible';
import {
	rootMaps,
	bookEntries,
	examinations,
	factorChanges,
	measurements,
	tasks,
	trees,
	triages
} from './records/records';
import { doWork, type Work } from './records/work';
import { loadRecords } from './records/tree-records';
import { refuseDate, requireTree } from './trees';

/**
 * Keeps a look.
 * @param corrects a look that is corrected in its place
 * @throws Refusal 404, 409, 422
 */
export async function recordExamination(
	store: Store,
	treeId: string,
	input: ExaminationInput,
	corrects: { id: string; version: number } | null = null
): Promise<{ examination: Examination; entryId: string }> {
	const found = input.findings.filter((finding) => finding.grade > 0).length;
	const { result, entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'examine',
			on: input.examinedOn,
			what: `${corrects ? 'Corrected the look' : 'Examined'}: ${found} sign${found === 1 ? '' : 's'} found, ${input.findings.length - found} looked for and not there`
		},
		async (work) => {
			const tree = await requireTree(work, treeId);
			refuseDate('examinedOn', input.examinedOn, tree);
			const told = await Promise.all([
				measurements.list(work.tx, treeId),
				bookEntries.list(work.tx, treeId),
				rootMaps.list(work.tx, treeId)
			]);
			const known = new Set(told.flat().map((record) => record.id));
			const stray = input.findings.findIndex(
				(finding) => finding.measuredBy && !known.has(finding.measuredBy)
			);
			if (stray >= 0)
				throw invalid([
					{
						field: `findings.${stray}.measuredBy`,
						message: 'must be a measurement, an entry or the root map of this tree'
					}
				]);
			if (corrects && !(await examinations.list(work.tx, treeId)).some((one) => one.id === corrects.id))
				throw notFound('look');
			const kept = corrects
				? await work.change(examinations, corrects.id, corrects.version, (before) => ({
						...before,
						...input
					}))
				: await work.add(examinations, await withEventsOfDay(work, treeId, input));
			// What only the look before its correction asked for is asked for no more.
			if (corrects)
				for (const task of await tasks.list(work.tx, treeId))
					if (task.source === `referral@${kept.id}` && task.state === 'open')
						await work.remove(tasks, task.id, task.version);
			await closeAnswered(work, treeId, answeredByExamination(input), input.examinedOn);
			await raiseReferrals(work, tree, kept);
			return kept;
		}
	);
	return { examination: result, entryId };
}

/** A new look after work of the same day is seen after it: it says so itself, since of a kept look that work counts as what followed. */
async function withEventsOfDay(
	work: Work,
	treeId: string,
	input: ExaminationInput
): Promise<ExaminationInput> {
	const [records, values] = await Promise.all([loadRecords(work.tx, treeId), readValues(work.tx)]);
	const before = eventsTold(records, input.examinedOn, values, true);
	const ofDay = eventsTold(records, input.examinedOn, values).filter((event) => !before.includes(event));
	return { ...input, events: [...new Set([...input.events, ...ofDay])] };
}

/** What a look found that someone qualified has to see stays open, on every page and first on Today, until they said what they found. */
async function raiseReferrals(work: Work, tree: Tree, look: Examination): Promise<void> {
	const [records, values] = await Promise.all([loadRecords(work.tx, tree.id), readValues(work.tx)]);
	const { kind } = records;
	const place = records.places.find((candidate) => candidate.id === tree.placeId) ?? null;
	const { context } = contextFor(records, look.examinedOn, look.events, look.id, values);
	const open = new Set(records.tasks.filter((task) => task.state === 'open').map((task) => task.reason));
	for (const { title, reason, inDays } of redFlags({ tree, kind, place }, look, context, values))
		if (!open.has(reason))
			await addOpen(
				work,
				{
					kind: 'referral',
					title,
					reason,
					mark: 'trade',
					stage: 'examine',
					fromOn: look.examinedOn,
					toOn: addDays(look.examinedOn, inDays),
					minutes: 15
				},
				`referral@${look.id}`
			);
}

/** Keeps what a tool read, raw. @throws Refusal 404, 422 */
export async function recordMeasurement(
	store: Store,
	treeId: string,
	input: MeasurementInput
): Promise<{ measurement: Measurement; entryId: string }> {
	const { result, entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'examine',
			on: input.measuredOn,
			what: `Measured: ${toolNames[input.raw.tool].toLowerCase()}`
		},
		async (work) => {
			refuseDate('measuredOn', input.measuredOn, await requireTree(work, treeId));
			if (input.raw.tool === 'weighing' && input.raw.wateredOn > input.measuredOn)
				throw invalid([{ field: 'raw.wateredOn', message: 'must not be after the day of the weighing' }]);
			const impossible = impossibleIn(input.raw);
			if (impossible) throw invalid([{ field: `raw.${impossible.path}`, message: impossible.message }]);
			await closeAnswered(work, treeId, answeredByMeasurement(input.raw), input.measuredOn);
			return work.add(measurements, input);
		}
	);
	return { measurement: result, entryId };
}

/** Records of Examine that can be taken out, by what they are called. */
const removable = {
	look: examinations,
	measurement: measurements,
	decision: triages,
	change: factorChanges
} as const;
export type Removable = keyof typeof removable;

/** Takes a record out; undo brings it back. Looks that used a measurement keep what they found. @throws Refusal 404, 409 */
export async function removeFromExamine(
	store: Store,
	treeId: string,
	what: Removable,
	id: string,
	version: number
): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId, stage: 'examine', what: `Took a ${what} out` },
		async (work) => {
			const repository = removable[what];
			const owned = await repository.list(work.tx, treeId);
			if (!owned.some((record) => record.id === id)) throw notFound(what);
			// What a look asked for goes with it.
			for (const task of await tasks.list(work.tx, treeId))
				if (task.source === `referral@${id}` && task.state === 'open')
					await work.remove(tasks, task.id, task.version);
			return work.remove<{ id: string; version: number }>(repository, id, version);
		}
	);
	return entryId;
}

/** Keeps the decision before the work. @throws Refusal 404, 422 */
export async function recordTriage(store: Store, treeId: string, input: TriageInput): Promise<string> {
	const { entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'examine',
			on: input.decidedOn,
			what: `Decided before the work: ${triageDecisionNames[input.decision].toLowerCase()}`
		},
		async (work) => {
			refuseDate('decidedOn', input.decidedOn, await requireTree(work, treeId));
			if (
				input.secondTreeId &&
				(input.secondTreeId === treeId || !(await trees.get(work.tx, input.secondTreeId)))
			)
				throw invalid([{ field: 'secondTreeId', message: 'must be another tree of this yard' }]);
			return work.add(triages, input);
		}
	);
	return entryId;
}

/** Keeps what was changed about a tree on a day. @throws Refusal 404, 422 */
export async function recordChange(store: Store, treeId: string, input: ChangeInput): Promise<string> {
	const { entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'examine',
			on: input.changedOn,
			what: `Changed: ${input.factors.map((factor) => factorNames[factor]).join(', ')}`
		},
		async (work) => {
			refuseDate('changedOn', input.changedOn, await requireTree(work, treeId));
			return work.add(factorChanges, input);
		}
	);
	return entryId;
}

/** Names the tree that is left as it is, so that what was changed here can be told from what happened anyway. */
export async function nameTwin(store: Store, treeId: string, twinId: string): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId, stage: 'examine', what: 'Named a twin to compare with' },
		async (work) => {
			const tree = await requireTree(work, treeId);
			if (twinId === treeId || !(await trees.get(work.tx, twinId)))
				throw invalid([{ field: 'twinId', message: 'must be another tree of this yard' }]);
			return work.change(trees, treeId, tree.version, (before) => ({ ...before, referenceTreeId: twinId }));
		}
	);
	return entryId;
}

const addOpen = (work: Work, task: DatedTask, source: string) =>
	work.add(tasks, { ...once, ...task, ...openTask, source });

/** Makes dated tasks that change one thing at a time, each with its time of watching. */
export async function planOneByOne(
	store: Store,
	treeId: string,
	wanted: readonly Factor[],
	startOn: string,
	values: Values
): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId, stage: 'examine', what: `Planned ${wanted.length} changes, one by one` },
		async (work) => {
			await requireTree(work, treeId);
			for (const step of staggeredPlan(wanted, startOn, values))
				await addOpen(
					work,
					{
						kind: 'other',
						title: `Change one thing: ${factorNames[step.factor]}`,
						reason: `Nothing else for ${daysBetween(step.on, step.watchUntil)} days after it, so that its effect can be told.`,
						mark: 'ours',
						stage: 'examine',
						fromOn: step.on,
						toOn: addDays(step.on, 3),
						minutes: 15
					},
					`one-by-one.${step.factor}@${startOn}`
				);
		}
	);
	return entryId;
}

/** Trees in care that share place, batch, watering or the mix of the last planting with one, and that one itself. */
export async function treesAround(db: Reader, treeId: string): Promise<YardNeighbour[]> {
	const { tree, planting, observation, examination } = tables;
	const lastMix = sql`(select json_extract(${planting.mix}, '$.name') from ${planting} where ${planting.treeId} = ${tree.id} order by ${planting.plantedOn} desc limit 1)`;
	const [sick] = await db
		.select({
			placeId: tree.placeId,
			batch: tree.batch,
			watering: tree.watering,
			mixName: sql<string | null>`${lastMix}`
		})
		.from(tree)
		.where(eq(tree.id, treeId));
	if (!sick) throw notFound('tree');
	const columns = {
		id: tree.id,
		tag: tree.tag,
		name: tree.name,
		situation: tree.situation,
		placeId: tree.placeId,
		batch: tree.batch,
		watering: tree.watering,
		mixName: lastMix,
		lastLookOn: sql`nullif(max(
			coalesce((select max(${observation.observedOn}) from ${observation} where ${observation.treeId} = ${tree.id}), ''),
			coalesce((select max(${examination.examinedOn}) from ${examination} where ${examination.treeId} = ${tree.id}), '')
		), '')`
	};
	return jsonRows<YardNeighbour>(
		db,
		columns,
		sql`from ${tree} where ${tree.state} = 'in-care' and (${tree.id} = ${treeId} or ${tree.placeId} = ${sick.placeId}
			or (${sick.batch} <> '' and lower(${tree.batch}) = lower(${sick.batch}))
			or (${sick.watering} <> '' and lower(${tree.watering}) = lower(${sick.watering}))
			or (${sick.mixName} is not null and ${lastMix} = ${sick.mixName})) order by ${tree.tag} limit 500`
	);
}

/** Puts a check of each neighbour on Today, once a suspicion; those already there are left. */
export async function planNeighbourChecks(
	store: Store,
	sick: { id: string; tag: string },
	checks: readonly NeighbourCheck[]
): Promise<{ made: number; entryId: string }> {
	const { result, entryId } = await doWork(
		store,
		{ treeId: null, stage: 'examine', what: `Neighbours of ${sick.tag} to be checked` },
		async (work) => {
			let made = 0;
			for (const check of checks) {
				const source = `neighbour-of.${sick.id}@${check.conditionId}`;
				const standing = await tasks.list(work.tx, check.tree.id);
				if (standing.some((task) => task.source === source && task.state === 'open')) continue;
				await work.addFor(check.tree.id, tasks, {
					kind: 'neighbours' as const,
					title: `Check: ${signOf(check.signId).label}`.slice(0, 120),
					reason: `${sick.tag} may have ${midSentence(conditionOf(check.conditionId).label)} and shares its ${check.shares.join(' and ')}. ${howToLook(check.signId, check.tree.situation)}`,
					mark: 'trade' as const,
					stage: 'examine' as const,
					fromOn: today(),
					toOn: addDays(today(), 7),
					minutes: Math.max(1, Math.round(signOf(check.signId).minutes)),
					...once,
					...openTask,
					source
				});
				made++;
			}
			return made;
		}
	);
	return { made: result, entryId };
}
