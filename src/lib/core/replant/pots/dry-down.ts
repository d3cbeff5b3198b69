import { addDays } from '../../maths/calendar';
import type { Place } from '../../vocabulary/place';
import type { Values } from '../../values/values';
import { weatherSeries, type SeriesDay } from '../../climate/series';
import { fullPot, potDay, type PotStores } from './balance';

/** A day as a dry-down takes it: what is asked for, and whether leaves ask for it. */
export interface DryDay {
	et0Mm: number;
	inLeaf: boolean;
}

/** So many days are looked ahead; what is not dry by then is reckoned on from its last day. */
const AHEAD = 120;

/**
 * Days ahead at a place: as forecast where that is known, else as usual for the season.
 * @param near days that are known, in order
 */
export function daysAhead(
	place: Place,
	near: readonly SeriesDay[],
	from: string,
	inLeaf: (on: string) => boolean,
	values: Values
): DryDay[] {
	const known = new Map(near.map((day) => [day.on, day]));
	return weatherSeries(place, from, addDays(from, AHEAD - 1), [], values).map((usual) => {
		const day = known.get(usual.on) ?? usual;
		return { et0Mm: day.et0Mm, inLeaf: inLeaf(usual.on) };
	});
}

/**
 * Days from drained to the dryness at which a pot is watered, without rain: the balance of every page, so that a pot dries as fast
 * before it is planted as after.
 * @param days as they follow; the last one goes on where they do not reach
 * @param trigger dryness at which it is watered, 0 … 1
 * @param rootFunction 1 of a tree that was never cut
 * @returns Infinity where nothing is drawn
 */
export function dryDown(
	stores: PotStores,
	days: readonly DryDay[],
	trigger: number,
	rootFunction: number,
	values: Values
): number {
	let water = fullPot(stores);
	let dryness = 0;
	for (const [i, { et0Mm, inLeaf }] of days.entries()) {
		const day = potDay(
			water,
			stores,
			{ day: { on: '', et0Mm, rainMm: 0 }, rootFunction, inLeaf, irrigationL: 0 },
			values
		);
		if (day.dryness >= trigger) {
			const step = day.dryness - dryness;
			return i + (step > 0 ? Math.min(1, Math.max(0, (trigger - dryness) / step)) : 1);
		}
		water = day.water;
		dryness = day.dryness;
	}
	return dryness > 0 ? (days.length * trigger) / dryness : Infinity;
}

/** The same day again and again: for a question about one day. */
export const steadyDays = (day: DryDay): DryDay[] => Array.from({ length: AHEAD }, () => day);
