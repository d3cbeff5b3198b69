import { atHand } from '$core/replant/kit/stock';
import { bodyOf, type PottingMix } from '$core/replant/mixes/bench-test';
import { componentIds, componentOf, type ComponentId } from '$core/replant/mixes/components';
import { mixIds, pottingMixOf, usualMix } from '$core/replant/mixes/mixes';
import { mixRanges, type MixAim } from '$core/replant/mixes/ranges';
import { reachMix, type MixFound } from '$core/replant/mixes/reach';
import { waterAndAir, type MixPart } from '$core/replant/mixes/retention';
import { judgePot } from '$core/replant/pots/rank';
import type { ReplantState } from './replant-state.svelte';

interface Side {
	/** Where it was begun: a shipped name, own-…, or used. */
	from: string;
	mix: PottingMix;
}

/** How many components a mix is searched from. */
const STOCK_MOST = 6;

/** Two mixes side by side in the pot of a planting that is planned, and what reaches what is wanted. */
export class MixState {
	readonly planning: ReplantState;
	/** Its pot is written down or was chosen; else only a depth is compared. */
	readonly planting: ReplantState['plan']['planting'] | null;
	readonly #first: PottingMix;
	sides = $state.raw<Side[]>([]);
	depthMm = $state(0);
	coarseLayerMm = $state(0);
	coarseGrainMm = $state(0);
	aim = $state<MixAim>('recovering');
	keepName = $state('');
	afterRot = $state(false);
	/** Components it is searched from. */
	stock = $state<ComponentId[]>([]);
	prefer = $state<'change' | 'cost'>('change');
	found = $state.raw<MixFound[] | null>(null);

	constructor(planning: ReplantState) {
		this.planning = planning;
		this.planting = planning.assumed.has('pot') ? null : planning.plan.planting;
		const usual = usualMix(planning.of.kind.group, false);
		const second = usual === 'compost-grit' ? 'pumice' : 'compost-grit';
		this.#first = planning.mix;
		this.sides = [
			{ from: this.planting ? 'used' : usual, mix: this.#first },
			{ from: second, mix: pottingMixOf(second) }
		];
		this.depthMm = Math.max(30, planning.pot.heightMm - planning.headspaceMm);
		this.coarseLayerMm = planning.coarseLayerMm;
		this.coarseGrainMm = componentOf(planning.coarseId).fineMm;
		const there = this.#yard.items
			.filter((item) => atHand(item) > 0)
			.flatMap((item) => componentIds.filter((id) => id === item.item));
		const usually: ComponentId[] = ['pumice-medium', 'perlite', 'bark-fine'];
		const own = this.#first.parts.map((part) => part.componentId);
		this.stock = [...new Set([...own, ...there, ...usually])].slice(0, STOCK_MOST);
	}

	get #yard() {
		return this.planning.of.stock;
	}
	get #values() {
		return this.planning.of.values;
	}
	/** The pot itself while its own fill is compared; else only a depth. */
	get pot() {
		const { planting, depthMm } = this;
		return planting && Math.abs(depthMm - (planting.pot.heightMm - planting.headspaceMm)) < 0.5
			? planting.pot
			: { depthMm };
	}
	get layer() {
		return {
			coarseLayerMm: Math.min(this.coarseLayerMm, this.depthMm - this.#values['mix.leastOverCoarseMm']),
			coarsePoreMm: this.coarseGrainMm * this.#values['mix.poreOfGrain']
		};
	}
	/** What comes of each mix; null for one with nothing in it. */
	get made() {
		const { pot, layer, depthMm, planning } = this;
		const values = this.#values;
		return this.sides.map(({ mix }) => {
			if (!mix.parts.some((part) => part.parts > 0)) return null;
			const body = bodyOf(mix, values);
			const question = { ...planning.question, mix, coarseLayerMm: layer.coarseLayerMm };
			return {
				body,
				result: waterAndAir(body, pot, layer, depthMm),
				dryDays: 'depthMm' in pot ? null : judgePot(pot, null, question, values).dryDownDays
			};
		});
	}
	get ranges() {
		return mixRanges(this.#values);
	}
	get wish() {
		return this.ranges[this.aim];
	}
	/** An own mix of that name is changed in place; any other is kept under a new name. */
	get keptAt() {
		const name = this.keepName.trim().toLowerCase();
		return this.#yard.mixes.find((mix) => mix.name.toLowerCase() === name);
	}

	setMix(index: number, mix: PottingMix, from?: string): void {
		this.sides = this.sides.map((side, i) => (i === index ? { from: from ?? side.from, mix } : side));
	}
	/** Other parts are another mix: what was measured no longer holds. */
	setParts(index: number, parts: MixPart[]): void {
		this.setMix(index, { name: this.sides[index]?.mix.name ?? '', parts, measured: null });
	}
	/** Begins a side with one of our own, a shipped one, or the one that is in use. */
	begin(index: number, value: string): void {
		const own = this.#yard.mixes.find((mix) => `own-${mix.id}` === value);
		const shipped = mixIds.find((id) => id === value);
		if (own) this.setMix(index, { name: own.name, parts: own.parts, measured: own.measured }, value);
		else if (shipped) this.setMix(index, pottingMixOf(shipped), value);
		else this.setMix(index, this.#first, 'used');
	}
	/** The last that were chosen; what was found from others is forgotten. */
	choose(components: readonly string[]): void {
		this.stock = componentIds.filter((id) => components.slice(-STOCK_MOST).includes(id));
		this.found = null;
	}
	find(): void {
		const pricePerL = Object.fromEntries(
			this.#yard.items.flatMap((item) =>
				item.price === null ? [] : [[item.item, item.price / item.packSize] as const]
			)
		);
		const { stock, wish, pot, layer, depthMm, prefer } = this;
		const begun = this.sides[0]?.mix.parts ?? [];
		this.found = reachMix(stock, wish, { pot, layer, fillMm: depthMm }, this.#values, {
			begin: begun,
			prefer,
			pricePerL
		});
	}
}
