import { daysBetween } from '../../maths/calendar';
import type { MoistureData } from '../../examine/measuring/moisture';
import { feltDryness } from '../../examine/measuring/moisture';
import type { Values } from '../../values/values';
import type { SeriesDay } from '../../climate/series';
import { drynessOf, fullPot, potDay, type PotStores, type PotWater } from '../../replant/pots/balance';
import { kalman, unmeasuredRainMm, type WeighingPair } from './root-function';

/** Where a correction of the state comes from. */
export type SeenHow = 'weighing' | 'scale' | 'probe' | 'felt';

/** Dryness as it was seen at the end of a day, with its own error (one deviation). */
export interface WaterSeen {
	on: string;
	how: SeenHow;
	dryness: number;
	sd: number;
}
/** What was poured on a day. */
export interface Poured {
	on: string;
	/** null when it was not measured; it is then taken as enough. */
	litres: number | null;
	/** Water ran out below: where the balance has it full too, that is sure. */
	ranOut: boolean;
	/** What ran out of it and was caught, L; null where nobody caught it. */
	caughtL: number | null;
	/** What the pot took up by its weights before and after, L; null where it was not weighed both times. */
	gainedL: number | null;
}

export interface PotStateDay {
	on: string;
	water: PotWater;
	dryness: number;
	/** One deviation of the dryness. */
	sd: number;
	/** What the balance said before it was corrected, and by what; empty on most days. */
	expected: number;
	seen: WaterSeen[];
	poured: boolean;
	/**
	 * What was poured filled it, or ran through: from here on it can be said how fast it dries. Of a pot that is only reckoned dry nobody knows
	 * what ran past.
	 */
	filled: boolean;
}

/**
 * Same pot, as dry as is said: both parts in proportion.
 * @param dryness 0 drained … 1 dry
 */
export function driedTo(dryness: number, stores: PotStores): PotWater {
	const full = fullPot(stores);
	return { rootedL: full.rootedL * (1 - dryness), unrootedL: full.unrootedL * (1 - dryness) };
}

/** Moves a state to a dryness, the wetter part giving or taking first by what it holds. */
function corrected(water: PotWater, dryness: number, stores: PotStores): PotWater {
	const most = stores.rootedMostL + stores.unrootedMostL;
	const wanted = most * (1 - Math.min(1, Math.max(0, dryness)));
	const held = water.rootedL + water.unrootedL;
	if (wanted <= held) {
		const share = held > 0 ? wanted / held : 0;
		return { rootedL: water.rootedL * share, unrootedL: water.unrootedL * share };
	}
	const room = most - held;
	const share = room > 0 ? (wanted - held) / room : 0;
	return {
		rootedL: water.rootedL + (stores.rootedMostL - water.rootedL) * share,
		unrootedL: water.unrootedL + (stores.unrootedMostL - water.unrootedL) * share
	};
}

/**
 * The water of a pot day by day: the balance of the weather, what was poured, and every weighing, probe and hand that felt it,
 * each correcting by its own error. Who waters felt and weighed before; a device speaks in the evening. The error of the balance grows with what was lost, since it is that of demand and roots; a
 * watering that ran through ends it. Its last day is not over: what it was watered today it still has.
 * @param phiOn root function by day
 * @param phiSpread half of its band over its middle, how far the draw of the roots may be off
 */
export function potState(
	{
		begin,
		stores,
		series,
		poured,
		seen,
		phiOn,
		phiSpread,
		inLeaf,
		rainReach
	}: {
		begin: { on: string; water: PotWater; sd: number };
		stores: PotStores;
		/** From the day after `begin` to today. */
		series: readonly SeriesDay[];
		poured: readonly Poured[];
		seen: readonly WaterSeen[];
		phiOn: (on: string) => number;
		phiSpread: number;
		inLeaf: (on: string) => boolean;
		/** Share of the rain outdoors that falls on the pot where it stands, 0 to 1. */
		rainReach: number;
	},
	values: Values
): PotStateDay[] {
	const most = Math.max(1e-9, stores.rootedMostL + stores.unrootedMostL);
	const pouredOn = byDay(poured);
	const seenOn = byDay(seen);
	const lastOn = series.at(-1)?.on ?? '';
	const days: PotStateDay[] = [];
	let { water, sd } = begin;
	/** Rain that may have come besides since its water was last known. */
	let perhapsL = 0;
	for (const day of series) {
		if (day.on <= begin.on) continue;
		const given = pouredOn.get(day.on) ?? [];
		const list = seenOn.get(day.on) ?? [];
		const before = given.length > 0 ? list.filter((one) => !byDevice(one)) : [];
		const evening = given.length > 0 ? list.filter((one) => byDevice(one) && day.on < lastOn) : list;
		perhapsL =
			before.length > 0 ? 0 : perhapsL + unmeasuredRainMm([day], rainReach, values) * stores.surfaceM2;
		({ water, sd } = correctedBy(before, { water, sd }, stores));
		// Scales know what stayed. What was caught is known not to have stayed; what ran off uncaught is for the balance to say.
		const litres = given.reduce(
			(sum, one) => sum + (one.gainedL ?? Math.max(0, (one.litres ?? 0) - (one.caughtL ?? 0))),
			0
		);
		const missing = most - water.rootedL - water.unrootedL;
		// Of a day that is not over, what is still to be drunk after its water is not gone yet.
		const drawn = given.length > 0 && day.on === lastOn ? { ...day, et0Mm: 0 } : day;
		const after = potDay(
			water,
			stores,
			{ day: drawn, rootFunction: phiOn(day.on), inLeaf: inLeaf(day.on), irrigationL: litres },
			values
		);
		const lost = (after.transpirationL + after.evaporationL) / most;
		sd = Math.min(0.5, sd + lost * (values['rootFunction.demandError'] + phiSpread));
		water = after.water;
		if (given.some((one) => one.litres === null)) {
			water = fullPot(stores);
			sd = values['water.unmeasuredError'];
		} else if (given.some((one) => one.ranOut)) {
			const reckoned = drynessOf(water, stores);
			// Where rain that nobody measured may have filled it, water that ran out tells that it did.
			if (reckoned > values['water.ranOutFull'] && reckoned * most <= perhapsL) water = fullPot(stores);
			if (drynessOf(water, stores) <= values['water.ranOutFull'])
				sd = Math.min(sd, values['water.ranOutError']);
		}
		const expected = drynessOf(water, stores);
		const wet = expected <= values['water.ranOutFull'];
		({ water, sd } = correctedBy(evening, { water, sd }, stores));
		if (evening.length > 0 || (given.length > 0 && wet)) perhapsL = 0;
		days.push({
			on: day.on,
			water,
			dryness: drynessOf(water, stores),
			sd,
			expected,
			seen: [...before, ...evening],
			poured: given.length > 0,
			filled:
				given.some((one) => one.litres === null || (one.ranOut && (wet || before.length > 0))) ||
				(missing > 1e-9 && litres >= missing)
		});
	}
	return days;
}

/** Whether a reading came from a device that stands at the pot. */
export const byDevice = ({ how }: WaterSeen): boolean => how === 'scale' || how === 'probe';

function correctedBy(
	seen: readonly WaterSeen[],
	{ water, sd }: { water: PotWater; sd: number },
	stores: PotStores
): { water: PotWater; sd: number } {
	return seen.reduce(
		(now, one) => {
			const next = kalman({ phi: drynessOf(now.water, stores), p: now.sd ** 2 }, one.dryness, one.sd ** 2);
			return { water: corrected(now.water, next.phi, stores), sd: Math.sqrt(next.p) };
		},
		{ water, sd }
	);
}

function byDay<T extends { on: string }>(list: readonly T[]): Map<string, T[]> {
	const days = new Map<string, T[]>();
	for (const one of list) {
		const same = days.get(one.on);
		if (same) same.push(one);
		else days.set(one.on, [one]);
	}
	return days;
}

/** The last reading of a device on a day: kg on a scale, share of the volume in a probe. */
export interface DeviceDay {
	on: string;
	kind: 'scale' | 'soil-probe';
	value: number;
}

/**
 * What a scale and probes say of the water. A scale is read against its heaviest day of late, when the pot was full; a probe
 * against the wettest it ever was, where it was read often enough, else against usual figures of a potting mix.
 * @param sinceOn readings from before, of another planting, say nothing
 */
export function seenByDevices(
	readings: readonly DeviceDay[],
	stores: PotStores,
	sinceOn: string,
	values: Values
): WaterSeen[] {
	const most = Math.max(1e-9, stores.rootedMostL + stores.unrootedMostL);
	const after = readings.filter((reading) => reading.on > sinceOn);
	const weights = after.filter((reading) => reading.kind === 'scale');
	const fullKg = Math.max(...weights.map((reading) => reading.value));
	return [
		...weights.map(({ on, value }): WaterSeen => ({
			on,
			how: 'scale',
			dryness: Math.min(1, (fullKg - value) / most),
			sd: values['water.scaleError']
		})),
		...seenByProbe(
			after.filter((reading) => reading.kind === 'soil-probe'),
			values
		)
	];
}

/** Probe readings, shares of the volume, as dryness. */
export function seenByProbe(readings: readonly { on: string; value: number }[], values: Values): WaterSeen[] {
	const dry = values['water.probeDry'];
	const wettest = Math.max(...readings.map((reading) => reading.value));
	const full =
		readings.length >= values['water.probeOften'] && wettest > dry + values['water.probeMoves']
			? wettest
			: values['water.probeFull'];
	return readings.map(({ on, value }) => ({
		on,
		how: 'probe' as const,
		dryness: Math.min(1, Math.max(0, (full - value) / (full - dry))),
		sd: values['water.probeError']
	}));
}

/** What a hand felt or a hand probe read. */
export function seenByHand(
	checks: readonly { on: string; data: MoistureData }[],
	values: Values
): WaterSeen[] {
	return [
		...checks.flatMap(({ on, data }): WaterSeen[] =>
			data.feel === null
				? []
				: [{ on, how: 'felt', dryness: feltDryness(data.feel, values), sd: values['water.feltError'] }]
		),
		...seenByProbe(
			checks.flatMap(({ on, data }) => (data.probeShare === null ? [] : [{ on, value: data.probeShare }])),
			values
		)
	];
}

/**
 * Dry-downs of a scale that stands under the pot: from each rise in weight that filled it to the last day before the next, as
 * pairs for the root function. Where it was not seen to be filled, how wet it began is not known, and it tells nothing.
 */
export function pairsOfScale(
	readings: readonly DeviceDay[],
	stores: PotStores,
	sinceOn: string,
	values: Values
): WeighingPair[] {
	const rise = Math.max(0.05, (stores.rootedMostL + stores.unrootedMostL) * values['water.scaleRise']);
	const days = readings.filter((reading) => reading.kind === 'scale' && reading.on > sinceOn);
	const pairs: WeighingPair[] = [];
	const heaviest = Math.max(...days.map((day) => day.value));
	let begin: DeviceDay | null = null;
	let last = days[0];
	const close = (): void => {
		if (begin && last && last.on > begin.on && begin.value > last.value)
			pairs.push({
				from: begin.on,
				to: last.on,
				lossKg: begin.value - last.value,
				fullOn: begin.on,
				lostKg: 0
			});
	};
	for (const day of days.slice(1)) {
		if (last && day.value > last.value + rise) {
			close();
			begin = day.value >= heaviest - rise ? day : null;
		}
		last = day;
	}
	close();
	return pairs;
}

/**
 * The course of a pot as far as anybody knew of it: all of it while its water was poured, weighed or felt lately, else until that is too
 * old to speak of the next day. Nothing where nobody ever told.
 * @param knownOn day its water was last poured, weighed, felt or probed
 */
export const courseKnown = <T extends { on: string }>(
	state: readonly T[],
	knownOn: string | null,
	values: Values
): T[] =>
	state.filter(({ on }) => knownOn !== null && daysBetween(knownOn, on) <= values['decision.waterKnownDays']);
