import { placeSchema } from '../vocabulary/place';
import type { Values } from '../values/values';
import type { PotStores } from '../replant/pots/balance';
import { grown } from '../aftercare/water/regrowth';
import { rootFunction, type FunctionEstimate } from '../aftercare/water/root-function';
import { wateringSchema, weighingPairs } from '../aftercare/water/watering';
import { weatherSeries } from '../climate/series';
import { weatherDaySchema } from '../climate/weather-day';
import { createRandom } from '../maths/random';
import { simulateWaterings } from './waterings';
import { simulateWeather } from './weather';

export interface WeighedTree {
	/** True root function by day. */
	truth: Map<string, number>;
	/** What the filter makes of its weighings. */
	course: FunctionEstimate[];
}

const place = placeSchema.parse({ id: 'p', version: 1, name: 'P', kind: 'open', latitudeDeg: 52, note: '' });
const stores: PotStores = { rootedMostL: 2.4, unrootedMostL: 3.1, surfaceM2: 0.09, crownM2: 0.35 };
const SCALE_KG = 0.03;

/**
 * A potted tree whose root function is known, watered and weighed over a span: what the filter sees of it. Its demand differs
 * from what is reckoned by a factor of its own.
 * @param fails its roots fail: from that day on half of them are lost in so many days
 */
export function simulateWeighedTree(
	seed: number,
	span: { from: string; to: string },
	fails: { on: string; halfDays: number } | null,
	values: Values
): WeighedTree {
	const { from, to } = span;
	const weather = simulateWeather(place, { from, to }, seed, values).map((one, i) =>
		weatherDaySchema.parse({ ...one, rainMm: 0, id: String(i), version: 1 })
	);
	const series = weatherSeries(place, from, to, weather, values);
	const random = createRandom(seed * 7);
	const real = Math.exp(random.normal() * 0.1);
	const truth = new Map<string, number>();
	let phi = random.between(0.35, 0.9);
	const begin = phi + random.normal() * values['rootFunction.beginSpread'];
	for (const day of series) {
		const warm = Math.max(0, (day.minC + day.maxC) / 2 - values['degreeDays.rootBaseC']);
		const next = fails && day.on >= fails.on ? phi * 0.5 ** (1 / fails.halfDays) : grown(phi, warm, values);
		phi = Math.min(1.1, Math.max(0.05, next + random.normal() * 0.008));
		truth.set(day.on, phi);
	}
	const waterings = simulateWaterings(
		stores,
		series,
		{
			phiOn: (on) => (truth.get(on) ?? 1) * real,
			inLeaf: () => true,
			trigger: 0.5,
			emptyKg: 9,
			scaleKg: SCALE_KG,
			seed
		},
		values
	).map((one, i) => wateringSchema.parse({ ...one, id: `w${i}`, version: 1 }));
	const course = rootFunction(
		{
			begin: { on: from, phi: Math.max(0.1, begin), p: values['rootFunction.beginSpread'] ** 2 },
			pairs: weighingPairs(waterings, []),
			series,
			stores,
			inLeaf: () => true,
			losses: [],
			scaleKg: SCALE_KG,
			rainReach: 0
		},
		values
	);
	return { truth, course };
}
