import { bodyOf } from '../mixes/bench-test';
import { componentOf } from '../mixes/components';
import { waterAndAir } from '../mixes/retention';
import type { Values } from '../../values/values';
import { layerAmounts, type FilledPot } from './replant-plan';

/** What a planted pot weighs when it has drained, kg, without the pot itself and what stands over the ball. */
export function wetMassKg(planting: FilledPot & { moundMm: number }, values: Values): number {
	const amounts = layerAmounts(planting, values);
	const body = bodyOf(planting.mix, values);
	const coarsePoreMm = componentOf(planting.coarseId).fineMm * values['mix.poreOfGrain'];
	const { containerCapacity } = waterAndAir(
		body,
		planting.pot,
		{ coarseLayerMm: planting.coarseLayerMm, coarsePoreMm },
		Math.max(10, planting.pot.heightMm - planting.headspaceMm)
	);
	return (
		(amounts.mainL + amounts.topL + amounts.moundL) * (body.dryKgL + containerCapacity) +
		amounts.coarseL * values['pot.coarseKgL'] +
		amounts.ballL * values['lifting.density']
	);
}
