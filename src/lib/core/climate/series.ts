import { z } from 'zod';
import { addDays, daysBetween } from '../maths/calendar';
import { hargreavesMm } from './evapotranspiration';
import { outdoorMeanC, type PlaceClimate } from './normals';
import type { Place } from '../vocabulary/place';
import type { Values } from '../values/values';
import { meanSaturationKpa, penmanMonteithMm, vapourDeficitKpa } from './penman-monteith';
import type { WeatherDay } from './weather-day';

/** A day of a series without gaps: what it is, and where it comes from. */
export const seriesDayOutput = z.object({
	on: z.string(),
	minC: z.number().describe('At the place itself, its shelter counted'),
	maxC: z.number().describe('At the place itself, its shelter counted'),
	outMinC: z.number().describe('Outdoors, as measured'),
	humidityPercent: z.number().nullable(),
	windMs: z.number().nullable(),
	gustMs: z.number().nullable(),
	rainMm: z.number(),
	et0Mm: z.number().describe('Reference evapotranspiration at the place, its light and wind counted'),
	method: z.enum(['penman-monteith', 'hargreaves']),
	vpdKpa: z.number().nullable(),
	source: z.enum(['station', 'typed', 'forecast', 'filled', 'normals']),
	how: z
		.string()
		.describe('How a day that nobody measured came about; empty for one that was measured or is forecast')
});
export type SeriesDay = z.infer<typeof seriesDayOutput>;

/** Weather of a place, day by day. */
export interface PlaceWeather {
	readonly place: Place;
	readonly series: readonly SeriesDay[];
}

/** Days of a series from one to another, both included: the days are whole and in order, so that none is looked for. */
export function seriesBetween(
	series: readonly SeriesDay[],
	from: string | null,
	to: string | null
): readonly SeriesDay[] {
	const firstOn = series[0]?.on;
	if (firstOn === undefined) return [];
	const at = (on: string): number => Math.max(0, daysBetween(firstOn, on));
	return series.slice(from === null ? 0 : at(from), to === null ? undefined : to < firstOn ? 0 : at(to) + 1);
}

/** A day of which only water and demand are known, as for a balance alone. */
export const bareDay = (on: string, { et0Mm, rainMm }: Pick<SeriesDay, 'et0Mm' | 'rainMm'>): SeriesDay => ({
	on,
	minC: 10,
	maxC: 20,
	outMinC: 10,
	humidityPercent: null,
	windMs: null,
	gustMs: null,
	rainMm,
	et0Mm,
	method: 'hargreaves',
	vpdKpa: null,
	source: 'typed',
	how: ''
});

export type Raw = Pick<
	WeatherDay,
	'on' | 'source' | 'minC' | 'maxC' | 'humidityPercent' | 'windMs' | 'gustMs' | 'sunMj' | 'rainMm'
> & {
	/** Measured under the shelter of the place itself, so that its warmth is in it already. */
	inside?: boolean;
	/** Radiation on top of the air, MJ/m², where it is worked out already. */
	onTopMj?: number;
};
const rank: Record<WeatherDay['source'], number> = { station: 3, typed: 2, forecast: 1 };

/** Days on which two sources measured something different, with by how much. */
export function disagreements(days: readonly WeatherDay[], values: Values): { on: string; byC: number }[] {
	const byDay = new Map<string, WeatherDay[]>();
	for (const day of days)
		if (day.source !== 'forecast') byDay.set(day.on, [...(byDay.get(day.on) ?? []), day]);
	return [...byDay].flatMap(([on, list]) => {
		const spread = (of: (day: WeatherDay) => number): number =>
			Math.max(...list.map(of)) - Math.min(...list.map(of));
		const byC = Math.max(
			spread((day) => day.minC),
			spread((day) => day.maxC)
		);
		return list.length > 1 && byC > values['weather.disagreeC'] ? [{ on, byC }] : [];
	});
}

/** Usual minimum and maximum outdoors, °C, from the usual climate of the place. */
export function normalDay(place: PlaceClimate, on: string, values: Values): { minC: number; maxC: number } {
	const meanC = outdoorMeanC(place, on, values);
	const half = values['climate.nightBelowMeanC'];
	return { minC: meanC - half, maxC: meanC + half };
}

/** What the shelter of a place does to the weather outdoors. */
export interface Shelter {
	/** It is so much warmer at night, and never colder than that, °C. */
	warmerC: number;
	floorC: number;
	/** Factors on rain, wind and demand. */
	rain: number;
	wind: number;
	demand: number;
}

/** The shelter of a place, to be looked up once for many days. */
export const shelterOf = (place: PlaceClimate, values: Values): Shelter => ({
	warmerC:
		place.kind === 'cold-frame'
			? values['shelter.coldFrameC']
			: place.kind === 'greenhouse'
				? values['shelter.greenhouseC']
				: 0,
	floorC:
		place.heldMinimumC ??
		(place.kind === 'indoors' || place.kind === 'heated' ? values['shelter.indoorsC'] : -Infinity),
	rain: values[`place.rain.${place.kind}`],
	wind: values[`place.wind.${place.kind}`],
	demand: values[`place.demand.${place.kind}`]
});

/** What a shelter makes of the temperatures outdoors. */
function under({ warmerC, floorC }: Shelter, { minC, maxC }: { minC: number; maxC: number }) {
	const least = Math.max(floorC, minC + warmerC);
	return { minC: least, maxC: Math.max(least + 1, maxC + warmerC / 2) };
}

/** What a place makes of the temperatures outdoors. */
export const sheltered = (
	place: PlaceClimate,
	outdoors: { minC: number; maxC: number },
	values: Values
): { minC: number; maxC: number } => under(shelterOf(place, values), outdoors);

/** Warmth and evaporation of a day at a place, its shelter counted. */
export function dayUnder(
	shelter: Shelter,
	place: Pick<PlaceClimate, 'latitudeDeg' | 'elevationM'>,
	day: Raw
): { minC: number; maxC: number; et0Mm: number; full: boolean } {
	const here = day.inside ? { minC: day.minC, maxC: day.maxC } : under(shelter, day);
	const { humidityPercent, windMs, sunMj, onTopMj } = day;
	const full = humidityPercent !== null && windMs !== null && sunMj !== null;
	const openMm = full
		? penmanMonteithMm({
				latitudeDeg: place.latitudeDeg,
				elevationM: place.elevationM,
				on: day.on,
				minC: here.minC,
				maxC: here.maxC,
				vapourKpa: (humidityPercent / 100) * meanSaturationKpa(here.minC, here.maxC),
				windMs,
				sunMj,
				...(onTopMj !== undefined && { onTopMj })
			})
		: hargreavesMm(here, place.latitudeDeg, day.on);
	return { minC: here.minC, maxC: here.maxC, et0Mm: openMm * shelter.demand, full };
}

/** A day that nobody measured, between two that somebody did. */
function bridged(a: Raw, b: Raw, on: string): Raw {
	const t = daysBetween(a.on, on) / daysBetween(a.on, b.on);
	const mix = (x: number, y: number): number => x + t * (y - x);
	const both = (x: number | null, y: number | null): number | null =>
		x === null || y === null ? null : mix(x, y);
	return {
		on,
		source: a.source,
		minC: mix(a.minC, b.minC),
		maxC: mix(a.maxC, b.maxC),
		humidityPercent: both(a.humidityPercent, b.humidityPercent),
		windMs: both(a.windMs, b.windMs),
		gustMs: null,
		sunMj: both(a.sunMj, b.sunMj),
		rainMm: 0
	};
}

/** A day by the climate of the place, moved by how far the last measured day was off it, less the further away. */
function usual(place: Place, on: string, before: Raw | undefined, values: Values): { day: Raw; how: string } {
	const meanOf = ({ minC, maxC }: { minC: number; maxC: number }): number => (minC + maxC) / 2;
	const normal = normalDay(place, on, values);
	const near = before ? daysBetween(before.on, on) : Infinity;
	const off =
		before && near <= values['weather.offDays']
			? (meanOf(before) - meanOf(normalDay(place, before.on, values))) *
				Math.exp(-near / values['weather.offFadesDays'])
			: 0;
	return {
		day: {
			on,
			source: 'typed',
			minC: normal.minC + off,
			maxC: normal.maxC + off,
			humidityPercent: null,
			windMs: null,
			gustMs: null,
			sunMj: null,
			rainMm: 0
		},
		how:
			Math.abs(off) >= 0.5
				? `climate of the place, taken ${off > 0 ? 'warmer' : 'colder'} by the days before; rain taken as none`
				: 'climate of the place; rain taken as none'
	};
}

/**
 * Weather of a place day by day, without gaps. A day that was measured is taken from the station before what was typed, before
 * a forecast. Gaps of up to three days are bridged between their neighbours; any other day takes the climate of the place,
 * moved by how far the last measured days were off it, less the further away. ET₀ is Penman–Monteith where humidity, wind and
 * sun are there, else Hargreaves.
 * @param days of this place or the station it borrows from, any order, at most one used a day
 */
export function weatherSeries(
	place: Place,
	from: string,
	to: string,
	days: readonly Raw[],
	values: Values
): SeriesDay[] {
	const best = new Map<string, Raw>();
	for (const day of days) {
		const known = best.get(day.on);
		if (!known || rank[day.source] > rank[known.source]) best.set(day.on, day);
	}
	const known = [...best.values()].sort((a, b) => (a.on < b.on ? -1 : 1));
	const series: SeriesDay[] = [];
	let index = known.findIndex((day) => day.on >= from);
	if (index < 0) index = known.length;
	for (let on = from; on <= to; on = addDays(on, 1)) {
		const day = best.get(on);
		if (day) {
			while (index < known.length && (known[index]?.on ?? '') <= on) index++;
			series.push(seriesDay(place, day, day.source, '', values));
			continue;
		}
		const [before, after] = [known[index - 1], known[index]];
		if (before && after && daysBetween(before.on, after.on) - 1 <= values['weather.bridgeDays']) {
			const how = `between ${before.on} and ${after.on}; rain taken as none`;
			series.push(seriesDay(place, bridged(before, after, on), 'filled', how, values));
		} else {
			const guess = usual(place, on, before, values);
			series.push(seriesDay(place, guess.day, 'normals', guess.how, values));
		}
	}
	return series;
}

function seriesDay(
	place: Place,
	day: Raw,
	source: SeriesDay['source'],
	how: string,
	values: Values
): SeriesDay {
	const shelter = shelterOf(place, values);
	const { minC, maxC, et0Mm, full } = dayUnder(shelter, place, day);
	const { humidityPercent, windMs } = day;
	return {
		on: day.on,
		minC,
		maxC,
		outMinC: day.minC,
		humidityPercent,
		windMs: windMs === null ? null : windMs * shelter.wind,
		gustMs: day.gustMs === null ? null : day.gustMs * shelter.wind,
		rainMm: (day.rainMm ?? 0) * shelter.rain,
		et0Mm,
		method: full ? 'penman-monteith' : 'hargreaves',
		vpdKpa: humidityPercent === null ? null : vapourDeficitKpa(minC, maxC, humidityPercent / 100),
		source,
		how
	};
}

/** Runs of days that nobody measured, in words of how they were filled. */
export function gapsOf(series: readonly SeriesDay[]): { from: string; to: string; how: string }[] {
	const gaps: { from: string; to: string; how: string }[] = [];
	for (const day of series) {
		if (day.how === '') continue;
		const last = gaps.at(-1);
		if (last && addDays(last.to, 1) === day.on && (last.how === day.how || day.source === 'normals'))
			last.to = day.on;
		else gaps.push({ from: day.on, to: day.on, how: day.how });
	}
	return gaps;
}

/** Degree days over a base. @see mean of the day less the base, none below */
export const degreeDays = (series: readonly Pick<SeriesDay, 'minC' | 'maxC'>[], baseC: number): number =>
	series.reduce((sum, day) => sum + Math.max(0, (day.minC + day.maxC) / 2 - baseC), 0);

/** Places whose weather is that of the open air, so that others may borrow it. */
const outdoors = (place: Place): boolean =>
	place.kind === 'open' || place.kind === 'garden' || place.kind === 'shade';

/**
 * Days of weather for a place: what was measured there, and what the nearest station out of doors has for the rest.
 * @param byPlace days by the place they belong to
 */
export function daysFor(
	place: Place,
	places: readonly Place[],
	byPlace: ReadonlyMap<string, readonly WeatherDay[]>,
	values: Values
): { station: Place | null; days: Raw[] } {
	const own = (byPlace.get(place.id) ?? []).map((day) => ({ ...day, inside: !outdoors(place) }));
	const station = stationFor(place, places, new Set(byPlace.keys()), values);
	if (!station || station.id === place.id) return { station, days: own };
	const measured = new Set(own.map((day) => day.on));
	const borrowed = (byPlace.get(station.id) ?? []).filter((day) => !measured.has(day.on));
	return { station, days: [...own, ...borrowed] };
}

/** The place out of doors whose weather a place uses: its own, else the nearest that has any. */
export function stationFor(
	place: Place,
	places: readonly Place[],
	withWeather: ReadonlySet<string>,
	values: Values
): Place | null {
	if (withWeather.has(place.id) && outdoors(place)) return place;
	const far = (other: Place): number =>
		Math.hypot(
			other.latitudeDeg - place.latitudeDeg,
			((other.longitudeDeg ?? place.longitudeDeg ?? 0) - (place.longitudeDeg ?? other.longitudeDeg ?? 0)) *
				Math.cos((place.latitudeDeg * Math.PI) / 180)
		);
	const near = places
		.filter(
			(other) =>
				withWeather.has(other.id) && outdoors(other) && far(other) <= values['weather.stationWithinDeg']
		)
		.sort((a, b) => far(a) - far(b));
	return near[0] ?? null;
}
