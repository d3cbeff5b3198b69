import { addDays } from '$core/maths/calendar';
import type { Place } from '$core/vocabulary/place';
import { expectedOn, expectedRootFunction } from '$core/recovery/expected';
import { rootLosses } from '$core/tree/losses';
import { createRandom } from '$core/maths/random';
import { simulateWaterings } from '$core/simulate/waterings';
import { simulateWeather } from '$core/simulate/weather';
import type { Values } from '$core/values/values';
import { storesOf } from '$core/replant/pots/stores';
import { leafCalendar } from '$core/tree/tree-demand';
import { wateringInput } from '$core/aftercare/water/watering';
import type { DeviceInput, DeviceKind, Reading } from '$core/aftercare/weather/device';
import { today } from '$lib/server/clock';
import type { Store } from '$lib/server/db/database';
import { addDevice, keepReadings } from '$lib/server/devices';
import { loadRecords } from '$lib/server/records/tree-records';
import { recordWatering, waterOf } from '$lib/server/water';
import { fetchForecast, keepWeather, placeSeries, writeForecastSetting } from '$lib/server/weather';

/** How long the demo's station has stood, and how far back its waterings were written down. */
const STATION_DAYS = 400;
const WATERED_DAYS = 75;

/** Weather of the invented station, with a week in which its battery was flat, and a forecast. All of it simulated. */
export async function makeDemoWeather(store: Store, station: Place, values: Values): Promise<void> {
	const on = today();
	const flat = [addDays(on, -40), addDays(on, -33)] as const;
	const days = simulateWeather(
		station,
		{ from: addDays(on, -STATION_DAYS), to: addDays(on, -1) },
		1907,
		values
	).filter((day) => day.on < flat[0] || day.on > flat[1]);
	await keepWeather(store, days, values);
	await writeForecastSetting(store, { service: 'simulated', placeId: station.id, fetchedAt: null });
	await fetchForecast(store, values);
}

/** Waterings of a tree as they would have been, weighed before and after, until some days ago. */
export async function waterDemoTree(
	store: Store,
	treeId: string,
	seed: number,
	until: string,
	values: Values
): Promise<void> {
	const records = await loadRecords(store.db, treeId);
	const { tree, kind, places, plantings } = records;
	const place = places.find((candidate) => candidate.id === tree.placeId);
	const planting = plantings.at(-1);
	if (!place || !planting) return;
	const from = [addDays(today(), -WATERED_DAYS), planting.plantedOn].sort()[1] ?? planting.plantedOn;
	const series = (await placeSeries(store.db, from, until, values)).get(place.id)?.series ?? [];
	const { found, done } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.share > 0);
	const first = losses.map((loss) => loss.on).sort()[0];
	const course = first
		? expectedRootFunction(losses, place, { from: first, to: until, stepDays: 7 }, values)
		: [];
	const { pot } = await waterOf(store.db, treeId, values);
	// With the roots where they have grown to by now; as heavy as it was weighed at its looks.
	const stores = pot?.stores ?? storesOf(planting, tree, values);
	const weighed = records.observations.findLast((look) => look.weightKg !== null)?.weightKg ?? null;
	const waterings = simulateWaterings(
		stores,
		series,
		{
			phiOn: (on) => (expectedOn(course, on)?.expected ?? 1) * 0.92,
			inLeaf: leafCalendar(kind, place, values),
			trigger: kind.wetnessTrigger,
			emptyKg:
				weighed === null
					? emptyKgOf(tree.trunkDiameterMm)
					: Math.max(0.4 * weighed, weighed - (stores.rootedMostL + stores.unrootedMostL) / 2),
			scaleKg: 0.03,
			seed
		},
		values
	);
	for (const watering of waterings) await recordWatering(store, treeId, wateringInput.parse(watering));
}

/** Weight of a demo pot with its tree and dry mix, kg. */
const emptyKgOf = (trunkDiameterMm: number): number => 4 + trunkDiameterMm / 12;

/** Dryness of a tree’s pot by the hour, from its balance by day: it dries steadily, and water comes at eight. */
async function hourlyDryness(
	store: Store,
	treeId: string,
	values: Values
): Promise<{ most: number; at: (when: Date) => number } | null> {
	const { pot } = await waterOf(store.db, treeId, values);
	if (!pot) return null;
	const byDay = new Map(pot.state.map((day) => [day.on, day]));
	return {
		most: pot.stores.rootedMostL + pot.stores.unrootedMostL,
		at: (when) => {
			const on = when.toISOString().slice(0, 10);
			const [before, now] = [byDay.get(addDays(on, -1)), byDay.get(on)];
			const hour = when.getUTCHours() + when.getUTCMinutes() / 60;
			if (!now) return before?.dryness ?? 0.5;
			if (!before) return now.dryness;
			if (now.poured) return hour < 8 ? before.dryness : now.dryness;
			return before.dryness + ((now.dryness - before.dryness) * hour) / 24;
		}
	};
}

/** A simulated device with two weeks of readings, that of a scale or a probe as the water of its pot was. */
export async function makeDemoDevice(
	store: Store,
	{ name, kind, onTreeId, placeId }: Omit<DeviceInput, 'simulated'>,
	seed: number,
	values: Values
): Promise<void> {
	const { device } = await addDevice(
		store,
		{ name, kind, onTreeId, placeId, simulated: true },
		demoToken(kind)
	);
	const { next, normal } = createRandom(seed);
	const pot = onTreeId ? await hourlyDryness(store, onTreeId, values) : null;
	const trunkMm = onTreeId ? (await loadRecords(store.db, onTreeId)).tree.trunkDiameterMm : 0;
	const readings: Reading[] = [];
	const end = Date.parse(`${today()}T06:00:00Z`);
	for (let hour = 14 * 24; hour >= 0; hour--) {
		// A radio that is lost now and then.
		if (next() < 0.04) continue;
		const at = new Date(end - hour * 3_600_000);
		const sun = Math.cos(((at.getUTCHours() - 14) / 24) * 2 * Math.PI);
		const wet = 1 - (pot?.at(at) ?? 0.5);
		const round = (value: number, places: number): number => Math.round(value * 10 ** places) / 10 ** places;
		readings.push({
			at: at.toISOString(),
			weightKg:
				kind === 'scale' ? round(emptyKgOf(trunkMm) + (pot?.most ?? 4) * wet + normal() * 0.015, 3) : null,
			moisture: kind === 'soil-probe' ? round(Math.max(0.05, 0.08 + 0.33 * wet + normal() * 0.005), 3) : null,
			temperatureC: kind === 'scale' ? null : round(9 + 6 * sun + normal() * 0.6, 1),
			humidityPercent:
				kind === 'air' ? Math.round(Math.min(98, Math.max(30, 70 - 16 * sun + normal() * 3))) : null,
			battery: round(0.82 - (14 * 24 - hour) * 0.0004, 3)
		});
	}
	await keepReadings(store, device, readings, values);
}

/** Token of a demo device: known, so that its simulator can go on where its readings end. Only ever in a demo. */
export const demoToken = (kind: DeviceKind): string => `simulated-${kind}-of-the-demo`;
