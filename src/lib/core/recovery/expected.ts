import { z } from 'zod';
import { addDays, daysBetween, yearOf, type Span } from '../maths/calendar';
import { growingSeason, type PlaceClimate } from '../climate/normals';
import type { Values } from '../values/values';
import { grown, rootWarmth } from '../aftercare/water/regrowth';

export const functionPointOutput = z.object({
	on: z.string(),
	expected: z.number().describe('Root function, 1 = before the damage'),
	low: z.number(),
	high: z.number()
});
export type FunctionPoint = z.infer<typeof functionPointOutput>;

export interface RootLoss {
	on: string;
	/** Living share removed, 0 … 1. */
	share: number;
}

/**
 * Expected root function over time, from what was lost alone: each loss is multiplied off, and what lives grows on with the
 * warmth of the place (`grown`, so winter is flat in the open). The band widens with what is still missing.
 * This is an expectation to compare measurements with, not a measurement [our own].
 * @param losses done and planned root losses, any order
 * @param stepDays spacing of the points, ≥ 1
 */
export function expectedRootFunction(
	losses: readonly RootLoss[],
	place: PlaceClimate,
	{ from, to, stepDays = 14 }: { from: string; to: string; stepDays?: number },
	values: Values
): FunctionPoint[] {
	const sorted = [...losses].sort((a, b) => a.on.localeCompare(b.on));
	const warmth = rootWarmth(place, from, to, values);
	const points: FunctionPoint[] = [];
	let phi = 1;
	let reached = from;
	let next = 0;
	for (let on = from; on <= to; on = addDays(on, stepDays)) {
		for (let loss = sorted[next]; loss && loss.on <= on; loss = sorted[++next]) {
			phi = grown(phi, warmth(reached, loss.on), values) * (1 - loss.share);
			if (loss.on > reached) reached = loss.on;
		}
		phi = grown(phi, warmth(reached, on), values);
		reached = on;
		const spread = (1 - phi) * values['expected.bandSpread'];
		points.push({
			on,
			expected: phi,
			low: Math.max(0, phi - spread),
			// Where no root lives none can be hoped for.
			high: phi === 0 ? 0 : Math.min(1, phi + spread)
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
