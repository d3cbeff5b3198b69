import { measured } from '../../text/measured';
import type { GroundAmounts } from '../ground/ground-plan';
import type { ComponentId } from '../mixes/components';
import { componentLitres } from '../mixes/mixes';
import type { MixReuse, PottingMix } from '../mixes/bench-test';
import type { LayerAmounts } from '../pots/replant-plan';
import { wireLengthM, type Seat } from '../pots/seat';
import type { Pot } from '../pots/volume';
import { draw, itemName, itemUnit, type Draw, type ItemId, type StockItem, type SupplyUnit } from './stock';
import type { Values } from '../../values/values';

/** The work the list is for. Each part may be missing. */
export interface KitWork {
	plantCount: number;
	/** Thickest living root expected, mm; 0 when not known. */
	thickestMm: number;
	planting: {
		pot: Pot;
		mix: PottingMix;
		reuse: MixReuse;
		amounts: LayerAmounts;
		coarseId: ComponentId;
		/** Component of the top layer; null where it is of the mix itself. */
		topId: ComponentId | null;
		seat: Seat | null;
		/** Price of the pot, and how many are at hand; null for one that is not in stock. */
		stockPot: { count: number; price: number | null; name: string } | null;
	} | null;
	lift: { ballDiameterMm: number; ballDepthMm: number; people: number; way: string } | null;
	ground: GroundAmounts | null;
}

export interface KitLine extends Draw {
	item: ItemId;
	name: string;
	unit: SupplyUnit;
	/** What it is for. */
	use: string;
}

export interface Kit {
	materials: KitLine[];
	/** The pot itself: how many are needed, at hand and missing. */
	pots: { name: string; need: number; have: number; short: number; buyCost: number | null } | null;
	tools: string[];
	protection: string[];
	/** Sums over what has a price; and what has none. */
	usedCost: number;
	buyCost: number;
	unpriced: string[];
}

/**
 * Everything to have ready before the start, for one tree or a lot: materials against what is at hand, tools that match the
 * thickest root, and what protects eyes, lungs and hands. Amounts are of all plants of the lot.
 * @param stock at most one entry an item
 */
export function kitList(work: KitWork, stock: readonly StockItem[], values: Values): Kit {
	const needs = new Map<ItemId, { need: number; use: string }>();
	const add = (item: ItemId, amount: number, use: string): void => {
		if (!(amount > 0)) return;
		const before = needs.get(item);
		needs.set(item, {
			need: (before?.need ?? 0) + amount,
			use: before && before.use !== use ? `${before.use}, ${use}` : use
		});
	};
	const count = work.plantCount;
	const { planting, lift, ground } = work;
	if (planting) {
		const { amounts, seat, pot } = planting;
		// Old mix is at hand by itself; only new mix draws on the stock.
		if (planting.reuse.history === 'new')
			for (const { componentId, litres } of componentLitres(
				planting.mix.parts,
				amounts.readyMainL * count,
				values
			))
				add(componentId, litres, 'mix');
		add(planting.coarseId, amounts.coarseL * count, 'coarse layer');
		if (planting.topId) add(planting.topId, amounts.topL * count, 'top layer');
		add('label', count, 'one a plant');
		if (seat) {
			const screenM2 = (values['kit.screenMm'] / 1000) ** 2;
			add('mesh', (seat.screens + seat.extraHoles) * screenM2 * count, 'screens over holes');
			if (seat.holding === 'wires') {
				add('wire', wireLengthM(seat.wires, pot, values) * count, 'tie-down');
				add('pad', seat.pads * count, 'under the wires');
			}
			if (seat.holding === 'stones') add('stone', seat.stones * count, 'on the ball');
		}
	}
	if (lift) {
		const [d, h] = [lift.ballDiameterMm / 1000, lift.ballDepthMm / 1000];
		// Once round, over top and floor, and an overlap.
		add('wrap', (Math.PI * d * h + (Math.PI / 2) * d * d) * (1 + values['kit.wrapOverlap']) * count, 'ball');
		add('twine', Math.PI * d * values['kit.twineTurns'] * count, 'ball');
	}
	if (ground) {
		add('mulch', ground.mulch?.litres ?? 0, 'mulch ring');
		add('backfill-compost', ground.loosening?.compostL ?? 0, 'trenches and holes');
		add('sulphur', ground.sulphur?.totalKg ?? 0, 'acidifying');
	}
	const materials = [...needs].map(([item, { need, use }]): KitLine => ({
		item,
		name: itemName(item),
		unit: itemUnit(item),
		use,
		...draw(need, stock.find((entry) => entry.item === item) ?? null)
	}));
	const stockPot = planting?.stockPot ?? null;
	const potShort = stockPot ? Math.max(0, count - stockPot.count) : 0;
	const pots = planting
		? {
				name: stockPot?.name ?? 'pot of the size planned',
				need: count,
				have: stockPot?.count ?? 0,
				short: stockPot ? potShort : count,
				buyCost: stockPot?.price == null ? null : potShort * stockPot.price
			}
		: null;
	const sum = (of: (line: KitLine) => number | null): number =>
		materials.reduce((all, line) => all + (of(line) ?? 0), 0);
	return {
		materials,
		pots,
		tools: toolsFor(work, values),
		protection: protectionFor(work),
		usedCost: sum((line) => line.usedCost),
		buyCost: sum((line) => line.buyCost) + (pots?.buyCost ?? 0),
		unpriced: materials.filter((line) => line.usedCost === null).map((line) => line.name)
	};
}

function toolsFor({ planting, lift, ground, thickestMm }: KitWork, values: Values): string[] {
	const thick = thickestMm > values['cut.loppersMm'];
	const cutting =
		thickestMm === 0
			? ['sharp secateurs, loppers and a saw (no root was measured)']
			: thick
				? [`a sharp saw for roots up to ${measured(thickestMm, 'mm')}`, 'loppers and secateurs']
				: ['loppers and secateurs'];
	return [
		...cutting,
		'disinfectant and a cloth for the blades',
		...(lift
			? [
					'spade for the rings, never for thick roots',
					'bar for levering, tray or sheet for the ball',
					`${lift.people} ${lift.people === 1 ? 'person' : 'people'}: ${lift.way}`,
					'water and a sheet to keep roots wet and shaded'
				]
			: []),
		...(planting
			? [
					'hooks and pointed sticks',
					'scoop, bucket and a measure for litres',
					planting.seat?.pockets === 'slurry'
						? 'tub and can to flood it in layers'
						: 'thin stick to work the mix in',
					...(planting.seat?.holding === 'wires' ? ['pliers, drill for wire holes'] : []),
					...((planting.seat?.extraHoles ?? 0) > 0
						? [`drill bit ${measured(planting.seat?.holeMm ?? 0, 'mm')}`]
						: []),
					'watering can with a fine rose',
					'a spare pot'
				]
			: []),
		...(ground?.collar ? ['hand trowel, brush and wooden pick for the collar'] : []),
		...(ground?.loosening
			? [
					ground.loosening.method === 'trenches'
						? 'air tool or hand tools for trenches; no mattock near roots'
						: 'auger or bar for the holes'
				]
			: [])
	];
}

function protectionFor({ planting, lift, ground }: KitWork): string[] {
	return [
		'gloves, eyes covered while cutting',
		...(planting
			? [
					'dust mask; wet pumice, perlite and grit before pouring',
					'bags of compost opened away from the face'
				]
			: []),
		...(lift ? ['boots with toecaps; services located before the first spade'] : []),
		...(ground?.loosening ? ['ears, eyes and dust mask for air tools; services located first'] : []),
		...(ground?.sulphur ? ['sulphur: follow the label'] : [])
	];
}
