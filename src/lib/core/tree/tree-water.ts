import { potVolumeL, roundPot } from '../replant/pots/volume';
import type { TreeRecords } from './case';
import { addDays, daysBetween } from '../maths/calendar';
import { Z90 } from '../maths/normal';
import { pottingMixOf, usualMix } from '../replant/mixes/mixes';
import { plantingSchema, type Planting } from '../replant/pots/replant-plan';
import { hasLapsed } from '../aftercare/tasks/release';
import { ofThePot, potWeights, weighedFullKg, withMates } from './shared-pot';
import { tookUpL } from './weights';
import { feltInLooks } from './looks';
import { standingOf } from './standing';
import { rootLosses } from './losses';
import type { Values } from '../values/values';
import { seriesBetween, type PlaceWeather, type SeriesDay } from '../climate/series';
import { fullPot, type PotStores } from '../replant/pots/balance';
import {
	fallOf,
	nextWatering,
	waterAlarms,
	weighedThenAndNow,
	type NextWatering,
	type WaterAlarm
} from '../aftercare/water/forecast';
import {
	driedTo,
	byDevice,
	pairsOfScale,
	potState,
	seenByDevices,
	seenByHand,
	type DeviceDay,
	type Poured,
	type PotStateDay,
	type WaterSeen
} from '../aftercare/water/pot-state';
import {
	rainUnmeasured,
	rootFunction,
	type FunctionEstimate,
	type WeighingPair,
	unknownFunction
} from '../aftercare/water/root-function';
import { crownCoverM2, usualCrownWidthMm } from '../replant/pots/demand';
import { rootedIn, storesOf } from '../replant/pots/stores';
import { leavesBorne } from './tree-demand';
import { outflowLearned, weighingPairs } from '../aftercare/water/watering';

/** What a potted tree stands in, as it was written down last, else as it is assumed; null for one in the ground. */
export function plantingOf(records: TreeRecords, today: string, values: Values): Planting | null {
	const { tree } = records;
	if (tree.situation === 'in-ground') return null;
	return (
		records.plantings.at(-1) ?? (tree.situation === 'potted' ? assumedPlanting(records, today, values) : null)
	);
}

/**
 * What a potted tree stands in where nobody wrote it down: a pot round its ball, or a ball for its trunk and no smaller than its crown can
 * live on, and the usual mix of its kind; larger where others stand in it too, and where its weights say that it holds more water than that.
 */
function assumedPlanting(records: TreeRecords, today: string, values: Values): Planting {
	const all = [records.tree, ...records.mates.map((mate) => mate.tree)];
	const own = usualPlanting(records, today, 1, values);
	const ownL = potVolumeL(own.pot);
	// A shared pot holds the balls of all that stand in it; a ball grows with its trunk.
	const ballsL = all.reduce(
		(sum, { trunkDiameterMm }) => sum + ownL * (trunkDiameterMm / records.tree.trunkDiameterMm) ** 3,
		0
	);
	const crownsM2 = all.reduce((sum, tree) => sum + crownCoverM2(usualCrownWidthMm(tree, values)), 0);
	const measured = standingOf(records, today, values).ballWidthMm.value !== null;
	const times = Math.cbrt(Math.max(ballsL, measured ? 0 : crownsM2 * values['pot.crownNeeds']) / ownL);
	const usual = usualPlanting(records, today, times, values);
	const { rootedMostL, unrootedMostL } = storesOf(usual, records.tree, values);
	const larger = tookUpL(records, usual.plantedOn) / (rootedMostL + unrootedMostL);
	return larger <= 1 ? usual : usualPlanting(records, today, times * Math.cbrt(larger), values);
}

/** @param times how much wider and deeper than usual */
function usualPlanting(records: TreeRecords, today: string, times: number, values: Values): Planting {
	const { tree, kind } = records;
	const { ballWidthMm, ballDepthMm } = standingOf(records, today, values);
	const between = (least: number, value: number, most: number): number =>
		Math.round(Math.min(most, Math.max(least, value)));
	const wide = ballWidthMm.value ?? tree.trunkDiameterMm * values['lifting.trunks-least'];
	const width = between(40, wide * times, 3900);
	const depth = between(
		20,
		ballDepthMm.value === null ? width * values['pot.ballDepthShare'] : ballDepthMm.value * times,
		Math.min(2900, width * 2)
	);
	const bottom = between(30, width * values['pot.taperRound'], width);
	return plantingSchema.parse({
		id: 'assumed',
		version: 1,
		plantedOn: tree.takenInOn,
		pot: roundPot(width, bottom, depth + 20),
		sizeRule: 'normal',
		ballDiameterMm: width,
		ballDepthMm: depth,
		mix: pottingMixOf(usualMix(kind.group, false)),
		headspaceMm: 20
	});
}

export interface TreeWater {
	/** Its pot and mix were written down; else they are assumed. */
	potKnown: boolean;
	stores: PotStores;
	pairs: WeighingPair[];
	/** Those of them that tell what its roots drink. */
	told: WeighingPair[];
	/** Rain may have fallen unmeasured between the last two weighings. */
	rainUnmeasured: boolean;
	course: FunctionEstimate[];
	/** The pot by day, from its planting or as far back as weather is read. */
	state: PotStateDay[];
	next: NextWatering;
	alarms: WaterAlarm[];
	/** Fall of its root function, to be set against its neighbours; null where there is none. */
	fall: { days: number; by: number } | null;
	lastWaterOn: string | null;
	/** First day on which it gets water after the dry rest it still has on its list; null where there is none. */
	restUntil: string | null;
	/** Day from which on it stands as it does: of its planting, else of its taking in. */
	standsSince: string;
	/** Day on which its water was last poured, weighed, felt or probed; null where nobody wrote it down since it stands so. */
	knownOn: string | null;
	/** Day of a weight after that which tells no dryness, since nobody weighed the pot after its last water; null where there is none. */
	weighedOn: string | null;
	/** What the state of the pot rests on last. */
	from: 'watering' | WaterSeen['how'] | 'assumed';
}

/**
 * Root function of a tree by day since it was taken in: from what was found dead and cut, regrowth by warmth, and its weighings. Of what
 * it drank before, nobody knows anything.
 */
export function functionCourse(
	records: TreeRecords,
	{ place, series }: PlaceWeather,
	{ stores, pairs }: { stores: PotStores; pairs: readonly WeighingPair[] },
	today: string,
	values: Values
): FunctionEstimate[] {
	const since = seriesBetween(series, records.tree.takenInOn, null);
	const first = since[0];
	if (!first) return [];
	const { found, done } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.share > 0);
	return rootFunction(
		{
			begin: {
				on: first.on,
				phi: losses.filter((loss) => loss.on <= first.on).reduce((left, loss) => left * (1 - loss.share), 1),
				p: values['rootFunction.beginSpread'] ** 2
			},
			pairs,
			series: seriesBetween(since, null, today),
			stores,
			inLeaf: leavesBorne(records, place, values),
			losses: losses.filter((loss) => loss.on > first.on),
			scaleKg: values['rootFunction.scaleKg'],
			rainReach: values[`place.rain.${place.kind}`]
		},
		values
	);
}

/**
 * Days from full until a pot was dry enough to water, after it was filled for the last time and before more was poured. Its days end in the
 * evening: what the day of the water drew counts, so that the pace of the days after it is taken back to full.
 * @param nextOn when it is to be watered next, where nothing was poured since
 * @param trigger dryness at which its kind is watered, 0 … 1
 * @returns null where it was not filled, or not dry before more was poured
 */
function driedAfterFill(
	state: readonly PotStateDay[],
	nextOn: string | null,
	trigger: number
): number | null {
	const at = state.findLastIndex((day) => day.filled);
	const filled = state[at];
	if (!filled) return null;
	// It ran past a ball that stayed dry.
	if (filled.dryness >= trigger) return 0;
	const after = state.slice(at + 1);
	const pouredAt = after.findIndex((day) => day.poured);
	const run = pouredAt < 0 ? after : after.slice(0, pouredAt);
	const dry =
		run.find((day) => day.dryness >= trigger) ??
		(pouredAt < 0 && nextOn !== null ? { on: nextOn, dryness: trigger } : null);
	return dry && (trigger * daysBetween(filled.on, dry.on)) / (dry.dryness - filled.dryness);
}

/** What was poured, weighed, felt and probed since a planting, as the balance of the pot takes it. */
function seenSince(
	records: TreeRecords,
	sinceOn: string,
	devices: readonly DeviceDay[],
	stores: PotStores,
	values: Values
) {
	const measured = records.measurements.filter((one) => one.measuredOn >= sinceOn);
	const weighings = measured.flatMap(({ raw, measuredOn }) =>
		raw.tool === 'weighing' ? [{ on: measuredOn, raw }] : []
	);
	const waterings = records.waterings.filter((one) => one.wateredOn >= sinceOn);
	// A weight in a look, against what it weighed after the water before it.
	const looked = potWeights(records).filter((one) => one.on >= sinceOn);
	const poured: Poured[] = [
		...waterings.map(({ wateredOn, litres, ranOutL, beforeKg, afterKg }) => ({
			on: wateredOn,
			litres,
			ranOut: (ranOutL ?? 0) > 0,
			caughtL: ranOutL,
			gainedL: beforeKg === null || afterKg === null ? null : afterKg - beforeKg
		})),
		// A weighing tells when it was last watered through; an outflow test is a watering.
		...weighings
			.filter(({ raw }) => raw.wateredOn >= sinceOn)
			.filter(({ raw }) => !waterings.some((one) => one.wateredOn === raw.wateredOn))
			.map(({ raw }) => ({ on: raw.wateredOn, litres: null, ranOut: true, caughtL: null, gainedL: null })),
		...measured.flatMap(({ raw, measuredOn }) =>
			raw.tool === 'outflow' && !waterings.some((one) => one.wateredOn === measuredOn)
				? [
						{
							on: measuredOn,
							litres: raw.pouredL,
							ranOut: raw.ranOutL > 0,
							caughtL: raw.ranOutL,
							gainedL: null
						}
					]
				: []
		)
	];
	const most = Math.max(0.1, stores.rootedMostL + stores.unrootedMostL);
	const seen: WaterSeen[] = [
		...weighings
			// On the day of the water itself it says nothing that the water does not.
			.filter(({ on, raw }) => on > raw.wateredOn)
			.map(({ on, raw }): WaterSeen => ({
				on,
				how: 'weighing',
				dryness: Math.min(
					1,
					Math.max(
						0,
						(raw.fullKg - raw.nowKg) /
							(raw.dryKg !== null && raw.fullKg > raw.dryKg ? raw.fullKg - raw.dryKg : most)
					)
				),
				sd: values['water.scaleError']
			})),
		...[
			// On the day of a water nobody knows whether it was weighed before or after.
			...looked
				.filter(({ on }) => !waterings.some((one) => one.wateredOn === on))
				.map(({ on, kg }) => ({ on, kg, fullKg: weighedFullKg(waterings, sinceOn, on) })),
			...waterings.map(({ wateredOn: on, beforeKg: kg }) => ({
				on,
				kg,
				fullKg: weighedFullKg(waterings, sinceOn, on)
			}))
		].flatMap(({ on, kg, fullKg }): WaterSeen[] =>
			kg === null || fullKg === null
				? []
				: [
						{
							on,
							how: 'weighing',
							dryness: Math.min(1, Math.max(0, (fullKg - kg) / most)),
							sd: values['water.scaleError']
						}
					]
		),
		...seenByHand(
			[
				...measured.flatMap(({ raw, measuredOn }) =>
					raw.tool === 'moisture' ? [{ on: measuredOn, data: raw }] : []
				),
				...feltInLooks(records).filter(({ on }) => on >= sinceOn)
			],
			values
		),
		...seenByDevices(devices, stores, sinceOn, values)
	];
	const weights = [
		...weighings.map(({ on, raw }) => ({ on, kg: raw.nowKg, wateredOn: raw.wateredOn, fullKg: raw.fullKg })),
		...looked
	];
	return { weights, waterings, poured, seen };
}

/** Weather of a place, and the days of the scales and probes that stand at a tree. */
export interface TreeWeather extends PlaceWeather {
	devices?: readonly DeviceDay[];
}

/**
 * Everything about the water of a potted tree on a day: how dry it is, when and how it is watered next, and what its roots do.
 * What was done to a shared pot counts for all that stand in it.
 * @param here weather of its place from the planting or a year back to as far ahead as is known, and daily readings of its devices
 * @returns null for a tree that stands in no pot that is known
 */
export function treeWater(
	own: TreeRecords,
	here: TreeWeather,
	today: string,
	values: Values
): TreeWater | null {
	const records = ofThePot(own);
	const { kind } = records;
	const { place, series, devices = [] } = here;
	const planting = plantingOf(records, today, values);
	if (!planting || series.length === 0) return null;
	const stores = storesAsRooted(own, planting, series, today, values);
	const seen = seenSince(records, planting.plantedOn, devices, stores, values);
	const { waterings, poured } = seen;
	const pairs = pairsOf(planting, seen, devices, stores, values);
	const course = functionCourse(records, here, { stores, pairs }, today, values);
	const root = course.at(-1) ?? unknownFunction(values);
	const inLeaf = leavesBorne(own, place, values);
	const spoken = [...poured.map((one) => one.on), ...seen.seen.map((one) => one.on)].sort();
	const knownOn = spoken.filter((on) => on <= today).at(-1) ?? null;
	const beginOn = balanceFrom(planting, spoken[0], today, values);
	const state = stateUntil(today, here, { stores, seen, course, inLeaf, beginOn }, values);
	// The forecast runs on from the last day on which something was poured or seen.
	const known = state.findLast((day) => day.poured || day.seen.length > 0) ?? state[0];
	const lastSeen = known?.seen.at(-1);
	// Who waters felt and weighed before: what was poured has the last word over a hand, not over a device.
	const from: TreeWater['from'] =
		spoken.length === 0
			? 'assumed'
			: lastSeen && (!known?.poured || byDevice(lastSeen))
				? lastSeen.how
				: 'watering';
	const restUntil = restingUntil(records, today, values);
	const trigger = kind.wetnessTrigger;
	const next = nextWatering(
		{
			stores,
			since: known
				? { on: known.on, water: known.water, sd: known.sd }
				: { on: today, water: fullPot(stores), sd: values['water.unmeasuredError'] },
			series,
			today,
			trigger,
			root,
			inLeaf,
			restUntil,
			sheds: shedsWater(records),
			outflow: outflowLearned(waterings, values['water.outflow']),
			rainReach: values[`place.rain.${place.kind}`]
		},
		values
	);
	const lastWaterOn = poured.reduce<string | null>((last, { on }) => (on > (last ?? '') ? on : last), null);
	const half = Math.min(0.5, trigger);
	const lastPair = pairs.at(-1);
	// Leafless, or over months in which nobody wrote down its waters, a pair of weighings tells nothing.
	const told = pairs.filter(({ to }) => course.some(({ on, seen }) => on === to && seen !== null));
	const sinceWater = [...state.filter((day) => day.on > (lastWaterOn ?? '')), ...next.days];
	return {
		potKnown: records.plantings.length > 0,
		stores,
		pairs,
		told,
		rainUnmeasured:
			lastPair !== undefined && rainUnmeasured(lastPair, series, values[`place.rain.${place.kind}`], values),
		course,
		state,
		next,
		alarms: waterAlarms(
			{
				holdsL: stores.rootedMostL + stores.unrootedMostL,
				tookUpL: tookUpL(records, planting.plantedOn),
				// Of what nobody touched for long, and of water before the weather that is read, its pace tells nothing.
				known:
					from !== 'assumed' &&
					knownOn !== null &&
					daysBetween(knownOn, today) <= values['decision.waterKnownDays'],
				halfOn: sinceWater.find((day) => day.dryness >= half)?.on ?? null,
				knownTo: next.days.at(-1)?.on ?? today,
				today,
				lastWaterOn,
				dryDays: driedAfterFill(state, next.on, trigger),
				paceSeen: state
					.slice(state.findLastIndex((day) => day.filled) + 1)
					.some((day) => day.seen.length > 0),
				// What was before its last water is not asked: years of leaves need not be walked.
				leafySince: leafySince(today, lastWaterOn ?? today, inLeaf)
			},
			values
		),
		fall: weighedThenAndNow(
			pairs.map(({ to }) => to),
			today,
			values
		)
			? fallOf(course, today, values)
			: null,
		lastWaterOn,
		restUntil,
		standsSince: planting.plantedOn,
		knownOn,
		weighedOn:
			potWeights(records).findLast(
				({ on }) => on >= planting.plantedOn && on <= today && on > (knownOn ?? '')
			)?.on ?? null,
		from
	};
}

/** First day of those up to today on which it has borne leaves without a break, not before another; null while it bears none. */
function leafySince(today: string, earliest: string, inLeaf: (on: string) => boolean): string | null {
	let since: string | null = null;
	for (let on = today; on >= earliest && inLeaf(on); on = addDays(on, -1)) since = on;
	return since;
}

/** Its pot day by day up to a day, by what was poured, seen and drunk. */
function stateUntil(
	today: string,
	{ place, series }: PlaceWeather,
	{
		stores,
		seen,
		course,
		inLeaf,
		beginOn
	}: {
		stores: PotStores;
		seen: ReturnType<typeof seenSince>;
		course: readonly FunctionEstimate[];
		inLeaf: (on: string) => boolean;
		beginOn: string;
	},
	values: Values
): PotStateDay[] {
	const root = course.at(-1) ?? unknownFunction(values);
	const phiByDay = new Map(course.map((point) => [point.on, point.phi]));
	const firstOn = series[0]?.on ?? beginOn;
	return potState(
		{
			// A mix may go in dry or wet: how much it held on the day is not known before somebody poured or felt.
			begin: {
				on: beginOn < firstOn ? firstOn : beginOn,
				water: driedTo(0.5, stores),
				sd: values['water.beginError']
			},
			stores,
			series: seriesBetween(series, null, today),
			poured: seen.poured,
			seen: seen.seen,
			phiOn: (on) => phiByDay.get(on) ?? root.phi,
			phiSpread: root.phi > 0 ? (root.high - root.low) / 2 / Z90 / root.phi : 1,
			inLeaf,
			rainReach: values[`place.rain.${place.kind}`]
		},
		values
	);
}

/** What its pot holds, shared with its mates, with what its roots have grown into since it was planted. */
function storesAsRooted(
	own: TreeRecords,
	planting: Planting,
	series: readonly SeriesDay[],
	today: string,
	values: Values
): PotStores {
	const base = withMates(storesOf(planting, own.tree, values), own, planting, values);
	const warm = seriesBetween(series, addDays(planting.plantedOn, 1), today).reduce(
		(sum, day) => sum + Math.max(0, (day.minC + day.maxC) / 2 - values['degreeDays.rootBaseC']),
		0
	);
	return rootedIn(base, warm, values);
}

/** Dry-downs between two weights, by hand and by a scale that stands under it; the same one seen twice is not two witnesses. */
function pairsOf(
	planting: Planting,
	{ waterings, weights }: ReturnType<typeof seenSince>,
	devices: readonly DeviceDay[],
	stores: PotStores,
	values: Values
): WeighingPair[] {
	const byHand = weighingPairs(waterings, weights);
	const byScale = pairsOfScale(devices, stores, planting.plantedOn, values).filter(
		(pair) => !byHand.some((one) => one.from < pair.to && pair.from < one.to)
	);
	return [...byHand, ...byScale].sort((a, b) => (a.to < b.to ? -1 : a.to > b.to ? 1 : 0));
}

/**
 * Day from which its water is reckoned. Where nobody wrote anything down it may be anything between full and dry, and that is what is
 * said of it; water of the day of planting went into this pot.
 */
function balanceFrom(
	planting: Planting,
	firstSpokenOn: string | undefined,
	today: string,
	values: Values
): string {
	const { plantedOn } = planting;
	if (firstSpokenOn === undefined) return [plantedOn, addDays(today, -1)].sort()[1] ?? today;
	return addDays(
		plantedOn >= addDays(firstSpokenOn, -values['water.firstWordDays']) ? plantedOn : firstSpokenOn,
		-1
	);
}

/** End of the dry rest on its list, or on that of a mate in its pot; one whose days are long over holds nothing back: whether it was watered since is not known. */
const restingUntil = ({ tasks, mates }: TreeRecords, today: string, values: Values): string | null =>
	[...tasks, ...mates.flatMap(({ firstWater }) => firstWater ?? [])]
		.filter((task) => task.state === 'open' && task.kind === 'dry-rest' && !hasLapsed(task, today, values))
		.map((task) => task.fromOn)
		.sort()[0] ?? null;

/** Its dry mix sheds water, by the last examination. */
const shedsWater = ({ examinations }: TreeRecords): boolean =>
	examinations.at(-1)?.findings.some((finding) => finding.signId === 'water-beads' && finding.grade > 0) ??
	false;
