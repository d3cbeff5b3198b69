import { z } from 'zod';
import type { Values } from '../../values/values';
import { componentOf, type ComponentId } from './components';
import type { MixPot } from './mix-pot';
import { mixBody, mixPart, waterAndAir, type MixPart } from './retention';

export interface MixWish {
	/** Air space and container capacity wanted, shares; null where it does not matter. */
	airFrom: number;
	airTo: number;
	waterFrom: number;
	waterTo: number;
}

export const mixFoundOutput = z.object({
	parts: z.array(mixPart),
	airSpace: z.number(),
	containerCapacity: z.number(),
	miss: z.number().describe('How far it misses what is wanted, shares added up; 0 when all is met'),
	change: z.number().describe('Share of the mix that differs from the one to begin with'),
	costPerL: z.number().nullable().describe('What a litre of it costs; null where a price is not known')
});
export type MixFound = z.infer<typeof mixFoundOutput>;

const TENTHS = 10;

/**
 * The mix of what is at hand that comes nearest to what is wanted in this pot, in tenths of volume: every mix of up to
 * `stock.length` components is tried. What meets the wish equally well is ordered by the least cost where that is
 * preferred, by the least change from the mix to begin with, then by the fewest components.
 * @param stock at most six components
 * @returns best first, at most `most`; what is not in stock is never used
 */
export function reachMix(
	stock: readonly ComponentId[],
	wish: MixWish,
	{ pot, layer, fillMm }: { pot: MixPot; layer: Parameters<typeof waterAndAir>[2]; fillMm: number },
	values: Values,
	{
		begin,
		most = 3,
		prefer = 'change',
		pricePerL = {}
	}: {
		/** The mix to begin with. */
		begin: readonly MixPart[];
		most?: number;
		/** Of what will do: the least change from the mix to begin with, or the least cost. */
		prefer?: 'change' | 'cost';
		pricePerL?: Partial<Record<ComponentId, number>>;
	}
): MixFound[] {
	const ids = [...new Set(stock)].slice(0, 6);
	const total = begin.reduce((sum, part) => sum + part.parts, 0) || 1;
	const shareBefore = new Map(begin.map((part) => [part.componentId, part.parts / total]));
	const found: MixFound[] = [];
	const outside = (value: number, from: number, to: number): number => Math.max(0, from - value, value - to);
	const tenths = new Array<number>(ids.length).fill(0);
	const costPerL = (parts: readonly MixPart[], yieldOf: number): number | null => {
		let sum = 0;
		for (const part of parts) {
			const price = pricePerL[part.componentId];
			if (price === undefined) return null;
			sum += (price * part.parts) / TENTHS;
		}
		return sum / yieldOf;
	};
	const tryAll = (index: number, left: number): void => {
		if (index === ids.length - 1) {
			tenths[index] = left;
			const parts = ids.flatMap((componentId, i) =>
				(tenths[i] ?? 0) > 0 ? [{ componentId, parts: tenths[i] ?? 0 }] : []
			);
			const body = mixBody(parts, values);
			const { airSpace, containerCapacity } = waterAndAir(body, pot, layer, fillMm);
			const kept = parts.reduce(
				(sum, part) => sum + Math.min(part.parts / TENTHS, shareBefore.get(part.componentId) ?? 0),
				0
			);
			found.push({
				parts,
				airSpace,
				containerCapacity,
				miss:
					outside(airSpace, wish.airFrom, wish.airTo) +
					outside(containerCapacity, wish.waterFrom, wish.waterTo),
				change: 1 - kept,
				costPerL: costPerL(parts, body.yield)
			});
			return;
		}
		for (let take = 0; take <= left; take++) {
			tenths[index] = take;
			tryAll(index + 1, left - take);
		}
	};
	if (ids.length > 0) tryAll(0, TENTHS);
	const nearly = (miss: number): number => Math.round(miss * 1000);
	return found
		.sort(
			(a, b) =>
				nearly(a.miss) - nearly(b.miss) ||
				(prefer === 'cost' ? (a.costPerL ?? Infinity) - (b.costPerL ?? Infinity) || 0 : 0) ||
				a.change - b.change ||
				a.parts.length - b.parts.length
		)
		.slice(0, most);
}

/** Parts in words. */
export const mixInWords = (parts: readonly MixPart[]): string =>
	parts.map((part) => `${part.parts} ${componentOf(part.componentId).name}`).join(', ');
