import { and, eq } from 'drizzle-orm';
import { newId } from './acting';
import { bearsAlways, isTender } from '../core/vocabulary/kind';
import type { Place } from '../core/vocabulary/place';
import { addDays, daysBetween } from '../core/maths/calendar';
import { seasonFit } from '../core/climate/windows';
import type { TreeRecords } from '../core/tree/case';
import { backupKindNames, type BackupKind } from '../core/vocabulary/backup-kinds';
import {
	backupEventNames,
	tooMany,
	worthKeeping,
	backupStanding,
	type Backup,
	type BackupInput
} from '../core/recovery/backup';
import { byForecast, decisionsDue, type DueDecision } from '../core/recovery/decisions';
import { recoveryForecast } from '../core/recovery/forecast';
import { shootsMean, type Observation, type ObservationInput } from '../core/examine/looks/observation';
import { recoveryCase, type Around, recoverySince } from '../core/tree/recovery-case';
import type { RecoveryOf } from '../core/tree/recovery-of';
import { decisionNames, type DecisionInput, type SaidForecast } from '../core/recovery/said';
import { leavesOut, seasonPoint, seasonsOf } from '../core/recovery/season';
import { shootGrowth } from '../core/recovery/shoot-growth';
import { unlikelyIn } from '../core/recovery/unlikely';
import { verdict } from '../core/recovery/verdict';
import { answeredByLook, tasksAnswered } from '../core/aftercare/tasks/result';
import { gateOf, releaseFacts } from '../core/tree/gate';
import { outSince, standingOf } from '../core/tree/standing';
import { rootLosses, stoodLoss } from '../core/tree/losses';
import { tooHeavyToWeigh } from '../core/tree/weights';
import { openFlags } from '../core/aftercare/tasks/flags';
import { openCausesOf, pressingOf } from '../core/tree/urgent';
import { setSince, sinceParts, tiedNow } from '../core/tree/held';
import { looksSeen, looksSince } from '../core/tree/looks';
import { isAlarm, isOfItself, isUnanswered } from '../core/aftercare/tasks/pressing';
import { isOverdue } from '../core/today/task-items';
import type { Tree, TreeInput } from '../core/take-in/tree';
import type { Values } from '../core/values/values';
import { leafCalendar } from '../core/tree/tree-demand';
import type { FunctionEstimate } from '../core/aftercare/water/root-function';
import { functionLowOf, functionWeighed, type WaterOfTree } from '../core/tree/water-state';
import type { SeriesDay } from '../core/climate/series';
import { today } from './clock';
import type { Reader, Store } from './db/database';
import * as tables from './db/schema';
import { invalid, notFound, Refusal } from './errors';
import { backups, decisions, observations, saidForecasts, trees } from './records/records';
import { doReckoned } from './records/reckoned';
import { doWork, doWorks, type Piece, type Work } from './records/work';
import { readValues } from './settings';
import { closeAnswered } from './task-work';
import { loadRecords } from './records/tree-records';
import { referenceShootMm, refuseCare, refuseDate, requireTree, takeInPiece } from './trees';
import { refuseUnlikely, waterFor } from './water';
import { placeSeries } from './weather';

/** The tree that this one is compared with, and what was seen of it; null when none is named. */
export async function twinOf(
	db: Reader,
	tree: Tree
): Promise<{ name: string; observations: Observation[] } | null> {
	const twin = tree.referenceTreeId ? await trees.get(db, tree.referenceTreeId) : null;
	return twin && { name: `${twin.tag} ${twin.name}`, observations: await observations.list(db, twin.id) };
}

/** Tag of the tree that this one is compared with; null where none is named. */
const referenceTag = async (db: Reader, { referenceTreeId }: Tree): Promise<string | null> =>
	referenceTreeId ? ((await trees.get(db, referenceTreeId))?.tag ?? null) : null;

/** Weather reaches back over the seasons since the work, but no further than this. */
const BACK_DAYS = 800;

/** @returns null where its place is not known */
export async function recoveryOf(
	db: Reader,
	records: TreeRecords,
	values: Values
): Promise<RecoveryOf | null> {
	const { tree } = records;
	const place = records.places.find((candidate) => candidate.id === tree.placeId);
	if (!place) return null;
	const on = tree.closedOn ?? today();
	const [reference, water, series] = await Promise.all([
		referenceShootMm(db, records),
		waterFor(db, records, values),
		weatherBack(db, place, on, values)
	]);
	return judged(
		records,
		{
			place,
			series,
			course: weighedCourse(water),
			referenceShootMm: reference,
			referenceUnmeasured: reference === null ? await referenceTag(db, tree) : null
		},
		// Of a closed case nothing is to be decided any more.
		tree.state === 'in-care' ? knownDryness(water, on, values) : null,
		on,
		values
	);
}

/** Root function by its weighings; without a pair of them that tells it nothing is known by weight. */
const weighedCourse = (water: WaterOfTree | null): readonly FunctionEstimate[] =>
	water?.pot?.told.length ? water.pot.course : [];

/** How dry its pot is, when somebody poured, weighed or felt it lately; what is only reckoned gives no advice. */
const knownDryness = (water: WaterOfTree | null, on: string, values: Values): number | null =>
	water?.pot?.knownOn && daysBetween(water.pot.knownOn, on) <= values['decision.waterKnownDays']
		? water.pot.next.dryness
		: null;

const weatherBack = async (
	db: Reader,
	place: Place,
	on: string,
	values: Values
): Promise<readonly SeriesDay[]> =>
	(await placeSeries(db, addDays(on, -BACK_DAYS), on, values)).get(place.id)?.series ?? [];

/** Since when its roots are in the air or wrapped; nothing of a tree that stands or is heeled in. */
function outOf(records: TreeRecords, on: string, values: Values): Pick<RecoveryOf['facts'], 'outOn'> {
	if (records.tree.situation !== 'just-lifted') return {};
	const out = outSince(standingOf(records, on, values));
	return out && out.how !== 'heeled-in' ? { outOn: out.on } : {};
}

/** Since when it is held against what was seen, or set anew; nothing where it is neither. */
function heldOf(
	records: TreeRecords,
	on: string,
	values: Values
): Pick<RecoveryOf['facts'], 'heldOn' | 'setOn'> {
	return sinceParts(setSince(records, standingOf(records, on, values)));
}

function judged(
	records: TreeRecords,
	around: Around,
	dryness: number | null,
	on: string,
	values: Values
): RecoveryOf {
	const { tree, kind, plan } = records;
	const { place, series, course, referenceShootMm: reference } = around;
	const observations = looksSeen(records, values);
	const tender = isTender(kind);
	const since = recoverySince(records, values);
	const looks = looksSince(records, since, values);
	const seasons = seasonsOf(place, tender, since.on, on, values);
	const season = seasonPoint(seasons, on, since.on, series, values);
	const latest = seasons.filter(({ span }) => span.from <= on).at(-1)?.span ?? null;
	const stagesLeft = new Set(plan?.cuts.filter((cut) => cut.state === 'planned').map((cut) => cut.stage))
		.size;
	const weighed = functionWeighed(course);
	const inLeaf = leafCalendar(kind, place, values);
	const causes = openCausesOf(records, on, values);
	const tasksWaitFor = releaseFacts(records, functionLowOf(course), reference, values);
	// Cuttings that nobody struck, and neighbours nobody looked at, say nothing of how it does.
	const ofItself = records.tasks.filter(isOfItself);
	const judgement = verdict(
		{
			today: on,
			situation: tree.situation,
			tooHeavy: tooHeavyToWeigh(records, on, values),
			trunkDiameterMm: tree.trunkDiameterMm,
			stoodLoss: stoodLoss(records, values),
			sinceOn: since.on,
			worked: since.what !== 'taking-in',
			observations: looks,
			referenceShootMm: reference,
			referenceUnmeasured: around.referenceUnmeasured ?? null,
			rootFunction: weighed && { phi: weighed.phi, low: weighed.low, high: weighed.high },
			weighedOn: weighed?.weighedOn ?? null,
			seasons: seasons.map(({ span }) => span),
			// Leaves that came since a look of the usual round are no look that was missed.
			leaflessNow: !inLeaf(on) || !inLeaf(addDays(on, -values['look.routineDays'])),
			leaflessOn: observations.map((look) => look.observedOn).filter((lookedOn) => !inLeaf(lookedOn)),
			partlyOn: bearsAlways(kind)
				? []
				: looks
						.map(({ observedOn }) => observedOn)
						.filter(
							(day) =>
								leavesOut(seasonPoint(seasons, day, since.on, series, values).progress, values) <
								values['forecast.inLeaf']
						),
			openAlarms: ofItself.filter((task) => isAlarm(task, on, values)).length,
			// What Today brings up as late, and what is over for good, nobody has answered.
			unanswered: ofItself.filter(
				(task) =>
					!isAlarm(task, on, values) &&
					(isUnanswered(task, on, values) || isOverdue(task, tasksWaitFor, on, values))
			).length,
			flags: openFlags(records.tasks),
			causes,
			...heldOf(records, on, values),
			tied: tiedNow(records),
			stagesLeft
		},
		values
	);
	const said = records.forecasts.filter((one) => one.occasion === 'look');
	return {
		case: recoveryCase(records, around, on, values),
		facts: {
			today: on,
			sinceOn: since.on,
			worked: since.what !== 'taking-in',
			seasonBeganOn: latest?.from ?? null,
			inSeason: season.progress > 0,
			evergreen: bearsAlways(kind),
			potted: tree.situation === 'potted',
			tender,
			heightMm: tree.heightM === null ? null : tree.heightM * 1000,
			observations: looks,
			probabilityBefore: said.at(-2)?.probability ?? said.at(-1)?.probability ?? null,
			dryness,
			gate: gateOf(records, reference, values),
			stagesLeft,
			referenceShootMm: reference,
			flags: openFlags(records.tasks),
			causes: pressingOf(records, on, values),
			overdue: records.tasks.filter(
				(task) => task.state === 'open' && task.release === null && task.toOn < on
			).length,
			reEstablished: judgement.reEstablished,
			...outOf(records, on, values),
			...heldOf(records, on, values)
		},
		verdict: judgement,
		season,
		growth: shootGrowth(
			observations,
			seasonsOf(place, tender, tree.takenInOn, on, values).map(({ span }) => span),
			series,
			values
		),
		nearSeason: seasons.some(({ span }) => span.from <= addDays(on, 42) && span.to >= on),
		since
	};
}

/** The decisions that are due on a tree, with the probability they rest on. */
export function decisionsOf(of: RecoveryOf, values: Values): { probability: number; due: DueDecision[] } {
	const forecast = recoveryForecast(of.case, values, { bands: false });
	return {
		probability: forecast.now,
		due: decisionsDue({ ...of.facts, ...byForecast(forecast) }, values)
	};
}

/** What is forecast after a work or a look, to be judged when its horizon has come; null of a tree that is not in care. */
export async function forecastSaid(
	db: Reader,
	records: TreeRecords,
	occasion: 'work' | 'look',
	on: string,
	values: Values
): Promise<Omit<SaidForecast, 'id' | 'version'> | null> {
	const place = records.places.find((candidate) => candidate.id === records.tree.placeId);
	if (!place || records.tree.state !== 'in-care') return null;
	// On the day of the work nothing was seen of it yet.
	const series = occasion === 'look' ? await weatherBack(db, place, on, values) : [];
	const course = occasion === 'look' ? weighedCourse(await waterFor(db, records, values)) : [];
	const around = { place, series, course, referenceShootMm: await referenceShootMm(db, records) };
	const of = recoveryCase(records, around, on, values);
	const { now, horizonOn } = recoveryForecast(of, values, { bands: false });
	const taken = rootLosses(records, values)
		.done.filter((loss) => loss.by === 'cut' && loss.on === of.sinceOn)
		.reduce((sum, loss) => sum + loss.share, 0);
	return {
		saidOn: on,
		occasion,
		probability: Math.round(now * 1000) / 1000,
		horizonOn,
		context:
			occasion === 'work'
				? {
						livingLoss: Math.min(1, Math.round(taken * 1000) / 1000),
						seasonFit: seasonFit(records.kind, place, on, values)
					}
				: null
	};
}

/** Says a forecast after a work that was just written. */
export async function sayForecast(work: Work, treeId: string, on: string, values: Values): Promise<void> {
	const said = await forecastSaid(work.tx, await loadRecords(work.tx, treeId), 'work', on, values);
	if (said) await work.add(saidForecasts, said);
}

/** @throws Refusal 422 a look that cannot be of this tree */
function refuseLook(
	records: TreeRecords,
	look: ObservationInput,
	correctsId: string | null,
	values: Values
): void {
	const { tree, kind, places } = records;
	refuseCare('observedOn', look.observedOn, tree);
	if (look.observedOn < tree.takenInOn)
		throw invalid([
			{ field: 'observedOn', message: `must not be before ${tree.takenInOn}, when it was taken in` }
		]);
	if (look.lostCount !== null && look.lostCount > tree.plantCount)
		throw invalid([
			{ field: 'lostCount', message: `must not be more than the ${tree.plantCount} of the lot` }
		]);
	if (look.sample && look.sample.looked > tree.plantCount)
		throw invalid([
			{ field: 'sample.looked', message: `must not be more than the ${tree.plantCount} of the lot` }
		]);
	const earlier = records.observations.filter((one) => one.id !== correctsId);
	if (correctsId !== null && earlier.length === records.observations.length) throw notFound('look');
	if (look.note === '' && look.weightKg !== null)
		refuseUnlikely(
			records,
			{ field: 'weightKg', kg: look.weightKg, on: look.observedOn, exceptId: correctsId },
			values
		);
	const place = places.find((candidate) => candidate.id === tree.placeId);
	const spans = place
		? seasonsOf(place, isTender(kind), look.observedOn, look.observedOn, values).map(({ span }) => span)
		: [];
	const unlikely = unlikelyIn(look, earlier, spans, values);
	if (unlikely.length > 0) throw invalid(unlikely);
}

/** Keeps a look. Single shoots give the mean. @throws Refusal 404, 422 */
export async function recordLook(
	store: Store,
	treeId: string,
	input: ObservationInput,
	say = true,
	corrects: { id: string; version: number } | null = null
): Promise<{ observation: Observation; entryId: string }> {
	const values = await readValues(store.db);
	const mean = shootsMean(input.shootsMm);
	const look = mean ? { ...input, shootExtensionMm: Math.round(mean.meanMm * 10) / 10 } : input;
	const id = corrects?.id ?? newId();
	const answers = answeredByLook(look);
	/** As the look leaves what stood before: what the form does not carry over stays as it was. */
	const over = (before: Observation | undefined): Omit<Observation, 'id' | 'version'> => ({
		...before,
		...look,
		...(before &&
			look.shootsMm.length === 0 &&
			look.shootExtensionMm === null && {
				shootsMm: before.shootsMm,
				shootExtensionMm: before.shootExtensionMm
			}),
		sample: look.sample ?? before?.sample ?? null,
		lostCount: look.lostCount ?? before?.lostCount ?? null
	});
	const { result, entryId } = await doReckoned(
		store,
		{
			treeId,
			stage: 'recovery',
			on: input.observedOn,
			what: corrects ? `Corrected the look of ${input.observedOn}` : 'Looked at it and measured'
		},
		async (records) => {
			refuseLook(records, look, corrects?.id ?? null, values);
			if (!say || input.observedOn !== today()) return null;
			const standing = records.observations.find((one) => one.id === id);
			const kept: Observation = { ...over(standing), id, version: (standing?.version ?? 0) + 1 };
			const closed = new Set(tasksAnswered(records.tasks, answers, input.observedOn).map((task) => task.id));
			const after: TreeRecords = {
				...records,
				observations: standing
					? records.observations.map((one) => (one === standing ? kept : one))
					: [...records.observations, kept],
				tasks: records.tasks.map((task) => (closed.has(task.id) ? { ...task, state: 'done' } : task))
			};
			after.observations.sort((a, b) => a.observedOn.localeCompare(b.observedOn));
			return forecastSaid(store.db, after, 'look', input.observedOn, values);
		},
		async (work, said) => {
			const kept = corrects
				? await work.change(observations, corrects.id, corrects.version, (before) => ({
						...before,
						...over(before)
					}))
				: await work.add(observations, over(undefined), id);
			await closeAnswered(work, treeId, answers, input.observedOn);
			if (said) await work.add(saidForecasts, said);
			return kept;
		}
	);
	return { observation: result, entryId };
}

/** Writes a decision down with the evidence as it stands. @throws Refusal 404, 409, 422 */
export async function recordDecision(store: Store, treeId: string, input: DecisionInput): Promise<string> {
	const values = await readValues(store.db);
	const records = await loadRecords(store.db, treeId);
	const of = await recoveryOf(store.db, records, values);
	if (!of) throw notFound('place');
	const { probability, due } = decisionsOf(of, values);
	const advised = due.find((one) => one.kind === input.advised);
	if (!advised)
		throw new Refusal(
			409,
			'That is no longer what is due.',
			'Load the page again: something was written since.'
		);
	const { entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'recovery',
			on: input.decidedOn,
			what:
				input.decided === input.advised
					? `Decided: ${decisionNames[input.decided].toLowerCase()}`
					: `Decided otherwise: ${decisionNames[input.decided].toLowerCase()}, against ${decisionNames[input.advised].toLowerCase()}`
		},
		async (work) => {
			refuseCare('decidedOn', input.decidedOn, await requireTree(work, treeId));
			return work.add(decisions, {
				...input,
				because: advised.evidence.join(' ').slice(0, 1000),
				probability: Math.round(probability * 1000) / 1000
			});
		}
	);
	return entryId;
}

/** Writes cuttings or divisions down. @throws Refusal 404, 422 */
export async function addBackup(store: Store, treeId: string, input: BackupInput): Promise<string> {
	const { entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'recovery',
			on: input.takenOn,
			what: `Backup taken: ${input.count} ${backupKindNames[input.kind]}`
		},
		async (work) => {
			refuseCare('takenOn', input.takenOn, await requireTree(work, treeId));
			await closeAnswered(work, treeId, ['backup'], input.takenOn);
			return work.add(backups, { ...input, events: [] });
		}
	);
	return entryId;
}

export interface BackupChange {
	backupId: string;
	version: number;
	on: string;
	what: Backup['events'][number]['what'];
	count: number;
}

/** What became of some of a batch. @throws Refusal 404, 409, 422 more than there are */
export async function changeBackup(store: Store, treeId: string, change: BackupChange): Promise<string> {
	const [entryId = ''] = await doWorks(store, [backupPiece(treeId, change, null)]);
	return entryId;
}

const backupPiece = (treeId: string, change: BackupChange, becameId: string | null): Piece<Backup> => ({
	told: {
		treeId,
		stage: 'recovery',
		on: change.on,
		what: `Backup: ${change.count} ${backupEventNames[change.what]}`
	},
	work: async (work) => {
		refuseDate('on', change.on, await requireTree(work, treeId));
		const own = (await backups.list(work.tx, treeId)).find((one) => one.id === change.backupId);
		if (!own) throw notFound('batch of cuttings');
		if (change.on < own.takenOn)
			throw invalid([{ field: 'on', message: `must not be before ${own.takenOn}, when they were taken` }]);
		return work.change(backups, change.backupId, change.version, (before) => {
			const after = {
				...before,
				events: [...before.events, { on: change.on, what: change.what, count: change.count, becameId }]
			};
			if (tooMany(after))
				throw invalid([
					{ field: 'count', message: `must not make more than the ${before.count} that were taken` }
				]);
			return after;
		});
	}
});

/** Pots some of a batch on as a tree, or a lot, of the yard, with its parent named; both or neither. @throws Refusal 404, 409, 422 */
export async function potBackup(
	store: Store,
	treeId: string,
	change: Omit<BackupChange, 'what'>,
	tree: TreeInput
): Promise<{ treeId: string; entryIds: string[] }> {
	const { id, piece } = takeInPiece({
		...tree,
		parentTreeId: treeId,
		plantCount: change.count,
		takenInOn: change.on
	});
	const entryIds = await doWorks(store, [piece, backupPiece(treeId, { ...change, what: 'potted' }, id)]);
	return { treeId: id, entryIds };
}

/** How this yard's own backups of a sort did, of those whose fate is known. */
export async function backupRecord(db: Reader, kind: BackupKind): Promise<{ struck: number; known: number }> {
	const all = await backups.list(db);
	let [struck, known] = [0, 0];
	for (const one of all.filter((candidate) => candidate.kind === kind)) {
		const standing = backupStanding(one);
		struck += standing.rooted + standing.potted + standing.given;
		known += one.count - standing.waiting;
	}
	return { struck, known };
}

/** Per sort, how many are worth keeping. */
export async function keepAdvice(
	db: Reader,
	kinds: readonly BackupKind[],
	values: Values
): Promise<Record<string, ReturnType<typeof worthKeeping>>> {
	const entries = await Promise.all(
		kinds.map(async (kind) => [kind, worthKeeping(kind, await backupRecord(db, kind), values)] as const)
	);
	return Object.fromEntries(entries);
}

/** Trees that were struck from a tree. */
export const childrenOf = (db: Reader, treeId: string) =>
	db
		.select({ id: tables.tree.id, tag: tables.tree.tag, name: tables.tree.name })
		.from(tables.tree)
		.where(and(eq(tables.tree.parentTreeId, treeId)));
