import type { TreeRecords } from '../case/case';
import { addDays } from '../climate/calendar';
import type { Place } from '../climate/place';
import { bodyOf } from '../mixes/bench-test';
import { componentOf } from '../mixes/components';
import { waterAndAir } from '../mixes/retention';
import { layerAmounts, type Planting } from '../pots/replant-plan';
import { crossSectionMm2 } from '../pots/volume';
import { rootLosses } from '../roots/work';
import type { Values } from '../values/values';
import type { SeriesDay } from '../weather/series';
import { fullPot, type PotStores, type PotWater } from './balance';
import { crownCoverM2, usualCrownWidthMm } from './demand';
import { nextWatering, waterAlarms, type NextWatering, type WaterAlarm } from './forecast';
import { rootFunction, type FunctionEstimate, type WeighingPair } from './root-function';
import { leafCalendar } from './tree-demand';
import { outflowLearned, weighingPairs } from './watering';

/** Stores of a pot from its planting: mix and ball, in parts with roots and without. */
export function storesOf(
	planting: Pick<
		Planting,
		| 'pot'
		| 'mix'
		| 'seat'
		| 'ballDiameterMm'
		| 'ballDepthMm'
		| 'coarseLayerMm'
		| 'topLayerMm'
		| 'headspaceMm'
		| 'crownWidthMm'
	>,
	tree: Pick<TreeRecords['tree'], 'heightM' | 'trunkDiameterMm'>,
	values: Values
): PotStores {
	const amounts = layerAmounts({ ...planting, moundMm: planting.seat?.moundMm ?? 0 }, values);
	const body = bodyOf(planting.mix, values);
	const fillMm = Math.max(10, planting.pot.heightMm - planting.headspaceMm);
	const coarsePoreMm = componentOf('grit-coarse').fineMm * values['mix.poreOfGrain'];
	const water = waterAndAir(
		body,
		planting.pot,
		{ coarseLayerMm: planting.coarseLayerMm, coarsePoreMm },
		fillMm
	);
	const drawn = Math.max(0.02, water.containerCapacity - body.inside * (1 - values['water.insideDrawn']));
	return {
		rootedMostL: Math.max(0.01, amounts.ballL * values['water.ballHeld']),
		unrootedMostL: (amounts.mainL + amounts.topL + amounts.moundL) * drawn,
		surfaceM2: crossSectionMm2(planting.pot, fillMm) / 1e6,
		crownM2: crownCoverM2(planting.crownWidthMm ?? usualCrownWidthMm(tree, values))
	};
}

/**
 * Roots grow into the mix: the part of it that counts as rooted rises with seasons since planting.
 * @param degreeDays7 soil warmth since planting
 */
export function rootedIn(stores: PotStores, degreeDays7: number, values: Values): PotStores {
	const share = 1 - Math.exp(-degreeDays7 / values['water.rootInDegreeDays']);
	const moved = stores.unrootedMostL * share;
	return {
		...stores,
		rootedMostL: stores.rootedMostL + moved,
		unrootedMostL: stores.unrootedMostL - moved
	};
}

export interface TreeWater {
	stores: PotStores;
	pairs: WeighingPair[];
	course: FunctionEstimate[];
	next: NextWatering;
	alarms: WaterAlarm[];
	lastWaterOn: string | null;
	/** What the state of the pot rests on. */
	from: 'watering' | 'weighing' | 'planting' | 'assumed';
}

/**
 * Everything about the water of a potted tree on a day: how dry it is, when and how it is watered next, and what its roots do.
 * @param series weather of its place from the planting or a year back to as far ahead as is known
 * @returns null for a tree that stands in no pot that is known
 */
export function treeWater(
	records: TreeRecords,
	place: Place,
	series: readonly SeriesDay[],
	today: string,
	values: Values
): TreeWater | null {
	const planting = records.plantings.at(-1);
	const { tree, kind } = records;
	const first = series[0];
	if (!planting || tree.situation === 'in-ground' || !first) return null;
	const base = storesOf(planting, tree, values);
	const warm = series
		.filter((day) => day.on > planting.plantedOn && day.on <= today)
		.reduce((sum, day) => sum + Math.max(0, (day.minC + day.maxC) / 2 - values['degreeDays.rootBaseC']), 0);
	const stores = rootedIn(base, warm, values);

	const weighings = records.measurements.flatMap(({ raw, measuredOn }) =>
		raw.tool === 'weighing' && measuredOn >= planting.plantedOn
			? [
					{
						on: measuredOn,
						kg: raw.nowKg,
						wateredOn: raw.wateredOn,
						fullKg: raw.fullKg,
						dryKg: raw.dryKg
					}
				]
			: []
	);
	const waterings = records.waterings.filter((one) => one.wateredOn >= planting.plantedOn);
	const pairs = weighingPairs(waterings, weighings);
	const { found, done } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.share > 0);
	const inLeaf = leafCalendar(kind, place, values);
	const begun = losses.filter((loss) => loss.on <= first.on);
	const course = rootFunction(
		{
			begin: {
				on: first.on,
				phi: begun.reduce((left, loss) => left * (1 - loss.share), 1),
				p: values['rootFunction.beginSpread'] ** 2
			},
			pairs,
			series: series.filter((day) => day.on <= today),
			stores,
			inLeaf,
			losses: losses.filter((loss) => loss.on > first.on),
			scaleKg: values['rootFunction.scaleKg']
		},
		values
	);
	const now = course.at(-1) ?? { phi: 1, low: 0.6, high: 1.2 };

	// The state of the pot: the last of what was poured, weighed or felt.
	const lastWater = [...waterings.map((one) => one.wateredOn), ...weighings.map((one) => one.wateredOn)]
		.sort()
		.at(-1);
	const lastWeighed = weighings.at(-1);
	const full = fullPot(stores);
	const dried = (dryness: number): PotWater => ({
		rootedL: full.rootedL * (1 - dryness),
		unrootedL: full.unrootedL * (1 - dryness)
	});
	let since = { on: lastWater ?? addDays(today, -1), water: full };
	let from: TreeWater['from'] = lastWater ? 'watering' : 'assumed';
	if (!lastWater && planting.plantedOn >= addDays(today, -30)) {
		since = { on: planting.plantedOn, water: full };
		from = 'planting';
	}
	if (lastWeighed && lastWeighed.on >= since.on && lastWeighed.on > (lastWater ?? '')) {
		const most = stores.rootedMostL + stores.unrootedMostL;
		const dryness =
			lastWeighed.dryKg !== null && lastWeighed.fullKg > lastWeighed.dryKg
				? (lastWeighed.fullKg - lastWeighed.kg) / (lastWeighed.fullKg - lastWeighed.dryKg)
				: (lastWeighed.fullKg - lastWeighed.kg) / Math.max(0.1, most);
		since = { on: lastWeighed.on, water: dried(Math.min(1, Math.max(0, dryness))) };
		from = 'weighing';
	}
	if (since.on < first.on) since = { on: first.on, water: since.water };
	const rest = records.tasks
		.filter((task) => task.state === 'open' && task.kind === 'dry-rest')
		.map((task) => task.fromOn)
		.sort()[0];
	const sheds = records.examinations
		.at(-1)
		?.findings.some((finding) => finding.signId === 'water-beads' && finding.grade > 0);
	const next = nextWatering(
		{
			stores,
			since,
			series,
			today,
			trigger: kind.wetnessTrigger,
			root: now,
			inLeaf,
			restUntil: rest ?? null,
			sheds: sheds ?? false,
			outflow: outflowLearned(waterings, values['water.outflow'])
		},
		values
	);
	return {
		stores,
		pairs,
		course,
		next,
		alarms: waterAlarms(course, from === 'assumed' ? null : next, lastWater ?? null, today, false, values),
		lastWaterOn: lastWater ?? null,
		from
	};
}
