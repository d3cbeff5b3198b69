import type { TreeRecords } from './case';
import type { StandingKept } from './kept';
import type { Standing } from './standing';

type SetRecords = Pick<TreeRecords, 'plantings' | 'groundPlans'>;

/** When it was last set, in a pot or in the ground, or staked, and whether anything but its own stance holds it since. */
function lastSet({ plantings, groundPlans }: SetRecords): { on: string; held: boolean } | null {
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

/**
 * Since when wires, stones, stakes or guys hold a tree that was last seen to rock, where nobody has tried it since. A look at how it comes back is
 * taken after the work of its day, an examination before it.
 * @returns null where it stands firm, where nobody looked, and where it was not held since
 */
export function heldSince(records: SetRecords, { firmness }: Pick<Standing, 'firmness'>): string | null {
	if (firmness.value === null || firmness.value === 'firm' || firmness.on === null) return null;
	const last = lastSet(records);
	if (!last?.held) return null;
	const after = last.on === firmness.on ? firmness.from?.record !== 'look' : last.on > firmness.on;
	return after ? last.on : null;
}

/** How it moved when it was last tried, and since when it is held against that; null where it stands firm or nobody tried. */
export function movesOf(records: SetRecords, standing: Pick<Standing, 'firmness'>): StandingKept['firmness'] {
	const { value, on } = standing.firmness;
	if (on === null || (value !== 'moves' && value !== 'loose')) return null;
	const heldOn = heldSince(records, standing);
	return { value, on, ...(heldOn !== null && { heldOn }) };
}
