import { daysBetween } from '../maths/calendar';
import { firmnessAsks, smellAsks } from '../examine/looks/seen-words';
import { checkAsked, holdsBy } from '../examine/diagnosis/open-causes';
import { isAlarm } from '../aftercare/tasks/pressing';
import { hasLapsed, headed, timed, type ReleaseFacts } from '../aftercare/tasks/release';
import { workedOn } from '../aftercare/tasks/source';
import type { TodayTask } from '../vocabulary/task';
import type { Values } from '../values/values';
import { counted } from '../text/plural';
import type { StandingKept } from './kept';

/** What comes next for a tree, in one line; with no day where it is to be done now. */
export interface Next {
	what: string;
	on: string | null;
}

/** What `nextOf` reads of how a tree stands. */
export type StandsForNext = Pick<StandingKept, 'out' | 'planned' | 'smell' | 'pottedOn'> & {
	urgent: Pick<NonNullable<StandingKept['urgent']>, 'subject' | 'chance'> | null;
	check: Pick<NonNullable<StandingKept['check']>, 'subject' | 'chance' | 'check'> | null;
	waits: Pick<NonNullable<StandingKept['waits']>, 'subject' | 'chance' | 'windowOn'> | null;
	firmness: Pick<NonNullable<StandingKept['firmness']>, 'value' | 'heldOn' | 'setOn'> | null;
};

/**
 * What comes next for a tree, the most pressing: what others have to see, a tree whose roots are in the air, what its last look says to
 * act on, one that is heeled in or loose, a check that decides, a look where nobody has looked for long and nothing late cannot wait, then its open tasks as the tree times
 * them, what was planned, and what a window is waited for. What waits for the tree is not next, nor what lapsed.
 * @param stands null where it was never folded
 * @param seenOn day of its last look, or of its taking in
 * @returns null where nothing is open or planned
 */
export function nextOf(
	tasks: readonly Pick<
		TodayTask,
		'kind' | 'title' | 'source' | 'state' | 'fromOn' | 'toOn' | 'release' | 'everyDays'
	>[],
	stands: StandsForNext | null,
	seenOn: string,
	facts: ReleaseFacts,
	today: string,
	values: Values
): Next | null {
	const open = tasks
		.filter((task) => task.state === 'open')
		.map((task) => timed(task, facts, today, values))
		.filter((task) => task.released?.state !== 'held' && !hasLapsed(task, today, values))
		.sort((a, b) => a.toOn.localeCompare(b.toOn));
	const flag = open.find((task) => task.kind === 'referral');
	if (flag) return { what: headed(flag), on: flag.fromOn };
	const { urgent, check, waits, out, firmness, smell, planned } = stands ?? {};
	// Roots in the air die by the hour: no cause is as urgent.
	if (out && out.how !== 'heeled-in')
		return { what: `Out of the ground since ${out.on}: set it or heel it in`, on: null };
	if (urgent)
		return {
			what: `${holdsBy(urgent)}: act now`,
			on: null
		};
	if (out) return { what: `Heeled in since ${out.on}: pot or plant it in its window`, on: null };
	if (firmness)
		return {
			what: firmnessAsks(firmness),
			on: null
		};
	if (smell && daysBetween(smell.on, today) <= values['decision.smellDays'])
		return { what: smellAsks(smell.value, stands?.pottedOn ? 'pot' : 'soil'), on: null };
	if (check)
		return {
			what: `${holdsBy(check)}; ${checkAsked(check)}`,
			on: null
		};
	const unseen = daysBetween(seenOn, today);
	// What follows work of these days is done by it, looked at since or not.
	const follows = open.some(({ source }) => {
		const work = workedOn(source) ?? '';
		return work > seenOn && daysBetween(work, today) < values['look.overdueDays'];
	});
	const alarm = open.some((task) => isAlarm(task, today, values));
	if (unseen >= values['look.overdueDays'] && !follows && !alarm)
		return { what: `Unseen for ${counted(unseen, 'day')}: look at it`, on: null };
	const [first] = open;
	if (planned && (!first || planned.on <= first.toOn))
		return {
			what: planned.undated ? `${planned.what} on ${planned.on}` : `${planned.what} for ${planned.on}`,
			on: planned.on
		};
	if (waits && !planned && (!first || waits.windowOn <= first.toOn))
		return {
			what: `${holdsBy(waits)}: the window for the work opens on ${waits.windowOn}`,
			on: waits.windowOn
		};
	return first ? { what: headed(first), on: first.fromOn } : null;
}
