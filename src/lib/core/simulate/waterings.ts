import { addDays } from '../maths/calendar';
import type { Values } from '../values/values';
import { fullPot, potDay, type PotStores } from '../replant/pots/balance';
import type { WateringInput } from '../aftercare/water/watering';
import type { SeriesDay } from '../climate/series';
import { createRandom } from '../maths/random';

/**
 * Waterings of a tree with known roots: it is watered when it has dried, weighed before and after, with the error of a scale.
 * @param phiOn true root function by day
 * @param emptyKg pot, dry mix and tree
 */
export function simulateWaterings(
	stores: PotStores,
	series: readonly SeriesDay[],
	{
		phiOn,
		inLeaf,
		trigger,
		emptyKg,
		scaleKg,
		seed
	}: {
		phiOn: (on: string) => number;
		inLeaf: (on: string) => boolean;
		trigger: number;
		emptyKg: number;
		scaleKg: number;
		seed: number;
	},
	values: Values
): WateringInput[] {
	const { next: random, normal } = createRandom(seed);
	const noise = (): number => normal() * scaleKg;
	const waterings: WateringInput[] = [];
	let water = fullPot(stores);
	const kg = (): number =>
		Math.max(0.02, Math.round((emptyKg + water.rootedL + water.unrootedL + noise()) * 1000) / 1000);
	for (const day of series) {
		const dry = potDay(
			water,
			stores,
			{ day, rootFunction: phiOn(day.on), inLeaf: inLeaf(day.on), irrigationL: 0 },
			values
		);
		water = dry.water;
		if (dry.dryness < trigger * (0.85 + 0.3 * random())) continue;
		const beforeKg = kg();
		const full = fullPot(stores);
		const missing = full.rootedL + full.unrootedL - water.rootedL - water.unrootedL;
		water = full;
		const litres = Math.round((missing / 0.85) * 100) / 100;
		waterings.push({
			wateredOn: addDays(day.on, 0),
			litres,
			ranOutL: Math.round((litres - missing) * 100) / 100,
			beforeKg,
			afterKg: Math.max(beforeKg, kg()),
			way: 'all-round',
			note: ''
		});
	}
	return waterings;
}
