import { fallsAway, tasksAnswered, type ResultKind } from '../core/aftercare/tasks/result';
import { AGAIN, workedOn } from '../core/aftercare/tasks/source';
import type { Task, TaskInput } from '../core/vocabulary/task';
import { addDays, daysBetween } from '../core/maths/calendar';
import { Refusal } from './errors';
import { tasks } from './records/records';
import type { Work } from './records/work';

export const openTask = { state: 'open' as const, closedOn: null, skipReason: '', result: '' };

/** How a task is closed. */
export interface Closing {
	state: 'done' | 'skipped';
	skipReason: string;
	/** What came of it, in words. */
	result?: string;
	/** Of work that comes up again: not any more. */
	ends?: boolean;
	on: string;
	/** Day from which work that comes up again is planned, where its next days are over too. */
	againFrom?: string;
}

/** Closes an open task inside a piece of work; one that comes up again is planned anew. @throws Refusal 409 closed already */
export async function closeInWork(
	work: Work,
	taskId: string,
	version: number,
	{ state, skipReason, result = '', ends, on, againFrom }: Closing
): Promise<void> {
	const closed = await work.change(tasks, taskId, version, (task): Task => {
		if (task.state !== 'open') throw new Refusal(409, 'This task is closed already.', 'Load the page again.');
		return { ...task, state, closedOn: on, skipReason: skipReason.trim(), result };
	});
	if (closed.everyDays === null || ends) return;
	const { id: _id, version: _version, ...again } = closed;
	const length = Math.min(closed.everyDays, daysBetween(closed.fromOn, closed.toOn));
	const next = addDays(on, closed.everyDays);
	const fromOn = againFrom !== undefined && addDays(next, length) < againFrom ? againFrom : next;
	await work.add(tasks, {
		...again,
		...openTask,
		fromOn,
		toOn: addDays(fromOn, length),
		release: null,
		source: `${AGAIN}@${on}`
	});
}

/**
 * Adds what follows from a day's work, each source once. What an earlier work asks by the same rule falls away: one question is asked
 * once, by the latest work.
 */
export async function addFollowing(
	work: Work,
	treeId: string,
	following: readonly (TaskInput & Pick<Task, 'source'>)[]
): Promise<void> {
	const standing = await tasks.list(work.tx, treeId);
	for (const task of following) {
		if (standing.some((one) => one.source === task.source)) continue;
		for (const earlier of standing.filter((one) => one.state === 'open' && fallsAway(one, task)))
			await closeInWork(work, earlier.id, earlier.version, {
				state: 'skipped',
				skipReason: 'asked anew by later work',
				ends: true,
				on: workedOn(task.source) ?? task.fromOn
			});
		await work.add(tasks, { ...task, ...openTask });
	}
}

/** What was written down elsewhere closes the work that asked for it. */
export async function closeAnswered(
	work: Work,
	treeId: string,
	answers: readonly ResultKind[],
	on: string
): Promise<void> {
	if (answers.length === 0) return;
	for (const task of tasksAnswered(await tasks.list(work.tx, treeId), answers, on))
		await closeInWork(work, task.id, task.version, { state: 'done', skipReason: '', on });
}
