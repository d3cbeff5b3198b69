import { z } from 'zod';
import type { Values } from '../values/values';
import { addDays, dateOfDay, dayOfYear, daysBetween, within, yearOf, type Span } from '../maths/calendar';
import type { Place } from '../vocabulary/place';

/** What the climate of a place is read from: its position and shelter, and the months that were typed for it. */
export type PlaceClimate = Pick<Place, 'kind' | 'latitudeDeg' | 'elevationM' | 'heldMinimumC'> &
	Partial<Pick<Place, 'coldestMonthC' | 'warmestMonthC'>>;
/** Working values that a guess of the climate rests on. */
export type ClimateValues = Pick<
	Values,
	'climate.annualMeanAtEquatorC' | 'climate.meanDropPerDegC' | 'climate.swingPerDegC' | 'climate.lapseCPerKm'
>;
/** Those working values alone, for a page that guesses a climate as a position is typed. */
export const climateValuesOf = (values: Values): ClimateValues => ({
	'climate.annualMeanAtEquatorC': values['climate.annualMeanAtEquatorC'],
	'climate.meanDropPerDegC': values['climate.meanDropPerDegC'],
	'climate.swingPerDegC': values['climate.swingPerDegC'],
	'climate.lapseCPerKm': values['climate.lapseCPerKm']
});

/** Coldest day of the usual year, about four weeks after the winter solstice. */
const COLDEST_DAY = { north: 20, south: 202 };

/** A month about its peak averages so much of the swing of a sine over the year: sin(π/12) / (π/12). */
const MONTH_OF_SWING = Math.sin(Math.PI / 12) / (Math.PI / 12);

/** Whether the climate of a place is read from what was typed for it, not guessed. */
export const climateTyped = (
	place: Pick<PlaceClimate, 'coldestMonthC' | 'warmestMonthC'>
): place is { coldestMonthC: number; warmestMonthC: number } =>
	typeof place.coldestMonthC === 'number' && typeof place.warmestMonthC === 'number';

/**
 * Means of the coldest and the warmest month outdoors: those typed for the place, else guessed from its latitude and height.
 * @returns both in °C
 */
export function monthMeans(
	place: Omit<PlaceClimate, 'kind' | 'heldMinimumC'>,
	values: ClimateValues
): { coldestC: number; warmestC: number } {
	if (climateTyped(place)) return { coldestC: place.coldestMonthC, warmestC: place.warmestMonthC };
	const { latitudeDeg, elevationM } = place;
	const latitude = Math.abs(latitudeDeg);
	const annualC =
		values['climate.annualMeanAtEquatorC'] -
		values['climate.meanDropPerDegC'] * latitude -
		(values['climate.lapseCPerKm'] * elevationM) / 1000;
	const swingC = values['climate.swingPerDegC'] * latitude * MONTH_OF_SWING;
	return { coldestC: annualC - swingC, warmestC: annualC + swingC };
}

/**
 * Usual daily mean air temperature in the open, °C: a sine over the year through the means of the coldest and the warmest month. Where
 * nobody typed them, they are a stand-in whose mean falls and whose swing rises with latitude [our own], cooled with height: a guess
 * to plan with.
 */
export function outdoorMeanC(place: PlaceClimate, date: string, values: ClimateValues): number {
	const { coldestC, warmestC } = monthMeans(place, values);
	const swingC = (warmestC - coldestC) / 2 / MONTH_OF_SWING;
	const coldest = place.latitudeDeg >= 0 ? COLDEST_DAY.north : COLDEST_DAY.south;
	return (coldestC + warmestC) / 2 - swingC * Math.cos((2 * Math.PI * (dayOfYear(date) - coldest)) / 365.25);
}

/** What a window or a night rests on, as a part of a sentence: "by …". */
export const climateSaid = (place: PlaceClimate): string =>
	climateTyped(place)
		? 'by the months typed for this place, no forecast'
		: 'by a climate guessed from latitude and height, no forecast';

/** What of a place decides its climate. */
export const climateOf = ({
	kind,
	latitudeDeg,
	elevationM,
	heldMinimumC,
	coldestMonthC,
	warmestMonthC
}: PlaceClimate): PlaceClimate => ({
	kind,
	latitudeDeg,
	elevationM,
	heldMinimumC,
	...(coldestMonthC === undefined ? {} : { coldestMonthC }),
	...(warmestMonthC === undefined ? {} : { warmestMonthC })
});

/** What heating holds a place at, °C; −∞ where nothing is heated. */
const floorC = (place: PlaceClimate, values: Values): number =>
	place.heldMinimumC ??
	(place.kind === 'indoors' || place.kind === 'heated' ? values['shelter.indoorsC'] : -Infinity);

/** Daily mean at a place with its heating, °C, from its usual climate. */
export const meanC = (place: PlaceClimate, date: string, values: Values): number =>
	Math.max(floorC(place, values), outdoorMeanC(place, date, values));

/** What depends on a place and the values alone is worked out once for both. */
function keptBy<T>(
	make: (place: PlaceClimate, values: Values) => T
): (place: PlaceClimate, values: Values) => T {
	const kept = new WeakMap<Values, Map<string, T>>();
	return (place, values) => {
		const own = kept.get(values) ?? new Map<string, T>();
		kept.set(values, own);
		const key = `${place.kind}|${place.latitudeDeg}|${place.elevationM}|${place.heldMinimumC}|${place.coldestMonthC ?? ''}|${place.warmestMonthC ?? ''}`;
		const found = own.get(key) ?? make(place, values);
		// A yard has few places; asked from outside they may be many.
		if (own.size > 500) own.clear();
		own.set(key, found);
		return found;
	};
}

/** Daily means at a place by day of the year, from 1; index 366 is the last day of a leap year. */
export const meansByDay = keptBy((place, values) =>
	Float64Array.from({ length: 367 }, (_, day) => (day === 0 ? 0 : meanC(place, dateOfDay(2024, day), values)))
);

export const nightTemperatureOutput = z.object({
	usualC: z.number().describe('A usual night at this place, °C'),
	coldC: z.number().describe('A cold night of the season at this place, °C')
});
export type NightTemperature = z.infer<typeof nightTemperatureOutput>;

/**
 * Night temperatures to reckon with at a place, °C, from its usual climate and the shelter the place gives.
 * @example openBench at 52° N on 18 April: usual about 4 °C, cold about 0 °C.
 */
export function nightTemperature(place: PlaceClimate, date: string, values: Values): NightTemperature {
	const meanC = outdoorMeanC(place, date, values);
	const shelterC =
		place.kind === 'cold-frame'
			? values['shelter.coldFrameC']
			: place.kind === 'greenhouse'
				? values['shelter.greenhouseC']
				: 0;
	const floor = floorC(place, values);
	const usualC = meanC - values['climate.nightBelowMeanC'] + shelterC;
	const coldC = meanC - values['climate.coldNightBelowMeanC'] + shelterC;
	return { usualC: Math.max(floor, usualC), coldC: Math.max(floor, coldC) };
}

/** A season that leaves out fewer days than this has no winter in it. */
export const WHOLE_YEAR_DAYS = 360;

/**
 * The growing season that begins in a year: days whose mean reaches the growth threshold, at this place.
 * @returns null where it never grows; the whole year where it always does.
 * In the southern hemisphere the span runs into the next year.
 */
export function growingSeason(
	place: PlaceClimate,
	tender: boolean,
	year: number,
	values: Values
): Span | null {
	const own = seasonsKept(place, values);
	const key = year * 2 + (tender ? 1 : 0);
	const known = own.get(key);
	if (known !== undefined) return known;
	const season = seasonOf(place, tender, year, values);
	own.set(key, season);
	return season;
}

const seasonsKept = keptBy(() => new Map<number, Span | null>());

function seasonOf(place: PlaceClimate, tender: boolean, year: number, values: Values): Span | null {
	const thresholdC = tender ? values['season.tenderGrowthFromC'] : values['season.hardyGrowthFromC'];
	const firstDay = place.latitudeDeg >= 0 ? 1 : 182;
	const grows: string[] = [];
	for (let day = firstDay; day < firstDay + 365; day++) {
		const date = dateOfDay(year, day);
		if (meanC(place, date, values) >= thresholdC) grows.push(date);
	}
	const from = grows[0];
	const to = grows[grows.length - 1];
	return from && to ? { from, to } : null;
}

/**
 * The first day from one on that lies in a growing season.
 * @param on calendar date
 * @returns null where it never grows
 */
export const growsFrom = (place: PlaceClimate, tender: boolean, on: string, values: Values): string | null =>
	firstWithin(seasonsAbout(place, tender, on, values), on);

/**
 * The first day from one on at which a bud may still begin to move: in a growing season, and not so late in it that shoots would not
 * ripen.
 * @param on calendar date
 * @returns null where it never grows
 */
export const budsFrom = (place: PlaceClimate, tender: boolean, on: string, values: Values): string | null =>
	firstWithin(
		seasonsAbout(place, tender, on, values).map(({ from, to }) =>
			daysBetween(from, to) >= WHOLE_YEAR_DAYS
				? { from, to }
				: { from, to: addDays(to, -values['season.warmBeforeEndDays']) }
		),
		on
	);

const seasonsAbout = (place: PlaceClimate, tender: boolean, on: string, values: Values): Span[] =>
	[-1, 0, 1].flatMap((year) => growingSeason(place, tender, yearOf(on) + year, values) ?? []);

/** The growing season a day lies in; null outside it. @param on calendar date */
export const seasonOn = (place: PlaceClimate, tender: boolean, on: string, values: Values): Span | null =>
	seasonsAbout(place, tender, on, values).find((span) => within(on, span)) ?? null;

const firstWithin = (spans: readonly Span[], on: string): string | null =>
	spans.some((span) => within(on, span))
		? on
		: (spans
				.map(({ from }) => from)
				.filter((from) => from > on)
				.sort()[0] ?? null);
