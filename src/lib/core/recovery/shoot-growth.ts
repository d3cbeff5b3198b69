import { addDays, daysBetween, type Span } from '../maths/calendar';
import type { Values } from '../values/values';
import { degreeDays, type SeriesDay } from '../climate/series';
import { fitGrowth } from './growth-curve';
import { readingsOf, type Observation } from '../examine/looks/observation';
import { goesWrong } from './unlikely';

/** Growth of shoots in one season, against its warmth. */
export interface SeasonGrowth {
	/** Year in which the season began. */
	year: number;
	readings: number;
	lastOn: string;
	lastMm: number;
	/** Readings shorter than one before them: kept in the record, left out of the curve. */
	shrunk: number;
	/** Warmth from its first day to the last reading, °C days over the base; null where weather was not measured. */
	warmth: number | null;
	/** By warmth, so that a cold spring does not look like failure; null where warmth is not known. */
	mmPer100: number | null;
	/**
	 * Length its shoots grow to by a logistic curve, with its standard error; null where four readings do not give one. Over
	 * warmth where that was measured all along, else over days.
	 */
	growsTo: { mm: number; errorMm: number; over: 'warmth' | 'days' } | null;
	/** That curve by the week with one standard error to each side; empty without it. */
	curve: { on: string; mm: number; low: number; high: number }[];
}

/**
 * Shoots of each season set against the warmth it had, newest first.
 * @param seasons growing seasons of the place
 * @param series weather of the place as far back as it is known
 */
export function shootGrowth(
	observations: readonly Observation[],
	seasons: readonly Span[],
	series: readonly SeriesDay[],
	values: Values
): SeasonGrowth[] {
	const readings = readingsOf(observations, 'shootExtensionMm').filter((reading) => reading.value > 0);
	return seasons
		.flatMap((season): SeasonGrowth[] => {
			const all = readings.filter((reading) => reading.on >= season.from && reading.on <= season.to);
			let longest = 0;
			const own = all.filter((reading) => {
				if (goesWrong('falls', longest, reading.value, values)) return false;
				longest = Math.max(longest, reading.value);
				return true;
			});
			const last = own.at(-1);
			if (!last) return [];
			const warmthTo = (on: string): number | null => {
				const days = series.filter((day) => day.on >= season.from && day.on <= on);
				const measured = days.filter((day) => day.how === '').length;
				return measured >= values['season.measuredShare'] * (daysBetween(season.from, on) + 1)
					? degreeDays(days, values['degreeDays.shootBaseC'])
					: null;
			};
			const warmth = warmthTo(last.on);
			const over = own.every((reading) => warmthTo(reading.on) !== null) ? 'warmth' : 'days';
			const timeOf = (on: string): number | null =>
				over === 'warmth' ? warmthTo(on) : daysBetween(season.from, on);
			const points = own.map((reading) => ({ time: timeOf(reading.on) ?? 0, size: reading.value }));
			const fit = points.length >= 4 ? fitGrowth(points) : null;
			const curve: SeasonGrowth['curve'] = [];
			if (fit)
				for (let on = season.from; on <= season.to; on = addDays(on, 7)) {
					const time = timeOf(on);
					// Over warmth it goes as far as warmth is known.
					if (time === null) continue;
					const [mm, error] = [fit.at(time), fit.errorAt(time)];
					curve.push({ on, mm, low: Math.max(0, mm - error), high: mm + error });
				}
			return [
				{
					year: Number(season.from.slice(0, 4)),
					readings: own.length,
					shrunk: all.length - own.length,
					lastOn: last.on,
					lastMm: last.value,
					warmth,
					mmPer100: warmth !== null && warmth > 0 ? (100 * last.value) / warmth : null,
					growsTo: fit ? { mm: fit.asymptote, errorMm: fit.errors.asymptote, over } : null,
					curve
				}
			];
		})
		.sort((a, b) => b.year - a.year);
}
