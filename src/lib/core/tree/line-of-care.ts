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
import type { Urgent } from './urgent';
import type { Stage } from '../vocabulary/words';
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

/**
 * The line of care of a tree, drawn from its records alone: from four weeks before it was taken in to a year and a half
 * past today (or its close), with growing seasons at its place, what was done, what is due, and root function.
 */
export function lineOfCare(records: TreeRecords, today: string, values: Values): LineOfCare {
	const { tree, kind, places, observations, examinations, plantings, tasks, plan, pictures } = records;
	const place = places.find((candidate) => candidate.id === tree.placeId);
	const marks: LineMark[] = [{ on: tree.takenInOn, kind: 'taken-in', label: 'taken in', stage: 'take-in' }];
	for (const examination of examinations)
		marks.push({ on: examination.examinedOn, kind: 'examined', label: 'examined', stage: 'examine' });
	for (const look of observations)
		marks.push({ on: look.observedOn, kind: 'look', label: 'look', stage: 'recovery' });
	for (const planting of plantings)
		marks.push({ on: planting.plantedOn, kind: 'planted', label: 'potted', stage: 'replant' });

	for (const on of new Set(pictures.map((picture) => picture.takenOn))) {
		const views = pictures.filter((picture) => picture.takenOn === on).map((picture) => picture.view);
		marks.push({
			on,
			kind: 'picture',
			label: `picture${views.length === 1 ? '' : 's'}: ${views.join(', ')}`,
			stage: 'recovery'
		});
	}

	for (const entry of records.book)
		// What is told of the time before it was here is no part of its care.
		if (bookKind(entry.kind).deals !== 'before' && entry.on >= tree.takenInOn)
			marks.push({
				on: entry.on,
				kind: 'look',
				label: midSentence(bookKind(entry.kind).label),
				stage: bookKind(entry.kind).stage
			});
	const { found, done, planned } = rootLosses(records, values);
	for (const loss of done)
		marks.push({
			on: loss.on,
			kind: 'stage-done',
			label: workLabel(loss),
			stage: loss.by === 'lift' ? 'replant' : 'roots'
		});
	if (plan)
		for (const [stage, on] of plan.stageDates.entries())
			if (planned.some((loss) => loss.on === on))
				marks.push({ on, kind: 'stage-planned', label: `stage ${roman(stage)}`, stage: 'roots' });
	for (const task of tasks)
		if (task.state === 'open')
			marks.push({ on: task.fromOn, kind: 'due', label: task.title, stage: task.stage });
	if (tree.closedOn)
		marks.push({
			on: tree.closedOn,
			kind: 'verdict',
			label: tree.state.replace('-', ' '),
			stage: 'recovery'
		});
	marks.sort((a, b) => a.on.localeCompare(b.on));

	const latest = marks.at(-1)?.on ?? today;
	const ahead = tree.closedOn ? addDays(tree.closedOn, 120) : addDays(today, 400);
	const from = addDays([tree.takenInOn, marks[0]?.on ?? today, today].sort()[0] ?? today, -28);
	const to = [ahead, addDays(latest, 60)].sort()[1] ?? ahead;
	const longest = addDays(from, 365 * 8);
	const span = { from, to: to > longest ? longest : to };

	const seasons: Span[] = [];
	if (place)
		for (let year = yearOf(span.from) - 1; year <= yearOf(span.to) + 1; year++) {
			const season = growingSeason(place, isTender(kind), year, values);
			if (season && season.to >= span.from && season.from <= span.to) seasons.push(season);
		}
	const losses = [...found, ...done, ...planned.filter((loss) => loss.on >= today)].filter(
		(loss) => loss.share > 0
	);
	const expected =
		place && losses.length > 0
			? expectedRootFunction(
					losses,
					place,
					{ from: losses.map((l) => l.on).sort()[0] ?? from, to: span.to },
					values
				)
			: [];
	return { span, today, seasons, marks, expected, leafCover: readingsOf(observations, 'leafCover') };
}

/** A day of work at the roots in two or three words: what of the living root went or came along, or that only dead root went. */
export const workLabel = ({ by, share }: Pick<WorkLoss, 'by' | 'share'>): string =>
	by === 'lift'
		? `lifted, ${share > 0.995 ? 'under 1' : Math.round((1 - share) * 100)} % of its roots came along`
		: share < 0.005
			? 'dead root cut'
			: `${percent(share)} cut`;

/** How a tree stands and what comes next, the most pressing: two short sentences. */
export function standingSentence(
	records: TreeRecords,
	today: string,
	{
		facts,
		urgent,
		standing
	}: {
		facts: ReleaseFacts;
		urgent: Urgent | null;
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
	const held = standing.firmness.value;
	const next = nextOf(
		tasks,
		{
			urgent,
			out: outSince(standing),
			firmness: held === 'moves' || held === 'loose' ? { value: held } : null,
			smell: smellSince(standing, lastRootWork(records, values)?.on ?? null),
			pottedOn: standing.stands.value === 'potted' ? standing.stands.on : null,
			planned: plannedWork(records, today, values)[0] ?? null
		},
		facts,
		today,
		values
	);
	return { stands: `${time} in care.`, next: next?.what ?? 'Nothing is planned: set the next look.' };
}
