import { ruleOf } from '../aftercare/tasks/source';
import type { Tied } from '../recovery/verdict';
import type { TreeRecords } from './case';
import type { StandingKept } from './kept';
import type { Standing } from './standing';

type SetRecords = Pick<TreeRecords, 'plantings' | 'groundPlans'>;

/** When it was last set, in a pot or in the ground, or staked, and whether anything but its own stance holds it since. */
function lastSet({ plantings, groundPlans }: SetRecords): SetSince | null {
	const set = [
		...plantings.map(({ plantedOn, seat }) => ({
			on: plantedOn,
			held: seat !== null && seat.holding !== 'own-stance'
		})),
		...groundPlans.flatMap(({ doneOn, hole, holding }) =>
			doneOn && (hole || holding) ? [{ on: doneOn, held: holding !== null }] : []
		)
	];
	return set.sort((a, b) => a.on.localeCompare(b.on)).at(-1) ?? null;
}

/** When a tree was set or held, and whether more than its own stance holds it. */
export interface SetSince {
	on: string;
	held: boolean;
}

/**
 * When a tree that was last seen to rock was set anew or held, where nobody has tried it since. A look at how it comes back is
 * taken after the work of its day, an examination before it.
 * @returns null where it stands firm, where nobody looked, and where nothing was done since
 */
export function setSince(records: SetRecords, { firmness }: Pick<Standing, 'firmness'>): SetSince | null {
	if (firmness.value === null || firmness.value === 'firm' || firmness.on === null) return null;
	const last = lastSet(records);
	if (!last) return null;
	const after = last.on === firmness.on ? firmness.from?.record !== 'look' : last.on > firmness.on;
	return after ? last : null;
}

/** Work by which stakes and guys come off once it was tried whether it stands by itself. */
const TRIED = 'ground.ties-off';
/** Work by which what holds a tree comes off. */
const comesOff: ReadonlySet<string> = new Set(['ties-off', 'stones-off', TRIED]);

/**
 * What holds it that is to come off yet, or came off; null where it was set on its own stance, and where it was tried by itself as the stakes
 * came off.
 */
export function tiedNow(records: SetRecords & Pick<TreeRecords, 'tasks'>): Tied | null {
	const last = lastSet(records);
	if (!last?.held) return null;
	const { on } = last;
	const off = records.tasks.filter(({ source }) => comesOff.has(ruleOf(source)));
	const open = off.find(({ state }) => state === 'open');
	if (open) return { on, untilOn: open.fromOn, offOn: null };
	const done = off.findLast(({ state, closedOn }) => state === 'done' && (closedOn ?? '') >= on);
	return done?.closedOn && ruleOf(done.source) !== TRIED
		? { on, untilOn: done.fromOn, offOn: done.closedOn }
		: null;
}

/** How it is kept and said since when a tree is held, or set anew on its own stance. */
export const sinceParts = (since: SetSince | null): { heldOn?: string; setOn?: string } =>
	since === null ? {} : since.held ? { heldOn: since.on } : { setOn: since.on };

/** How it moved when it was last tried, and since when it is held against that or set anew; null where it stands firm or nobody tried. */
export function movesOf(records: SetRecords, standing: Pick<Standing, 'firmness'>): StandingKept['firmness'] {
	const { value, on } = standing.firmness;
	if (on === null || (value !== 'moves' && value !== 'loose')) return null;
	return { value, on, ...sinceParts(setSince(records, standing)) };
}
