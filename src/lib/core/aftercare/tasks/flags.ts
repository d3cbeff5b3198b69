import type { Task } from '../../vocabulary/task';

/** Something a qualified person has to see, still open. */
export interface OpenFlag {
	taskId: string;
	title: string;
	reason: string;
	/** Last day for it. */
	byOn: string;
	/** Day on which it was found. */
	sinceOn: string;
}

/** Referrals that are open, the most pressing first: they stand on every page of a tree until somebody said what they found. */
export const openFlags = (
	tasks: readonly Pick<Task, 'id' | 'kind' | 'state' | 'title' | 'reason' | 'fromOn' | 'toOn'>[]
): OpenFlag[] =>
	tasks
		.filter((task) => task.kind === 'referral' && task.state === 'open')
		.map(({ id, title, reason, fromOn, toOn }) => ({
			taskId: id,
			title,
			reason,
			byOn: toOn,
			sinceOn: fromOn
		}))
		.sort((a, b) => a.byOn.localeCompare(b.byOn));

/** What those who were called in said, latest first. */
export const referralResults = (
	tasks: readonly Pick<Task, 'kind' | 'state' | 'reason' | 'closedOn' | 'result'>[]
): { on: string; about: string; said: string }[] =>
	tasks
		.flatMap(({ kind, state, reason, closedOn, result }) =>
			kind === 'referral' && state === 'done' && closedOn !== null
				? [{ on: closedOn, about: reason, said: result }]
				: []
		)
		.sort((a, b) => b.on.localeCompare(a.on));
