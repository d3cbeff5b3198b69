import type { Group } from '../kinds/kind';
import type { CrownSchool, WaterSchool } from '../tree/tree';
import type { Values } from '../values/values';

/**
 * Crown to remove by the balance school: what demand exceeds supply by.
 * Supply = remaining living absorbing share × reserve; demand = the crown as it is, 1.
 * @param remainingShare living absorbing share left, 0 … 1
 * @returns supply and the share of the crown the roots cannot feed, 0 … 1
 */
export function crownSupply(remainingShare: number, values: Values): { supply: number; excess: number } {
	const supply = Math.min(1, Math.max(0, remainingShare) * values['crown.reserve']);
	return { supply, excess: Math.max(0, 1 - supply) };
}

/** Default school on the crown: balance for evergreens and tropicals, leave it for dormant deciduous and conifers [our own]. */
export const usualCrownSchool = (group: Group): CrownSchool =>
	group === 'broadleaf-evergreen' || group === 'tropical' || group === 'palm' ? 'balance' : 'keep-leaves';

/** Default school on water after cutting: at once for woody roots, dry first for fleshy ones and after rot surgery. */
export const usualWaterSchool = (group: Group, rotWasCut: boolean): WaterSchool =>
	group === 'succulent' || rotWasCut ? 'dry-rest' : 'at-once';
