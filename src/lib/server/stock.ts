import { inUnit } from '../core/text/measured';
import { eq, sql } from 'drizzle-orm';
import { kitList } from '../core/replant/kit/kit';
import type { PlantingInput } from '../core/replant/pots/replant-plan';
import type { TreeRecords } from '../core/tree/case';
import { amountsInPot } from '../core/tree/shared-pot';
import {
	itemName,
	type OwnMixInput,
	type StockItemInput,
	type StockPotInput
} from '../core/replant/kit/stock';

import type { Values } from '../core/values/values';
import type { Reader, Store } from './db/database';
import * as tables from './db/schema';
import { invalid } from './errors';
import type { Aggregate, Identified } from './records/aggregate';
import { ownMixes, stockItems, stockPots } from './records/records';
import { doWork, type Work } from './records/work';

/** What the yard has at hand. */
export async function loadStock(db: Reader) {
	const [pots, items, mixes] = await Promise.all([
		stockPots.list(db),
		stockItems.list(db),
		ownMixes.list(db)
	]);
	return { pots, items, mixes };
}
export type Stock = Awaited<ReturnType<typeof loadStock>>;

type Input<T extends Identified> = Omit<T, 'id' | 'version'>;

/** Adds or changes one record of the stock; a change names the version it was made from. @throws Refusal 404, 409 */
async function keep<T extends Identified>(
	store: Store,
	repository: Aggregate<T>,
	input: Input<T>,
	{ what, at }: { what: string; at: { id: string; version: number } | null },
	checkFirst?: (work: Work) => Promise<void>
): Promise<{ id: string; entryId: string }> {
	const { result, entryId } = await doWork(store, { treeId: null, stage: 'replant', what }, async (work) => {
		await checkFirst?.(work);
		return at
			? work.change(repository, at.id, at.version, (before) => ({ ...before, ...input }))
			: work.add(repository, input);
	});
	return { id: result.id, entryId };
}

/** Writes a pot of the stock down, or anew. */
export const keepPot = (
	store: Store,
	input: StockPotInput,
	at: { id: string; version: number } | null = null
) => keep(store, stockPots, input, { what: `Stock: ${input.count} × ${input.name}`, at });

/** @throws Refusal 422 when the same thing stands in the stock already */
export const keepItem = (
	store: Store,
	input: StockItemInput,
	at: { id: string; version: number } | null = null
) =>
	keep(store, stockItems, input, { what: `Stock: ${itemName(input.item)}`, at }, async ({ tx }) => {
		const [same] = await tx
			.select({ id: tables.stockItem.id })
			.from(tables.stockItem)
			.where(eq(tables.stockItem.item, input.item));
		if (same && same.id !== at?.id)
			throw invalid([{ field: 'item', message: 'is in the stock already; change that entry instead' }]);
	});

/** @throws Refusal 422 when a mix of that name is kept already */
export const keepMix = (
	store: Store,
	input: OwnMixInput,
	at: { id: string; version: number } | null = null
) =>
	keep(store, ownMixes, input, { what: `Mix kept: ${input.name}`, at }, async ({ tx }) => {
		const [same] = await tx
			.select({ id: tables.ownMix.id })
			.from(tables.ownMix)
			.where(eq(sql`lower(${tables.ownMix.name})`, input.name.toLowerCase()));
		if (same && same.id !== at?.id)
			throw invalid([{ field: 'name', message: 'is the name of a mix kept already; choose another' }]);
	});

const kept = { pot: stockPots, item: stockItems, mix: ownMixes } as const;
export type StockKind = keyof typeof kept;

/** Takes a pot, an item or a mix of one’s own out. */
export async function removeFromStock(
	store: Store,
	kind: StockKind,
	id: string,
	version: number
): Promise<string> {
	const { entryId } = await doWork(
		store,
		{ treeId: null, stage: 'replant', what: `Taken out of the stock` },
		// What is removed is only named to undo it.
		(work) => work.remove(kept[kind] as unknown as Aggregate<Identified>, id, version)
	);
	return entryId;
}

/** What a planting takes from the stock. */
export interface FromStock {
	potId: string | null;
	/** Components and supplies too. */
	materials: boolean;
}

/**
 * Takes pots and materials of a planting from the stock, as far as they reach.
 * @returns what did not reach, in words
 */
export async function drawFromStock(
	work: Work,
	planting: PlantingInput,
	from: FromStock,
	/** What else stands in the same pot. */
	mates: TreeRecords['mates'],
	values: Values
): Promise<string[]> {
	const missing: string[] = [];
	if (from.potId) {
		const pot = await stockPots.get(work.tx, from.potId);
		if (!pot) throw invalid([{ field: 'potId', message: 'must be a pot of the stock' }]);
		if (pot.count < planting.plantCount) missing.push(`${planting.plantCount - pot.count} × ${pot.name}`);
		if (pot.count > 0)
			await work.change(stockPots, pot.id, pot.version, (before) => ({
				...before,
				count: Math.max(0, before.count - planting.plantCount)
			}));
	}
	if (!from.materials) return missing;
	const items = await stockItems.list(work.tx);
	const kit = kitList(
		{
			plantCount: planting.plantCount,
			thickestMm: 0,
			planting: {
				...planting,
				amounts: amountsInPot({ ...planting, moundMm: planting.seat?.moundMm ?? 0 }, mates, values),
				stockPot: null
			},
			lift: null,
			ground: null
		},
		items,
		values
	);
	for (const line of kit.materials) {
		const item = items.find((entry) => entry.item === line.item);
		// What is not kept in the stock at all is not missed there.
		if (!item) continue;
		if (line.short > 0) missing.push(`${inUnit(Math.ceil(line.short * 10) / 10, line.unit)} ${line.name}`);
		if (line.have > 0)
			await work.change(stockItems, item.id, item.version, (before) => ({ ...before, ...line.left }));
	}
	return missing;
}
