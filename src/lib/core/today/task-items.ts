import { weightOf } from '../aftercare/tasks/pressing';
import { askedFirst, hasLapsed, headed, timed } from '../aftercare/tasks/release';
import { resultAsked } from '../aftercare/tasks/result';
import { daysBetween } from '../maths/calendar';
import { listed } from '../text/plural';
import { atStart } from '../text/mid-sentence';
import type { Values } from '../values/values';
import type { Task } from '../vocabulary/task';
import { common, daysInWords, rises, type TodayItem, type TodayTree } from './item';

/** Small work that is late does not press before what harms a tree. */
const isSmall = (kind: Task['kind'], values: Values): boolean =>
	weightOf(kind, values) <= values['today.weightSmall'];

/**
 * Work that Today brings up as late, by the days that the tree gives it.
 * @param given as it was planned
 */
export function isOverdue(
	given: TodayTree['tasks'][number],
	facts: TodayTree['facts'],
	today: string,
	values: Values
): boolean {
	if (given.state !== 'open' || isSmall(given.kind, values)) return false;
	const task = timed(given, facts, today, values);
	return task.released?.state !== 'held' && task.toOn < today && !hasLapsed(task, today, values);
}

/** A line with what it asks to be seen, and the work that waits for that. */
interface Asking {
	item: TodayItem;
	/** In the words of what is asked; null where nothing is. */
	question: string | null;
	waits: string | null;
}

const levels: readonly TodayItem['level'][] = ['now', 'due', 'soon'];

/** One question is asked once: by the work that writes its answer down, else by the most pressing that waits for it. */
function askedOnce(lines: readonly Asking[]): TodayItem[] {
	const byQuestion = new Map<string, Asking[]>();
	for (const line of lines)
		if (line.question !== null)
			byQuestion.set(line.question, [...(byQuestion.get(line.question) ?? []), line]);
	return lines.flatMap((line) => {
		const alike = line.question === null ? [] : (byQuestion.get(line.question) ?? []);
		if (alike.length < 2) return [line.item];
		const pressing = [...alike].sort((a, b) => b.item.urgency - a.item.urgency);
		const first = pressing[0] ?? line;
		const speaks = alike.find(({ item }) => item.task !== null) ?? first;
		if (line !== speaks) return [];
		const waiting = pressing.flatMap(({ waits }) => (waits === null ? [] : [`“${waits}”`]));
		return [
			{
				...line.item,
				urgency: first.item.urgency,
				level: levels[Math.min(...alike.map(({ item }) => levels.indexOf(item.level)))] ?? line.item.level,
				figure: first.item.figure,
				reason:
					line.waits === null
						? `${line.item.reason} ${atStart(listed(waiting))} ${waiting.length > 1 ? 'wait' : 'waits'} for it.`
						: line.item.reason.replace(`“${line.waits}” waits`, `${listed(waiting)} wait`)
			}
		];
	});
}

/** Work that is open, late, over or coming up. */
export function taskItems(entry: TodayTree, today: string, values: Values): TodayItem[] {
	const lines = entry.tasks.flatMap((given): Asking[] => {
		if (given.state !== 'open') return [];
		const task = timed(given, entry.facts, today, values);
		// What the tree has not released yet stays quiet.
		if (task.released?.state === 'held') return [];
		const untilOpen = daysBetween(today, task.fromOn);
		const untilEnd = daysBetween(today, task.toOn);
		if (untilOpen > values['today.aheadDays']) return [];
		const weight = weightOf(task.kind, values);
		const small = isSmall(task.kind, values);
		const flag = task.kind === 'referral';
		const lapsed = hasLapsed(task, today, values);
		const asks = !lapsed && task.released !== null && task.released.ask !== '';
		const level =
			flag || isOverdue(given, entry.facts, today, values) ? 'now' : untilOpen <= 0 ? 'due' : 'soon';
		const urgency = flag
			? values['today.rank.referral'] + rises(-untilEnd, values)
			: level === 'now'
				? values['today.rank.late'] + weight * values['today.lateTimes'] + rises(-untilEnd, values)
				: lapsed
					? values['today.rank.lapsed']
					: level === 'due'
						? values['today.rank.open'] +
							weight * values['today.openTimes'] -
							rises(untilEnd, values) -
							(small ? values['today.smallLess'] : 0)
						: weight - untilOpen;
		const figure =
			untilEnd < 0
				? `${daysInWords(-untilEnd)} late`
				: untilOpen > 0
					? `in ${daysInWords(untilOpen)}`
					: untilEnd === 0
						? 'last day'
						: `${daysInWords(untilEnd)} left`;
		const answers = !lapsed && level !== 'soon' && resultAsked(task) === 'buds';
		const question = asks ? (task.released?.ask ?? null) : answers ? askedFirst['buds-move'] : null;
		const item: TodayItem = {
			...common(entry),
			urgency,
			level: level as TodayItem['level'],
			sentence: lapsed ? `Done or missed? ${task.title}` : headed(task),
			reason: lapsed
				? `Its days were over on ${task.toOn}. Say that it was done, or skip it with a word of why.`
				: task.released
					? `${task.released.ask === '' ? '' : `“${task.title}” waits for it. `}${task.reason} ${atStart(task.released.because)}.`
					: task.reason,
			figure,
			stage: asks ? 'recovery' : task.stage,
			// What nobody saw yet is not closed by one touch.
			task: asks
				? null
				: {
						id: task.id,
						version: task.version,
						title: task.title,
						kind: task.kind,
						source: task.source,
						minutes: task.minutes,
						everyDays: task.everyDays,
						lapsed
					}
		};
		return [{ item, question, waits: asks ? task.title : null }];
	});
	return askedOnce(lines);
}
