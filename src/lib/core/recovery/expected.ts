import { addDays, daysBetween, yearOf, type Span } from '../climate/calendar';
import { growingSeason, type PlaceClimate } from '../climate/normals';
import type { Values } from '../values/values';

export interface FunctionPoint {
	on: string;
	/** Root function, 1 = before the damage. */
	expected: number;
	low: number;
	high: number;
}

export interface RootLoss {
	on: string;
	/** Living share removed, 0 … 1. */
	share: number;
}

/**
 * Expected root function over time, from what was cut alone: each loss is multiplied off, and regrows exponentially with
 * days of the growing season at this place (so winter is flat). The band widens with what is still missing.
 * This is an expectation to compare measurements with, not a measurement [our own].
 * @param losses done and planned root losses, any order
 * @param stepDays spacing of the points, ≥ 1
 */
export function expectedRootFunction(
	losses: readonly RootLoss[],
	place: PlaceClimate,
	tender: boolean,
	from: string,
	to: string,
	values: Values,
	stepDays = 14
): FunctionPoint[] {
	const sorted = [...losses].sort((a, b) => (a.on < b.on ? -1 : 1));
	const growingDays = growingDayCounter(place, tender, from, to, values);
	const seasonDays = Math.max(60, growingDays(from, addDays(from, 365)));
	// Nine tenths regrown after `yearsToRegrow` seasons.
	const rate = Math.log(10) / (values['expected.yearsToRegrow'] * seasonDays);
	const points: FunctionPoint[] = [];
	let missing = 0;
	let reached = from;
	let next = 0;
	for (let on = from; on <= to; on = addDays(on, stepDays)) {
		for (let loss = sorted[next]; loss && loss.on <= on; loss = sorted[++next]) {
			if (loss.on > reached) {
				missing *= Math.exp(-rate * growingDays(reached, loss.on));
				reached = loss.on;
			}
			missing = 1 - (1 - missing) * (1 - loss.share);
		}
		missing *= Math.exp(-rate * growingDays(reached, on));
		reached = on;
		const spread = missing * values['expected.bandSpread'];
		points.push({
			on,
			expected: 1 - missing,
			low: Math.max(0, 1 - missing - spread),
			high: Math.min(1, 1 - missing + spread)
		});
	}
	return points;
}

/** Counts growing days between two dates, with the seasons worked out once. */
export function growingDayCounter(
	place: PlaceClimate,
	tender: boolean,
	from: string,
	to: string,
	values: Values
): (from: string, to: string) => number {
	const seasons: Span[] = [];
	for (let year = yearOf(from) - 1; year <= yearOf(to) + 1; year++) {
		const season = growingSeason(place, tender, year, values);
		if (season) seasons.push(season);
	}
	return (start, end) =>
		seasons.reduce((sum, season) => {
			const first = season.from > start ? season.from : start;
			const last = season.to < end ? season.to : end;
			return sum + Math.max(0, daysBetween(first, last));
		}, 0);
}

/** Expected root function on one day; 1 when nothing was ever cut. */
export function expectedOn(points: readonly FunctionPoint[], on: string): FunctionPoint | null {
	let found: FunctionPoint | null = null;
	for (const point of points) if (point.on <= on) found = point;
	return found;
}
