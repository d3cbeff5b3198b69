import { z } from 'zod';
import type { Group } from '../../vocabulary/kind';
import type { CrownSchool, WaterSchool } from '../../vocabulary/words';
import type { Values } from '../../values/values';

export const crownSupplyOutput = z.object({
	supply: z.number().describe('What the roots can feed, of the whole crown, 0 to 1'),
	excess: z.number().describe('Share of the crown as it is now that they cannot feed, 0 to 1')
});

/**
 * Crown to remove by the balance school: what demand exceeds supply by.
 * Supply = remaining living absorbing share × reserve; demand = the crown as it is, 1.
 * @param remainingShare living absorbing share left, 0 … 1
 * @param crownLeft share of its crown that was left by cutting since, 0 … 1
 * @returns supply and the share of the crown as it is now that the roots cannot feed, 0 … 1
 */
export function crownSupply(
	remainingShare: number,
	values: Values,
	crownLeft = 1
): z.infer<typeof crownSupplyOutput> {
	const supply = Math.min(1, Math.max(0, remainingShare) * values['crown.reserve']);
	return { supply, excess: crownLeft > 0 ? Math.max(0, 1 - supply / crownLeft) : 0 };
}

/** Default school on the crown: balance for evergreens and tropicals, leave it for dormant deciduous and conifers [our own]. */
export const usualCrownSchool = (group: Group): CrownSchool =>
	group === 'broadleaf-evergreen' || group === 'tropical' || group === 'palm' ? 'balance' : 'keep-leaves';

/**
 * Default school on water: at once for woody roots; dry first after rot surgery and for fleshy roots that were cut. Where nothing was cut, no
 * wound has to callus.
 * @param livingLoss living root taken, 0 … 1
 */
export const usualWaterSchool = (
	group: Group,
	rotWasCut: boolean,
	livingLoss: number,
	values: Values
): WaterSchool =>
	rotWasCut || (group === 'succulent' && livingLoss >= values['aftercare.lossCounts'])
		? 'dry-rest'
		: 'at-once';

/**
 * How long cut roots stay dry before the first water, in days from the work: by kind of root, longer after rot surgery, and within its
 * range the longer the more was cut.
 */
export function dryRestDays(
	{ group, rotWasCut, livingLoss }: { group: Group; rotWasCut: boolean; livingLoss: number },
	values: Values
): { from: number; to: number } {
	const [from, to] =
		group === 'succulent'
			? rotWasCut
				? [values['aftercare.dryRestRotFrom'], values['aftercare.dryRestRotTo']]
				: [values['aftercare.dryRestFleshyFrom'], values['aftercare.dryRestFleshyTo']]
			: [values['aftercare.dryRestFrom'], values['aftercare.dryRestTo']];
	const much = Math.min(1, livingLoss / values['aftercare.muchCut']);
	return { from: Math.round(from + ((to - from) * much) / 2), to: Math.max(from, to) };
}
