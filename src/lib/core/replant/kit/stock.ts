import { z } from 'zod';
import { count, id, measure, note, oneOf, shortText, version } from '../../vocabulary/fields';
import { componentIds, componentOf, type ComponentId } from '../mixes/components';
import { pottingMix } from '../mixes/bench-test';
import { potSchema } from '../pots/volume';

/** What the yard has at hand: pots, mix components by the bag, and supplies. */

export const potMaterials = ['plastic', 'clay', 'glazed', 'wood', 'concrete', 'metal', 'fabric'] as const;

const price = () =>
	measure(0, 1_000_000, '')
		.nullable()
		.default(null)
		.describe('Price in the owner’s own money; null when not known');

export const stockPotInput = z.strictObject({
	name: shortText(60),
	pot: potSchema,
	holes: count(0, 200).default(1),
	holeMm: measure(0, 300, 'mm').default(15).describe('Width of a drain hole'),
	massKg: measure(0.01, 5000, 'kg').nullable().default(null).describe('Empty; null when not weighed'),
	material: oneOf(potMaterials).default('plastic'),
	count: count(0, 10_000).default(1),
	price: price(),
	note: note(300)
});
export type StockPotInput = z.infer<typeof stockPotInput>;
export const stockPotSchema = stockPotInput.extend({ id: id(), version: version() });
export type StockPot = z.infer<typeof stockPotSchema>;

/** Supplies beside the mix, with the unit they are counted in. */
export const supplies = {
	wire: { name: 'tie-down wire', unit: 'm' },
	pad: { name: 'pads under wires', unit: 'pieces' },
	mesh: { name: 'mesh for screens', unit: 'm²' },
	wrap: { name: 'wrap for the ball', unit: 'm²' },
	twine: { name: 'twine', unit: 'm' },
	stone: { name: 'steadying stones', unit: 'pieces' },
	label: { name: 'labels', unit: 'pieces' },
	mulch: { name: 'mulch', unit: 'L' },
	'backfill-compost': { name: 'compost for trenches and holes', unit: 'L' },
	sulphur: { name: 'elemental sulphur', unit: 'kg' }
} as const satisfies Record<string, { name: string; unit: SupplyUnit }>;
export type SupplyUnit = 'm' | 'pieces' | 'm²' | 'L' | 'kg';
export type SupplyId = keyof typeof supplies;
export const supplyIds = Object.keys(supplies) as [SupplyId, ...SupplyId[]];

export type ItemId = ComponentId | SupplyId;
export const itemIds = [...componentIds, ...supplyIds] as [ItemId, ...ItemId[]];
const isSupply = (item: ItemId): item is SupplyId => Object.hasOwn(supplies, item);

/** What an item is called. */
export const itemName = (item: ItemId): string =>
	isSupply(item) ? supplies[item].name : componentOf(item).name;
/** The unit an item is counted in. */
export const itemUnit = (item: ItemId): SupplyUnit => (isSupply(item) ? supplies[item].unit : 'L');

/** One thing at hand: full packs of a size, and what is left of the opened one. */
export const stockItemInput = z.strictObject({
	item: oneOf(itemIds),
	packSize: measure(0.01, 20_000, 'of its unit'),
	packs: count(0, 10_000),
	opened: measure(0, 20_000, 'of its unit').default(0).describe('Left in what is open'),
	price: price().describe('Price of a pack; null when not known'),
	note: note(300)
});
export type StockItemInput = z.infer<typeof stockItemInput>;
export const stockItemSchema = stockItemInput.extend({ id: id(), version: version() });
export type StockItem = z.infer<typeof stockItemSchema>;

/**
 * What there is of an item, with what is left of the pack that is open.
 * @returns in the unit of the item
 */
export const atHand = ({
	packs,
	packSize,
	opened
}: Pick<StockItem, 'packs' | 'packSize' | 'opened'>): number => packs * packSize + opened;

/** A mix of the owner's own, with what was measured of it. */
export const ownMixInput = pottingMix.extend({
	afterRot: z.boolean().default(false).describe('Stays airy enough after rot'),
	note: note(300)
});
export type OwnMixInput = z.infer<typeof ownMixInput>;
export const ownMixSchema = ownMixInput.extend({ id: id(), version: version() });
export type OwnMix = z.infer<typeof ownMixSchema>;

/** How an amount that is needed stands to what is at hand. */
export interface Draw {
	need: number;
	have: number;
	/** Full packs to open, beside what is open already. */
	open: number;
	/** What is missing, and the packs to buy for it; packs are null where their size is not known. */
	short: number;
	buyPacks: number | null;
	/** What is used, and what is bought, in money; null where no price is known. */
	usedCost: number | null;
	buyCost: number | null;
	/** What is left at hand afterwards. */
	left: Pick<StockItem, 'packs' | 'opened'>;
}

/**
 * Takes an amount from what is at hand: first what is open, then pack by pack. Never more than there is.
 * @param need in the unit of the item
 */
export function draw(need: number, stock: StockItem | null): Draw {
	if (!stock)
		return {
			need,
			have: 0,
			open: 0,
			short: need,
			buyPacks: null,
			usedCost: null,
			buyCost: null,
			left: { packs: 0, opened: 0 }
		};
	const { packSize, packs, opened } = stock;
	const have = atHand(stock);
	const taken = Math.min(need, have);
	// Sums of bags leave a crumb of rounding; it opens no bag.
	const fromPacks = Math.max(0, taken - opened - 1e-9);
	const open = Math.min(packs, Math.ceil(fromPacks / packSize));
	const short = Math.max(0, need - have);
	const buyPacks = short > 1e-9 ? Math.ceil(short / packSize - 1e-9) : 0;
	return {
		need,
		have,
		open,
		short: short > 1e-9 ? short : 0,
		buyPacks,
		usedCost: stock.price === null ? null : (need / packSize) * stock.price,
		buyCost: stock.price === null ? (buyPacks === 0 ? 0 : null) : buyPacks * stock.price,
		left: { packs: packs - open, opened: Math.max(0, opened + open * packSize - taken) }
	};
}
