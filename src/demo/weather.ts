import { addDays } from '$core/climate/calendar';
import type { Place } from '$core/climate/place';
import { isTender } from '$core/kinds/kind';
import { expectedOn, expectedRootFunction } from '$core/recovery/expected';
import { rootLosses } from '$core/roots/work';
import { createRandom } from '$core/simulate/random';
import { simulateWaterings } from '$core/simulate/waterings';
import { simulateWeather } from '$core/simulate/weather';
import type { Values } from '$core/values/values';
import { storesOf } from '$core/water/tree-water';
import { leafCalendar } from '$core/water/tree-demand';
import { wateringInput } from '$core/water/watering';
import type { DeviceKind, Reading } from '$core/weather/device';
import { today } from '$lib/server/clock';
import type { Store } from '$lib/server/db/database';
import { addDevice, keepReadings } from '$lib/server/devices';
import { loadRecords } from '$lib/server/trees';
import { recordWatering } from '$lib/server/water';
import { fetchForecast, keepWeather, placeSeries, writeForecastSetting } from '$lib/server/weather';

/** How long the demo's station has stood, and how far back its waterings were written down. */
const STATION_DAYS = 400;
const WATERED_DAYS = 75;

/** Weather of the invented station, with a week in which its battery was flat, and a forecast. All of it simulated. */
export async function makeDemoWeather(store: Store, station: Place, values: Values): Promise<void> {
	const on = today();
	const flat = [addDays(on, -40), addDays(on, -33)] as const;
	const days = simulateWeather(station, addDays(on, -STATION_DAYS), addDays(on, -1), 1907, values).filter(
		(day) => day.on < flat[0] || day.on > flat[1]
	);
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
	const course = first ? expectedRootFunction(losses, place, isTender(kind), first, until, values, 7) : [];
	const waterings = simulateWaterings(
		storesOf(planting, tree, values),
		series,
		{
			phiOn: (on) => (expectedOn(course, on)?.expected ?? 1) * 0.92,
			inLeaf: leafCalendar(kind, place, values),
			trigger: kind.wetnessTrigger,
			emptyKg: 4 + tree.trunkDiameterMm / 12,
			scaleKg: 0.03,
			seed
		},
		values
	);
	for (const watering of waterings) await recordWatering(store, treeId, wateringInput.parse(watering));
}

/** A simulated device with two weeks of readings. */
export async function makeDemoDevice(
	store: Store,
	{
		name,
		kind,
		onTreeId,
		placeId
	}: { name: string; kind: DeviceKind; onTreeId: string | null; placeId: string | null },
	seed: number,
	values: Values
): Promise<void> {
	const { device } = await addDevice(store, { name, kind, onTreeId, placeId, simulated: true });
	const { next, normal } = createRandom(seed);
	const readings: Reading[] = [];
	const end = Date.parse(`${today()}T06:00:00Z`);
	for (let hour = 14 * 24; hour >= 0; hour--) {
		// A radio that is lost now and then.
		if (next() < 0.04) continue;
		const at = new Date(end - hour * 3_600_000);
		const sun = Math.cos(((at.getUTCHours() - 14) / 24) * 2 * Math.PI);
		const since = (14 * 24 - hour) % 96;
		readings.push({
			at: at.toISOString(),
			weightKg: kind === 'scale' ? Math.round((17.2 - since * 0.016 + normal() * 0.02) * 1000) / 1000 : null,
			moisture:
				kind === 'soil-probe'
					? Math.round(Math.max(0.05, 0.42 - since * 0.0026 + normal() * 0.005) * 1000) / 1000
					: null,
			temperatureC: kind === 'scale' ? null : Math.round((9 + 6 * sun + normal() * 0.6) * 10) / 10,
			humidityPercent:
				kind === 'air' ? Math.round(Math.min(98, Math.max(30, 70 - 16 * sun + normal() * 3))) : null,
			battery: Math.round((0.82 - (14 * 24 - hour) * 0.0004) * 1000) / 1000
		});
	}
	await keepReadings(store, device, readings, values);
}
