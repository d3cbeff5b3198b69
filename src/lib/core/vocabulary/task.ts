import { oneOf, measure, calendarDate, note, count, id, shortToldText, toldText, version } from './fields';
import { crownSchools, stages, waterSchools } from './words';
import { z } from 'zod';

/** What has to happen before a piece of work is due: the tree releases it, not the calendar. */
export const releaseConditions = [
	'buds-move',
	'leaves-out',
	'flush-hardened',
	'root-function',
	'growth-regained'
] as const;
export type ReleaseCondition = (typeof releaseConditions)[number];
export const releaseSchema = z.strictObject({
	condition: oneOf(releaseConditions),
	/** Root function to reach; unused for others. */
	value: measure(0, 1.2, '').default(0.6),
	/** It is brought up by this day, met or not. */
	byOn: calendarDate(),
	after: note(40).describe('Rule of the same work that has to be closed first; empty for none')
});
export type Release = z.infer<typeof releaseSchema>;

export const taskKinds = [
	'water',
	'dry-rest',
	'shelter',
	'cold',
	'feeding',
	'crown',
	'look',
	'root-stage',
	'pest',
	'neighbours',
	'backup',
	'collar',
	'referral',
	'turning',
	'suckers',
	'other'
] as const;
export type TaskKind = (typeof taskKinds)[number];

export const taskMarks = ['published', 'trade', 'memory', 'ours'] as const;

/** A dated piece of work as proposed or written by hand. */
export const taskInput = z
	.strictObject({
		kind: oneOf(taskKinds),
		title: shortToldText(120),
		reason: note(500),
		mark: oneOf(taskMarks).default('ours'),
		stage: oneOf(stages).default('aftercare').describe('Where the work is done'),
		fromOn: calendarDate(),
		toOn: calendarDate(),
		minutes: count(0, 2000).default(10),
		everyDays: count(1, 3660)
			.nullable()
			.default(null)
			.describe('Done or skipped, it comes up again after so many days; null for once'),
		release: releaseSchema.nullable().default(null).describe('What must be seen first; null for a plain date')
	})
	.refine((task) => task.toOn >= task.fromOn, { path: ['toOn'], error: 'must not be before the first day' });
export type TaskInput = z.infer<typeof taskInput>;
/** A task by date alone: nothing has to be seen first, and it is done once. */
export type DatedTask = Omit<TaskInput, 'release' | 'everyDays'> & { everyDays?: number | null };
export const once = { release: null, everyDays: null } as const;

export const taskSchema = taskInput.safeExtend({
	id: id(),
	state: oneOf(['open', 'done', 'skipped']),
	closedOn: calendarDate().nullable(),
	skipReason: note(300),
	result: note(1200).describe('What came of it; of a referral who said what, and when'),
	/** The rule it was made from and the date of the work; the same pair is never made twice. */
	source: toldText(120).default(''),
	version: version()
});
export type Task = z.infer<typeof taskSchema>;

/** The two schools a person chooses between before aftercare is made. */
export const schoolsInput = z.strictObject({
	workOn: calendarDate(),
	crownSchool: oneOf(crownSchools),
	waterSchool: oneOf(waterSchools)
});
export type Schools = z.infer<typeof schoolsInput>;

/** What Today reads of a task. */
export type TodayTask = Pick<
	Task,
	| 'id'
	| 'version'
	| 'kind'
	| 'title'
	| 'reason'
	| 'stage'
	| 'fromOn'
	| 'toOn'
	| 'minutes'
	| 'release'
	| 'everyDays'
	| 'source'
	| 'state'
>;
