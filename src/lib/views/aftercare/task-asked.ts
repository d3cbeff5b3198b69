import type { Task } from '$core/vocabulary/task';

/** A task as a sheet asks about it. */
export type TaskAsked = Pick<Task, 'id' | 'version' | 'title'> & { treeId: string };
