import { z } from 'zod';
import { addDays, daysBetween, yearOf, type Span } from '../maths/calendar';
import { growingSeason, outdoorMeanC, type PlaceClimate } from '../climate/normals';
import type { Values } from '../values/values';
import { degreeDays, type SeriesDay } from '../climate/series';

/** Where a day stands in the growing season of its place. */
export const seasonPointOutput = z.object({
	on: z.string(),
	progress: z
		.number()
		.describe(
			'0 before and after the season, else its share that is over: by warmth where weather is known, by the calendar where not'
		),
	seasons: z.number().describe('Growing seasons since a day, with fractions: what time means to a tree'),
	by: z.enum(['warmth', 'calendar']).describe('By warmth, or only by the calendar')
});
export type SeasonPoint = z.infer<typeof seasonPointOutput>;

/** Seasons of a place over some years, with the warmth each usually brings. */
export function seasonsOf(
	place: PlaceClimate,
	tender: boolean,
	from: string,
	to: string,
	values: Values
): { span: Span; usualDegreeDays: number }[] {
	const seasons: { span: Span; usualDegreeDays: number }[] = [];
	for (let year = yearOf(from) - 1; year <= yearOf(to) + 1; year++) {
		const span = growingSeason(place, tender, year, values);
		if (!span) continue;
		let usual = 0;
		for (let on = span.from; on <= span.to; on = addDays(on, 7))
			usual += 7 * Math.max(0, outdoorMeanC(place, on, values) - values['degreeDays.shootBaseC']);
		seasons.push({ span, usualDegreeDays: usual });
	}
	return seasons;
}

/**
 * How far the season is on a day. Warmth counts, not the calendar, so that a cold spring is not taken for a tree that fails:
 * degree days of this year over those of a usual season, where at least four fifths of its days so far were measured.
 * @param series weather of the place, for as many days as are known
 */
export function seasonPoint(
	seasons: readonly { span: Span; usualDegreeDays: number }[],
	on: string,
	sinceOn: string,
	series: readonly SeriesDay[],
	values: Values
): SeasonPoint {
	const length = (span: Span): number => Math.max(1, daysBetween(span.from, span.to));
	let sum = 0;
	for (const { span } of seasons) {
		const first = span.from > sinceOn ? span.from : sinceOn;
		const last = span.to < on ? span.to : on;
		if (last > first) sum += daysBetween(first, last) / length(span);
	}
	const current = seasons.find(({ span }) => span.from <= on && on <= span.to);
	if (!current) return { on, progress: 0, seasons: sum, by: 'calendar' };
	const calendar = Math.max(0.001, daysBetween(current.span.from, on) / length(current.span));
	const so = series.filter((day) => day.on >= current.span.from && day.on <= on);
	const measured = so.filter((day) => day.how === '').length;
	const enough =
		measured >= values['season.measuredShare'] * (daysBetween(current.span.from, on) + 1) &&
		current.usualDegreeDays > 0;
	if (!enough) return { on, progress: calendar, seasons: sum, by: 'calendar' };
	const warmth = degreeDays(so, values['degreeDays.shootBaseC']) / current.usualDegreeDays;
	// Warmth is shared out unevenly over a season; what the calendar would have by now of a usual year is the measure.
	let usualSoFar = 0;
	let usualAll = 0;
	for (let day = 0; day <= length(current.span); day += 7) {
		const share = Math.sin((Math.PI * (day + 3.5)) / (length(current.span) + 7));
		usualAll += share;
		if (addDays(current.span.from, day) <= on) usualSoFar += share;
	}
	const ahead = warmth / Math.max(0.01, usualSoFar / usualAll);
	return {
		on,
		progress: Math.min(
			1,
			Math.max(
				0.001,
				calendar * Math.min(values['season.aheadMost'], Math.max(values['season.behindMost'], ahead))
			)
		),
		seasons: sum,
		by: 'warmth'
	};
}

/**
 * Share of a season’s leaves that are out, 0 … 1.
 * @param progress share of the season that is over, 0 … 1
 */
export const leavesOut = (progress: number, values: Values): number =>
	progress <= 0 || progress >= 1
		? 0
		: Math.min(
				1,
				progress * values['season.leavesOutPace'],
				(1 - progress) * values['season.leavesFallPace']
			);
/**
 * Share of a season’s shoot growth that is done, 0 … 1: most comes early.
 * @param progress share of the season that is over, 0 … 1
 */
export const shootsDone = (progress: number, values: Values): number =>
	Math.max(0, Math.min(1, progress * values['season.shootsPace']));
