import { bodyOf } from '../mixes/bench-test';
import { componentOf } from '../mixes/components';
import { waterAndAir } from '../mixes/retention';
import { layerAmounts, type FilledPot, type PlantingInput } from './replant-plan';
import type { Seat } from './seat';
import { crossSectionMm2 } from './volume';
import type { Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import type { PotStores } from './balance';
import { crownCoverM2, usualCrownWidthMm } from './demand';

/** The mix of a planting as it lies in its pot: air once it has drained, and water that roots can draw, shares of its volume. */
export function airOf(
	planting: FilledPot,
	values: Values
): { airSpace: number; drawn: number; fillMm: number } {
	const body = bodyOf(planting.mix, values);
	const fillMm = Math.max(10, planting.pot.heightMm - planting.headspaceMm);
	const coarsePoreMm = componentOf(planting.coarseId).fineMm * values['mix.poreOfGrain'];
	const water = waterAndAir(
		body,
		planting.pot,
		{ coarseLayerMm: planting.coarseLayerMm, coarsePoreMm },
		fillMm
	);
	return {
		airSpace: water.airSpace,
		drawn: Math.max(0.02, water.containerCapacity - body.inside * (1 - values['water.insideDrawn'])),
		fillMm
	};
}

/** Stores of a pot from its planting: mix and ball, in parts with roots and without. */
export function storesOf(
	planting: FilledPot & Pick<PlantingInput, 'crownWidthMm'> & { seat: Pick<Seat, 'moundMm'> | null },
	tree: Pick<Tree, 'heightM' | 'trunkDiameterMm'>,
	values: Values
): PotStores {
	const amounts = layerAmounts({ ...planting, moundMm: planting.seat?.moundMm ?? 0 }, values);
	const { drawn, fillMm } = airOf(planting, values);
	return {
		rootedMostL: Math.max(0.01, amounts.ballL * values['water.ballHeld']),
		unrootedMostL: (amounts.mainL + amounts.topL + amounts.moundL) * drawn,
		surfaceM2: crossSectionMm2(planting.pot, fillMm) / 1e6,
		crownM2: crownCoverM2(planting.crownWidthMm ?? usualCrownWidthMm(tree, values))
	};
}

/** What else stands in a pot: litres its balls take, water they hold when full, L, and ground its crowns shade, m². */
export interface OthersInPot {
	ballsL: number;
	ballHeldL: number;
	crownM2: number;
}
export const nobodyElse: OthersInPot = { ballsL: 0, ballHeldL: 0, crownM2: 0 };

/** Stores of a pot with all that stand in it: their balls take the place of mix, their crowns draw too. */
export function withOthers(
	stores: PotStores,
	{ ballHeldL, crownM2 }: Pick<OthersInPot, 'ballHeldL' | 'crownM2'>
): PotStores {
	const moved = Math.min(stores.unrootedMostL, ballHeldL);
	return {
		...stores,
		rootedMostL: stores.rootedMostL + moved,
		unrootedMostL: stores.unrootedMostL - moved,
		crownM2: stores.crownM2 + crownM2
	};
}

/**
 * Roots grow into the mix: the part of it that counts as rooted rises with seasons since planting.
 * @param degreeDays7 soil warmth since planting
 */
export function rootedIn(
	stores: PotStores,
	degreeDays7: number,
	values: Pick<Values, 'water.rootInDegreeDays'>
): PotStores {
	const share = 1 - Math.exp(-degreeDays7 / values['water.rootInDegreeDays']);
	const moved = stores.unrootedMostL * share;
	return {
		...stores,
		rootedMostL: stores.rootedMostL + moved,
		unrootedMostL: stores.unrootedMostL - moved
	};
}
