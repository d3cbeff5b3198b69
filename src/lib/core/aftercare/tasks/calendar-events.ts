import type { Task } from '../../vocabulary/task';
import type { Values } from '../../values/values';
import { headed, timed, type ReleaseFacts } from './release';

/** A day of work as a calendar shows it. Its identity is that of the task, so that it moves and is not doubled. */
export interface CalendarEvent {
	uid: string;
	fromOn: string;
	/** Last day, included. */
	toOn: string;
	title: string;
	text: string;
	/** Rises with each change of the task. */
	sequence: number;
	/** Held back: it may come, but not yet. */
	tentative: boolean;
}

/** Open tasks of trees as events, timed by what was seen; earliest first. */
export function calendarEvents(
	trees: readonly {
		tag: string;
		name: string;
		placeName: string;
		facts: ReleaseFacts;
		tasks: readonly Pick<
			Task,
			'id' | 'version' | 'title' | 'reason' | 'fromOn' | 'toOn' | 'release' | 'source' | 'state'
		>[];
	}[],
	today: string,
	values: Values
): CalendarEvent[] {
	return trees
		.flatMap((tree) =>
			tree.tasks
				.filter((task) => task.state === 'open')
				.map((given): CalendarEvent => {
					const task = timed(given, tree.facts, today, values);
					return {
						uid: `task-${task.id}@bruntle`,
						fromOn: task.fromOn,
						toOn: task.toOn,
						title: `${tree.tag}: ${headed(task)}`,
						text: [tree.name, tree.placeName, task.reason, task.released ? task.released.because : '']
							.filter((line) => line !== '')
							.join('\n'),
						sequence: task.version,
						tentative: task.released?.state === 'held'
					};
				})
		)
		.sort((a, b) => (a.fromOn < b.fromOn ? -1 : a.fromOn > b.fromOn ? 1 : a.uid < b.uid ? -1 : 1));
}
