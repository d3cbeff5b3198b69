import { movesOf } from './held';
import { percent } from '../text/percent';
import { midSentence } from '../text/mid-sentence';
import type { ReleaseFacts } from '../aftercare/tasks/release';
import { bookKind } from '../aftercare/book/book';
import type { TreeRecords } from './case';
import { addDays, daysBetween, yearOf, type Span, MONTH_DAYS } from '../maths/calendar';
import { growingSeason } from '../climate/normals';
import { isTender } from '../vocabulary/kind';
import { expectedRootFunction, type FunctionPoint } from '../recovery/expected';
import { readingsOf } from '../examine/looks/observation';
import { roman } from '../roots/plan/plan';
import { smellSince } from './kept';
import { lastRootWork, rootLosses, type WorkLoss } from './losses';
import { nextOf } from './next';
import { plannedWork } from './planned';
import { outSince, type Standing } from './standing';
import type { OpenCauses } from './urgent';
import { treeStateNames, type Stage } from '../vocabulary/words';
import type { Values } from '../values/values';

/** look: a dot · stage: a chalk stroke, broken while planned · due: an open ring · verdict: a lozenge · picture: a frame above. */
export type MarkKind =
	| 'taken-in'
	| 'examined'
	| 'look'
	| 'stage-done'
	| 'stage-planned'
	| 'planted'
	| 'due'
	| 'verdict'
	| 'picture';

export interface LineMark {
	on: string;
	kind: MarkKind;
	label: string;
	stage: Stage;
}

export interface LineOfCare {
	span: Span;
	today: string;
	seasons: Span[];
	marks: LineMark[];
	/** Root function expected from what was cut; empty when nothing was cut or planned. */
	expected: FunctionPoint[];
	/** Leaf cover as measured, 0 … 1. */
	leafCover: { on: string; value: number }[];
}

/** What was done to it and seen on it, and what is due, by day. */
function marksOf(
	{ tree, observations, examinations, plantings, tasks, plan, pictures, book }: TreeRecords,
	{ done, planned }: Pick<ReturnType<typeof rootLosses>, 'done' | 'planned'>
): LineMark[] {
	const marks: LineMark[] = [{ on: tree.takenInOn, kind: 'taken-in', label: 'taken in', stage: 'take-in' }];
	const mark = (on: string, kind: MarkKind, label: string, stage: Stage): void => {
		marks.push({ on, kind, label, stage });
	};
	for (const { examinedOn } of examinations) mark(examinedOn, 'examined', 'examined', 'examine');
	for (const { observedOn } of observations) mark(observedOn, 'look', 'look', 'recovery');
	for (const { plantedOn } of plantings) mark(plantedOn, 'planted', 'potted', 'replant');
	for (const on of new Set(pictures.map((picture) => picture.takenOn))) {
		const views = pictures.filter((picture) => picture.takenOn === on).map((picture) => picture.view);
		mark(on, 'picture', `picture${views.length === 1 ? '' : 's'}: ${views.join(', ')}`, 'recovery');
	}
	for (const entry of book) {
		const { deals, label, stage } = bookKind(entry.kind);
		// What is told of the time before it was here is no part of its care.
		if (deals !== 'before' && entry.on >= tree.takenInOn) mark(entry.on, 'look', midSentence(label), stage);
	}
	for (const loss of done)
		mark(loss.on, 'stage-done', workLabel(loss), loss.by === 'lift' ? 'replant' : 'roots');
	for (const [stage, on] of (plan?.stageDates ?? []).entries())
		if (planned.some((loss) => loss.on === on)) mark(on, 'stage-planned', `stage ${roman(stage)}`, 'roots');
	// Of a closed case nothing is due any more.
	if (tree.closedOn) mark(tree.closedOn, 'verdict', treeStateNames[tree.state], 'recovery');
	else for (const task of tasks) if (task.state === 'open') mark(task.fromOn, 'due', task.title, task.stage);
	return marks.sort((a, b) => a.on.localeCompare(b.on));
}

/** Eight years at most, so that the last of them can still be read. */
const LONGEST_DAYS = 365 * 8;

/** From four weeks before it was taken in to a year and more past today, or past its close. */
function spanOf(takenInOn: string, closedOn: string | null, marks: readonly LineMark[], today: string): Span {
	const latest = marks.at(-1)?.on ?? today;
	const ahead = closedOn ? addDays(closedOn, 120) : addDays(today, 400);
	const from = addDays([takenInOn, marks[0]?.on ?? today, today].sort()[0] ?? today, -28);
	const to = [ahead, addDays(latest, 60)].sort()[1] ?? ahead;
	const longest = addDays(from, LONGEST_DAYS);
	return { from, to: to > longest ? longest : to };
}

/**
 * The line of care of a tree, drawn from its records alone: from four weeks before it was taken in to a year and more
 * past today (or its close), with growing seasons at its place, what was done, what is due, and root function.
 */
export function lineOfCare(records: TreeRecords, today: string, values: Values): LineOfCare {
	const { tree, kind, places, observations } = records;
	const place = places.find((candidate) => candidate.id === tree.placeId);
	const { found, done, planned } = rootLosses(records, values);
	const marks = marksOf(records, { done, planned });
	const span = spanOf(tree.takenInOn, tree.closedOn, marks, today);
	const seasons: Span[] = [];
	if (place)
		for (let year = yearOf(span.from) - 1; year <= yearOf(span.to) + 1; year++) {
			const season = growingSeason(place, isTender(kind), year, values);
			if (season && season.to >= span.from && season.from <= span.to) seasons.push(season);
		}
	const losses = [...found, ...done, ...planned.filter((loss) => loss.on >= today)].filter(
		(loss) => loss.share > 0
	);
	const begun = losses.map((loss) => loss.on).sort()[0];
	const expected =
		place && begun ? expectedRootFunction(losses, place, { from: begun, to: span.to }, values) : [];
	return { span, today, seasons, marks, expected, leafCover: readingsOf(observations, 'leafCover') };
}

/** A day of work at the roots in two or three words: what of the living root went or came along, or that only dead root went. */
export const workLabel = ({ by, share }: Pick<WorkLoss, 'by' | 'share'>): string =>
	by === 'lift'
		? `lifted, ${share > 0.995 ? 'under 1' : Math.round((1 - share) * 100)} % of its roots came along`
		: share < 0.005
			? 'dead root cut'
			: `${percent(share)} cut`;

/** Day of the last look at a tree, at all of it or as it recovers; null where nobody looked. */
const lastLookOn = ({ observations, examinations }: TreeRecords): string | null =>
	[...observations.map((look) => look.observedOn), ...examinations.map((look) => look.examinedOn)]
		.sort()
		.at(-1) ?? null;

/** How a tree stands and what comes next, the most pressing: two short sentences. */
export function standingSentence(
	records: TreeRecords,
	today: string,
	{
		facts,
		urgent,
		check,
		waits,
		standing
	}: OpenCauses & {
		facts: ReleaseFacts;
		standing: Pick<Standing, 'stands' | 'firmness' | 'smell'>;
	},
	values: Values
): { stands: string; next: string } {
	const { tree, tasks } = records;
	const days = daysBetween(tree.takenInOn, tree.closedOn ?? today);
	const months = Math.round(days / MONTH_DAYS);
	const count = (number: number, unit: string): string => `${number} ${unit}${number === 1 ? '' : 's'}`;
	const time = days < 45 ? count(Math.max(0, days), 'day') : count(months, 'month');
	if (tree.state === 'dead') return { stands: `Lost after ${time}.`, next: 'Its lesson is kept.' };
	if (tree.state === 're-established')
		return { stands: `Re-established after ${time}.`, next: 'Case closed.' };
	if (tree.state === 'gone') return { stands: `Gone to another home after ${time}.`, next: 'Case closed.' };
	const next = nextOf(
		tasks,
		{
			urgent,
			check,
			waits,
			out: outSince(standing),
			firmness: movesOf(records, standing),
			smell: smellSince(standing, lastRootWork(records, values)?.on ?? null),
			pottedOn: standing.stands.value === 'potted' ? standing.stands.on : null,
			planned: plannedWork(records, today, values)[0] ?? null
		},
		lastLookOn(records) ?? tree.takenInOn,
		facts,
		today,
		values
	);
	return { stands: `${time} in care.`, next: next?.what ?? 'Nothing is planned: set the next look.' };
}
