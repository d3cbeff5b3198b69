import type { Values } from '../../values/values';
import type { Task } from '../../vocabulary/task';
import { within } from '../../maths/calendar';
import { hasLapsed } from './release';
import { ruleOf } from './source';

type Pressing = Pick<Task, 'kind' | 'state' | 'toOn' | 'source' | 'everyDays'>;

/** How much work of a kind weighs beside other work, points of rank. */
export const weightOf = (kind: Task['kind'], values: Values): number => values[`today.weight.${kind}`];

const isLate = (task: Pressing, today: string, values: Values): boolean =>
	task.state === 'open' && task.toOn < today && weightOf(task.kind, values) >= values['today.weightPressing'];

/** True when a task is already late for work that cannot wait. */
export const isAlarm = (task: Pressing, today: string, values: Values): boolean =>
	isLate(task, today, values) && !hasLapsed(task, today, values);

/** True when such work is over for good, and nobody said whether it was done. */
export const isUnanswered = (task: Pressing, today: string, values: Values): boolean =>
	isLate(task, today, values) && hasLapsed(task, today, values);

/** Work for others: cuttings that may outlive it, and trees that stand beside it. */
const FOR_OTHERS: ReadonlySet<Task['kind']> = new Set<Task['kind']>(['backup', 'neighbours']);

/** Whether work says anything of how the tree itself does, done or missed. */
export const isOfItself = ({ kind }: Pick<Task, 'kind'>): boolean => !FOR_OTHERS.has(kind);

/** Whether a task asks for the first water after a work, and is open. */
export const isFirstWater = ({ state, source }: Pick<Task, 'state' | 'source'>): boolean =>
	state === 'open' && ruleOf(source) === 'first-water';

/** Whether the first water after the work stands on its list, in its days: it asks for the same pot. */
export const firstWaterOpen = (
	tasks: readonly Pick<Task, 'state' | 'source' | 'fromOn' | 'toOn'>[],
	today: string
): boolean => tasks.some((task) => isFirstWater(task) && within(today, { from: task.fromOn, to: task.toOn }));
