import { inArray, sql } from 'drizzle-orm';
import type { AnySQLiteColumn } from 'drizzle-orm/sqlite-core';
import { addDays } from '../core/maths/calendar';
import type { Release } from '../core/vocabulary/task';
import type { ReleaseFacts } from '../core/aftercare/tasks/release';
import type { StandingKept } from '../core/tree/kept';
import { nextOf } from '../core/tree/next';
import type { FunctionLow, WaterState } from '../core/tree/water-state';
import { climateOf } from '../core/climate/normals';
import { bearsAlways, isTender, type Group } from '../core/vocabulary/kind';
import type { TodayTask } from '../core/vocabulary/task';
import type { TodayTree } from '../core/today/item';
import type { Tree } from '../core/take-in/tree';
import type { Values } from '../core/values/values';
import type { Reader, Store } from './db/database';
import { jsonRows } from './db/json-rows';
import * as tables from './db/schema';
import { damagedCount, sound, soundTree } from './records/sound';
import { kinds, places } from './records/records';

/** What the lists of the whole yard need of each tree: few columns, one query, however many readings there are. */

/** A tree as a row of the yard's list. */
export interface TreeRow extends Pick<
	Tree,
	'id' | 'tag' | 'name' | 'situation' | 'state' | 'plantCount' | 'takenInOn' | 'heightM'
> {
	kindName: string;
	group: Group;
	placeName: string;
	lastLookOn: string | null;
}

/** A row of the list of trees, with what comes next, in the words of the tree's own head. */
export interface ListedTree extends TreeRow {
	nextTask: string | null;
	nextOn: string | null;
}

/** Tasks that begin within so many days are read for Today. */
const AHEAD_DAYS = 7;

const { tree, kind, place, task, observation, examination, reductionPlan, cut, triage, planting, treeWater } =
	tables;

const summary = (db: Reader) => ({
	id: tree.id,
	tag: tree.tag,
	name: tree.name,
	situation: tree.situation,
	state: tree.state,
	plantCount: tree.plantCount,
	takenInOn: tree.takenInOn,
	heightM: tree.heightM,
	sharedPot: tree.sharedPot,
	// One index seek a tree, however many readings there are.
	lastLookOn: sql`nullif(max(
		coalesce((select max(${observation.observedOn}) from ${observation} where ${observation.treeId} = ${tree.id} and ${sound(db, 'observation', observation.id)}), ''),
		coalesce((select max(${examination.examinedOn}) from ${examination} where ${examination.treeId} = ${tree.id} and ${sound(db, 'examination', examination.id)}), '')
	), '')`
});

/** All trees as rows of the yard's lists. */
export const treeRows = (db: Reader): Promise<TreeRow[]> =>
	jsonRows<TreeRow>(
		db,
		{ ...summary(db), kindName: kind.commonName, group: kind.group, placeName: place.name },
		sql`from ${tree} join ${kind} on ${kind.id} = ${tree.kindId} join ${place} on ${place.id} = ${tree.placeId} where ${soundTree(db)} order by ${tree.tag}`
	);

/** @returns how many cases are closed, a count */
export const closedCases = async (db: Reader): Promise<number> =>
	(await treeRows(db)).filter(({ state }) => state !== 'in-care').length;

/** All trees with what comes next for each, by the one rule of its head. */
export async function listedTrees(store: Store, on: string, values: Values): Promise<ListedTree[]> {
	const [rows, inCare, later] = await Promise.all([
		treeRows(store.db),
		todayTreesKept(store, on),
		// What begins beyond the days that Today looks ahead: of each tree the first, what waits for the tree last. The plus keeps SQLite
		// to the index by tree: that of open tasks would be read through for each.
		jsonRows<TodayTask & { treeId: string }>(
			store.db,
			taskColumns,
			sql`from ${task} where ${task.id} in (select (select ${task.id} from ${task} where ${task.treeId} = ${tree.id} and ${task.state} = 'open' and ${sound(store.db, 'task', task.id)} and +${task.fromOn} > ${addDays(on, AHEAD_DAYS)}
				order by ${task.release} is not null, ${task.toOn}, ${task.id} limit 1) from ${tree} where ${tree.state} = 'in-care')`
		)
	]);
	const laterOf = new Map(
		later.map((one) => [one.treeId, { ...one, release: wholeRelease(parsedJson(one.release)) }])
	);
	const nextFor = new Map(
		inCare.map(({ tree: { id, takenInOn }, tasks, standing, facts, lastLookOn }) => {
			const beyond = laterOf.get(id);
			return [
				id,
				nextOf(beyond ? [...tasks, beyond] : tasks, standing, lastLookOn ?? takenInOn, facts, on, values)
			];
		})
	);
	return rows.map((row) => {
		const next = nextFor.get(row.id) ?? null;
		return { ...row, nextTask: next?.what ?? null, nextOn: next ? (next.on ?? on) : null };
	});
}

/** A JSON column comes as text or as what it says, by the way it was read. */
const parsedJson = <T>(value: T | string): T =>
	typeof value === 'string' ? (JSON.parse(value) as T) : value;

type TodayRow = TodayTree['tree'] & {
	kindId: string;
	placeId: string;
	lastLookOn: string | null;
};

const taskColumns = {
	id: task.id,
	version: task.version,
	treeId: task.treeId,
	kind: task.kind,
	title: task.title,
	reason: task.reason,
	stage: task.stage,
	fromOn: task.fromOn,
	toOn: task.toOn,
	minutes: task.minutes,
	everyDays: task.everyDays,
	release: task.release,
	source: task.source,
	state: task.state
};

let kept: {
	store: Store;
	on: string;
	writes: number;
	/** How many records were known not to be readable. */
	damaged: number;
	at: number;
	trees: TodayTree[];
} | null = null;
/** Read anew after a while in any case, since others may write too. */
const KEEP_MS = 30_000;
/** With more trees than this written on, all are read. */
const MOST_ANEW = 100;

/** `todayTrees`, of which only those are read anew that were written on here since. */
export async function todayTreesKept(store: Store, on: string): Promise<TodayTree[]> {
	const writes = store.writes();
	const damaged = damagedCount(store.db);
	const known = kept?.store === store && kept.damaged === damaged ? kept : null;
	const fresh = known?.on === on && Date.now() - known.at < KEEP_MS ? known : null;
	const touched = fresh && store.touchedSince(fresh.writes);
	if (!fresh || !touched || touched.size > MOST_ANEW) {
		const trees = await todayTrees(store.db, on);
		kept = { store, on, writes, damaged, at: Date.now(), trees };
		return trees;
	}
	if (touched.size === 0) return fresh.trees;
	const anew = await todayTrees(store.db, on, AHEAD_DAYS, [...touched]);
	const trees = [...fresh.trees.filter(({ tree: { id } }) => !touched.has(id)), ...anew].sort((a, b) =>
		a.tree.tag < b.tree.tag ? -1 : 1
	);
	kept = { store, on, writes, damaged, at: fresh.at, trees };
	return trees;
}

/** What was kept before steps waited for one another waits for none. */
const wholeRelease = (release: Release | null): Release | null =>
	release && { ...release, after: release.after ?? '' };

/** What is read: of these trees alone, or of all. */
type Among = (column: AnySQLiteColumn) => ReturnType<typeof sql>;

/** Trees in care, by tag. */
const inCareRows = (db: Reader, among: Among) =>
	jsonRows<TodayRow>(
		db,
		{ ...summary(db), kindId: tree.kindId, placeId: tree.placeId },
		sql`from ${tree} where ${tree.state} = 'in-care' and ${soundTree(db)} ${among(tree.id)} order by ${tree.tag}`
	);

const openTasks = (db: Reader, among: Among, toOn: string) =>
	jsonRows<TodayTask & { treeId: string }>(
		db,
		taskColumns,
		sql`from ${task} where ${task.state} = 'open' and ${sound(db, 'task', task.id)} and ${task.fromOn} <= ${toOn} ${among(task.treeId)} order by ${task.toOn}, ${task.id}`
	);

/** Day of the last cut of each tree. */
const lastCuts = (db: Reader, among: Among) =>
	jsonRows<{ treeId: string; on: string }>(
		db,
		{ treeId: reductionPlan.treeId, on: sql`max(${cut.doneOn})` },
		sql`from ${reductionPlan} join ${cut} on ${cut.ownerId} = ${reductionPlan.id} where ${cut.state} = 'done' and ${sound(db, 'plan', reductionPlan.id)} ${among(reductionPlan.treeId)} group by ${reductionPlan.treeId}`
	);

/** What was decided of each tree last. */
const lastDecisions = (db: Reader, among: Among) =>
	jsonRows<{ treeId: string } & NonNullable<TodayTree['lastDecision']>>(
		db,
		{
			treeId: triage.treeId,
			on: sql`max(${triage.decidedOn})`,
			decision: triage.decision,
			workedSince: sql`exists (select 1 from ${planting} where ${planting.treeId} = ${triage.treeId} and ${sound(db, 'planting', planting.id)} and ${planting.plantedOn} >= ${triage.decidedOn})`
		},
		sql`from ${triage} where ${sound(db, 'triage', triage.id)} ${among(triage.treeId)} group by ${triage.treeId}`
	);

/** What was seen since the work that open tasks follow from: the first look that met a condition stays the first. */
const looksWaitedFor = (db: Reader, among: Among) =>
	jsonRows<{ treeId: string } & ReleaseFacts['looks'][number]>(
		db,
		{
			treeId: observation.treeId,
			observedOn: observation.observedOn,
			buds: observation.buds,
			leafCover: observation.leafCover,
			leafState: observation.leafState,
			shootExtensionMm: observation.shootExtensionMm
		},
		sql`from ${observation} join (
			select ${task.treeId} as treeId, min(case when ${task.source} glob '*@????-??-??' then substr(${task.source}, -10) else '' end) as since
			from ${task} where ${task.state} = 'open' and ${task.release} is not null and ${sound(db, 'task', task.id)} ${among(task.treeId)} group by ${task.treeId}
		) waits on waits.treeId = ${observation.treeId} where ${observation.observedOn} >= waits.since and ${sound(db, 'observation', observation.id)} ${among(observation.treeId)}
		order by ${observation.treeId}, ${observation.observedOn}`
	);

const waterStates = (db: Reader, among: Among) =>
	jsonRows<{ treeId: string; state: WaterState | string }>(
		db,
		{ treeId: treeWater.treeId, state: treeWater.state },
		sql`from ${treeWater} where ${treeWater.state} is not null ${among(treeWater.treeId)}`
	);

const standingsKept = (db: Reader, among: Among) =>
	jsonRows<{ treeId: string; standing: StandingKept | string }>(
		db,
		{ treeId: treeWater.treeId, standing: treeWater.standing },
		sql`from ${treeWater} where ${treeWater.standing} is not null ${among(treeWater.treeId)}`
	);

/** The course of the roots, only where work waits for it: it is long. */
const rootCourses = (db: Reader, among: Among) =>
	jsonRows<{ treeId: string; functionLow: FunctionLow | string }>(
		db,
		{ treeId: treeWater.treeId, functionLow: treeWater.functionLow },
		sql`from ${treeWater} where true ${among(treeWater.treeId)} and ${treeWater.treeId} in
		(select ${task.treeId} from ${task} where ${task.state} = 'open' and ${task.release} like '%root-function%')`
	);

/** Steps of shelter that are closed: the next one waits for them. */
const shelterSteps = (db: Reader, among: Among) =>
	jsonRows<{ treeId: string; source: string; on: string }>(
		db,
		{ treeId: task.treeId, source: task.source, on: task.closedOn },
		sql`from ${task} where ${task.state} <> 'open' and ${task.source} like 'shelter-%' and ${sound(db, 'task', task.id)} ${among(task.treeId)} and ${task.treeId} in
		(select ${task.treeId} from ${task} where ${task.state} = 'open' and ${task.release} like '%"after":"shelter-%')`
	);

/** Rows by tree, in their order; their tree's id is left out. */
function byTree<T extends { treeId: string }>(rows: readonly T[]): Map<string, Omit<T, 'treeId'>[]> {
	const of = new Map<string, Omit<T, 'treeId'>[]>();
	for (const { treeId, ...row } of rows) {
		const list = of.get(treeId);
		if (list) list.push(row);
		else of.set(treeId, [row]);
	}
	return of;
}
const byId = <T extends { id: string }>(list: readonly T[]): Map<string, T> =>
	new Map(list.map((one) => [one.id, one]));

/**
 * What Today needs of every tree in care: its open tasks up to some days ahead, its last look and last cut.
 * @param only of these trees alone
 */
export async function todayTrees(
	db: Reader,
	on: string,
	aheadDays = AHEAD_DAYS,
	only: readonly string[] | null = null
): Promise<TodayTree[]> {
	const among: Among = (column) => (only ? sql`and ${inArray(column, [...only])}` : sql``);
	const [rows, allKinds, allPlaces, open, cuts, decisions, looks, states, standings, courses, steps] =
		await Promise.all([
			inCareRows(db, among),
			kinds.list(db),
			places.list(db),
			openTasks(db, among, addDays(on, aheadDays)),
			lastCuts(db, among),
			lastDecisions(db, among),
			looksWaitedFor(db, among),
			waterStates(db, among),
			standingsKept(db, among),
			rootCourses(db, among),
			shelterSteps(db, among)
		]);
	const [tasksOf, looksOf, stepsOf] = [byTree(open), byTree(looks), byTree(steps)];
	const waterOf = new Map(states.map((row) => [row.treeId, parsedJson(row.state)]));
	const standingOf = new Map(standings.map((row) => [row.treeId, parsedJson(row.standing)]));
	const lowOf = new Map(courses.map((row) => [row.treeId, parsedJson(row.functionLow)]));
	const decisionOf = new Map(decisions.map(({ treeId, ...entry }) => [treeId, entry]));
	const cutOf = new Map(cuts.map((entry) => [entry.treeId, entry.on]));
	const [kindOf, placeOf] = [byId(allKinds), byId(allPlaces)];
	return rows.flatMap(({ kindId, placeId, lastLookOn, ...row }) => {
		const kindFound = kindOf.get(kindId);
		const placeFound = placeOf.get(placeId);
		if (!kindFound || !placeFound) return [];
		const standing = standingOf.get(row.id) ?? null;
		return [
			{
				tree: row,
				kind: kindFound,
				place: placeFound,
				tasks: (tasksOf.get(row.id) ?? []).map((entry) => ({
					...entry,
					release: wholeRelease(parsedJson<Release | null>(entry.release))
				})),
				lastLookOn,
				// A lift takes roots as a cut does.
				lastCutOn:
					[cutOf.get(row.id), standing?.rootsCutOn]
						.filter((cutOn) => typeof cutOn === 'string')
						.sort()
						.at(-1) ?? null,
				lastDecision: decisionOf.get(row.id) ?? null,
				water: waterOf.get(row.id) ?? null,
				standing,
				facts: {
					looks: looksOf.get(row.id) ?? [],
					functionLow: lowOf.get(row.id) ?? [],
					evergreen: bearsAlways(kindFound),
					gate: standing?.gate ?? null,
					closed: stepsOf.get(row.id) ?? [],
					grows: { place: climateOf(placeFound), tender: isTender(kindFound) }
				}
			}
		];
	});
}
