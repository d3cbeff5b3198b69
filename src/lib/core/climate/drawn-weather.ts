import { z } from 'zod';
import { daysBetween, dayOfYear } from '../maths/calendar';
import { normalDay, type SeriesDay } from './series';
import type { PlaceClimate } from './normals';
import { measure, share } from '../vocabulary/fields';
import type { Random } from '../maths/random';
import type { Values } from '../values/values';

/** How the weather of a place goes about its climate. */
export const weatherHabits = z.strictObject({
	warmerC: measure(-15, 15, '°C').default(0).describe('How much warmer it is than the stand-in climate says'),
	swingHolds: share().default(0.78).describe('Share of a warm or cold spell that is left the next day'),
	swingC: measure(0, 8, '°C')
		.default(1.9)
		.describe('How far each day turns from the one before, one deviation'),
	wetAfterDry: share().default(0.24).describe('Chance of rain after a dry day'),
	wetAfterWet: share().default(0.58).describe('Chance of rain after a wet day'),
	rainMm: measure(0, 60, 'mm').default(4.5).describe('Rain of a wet day, in the mean'),
	humidityPercent: measure(10, 100, '%').default(62).describe('Humidity of a cloudless day'),
	windMs: measure(0.3, 15, 'm/s').default(2.6).describe('Wind, in the mean'),
	unsteady: measure(0, 2, 'times')
		.default(1)
		.describe('How much all of it wavers; 0 for the same every day of a year')
});
export type WeatherHabits = z.infer<typeof weatherHabits>;

/** Weather about the stand-in climate of a place, where nobody measured any. */
export const usualHabits: WeatherHabits = weatherHabits.parse({});

/** What a day leaves to the next. */
export interface Spell {
	/** Warmer than usual, °C. */
	swingC: number;
	wet: boolean;
}

/** A day that never was, outdoors. */
export interface DrawnDay {
	minC: number;
	maxC: number;
	humidityPercent: number;
	windMs: number;
	gustMs: number;
	/** Share of the radiation on top of the air that arrives, 0 … 1. */
	sunShare: number;
	rainMm: number;
}

/**
 * The next day of weather that never was: swings that last some days, rain that comes in spells, sun and wind to match [our own].
 * @param spell what the day before left; changed to what this day leaves
 * @param usual usual least and most of the day at the place, °C
 * @param winter whether it is the windier part of the year
 */
export function drawDay(
	random: Random,
	spell: Spell,
	usual: { minC: number; maxC: number },
	winter: boolean,
	habits: WeatherHabits
): DrawnDay {
	const { unsteady } = habits;
	spell.swingC = habits.swingHolds * spell.swingC + habits.swingC * unsteady * random.normal();
	spell.wet = random.next() < (spell.wet ? habits.wetAfterWet : habits.wetAfterDry);
	// In the middle of its range where nothing wavers.
	const clouds = unsteady === 0 ? 0.5 : random.next();
	const cloud = spell.wet ? 0.65 + 0.3 * clouds : 0.15 + 0.5 * clouds;
	const mean = (usual.minC + usual.maxC) / 2 + habits.warmerC + spell.swingC;
	const half = (usual.maxC - usual.minC) / 2 + (1 - cloud) * 2.5 - 1 + 0.6 * unsteady * random.normal();
	const windMs = Math.max(0.3, habits.windMs + 1.1 * unsteady * random.normal() + (winter ? 0.8 : 0));
	return {
		minC: mean - Math.max(1, half),
		maxC: mean + Math.max(1, half),
		humidityPercent: Math.min(
			98,
			Math.max(35, habits.humidityPercent + 25 * cloud + 5 * unsteady * random.normal())
		),
		windMs,
		gustMs: windMs * (1.9 + 0.5 * random.next()),
		sunShare: 0.72 - 0.5 * cloud,
		rainMm: spell.wet ? Math.min(60, -habits.rainMm * Math.log(Math.max(1e-9, random.next()))) : 0
	};
}

/** Whether a day lies in the windier part of a year, after midwinter, in either half of the world. */
export const isWindy = (latitudeDeg: number, on: string): boolean =>
	(dayOfYear(on) + (latitudeDeg < 0 ? 183 : 0)) % 366 < 90;

/**
 * Habits of the weather of a place, by the days that were measured there: each drawn towards the climate of the place as long as few
 * days are known.
 * @param series days of the place without gaps; those that nobody measured are passed over
 */
export function habitsOf(place: PlaceClimate, series: readonly SeriesDay[], values: Values): WeatherHabits {
	const measured = series.filter((day) => day.how === '' && day.source !== 'forecast');
	const toward = (usual: number, seen: number | null, days: number): number =>
		seen === null ? usual : usual + ((seen - usual) * days) / (days + values['rehearse.habitDays']);
	const mean = (list: readonly number[]): number | null =>
		list.length === 0 ? null : list.reduce((sum, one) => sum + one, 0) / list.length;
	const outdoors: PlaceClimate = { ...place, kind: 'open', heldMinimumC: null };
	const nights = measured.map((day) => day.outMinC - (normalDay(outdoors, day.on, values).minC ?? 0));
	const off = measured.map((day, i) => ({ on: day.on, byC: nights[i] ?? 0 }));
	const turns = off.flatMap((day, i) => {
		const before = off[i - 1];
		return before && daysBetween(before.on, day.on) === 1
			? [day.byC - usualHabits.swingHolds * before.byC]
			: [];
	});
	const reach = values[`place.rain.${place.kind}`];
	const outRain = (day: SeriesDay): number => (reach > 0 ? day.rainMm / reach : 0);
	const after = (wetBefore: boolean): number[] =>
		reach <= 0
			? []
			: measured.flatMap((day, i) => {
					const before = measured[i - 1];
					return before && daysBetween(before.on, day.on) === 1 && outRain(before) > 0 === wetBefore
						? [outRain(day) > 0 ? 1 : 0]
						: [];
				});
	const wet = reach <= 0 ? [] : measured.map(outRain).filter((mm) => mm > 0);
	const [afterDry, afterWet] = [after(false), after(true)];
	const meanTurn = mean(turns) ?? 0;
	const deviation = mean(turns.map((turn) => (turn - meanTurn) ** 2));
	const calm = values[`place.wind.${place.kind}`];
	const winds = measured.flatMap((day) => (day.windMs === null || calm <= 0 ? [] : [day.windMs / calm]));
	return {
		...usualHabits,
		warmerC: Math.min(15, Math.max(-15, toward(0, mean(nights), nights.length))),
		swingC: Math.min(
			8,
			toward(usualHabits.swingC, deviation === null ? null : Math.sqrt(deviation), turns.length)
		),
		wetAfterDry: toward(usualHabits.wetAfterDry, mean(afterDry), afterDry.length),
		wetAfterWet: toward(usualHabits.wetAfterWet, mean(afterWet), afterWet.length),
		rainMm: Math.min(60, toward(usualHabits.rainMm, mean(wet), wet.length)),
		windMs: Math.min(15, Math.max(0.3, toward(usualHabits.windMs, mean(winds), winds.length)))
	};
}
