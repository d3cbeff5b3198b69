import type { WeatherDayInput } from '../../core/climate/weather-day';
import { drawsOf } from '../../core/practice/truth';
import type { PracticeTree } from '../../core/practice/practice-tree';
import type { Store } from '../db/database';
import { places } from '../records/records';
import { keepWeather } from '../weather';
import { practiceValues } from './rounds';

/** Days that a practice forecast looks ahead, and how far off it is on the first of them, °C: more on each later one. */
const AHEAD = 7;
const OFF_C = 0.6;

const round = (value: number): number => Math.round(value * 10) / 10;

async function benchOf(store: Store): Promise<string | null> {
	const all = await places.list(store.db);
	return all.find((place) => place.name === 'Practice bench')?.id ?? null;
}

/** Days of weather of a practice tree as its yard keeps them. @param from, to days of the round, the first and the one after the last */
function daysOf(
	tree: PracticeTree,
	placeId: string,
	[from, to]: readonly [number, number],
	source: 'station' | 'forecast'
): WeatherDayInput[] {
	return tree.outdoors.slice(from, to).map((day, i): WeatherDayInput => {
		const random = drawsOf(tree.truth.wish.seed, 'forecast', from, i);
		const off = source === 'forecast' ? OFF_C * (1 + i) * random.normal() : 0;
		return {
			placeId,
			on: day.on,
			source,
			from: source === 'station' ? 'practice station, simulated' : 'practice forecast, simulated',
			minC: round(day.minC + off),
			maxC: round(Math.max(day.minC, day.maxC) + off),
			humidityPercent: Math.round(day.humidityPercent ?? 70),
			windMs: round(day.windMs ?? 2),
			gustMs: null,
			sunMj: round(day.sunMj ?? 10),
			rainMm: round(day.rainMm ?? 0)
		};
	});
}

/** Keeps the weather of days that went by. */
export async function writeWeather(
	store: Store,
	tree: PracticeTree,
	days: readonly [number, number]
): Promise<void> {
	const placeId = await benchOf(store);
	if (placeId) await keepWeather(store, daysOf(tree, placeId, days, 'station'), practiceValues);
}

/** Keeps what is forecast on a day of the round: the weather that comes, and how far a forecast is off it. @param day from 0 */
export async function writeForecast(store: Store, tree: PracticeTree, day: number): Promise<void> {
	const placeId = await benchOf(store);
	if (placeId)
		await keepWeather(store, daysOf(tree, placeId, [day, day + AHEAD], 'forecast'), practiceValues);
}
