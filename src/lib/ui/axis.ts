import type { Format, StoredUnit } from '$core/text/format';
import { ticks } from 'd3';

/**
 * Marks of an axis that are round in the reader's unit, counted from its nothing: of temperatures from freezing.
 * @param domain what is drawn, as it is kept
 * @param count about so many
 * @param perUnit how many of what is kept make one of `unit`: 1000 for mm that are told in m
 * @returns as they are kept, rising
 */
export function roundMarks(
	domain: readonly number[],
	unit: StoredUnit,
	format: Format,
	count: number,
	perUnit = 1
): number[] {
	const { toShown, toStored } = format.unitOf(unit);
	const [first = 0, last = 1] = domain;
	const nothing = toShown(0);
	const shown = (kept: number): number => toShown(kept / perUnit) - nothing;
	return ticks(Math.min(shown(first), shown(last)), Math.max(shown(first), shown(last)), count).map(
		(mark) => toStored(mark + nothing) * perUnit
	);
}
