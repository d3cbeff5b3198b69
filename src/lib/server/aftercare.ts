import { aliveOf } from '../core/tree/lot';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { answeredByLook, answeredByMeasurement, resultAsked } from '../core/aftercare/tasks/result';
import { aftercareTasks, firstBudsDays } from '../core/aftercare/tasks/rules';
import { overForGood } from '../core/aftercare/tasks/release';
import { ruleOf, workedOn } from '../core/aftercare/tasks/source';
import type { Schools, Task, TaskInput } from '../core/vocabulary/task';
import type { TreeRecords } from '../core/tree/case';
import { firstWaterOfPot } from '../core/tree/shared-pot';
import { addDays, daysBetween, YEAR_DAYS } from '../core/maths/calendar';
import { crownLeft } from '../core/aftercare/book/effects';
import { coldLimit, firstColdNight } from '../core/climate/cold-limit';
import type { Place } from '../core/vocabulary/place';
import { budsFrom, growsFrom } from '../core/climate/normals';
import { seasonFit } from '../core/climate/windows';
import { crownSupply, usualCrownSchool, usualWaterSchool } from '../core/aftercare/crown/crown';
import { counted } from '../core/text/plural';
import { count, id, measure, oneOf } from '../core/vocabulary/fields';
import { measurementInput } from '../core/examine/measuring/measurement';
import { moistureData } from '../core/examine/measuring/moisture';
import { observationInput } from '../core/examine/looks/observation';
import { budStates, firmnesses, smells } from '../core/examine/looks/seen-words';
import { bearsAlways, isTender } from '../core/vocabulary/kind';
import { isEvidence } from '../core/tree/fact';
import { lastRootWork } from '../core/tree/losses';
import { standingOf } from '../core/tree/standing';
import { asksForDryRest, urgentOf } from '../core/tree/urgent';
import { leavesBorne } from '../core/tree/tree-demand';
import { tooHeavyToWeigh } from '../core/tree/weights';
import type { Values } from '../core/values/values';
import { pouredL, wateringInput } from '../core/aftercare/water/watering';
import { today } from './clock';
import type { Reader, Store } from './db/database';
import * as tables from './db/schema';
import { invalid, notFound, Refusal } from './errors';
import { measurements, observations, tasks, trees, waterings } from './records/records';
import { doWork, doWorks, type Piece, type Work } from './records/work';
import { addFollowing, closeAnswered, closeInWork, openTask } from './task-work';
import { loadRecords, matesInPot } from './records/tree-records';
import { refuseCare, requireTree } from './trees';
import { matePieces, wateringPiece } from './water';

/** What is looked after on a tree that nobody worked on. */
const untouchedRules = new Set(['turning', 'suckers', 'repot-need', 'clear-growth', 'collar-again']);

/** Whether work at the roots on one day and what followed it on another are one piece of work. */
const workedTogether = (rootsOn: string, on: string, values: Values): boolean =>
	rootsOn <= on && daysBetween(rootsOn, on) <= values['work.togetherDays'];

/** Days on which it was set in a pot or in the ground, oldest first. */
const daysSet = ({ plantings, groundPlans }: Pick<TreeRecords, 'plantings' | 'groundPlans'>): string[] =>
	[
		...plantings.map(({ plantedOn }) => plantedOn),
		...groundPlans.flatMap(({ hole, doneOn }) => (hole && doneOn ? [doneOn] : []))
	].sort();

/**
 * The day that aftercare is counted from: of the last work at the roots, or of the setting that followed it close by; where neither was,
 * of planting or taking in.
 */
export function aftercareFrom(records: TreeRecords, values: Values): string {
	const rootsOn = lastRootWork(records, values)?.on ?? null;
	const setOn = daysSet(records).at(-1) ?? null;
	if (rootsOn === null) return setOn ?? records.tree.takenInOn;
	return setOn !== null && workedTogether(rootsOn, setOn, values) ? setOn : rootsOn;
}

/**
 * The tasks that a choice of schools would make for the last root work, without those already made.
 * @param beginning the work of that day is being written down just now
 */
export function proposeAftercare(records: TreeRecords, schools: Schools, values: Values, beginning = false) {
	const { tree, kind } = records;
	const last = lastRootWork(records, values);
	const place = records.places.find((candidate) => candidate.id === tree.placeId);
	// Set some days after the lift or the cuts, it is watered and looked after for all of it.
	const isSet = beginning || daysSet(records).includes(schools.workOn);
	const together =
		last?.on === schools.workOn || (isSet && workedTogether(last?.on ?? '', schools.workOn, values));
	const onTheDay = last && together ? last : null;
	const livingLoss = onTheDay?.livingLoss ?? 0;
	// Cut on the day of the work, or since.
	const leftOfCrown = crownLeft(
		records.book,
		addDays(schools.workOn, -1),
		addDays(schools.workOn, YEAR_DAYS)
	);
	const coldOn = (on: string): number =>
		coldLimit(
			{
				kind,
				place: place ?? null,
				lastCutOn: schools.workOn,
				inGround: tree.situation === 'in-ground',
				newShoots: 'none'
			},
			on,
			values
		).limitC;
	const proposed = aftercareTasks(
		{
			workOn: schools.workOn,
			group: kind.group,
			tender: isTender(kind),
			coldestC: kind.coldestC,
			inGround: tree.situation === 'in-ground',
			tooHeavy: tooHeavyToWeigh(records, schools.workOn, values),
			livingLoss,
			lifted: onTheDay !== null && onTheDay.by !== 'cut',
			rotWasCut: onTheDay?.rotWasCut ?? false,
			structuralCut: onTheDay?.structuralCut ?? false,
			collarWork:
				tree.situation === 'in-ground' &&
				onTheDay?.by === 'cut' &&
				// A collar that was opened for it brings its own looks.
				!records.groundPlans.some(
					({ collar, doneOn }) => collar && doneOn && workedTogether(doneOn, schools.workOn, values)
				),
			seasonFit: place ? seasonFit(kind, place, schools.workOn, values) : 'out-of-window',
			...leavesOn(records, place ?? null, schools.workOn, values),
			feedSeasonOn: place
				? growsFrom(place, isTender(kind), addDays(schools.workOn, values['aftercare.feedSlow']), values)
				: null,
			budsOn: place
				? budsFrom(
						place,
						isTender(kind),
						addDays(
							schools.workOn,
							firstBudsDays({ group: kind.group, tender: isTender(kind) }, values).from
						),
						values
					)
				: null,
			coldLimitC: coldOn(schools.workOn),
			coldFromOn: place ? firstColdNight(place, schools.workOn, coldOn, values) : null,
			crownSchool: schools.crownSchool,
			waterSchool: schools.waterSchool,
			crownTaken: 1 - leftOfCrown,
			crownExcess: crownSupply(1 - livingLoss, values, leftOfCrown).excess,
			nextStageOn: onTheDay?.nextStageOn ?? null,
			plantCount: aliveOf(records),
			suckers:
				records.rootMap?.segments.some((segment) => segment.flaws.includes('sucker')) === true ||
				records.examinations.some((look) =>
					look.findings.some((finding) => finding.signId === 'suckers' && finding.grade > 0)
				)
		},
		values
	);
	const made = new Set(records.tasks.map((task) => task.source));
	// What was made when the roots were worked on holds on when it is set; water begins anew.
	const madeThen = (rule: string): boolean =>
		onTheDay !== null && rule !== 'first-water' && made.has(`${rule}@${onTheDay.on}`);
	// Taken in and left as it is, it has no work to follow.
	const worked =
		beginning ||
		onTheDay !== null ||
		records.plantings.some((planting) => planting.plantedOn === schools.workOn) ||
		records.groundPlans.some((plan) => plan.doneOn === schools.workOn);
	return proposed
		.filter(({ rule }) => (worked || untouchedRules.has(rule)) && !madeThen(rule))
		.map(({ rule, ...task }) => ({
			...task,
			...(rule === 'first-water' && withPot(records, schools.workOn)),
			source: `${rule}@${schools.workOn}`
		}))
		.filter((task) => !made.has(task.source));
}

/** The first water that its pot waits for already: a pot has one. */
function withPot(
	records: Pick<TreeRecords, 'mates'>,
	workOn: string
): Pick<Task, 'kind' | 'title' | 'reason' | 'fromOn' | 'toOn'> | null {
	const pot = firstWaterOfPot(records, workOn);
	if (!pot) return null;
	const { kind, title, fromOn, toOn } = pot.task;
	const reason = `One pot has one first water: that which was planned for ${pot.tag}.`;
	return { kind, title, reason, fromOn, toOn };
}

/** What of it is still to be planned on a day, and what had its days by then. */
export function aftercareToMake(
	records: TreeRecords,
	schools: Schools,
	on: string,
	values: Values
): { toMake: ReturnType<typeof proposeAftercare>; over: ReturnType<typeof proposeAftercare> } {
	const proposed = proposeAftercare(records, schools, values);
	const isOver = (task: (typeof proposed)[number]): boolean => overForGood(task, on, values);
	return { toMake: proposed.filter((task) => !isOver(task)), over: proposed.filter(isOver) };
}

/** Whether it bore leaves on a day, as it was seen about then, else as its kind does; and when bare twigs usually come into leaf. */
function leavesOn(
	records: TreeRecords,
	place: Place | null,
	on: string,
	values: Values
): { inLeaf: boolean; leafOutOn: string | null } {
	const { kind } = records;
	if (!place || bearsAlways(kind)) return { inLeaf: true, leafOutOn: null };
	const calendar = leavesBorne(records, place, values);
	const { leafCover } = standingOf(records, on, values);
	const seen =
		leafCover.value !== null &&
		leafCover.on !== null &&
		isEvidence(leafCover.known) &&
		daysBetween(leafCover.on, on) <= values['decision.waterKnownDays']
			? leafCover.value > 0
			: null;
	if (seen ?? calendar(on)) return { inLeaf: true, leafOutOn: null };
	for (let day = 0; day < 365; day++) {
		const then = addDays(on, day);
		if (calendar(then)) return { inLeaf: false, leafOutOn: then };
	}
	return { inLeaf: false, leafOutOn: null };
}

/** School on the first water that its work asks for, or what a look that presses says of water. */
export function waterSchoolOf(records: TreeRecords, on: string, values: Values) {
	const work = lastRootWork(records, values);
	const wet = (work?.rotWasCut ?? false) || asksForDryRest(urgentOf(records, on, values));
	return usualWaterSchool(records.kind.group, wet, work?.livingLoss ?? 0, values);
}

/** Looks and checks that follow from the work itself, whatever school is chosen for the aftercare. */
const lookRules = new Set([
	'rot-recheck',
	'neighbours',
	'first-buds',
	'clear-growth',
	'collar-again',
	'arborist',
	'next-stage'
]);

/** The next looks after root work on a day, without those already planned. */
export function nextLooks(records: TreeRecords, workOn: string, values: Values) {
	const { group } = records.kind;
	const schools = {
		workOn,
		crownSchool: usualCrownSchool(group),
		waterSchool: waterSchoolOf(records, workOn, values)
	};
	return proposeAftercare(records, schools, values).filter((task) =>
		lookRules.has(task.source.split('@')[0] ?? '')
	);
}

/**
 * Makes the aftercare of a day's work. The same rule for the same day is never made twice.
 * @param on day of planning: what had its days before it is not made
 */
export async function makeAftercare(
	store: Store,
	treeId: string,
	schools: Schools,
	values: Values,
	on = today()
): Promise<string> {
	const records = await loadRecords(store.db, treeId);
	refuseCare('workOn', schools.workOn, records.tree);
	const { toMake, over } = aftercareToMake(records, schools, on, values);
	if (toMake.length === 0)
		throw new Refusal(
			409,
			over.length > 0
				? 'What is not planned of this aftercare had its days before today.'
				: 'All of this aftercare is planned already.',
			'Choose another day of work, or add a task by hand.'
		);
	const { entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'aftercare',
			what: `Aftercare planned: ${counted(toMake.length, 'task')}; crown: ${schools.crownSchool === 'balance' ? 'balance it' : 'keep the leaves'}, water: ${schools.waterSchool === 'at-once' ? 'at once' : 'dry first'}`
		},
		async (work) => {
			await requireTree(work, treeId);
			await addFollowing(work, treeId, toMake);
		}
	);
	return entryId;
}

/** Writes a task down by hand. */
export async function addTask(store: Store, treeId: string, input: TaskInput): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId, stage: input.stage, what: `Planned: ${input.title}` },
		async (work) => {
			await requireTree(work, treeId);
			return work.add(tasks, { ...input, ...openTask, source: '' });
		}
	);
	return entryId;
}

export interface TaskClosing {
	taskId: string;
	version: number;
	/** done, or skipped with a reason. */
	state: 'done' | 'skipped';
	skipReason: string;
	/** Of work that comes up again: not any more. */
	ends?: boolean;
	on: string;
	/** Day from which work that comes up again is planned, where its next days are over too. */
	againFrom?: string;
	/** What came of it: of a referral, who said what; otherwise filed as the record it is. */
	result?: string;
	/** 'watering': of work that asks for one, that it was watered; of other work nothing. */
	found?: TaskResult | 'watering' | null;
}

/** What a task asked for, as it is filed. */
export const taskResult = z.discriminatedUnion('kind', [
	z.strictObject({ kind: z.literal('buds'), buds: oneOf(budStates) }),
	z.strictObject({ kind: z.literal('weight'), weightKg: measure(0.01, 5000, 'kg') }),
	moistureData.safeExtend({ kind: z.literal('felt') }),
	z.strictObject({ kind: z.literal('smell'), smell: oneOf(smells) }),
	z.strictObject({ kind: z.literal('firmness'), firmness: oneOf(firmnesses) }),
	z.strictObject({ kind: z.literal('watering'), litres: pouredL().nullable() })
]);
export type TaskResult = z.infer<typeof taskResult>;

/** Files the answer to a task as the look or the watering that it is. */
async function fileResult(
	work: Work,
	treeId: string,
	task: Task,
	{ state, found, on }: TaskClosing
): Promise<void> {
	const asked = resultAsked(task);
	const answer =
		found === 'watering'
			? asked === 'watering'
				? ({ kind: 'watering', litres: null } as const)
				: null
			: found;
	if (state !== 'done' || !answer) return;
	if (answer.kind !== asked) throw invalid([{ field: 'found', message: 'must be what this task asks for' }]);
	if (answer.kind === 'watering') {
		await work.add(waterings, wateringInput.parse({ wateredOn: on, litres: answer.litres }));
		return;
	}
	if (answer.kind === 'felt') {
		const { kind: _felt, ...data } = answer;
		const felt = measurementInput.parse({ measuredOn: on, raw: { tool: 'moisture', ...data } });
		await work.add(measurements, felt);
		await closeAnswered(work, treeId, answeredByMeasurement(felt.raw), on);
		return;
	}
	const { kind: _kind, ...seen } = answer;
	const look = observationInput.parse({ observedOn: on, ...seen });
	await work.add(observations, look);
	await closeAnswered(work, treeId, answeredByLook(look), on);
}

/**
 * Closes a task as done or skipped; one that comes up again is planned anew. Watered, it was so for all in its pot.
 * @returns entries that undo takes back together
 * @throws Refusal 404, 409, 422 (skipped without a reason)
 */
export async function closeTask(store: Store, treeId: string, closing: TaskClosing): Promise<string[]> {
	const task = await tasks.get(store.db, closing.taskId);
	const watered =
		closing.state === 'done' &&
		(closing.found ?? null) !== null &&
		task !== null &&
		resultAsked(task) === 'watering';
	return doWorks(store, [
		await closingOf(store, treeId, closing),
		...(watered ? await matePieces(store.db, [treeId], closing.on, ['watering']) : [])
	]);
}

async function closingOf(store: Store, treeId: string, closing: TaskClosing): Promise<Piece> {
	if (closing.state === 'skipped' && closing.skipReason.trim() === '')
		throw invalid([{ field: 'skipReason', message: 'must say why it is skipped' }]);
	const [owned] = await store.db
		.select({ treeId: tables.task.treeId })
		.from(tables.task)
		.where(eq(tables.task.id, closing.taskId));
	const before = owned?.treeId === treeId ? await tasks.get(store.db, closing.taskId) : null;
	if (!before) throw notFound('task');
	// Work that follows other work was not done before it.
	const follows = workedOn(before.source);
	if (closing.state === 'done' && follows !== null && closing.on < follows)
		throw invalid([
			{ field: 'on', message: `must not be before ${follows}, the day of the work it follows` }
		]);
	if (closing.state === 'done' && resultAsked(before) === 'referral' && (closing.result ?? '').trim() === '')
		throw invalid([
			{
				field: 'result',
				message: 'must say who looked at it, when, and what they said; it stays open until then'
			}
		]);
	return {
		told: {
			treeId,
			stage: before.stage,
			on: closing.on,
			what: `${closing.state === 'done' ? 'Done' : 'Skipped'}: ${before.title}`
		},
		work: async (work) => {
			refuseCare('on', closing.on, await requireTree(work, treeId));
			await closeInWork(work, closing.taskId, closing.version, closing);
			await fileResult(work, treeId, before, closing);
			if (closing.state === 'skipped') await skipWhatFollows(work, treeId, before, closing);
		}
	};
}

/** What never went on does not come off. */
async function skipWhatFollows(
	work: Work,
	treeId: string,
	task: Task,
	{ skipReason, on }: TaskClosing
): Promise<void> {
	if (ruleOf(task.source) !== 'shelter-on') return;
	const day = workedOn(task.source);
	for (const one of await tasks.list(work.tx, treeId))
		if (
			one.state === 'open' &&
			workedOn(one.source) === day &&
			['shelter', 'shelter-half'].includes(ruleOf(one.source))
		)
			await closeInWork(work, one.id, one.version, { state: 'skipped', skipReason, on });
}

/** What one touch closes or waters, for several trees at once. */
export const togetherInput = z.strictObject({
	tasks: z
		.array(z.strictObject({ treeId: id(), taskId: id(), version: count(1, 1_000_000_000) }))
		.max(200, { error: 'must be at most 200 tasks at once' }),
	waterings: z
		.array(z.strictObject({ treeId: id(), litres: pouredL().nullable() }))
		.max(200, { error: 'must be at most 200 waterings at once' })
});
export type TogetherInput = z.infer<typeof togetherInput>;

/** Of trees to be watered, those to write it down for: what stands in one pot is watered once. */
async function oncePerPot(db: Reader, treeIds: readonly string[]): Promise<Set<string>> {
	const pours = new Set<string>();
	const covered = new Set<string>();
	for (const treeId of treeIds) {
		if (covered.has(treeId)) continue;
		pours.add(treeId);
		const own = await trees.get(db, treeId);
		for (const mate of own ? await matesInPot(db, own) : []) covered.add(mate.id);
	}
	return pours;
}

/** Closes tasks and writes waterings of several trees, all or none. @returns entries that undo takes back together */
export async function doTogether(store: Store, input: TogetherInput, on: string): Promise<string[]> {
	if (input.tasks.length + input.waterings.length === 0)
		throw invalid([{ field: 'tasks', message: 'must name at least one piece of work' }]);
	const asked = await Promise.all(input.tasks.map(({ taskId }) => tasks.get(store.db, taskId)));
	const asksWater = (i: number): boolean => {
		const task = asked[i];
		return task !== null && task !== undefined && resultAsked(task) === 'watering';
	};
	const pours = await oncePerPot(store.db, [
		...input.tasks.filter((_, i) => asksWater(i)).map((one) => one.treeId),
		...input.waterings.map((one) => one.treeId)
	]);
	const pouredFor = [...pours];
	const closings = await Promise.all(
		input.tasks.map(({ treeId, taskId, version }, i) =>
			closingOf(store, treeId, {
				taskId,
				version,
				state: 'done',
				skipReason: '',
				on,
				// Watered by one touch is watered, how much nobody measured; a tree, or its pot, once.
				found: asksWater(i) && pours.delete(treeId) ? 'watering' : null
			})
		)
	);
	const poured = input.waterings.filter((one) => pours.has(one.treeId));
	const mates = await matePieces(store.db, pouredFor, on, ['watering']);
	// A task of a mate that is closed here by itself is not closed twice.
	const closing = new Set(input.tasks.filter((_, i) => asksWater(i)).map((one) => one.treeId));
	return doWorks(store, [
		...closings,
		...poured.map(({ treeId, litres }) =>
			wateringPiece(treeId, wateringInput.parse({ wateredOn: on, litres }))
		),
		...mates.filter(({ told }) => told.treeId === null || !closing.has(told.treeId))
	]);
}
