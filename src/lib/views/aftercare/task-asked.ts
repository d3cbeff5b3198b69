import type { Task } from '$core/vocabulary/task';

/** A task as a sheet asks about it. */
export type TaskAsked = Pick<Task, 'id' | 'version' | 'title'> & { treeId: string };

/** A task as it is done: where its days are over for good, the day on which it was is asked for. */
export type TaskDone = Pick<Task, 'id' | 'version' | 'title' | 'kind' | 'source'> & { lapsed: boolean };
