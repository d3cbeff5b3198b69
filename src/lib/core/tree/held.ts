import type { TreeRecords } from './case';
import type { StandingKept } from './kept';
import type { Standing } from './standing';

/**
 * Since when wires or stones hold a tree that was last seen to rock, where nobody has tried it since. A look at how it comes back is
 * taken after the work of its day, an examination before it.
 * @returns null where it stands firm, where nobody looked, and where it was not held since
 */
export function heldSince(
	{ plantings }: Pick<TreeRecords, 'plantings'>,
	{ firmness }: Pick<Standing, 'firmness'>
): string | null {
	if (firmness.value === null || firmness.value === 'firm' || firmness.on === null) return null;
	const last = plantings.at(-1);
	if (!last?.seat || last.seat.holding === 'own-stance') return null;
	const after =
		last.plantedOn === firmness.on ? firmness.from?.record !== 'look' : last.plantedOn > firmness.on;
	return after ? last.plantedOn : null;
}

/** How it moved when it was last tried, and since when it is held against that; null where it stands firm or nobody tried. */
export function movesOf(
	records: Pick<TreeRecords, 'plantings'>,
	standing: Pick<Standing, 'firmness'>
): StandingKept['firmness'] {
	const { value, on } = standing.firmness;
	if (on === null || (value !== 'moves' && value !== 'loose')) return null;
	const heldOn = heldSince(records, standing);
	return { value, on, ...(heldOn !== null && { heldOn }) };
}
