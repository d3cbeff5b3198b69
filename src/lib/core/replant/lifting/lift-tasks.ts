import { clockOf } from '../../maths/circular';
import { listed } from '../../text/plural';
import { clockText } from '../../text/format';
import { measured } from '../../text/measured';
import { addDays } from '../../maths/calendar';
import type { Values } from '../../values/values';
import type { DatedTask, Task } from '../../vocabulary/task';
import { cutWayNames, type LiftLog } from './lift';

/** Work that a lift leaves behind, by the rule of its task. */
type LeftBehind = 'hole' | 'clean';
const sourceOf = (rule: LeftBehind, { liftedOn }: Pick<LiftLog, 'liftedOn'>): string => `${rule}@${liftedOn}`;

/** Ways in which a root came off that leave an end to be cut clean. */
const ragged: ReadonlySet<LiftLog['cutRoots'][number]['how']> = new Set(['axe', 'torn']);

/** Clock position in the ground, north being 12. */
const at = (azimuthDeg: number): string => clockText(clockOf(azimuthDeg, 'ground'));

/**
 * What a lift leaves to be done: a hole that is not filled, and ends that were torn or chopped.
 * @param today day on which the log is written; work of a lift of some days ago is still to be done
 */
export function liftTasks(log: LiftLog, today: string): (DatedTask & { source: string })[] {
	const { liftedOn, backfilled } = log;
	const toOn = today > liftedOn ? today : liftedOn;
	const ends = endsTorn(log);
	const task = { kind: 'other', mark: 'trade', stage: 'replant', fromOn: liftedOn, toOn } as const;
	return [
		...(backfilled
			? []
			: [
					{
						...task,
						title: 'Fill the hole and make it safe',
						reason:
							'An open hole is a trap for people and animals; how the ground is left, its owner and local rules say.',
						minutes: 60,
						source: sourceOf('hole', log)
					}
				]),
		...(ends.length === 0
			? []
			: [
					{
						...task,
						title: 'Cut the torn and chopped ends clean',
						reason: `${endsInWords(ends)}. A ragged end dies back and rots; it is cut behind the damage before it is set.`,
						minutes: 10 + 5 * ends.length,
						source: sourceOf('clean', log)
					}
				])
	];
}

/** What became of it: whether the hole is filled and since when, and when ragged ends were cut clean. */
export function leftOf(
	log: LiftLog,
	tasks: readonly Pick<Task, 'source' | 'state' | 'closedOn'>[]
): { hole: 'filled' | 'open'; filledOn: string | null; cleanOn: string | null } {
	const doneOn = (rule: LeftBehind): string | null =>
		tasks.find((task) => task.source === sourceOf(rule, log) && task.state === 'done')?.closedOn ?? null;
	const filledOn = doneOn('hole');
	return {
		hole: log.backfilled || filledOn !== null ? 'filled' : 'open',
		filledOn,
		cleanOn: doneOn('clean')
	};
}

/** Ends that were torn or chopped, each with where it is. */
const endsTorn = ({ cutRoots }: Pick<LiftLog, 'cutRoots'>): LiftLog['cutRoots'] =>
	cutRoots.filter(({ how }) => ragged.has(how));
const endsInWords = (ends: LiftLog['cutRoots']): string =>
	listed(ends.map((end) => `${measured(end.diameterMm, 'mm')} at ${at(end.azimuthDeg)}`));

/**
 * What is asked of ragged ends once the tree is set: they lie in the soil, so nobody is sent to cut them.
 * @returns null where the lift left none
 */
export function endsOnceSet(
	log: LiftLog,
	setOn: string,
	today: string,
	values: Values
): (Pick<Task, 'title' | 'reason' | 'fromOn' | 'toOn'> & { source: string }) | null {
	const ends = endsTorn(log);
	if (ends.length === 0) return null;
	return {
		title: 'Were the torn and chopped ends cut clean before it was set?',
		reason: `${endsInWords(ends)}. It was set on ${setOn}, and nobody wrote down that they were. Left ragged they die back and may rot: then it is skipped, and looked at for that.`,
		fromOn: setOn,
		toOn: addDays(today > setOn ? today : setOn, values['lifting.endsAskedDays']),
		source: sourceOf('clean', log)
	};
}

/** How a root came off, and what became of its end since. @param cleanOn day on which ragged ends were cut clean */
export function endSaid(how: LiftLog['cutRoots'][number]['how'], cleanOn: string | null): string {
	if (cleanOn === null || !ragged.has(how)) return cutWayNames[how];
	return `${how === 'torn' ? 'torn' : 'chopped with axe or spade'}, cut clean on ${cleanOn}`;
}
