<script lang="ts">
	import { aliveOf } from '$core/tree/lot';
	import { atStart } from '$core/text/mid-sentence';
	import SheetActions from '$ui/SheetActions.svelte';
	import { resolve } from '$app/paths';
	import type { TreeRecords } from '$core/tree/case';
	import { groundAmounts } from '$core/replant/ground/ground-plan';
	import { kitList } from '$core/replant/kit/kit';
	import { ballMass } from '$core/examine/measuring/ball-mass';
	import { handling, liftLimit, reachWithBallCm } from '$core/replant/lifting/niosh';
	import { mixCautions } from '$core/replant/mixes/mixes';
	import { firmingNames, heightSchoolNames, holdingNames, pocketSchoolNames } from '$core/replant/pots/seat';
	import { isRound, potShapeNames } from '$core/replant/pots/volume';
	import type { StockItem, StockPot } from '$core/replant/kit/stock';
	import type { Values } from '$core/values/values';
	import { amountsInPot, firstWaterOfPot } from '$core/tree/shared-pot';
	import Caution from '$ui/Caution.svelte';
	import { useFormat } from '$ui/format';
	import KitTable from './KitTable.svelte';

	/** Everything to have ready before the start, from the plans that are kept; to print or to carry. */
	interface Props {
		records: TreeRecords;
		values: Values;
		stock: { pots: StockPot[]; items: StockItem[] };
		goneRoots: string[];
	}
	let { records, values, stock, goneRoots }: Props = $props();
	const format = useFormat();
	const tree = $derived(records.tree);
	const plan = $derived(records.replantPlan);
	const lift = $derived(records.lifts.find((entry) => entry.log === null) ?? null);
	const ground = $derived(records.groundPlans.find((entry) => entry.doneOn === null) ?? null);
	const segments = $derived(records.rootMap?.segments ?? []);
	const gone = $derived(new Set(goneRoots));
	const thickestMm = $derived(
		segments.reduce((thick, root) => (gone.has(root.id) ? thick : Math.max(thick, root.diameterStartMm)), 0)
	);
	const stockPot = $derived(stock.pots.find((pot) => pot.id === plan?.stockPotId) ?? null);
	const hands = $derived.by(() => {
		if (!lift) return null;
		const mass = ballMass(lift.ballDiameterMm, lift.ballDepthMm, values);
		const limit = liftLimit(
			{
				reachCm: reachWithBallCm(lift.ballDiameterMm, values),
				startCm: 20,
				travelCm: values['lifting.travel-cm'],
				twistDeg: 0,
				coupling: 'fair'
			},
			values
		);
		return { mass, ...handling(mass.usualKg, limit.kg) };
	});
	const potWater = $derived(plan ? firstWaterOfPot(records, plan.planting.plantedOn) : null);
	const kit = $derived(
		kitList(
			{
				plantCount: aliveOf(records),
				thickestMm,
				planting: plan
					? {
							...plan.planting,
							amounts: amountsInPot(
								{ ...plan.planting, moundMm: plan.planting.seat?.moundMm ?? 0 },
								records.mates,
								values
							),
							stockPot
						}
					: null,
				lift:
					lift && hands
						? {
								ballDiameterMm: lift.ballDiameterMm,
								ballDepthMm: lift.ballDepthMm,
								people: Number.isFinite(hands.people) ? hands.people : lift.people,
								way: hands.way
							}
						: null,
				ground: ground
					? groundAmounts(
							ground,
							tree.trunkDiameterMm,
							records.rootMap?.frame === 'ground' ? segments : [],
							values
						)
					: null
			},
			stock.items,
			values
		)
	);
	const mm = (value: number): string => format().measure(value, 'mm');
	const nothing = $derived(!plan && !lift && !ground);
	const money = (value: number): string => format().number(value, 2);
</script>

<div class="page pt-5 pb-20" data-sheet>
	<div class="no-print flex flex-wrap items-baseline justify-between gap-3">
		<a class="chalk" href={resolve('/trees/[id]/replant', { id: tree.id })}>Back to Replant</a>
		<SheetActions title="{tree.tag} kit list" print="Print" />
	</div>
	<h2 class="mt-2 text-2xl">
		Kit list: {tree.tag}
		{tree.name}{tree.plantCount > 1 ? `, lot of ${tree.plantCount}` : ''}
	</h2>
	{#if nothing}
		<p class="mt-2 max-w-2xl">
			Nothing is planned yet. Keep a plan on <a
				class="chalk"
				href={resolve('/trees/[id]/replant', { id: tree.id })}>Replant</a
			>,
			<a class="chalk" href={resolve('/trees/[id]/replant/lift', { id: tree.id })}>Lift</a>
			or <a class="chalk" href={resolve('/trees/[id]/replant/ground', { id: tree.id })}>In the ground</a>;
			what it needs then stands here.
		</p>
	{:else}
		<div class="mt-4 grid gap-x-12 gap-y-6 md:grid-cols-2">
			<section aria-labelledby="materials-title">
				<h3 id="materials-title" class="text-lg">Materials</h3>
				{#if kit.pots}
					<p class="py-1.5 text-sm">
						<strong>{kit.pots.need} × {kit.pots.name}</strong>{plan
							? `: ${potShapeNames[plan.planting.pot.shape]}, ${mm(plan.planting.pot.topLengthMm)}${isRound(plan.planting.pot.shape) ? '' : ` × ${mm(plan.planting.pot.topWidthMm)}`} × ${mm(plan.planting.pot.heightMm)} deep`
							: ''}
						<span class={kit.pots.short > 0 ? 'text-oxide' : 'text-slate'}
							>({kit.pots.short > 0 ? `${kit.pots.short} missing` : 'at hand'})</span
						>
					</p>
				{/if}
				<KitTable lines={kit.materials} uses />
				<p class="mt-2 text-sm">
					What is used is worth <strong>{money(kit.usedCost)}</strong>; to buy:
					<strong>{money(kit.buyCost)}</strong>, in your own money.{kit.unpriced.length > 0
						? ` Without a price: ${kit.unpriced.join(', ')}.`
						: ''}
					<a class="chalk no-print" href={resolve('/yard/stock')}>Stock and prices</a>
				</p>
			</section>
			<div class="flex flex-col gap-6">
				<section aria-labelledby="tools-title">
					<h3 id="tools-title" class="text-lg">Tools and hands</h3>
					<ul class="divide-y border-y text-sm">
						{#each kit.tools as tool (tool)}
							<li class="flex items-center gap-3 py-1.5">
								<span class="size-4 shrink-0 rounded-sm border border-edge" aria-hidden="true"
								></span>{format().inWords(tool)}
							</li>
						{/each}
					</ul>
				</section>
				<section aria-labelledby="protection-title">
					<h3 id="protection-title" class="text-lg">Against harm</h3>
					<ul class="divide-y border-y text-sm">
						{#each kit.protection as item (item)}
							<li class="flex items-center gap-3 py-1.5">
								<span class="size-4 shrink-0 rounded-sm border border-edge" aria-hidden="true"
								></span>{format().inWords(item)}
							</li>
						{/each}
					</ul>
				</section>
				{#if lift && hands}
					<p class="text-sm">
						Ball {mm(lift.ballDiameterMm)} across, {mm(lift.ballDepthMm)} deep: about {format().measure(
							hands.mass.usualKg,
							'kg',
							0
						)} ({format().measure(hands.mass.leastKg, 'kg', 0)} to {format().measure(
							hands.mass.mostKg,
							'kg',
							0
						)}).
					</p>
				{/if}
				{#if plan?.planting.seat}
					{@const seat = plan.planting.seat}
					<section aria-labelledby="how-title" class="text-sm">
						<h3 id="how-title" class="text-lg">How it is set</h3>
						<p>
							{atStart(heightSchoolNames[seat.height])}, flare {mm(Math.abs(seat.flareOverRimMm))}
							{seat.flareOverRimMm < 0 ? 'below' : 'over'} the rim; {pocketSchoolNames[seat.pockets]}, {firmingNames[
								seat.firming
							]}; held by {holdingNames[seat.holding]}{seat.offOn
								? `, off on ${format().date(seat.offOn)}`
								: ''}. First water {potWater
								? `with ${potWater.tag}, ${format().date(potWater.task.fromOn)}`
								: plan.waterSchool === 'at-once'
									? 'at once'
									: 'after a dry rest'}.
						</p>
					</section>
				{/if}
				{#if plan && mixCautions(plan.planting.mix.parts)}
					<Caution title="Dust and compost">{mixCautions(plan.planting.mix.parts)}</Caution>
				{/if}
			</div>
		</div>
	{/if}
</div>
