import type { LookWeight, PotMateRecords, TreeRecords } from './case';
import {
	besideOthers,
	layerAmounts,
	type LayerAmounts,
	type Planting,
	type PotLayers
} from '../replant/pots/replant-plan';
import { workedOn } from '../aftercare/tasks/source';
import type { WateringInput } from '../aftercare/water/watering';
import type { Observation } from '../examine/looks/observation';
import type { Values } from '../values/values';
import type { PotStores } from '../replant/pots/balance';
import { crownCoverM2, usualCrownWidthMm } from '../replant/pots/demand';
import { nobodyElse, withOthers, type OthersInPot } from '../replant/pots/stores';

/** Readings that speak of the pot, not of one tree in it. */
const potTools: ReadonlySet<string> = new Set(['weighing', 'moisture', 'outflow', 'drain-time']);

/**
 * The records of a tree with what was planted, poured, weighed or felt for its mates in a shared pot: of the pot it was so for all. What a
 * pot weighs, holds and is made of is read from these.
 */
export function ofThePot<T extends Pick<TreeRecords, 'mates' | 'plantings' | 'waterings' | 'measurements'>>(
	records: T
): T {
	const { mates } = records;
	if (mates.length === 0) return records;
	// Of one day as they stand; a list of the pot is read as one that a person kept.
	const merged = <R>(
		own: readonly R[],
		theirs: (mate: PotMateRecords) => readonly R[],
		on: (record: R) => string
	): R[] => [...own, ...mates.flatMap(theirs)].sort((a, b) => on(a).localeCompare(on(b)));
	return {
		...records,
		plantings: merged(
			records.plantings,
			(mate) => mate.plantings,
			(one) => one.plantedOn
		),
		waterings: merged(
			records.waterings,
			(mate) => mate.waterings,
			(one) => one.wateredOn
		),
		measurements: merged(
			records.measurements,
			(mate) => mate.measurements.filter((one) => potTools.has(one.raw.tool)),
			(one) => one.measuredOn
		)
	};
}

/** Weights of the pot that were kept in looks at the tree or at its mates, oldest first. */
export const potWeights = ({
	observations,
	mates
}: Pick<TreeRecords, 'observations' | 'mates'>): LookWeight[] =>
	[...lookWeights(observations), ...mates.flatMap((mate) => mate.weights)].sort((a, b) =>
		a.on.localeCompare(b.on)
	);

/**
 * What a weight is read against: what the pot weighed after its last water before that day, since it stands so, kg. Without it a weight tells
 * no dryness.
 * @param waterings of the pot, by their days
 * @param sinceOn day it was planted
 * @param on day of the weight
 * @returns null where it tells none
 */
export function weighedFullKg(
	waterings: readonly Pick<WateringInput, 'wateredOn' | 'afterKg'>[],
	sinceOn: string,
	on: string
): number | null {
	const last = waterings.filter(({ wateredOn }) => wateredOn >= sinceOn && wateredOn < on).at(-1);
	return last?.afterKg ?? null;
}

/** Weights in looks at one tree. */
export const lookWeights = (
	looks: readonly Pick<Observation, 'id' | 'observedOn' | 'weightKg'>[]
): LookWeight[] =>
	looks.flatMap(({ id, observedOn, weightKg }) =>
		weightKg === null ? [] : [{ id, on: observedOn, kg: weightKg }]
	);

/** What else stands in the pot of a tree, as each was planted; of one whose planting nobody wrote down only its crown. */
export function othersInPot(
	mates: readonly Pick<PotMateRecords, 'tree' | 'plantings'>[],
	values: Values
): OthersInPot {
	return mates.reduce(({ ballsL, ballHeldL, crownM2 }, { tree, plantings }) => {
		const planting = plantings.at(-1);
		const ballL = planting ? layerAmounts(planting, values).ballL : 0;
		return {
			ballsL: ballsL + ballL,
			ballHeldL: ballHeldL + ballL * values['water.ballHeld'],
			crownM2: crownM2 + crownCoverM2(planting?.crownWidthMm ?? usualCrownWidthMm(tree, values))
		};
	}, nobodyElse);
}

/** For which mate a pot was filled that day; empty for none. */
export const filledFor = (
	{ pot, plantedOn }: Pick<Planting, 'pot' | 'plantedOn'>,
	mates: readonly Pick<PotMateRecords, 'tree' | 'plantings'>[]
): string =>
	mates.find(({ plantings }) => {
		const last = plantings.at(-1);
		const keys = Object.keys(pot) as (keyof typeof pot)[];
		return last?.plantedOn === plantedOn && keys.every((key) => last.pot[key] === pot[key]);
	})?.tree.tag ?? '';

/** Layers of a pot round a ball and those of its mates; nothing more goes in where it was filled for one of them that day. */
export function amountsInPot(
	planting: PotLayers & Pick<Planting, 'plantedOn'> & { moundMm: number },
	mates: readonly Pick<PotMateRecords, 'tree' | 'plantings'>[],
	values: Values
): LayerAmounts {
	const amounts = besideOthers(layerAmounts(planting, values), othersInPot(mates, values).ballsL, values);
	return filledFor(planting, mates) === ''
		? amounts
		: { ...amounts, coarseL: 0, mainL: 0, topL: 0, moundL: 0, readyMainL: 0 };
}

/**
 * First water that a pot waits for on a day by the work on a mate, and whose; the last, where there are several.
 * @returns null where none is to come: work of a later day asks for nothing yet, and what is over nobody waits for
 */
export function firstWaterOfPot(
	{ mates }: Pick<TreeRecords, 'mates'>,
	on: string
): { task: NonNullable<PotMateRecords['firstWater']>; tag: string } | null {
	const to = mates.flatMap(({ tree, firstWater: task }) =>
		task && (workedOn(task.source) ?? on) <= on && on <= task.toOn ? [{ task, tag: tree.tag }] : []
	);
	return to.sort((a, b) => a.task.fromOn.localeCompare(b.task.fromOn)).at(-1) ?? null;
}

/** Stores of a pot with the balls and crowns of all that stand in it; the last planting of the pot is counted already. */
export function withMates(
	stores: PotStores,
	records: Pick<TreeRecords, 'tree' | 'mates' | 'plantings'>,
	last: Planting,
	values: Values
): PotStores {
	if (records.mates.length === 0) return stores;
	const all = [records, ...records.mates];
	const everybody = othersInPot(all, values);
	const others = othersInPot(
		all.filter((one) => one.plantings.at(-1)?.id !== last.id),
		values
	);
	return withOthers({ ...stores, crownM2: 0 }, { ballHeldL: others.ballHeldL, crownM2: everybody.crownM2 });
}
