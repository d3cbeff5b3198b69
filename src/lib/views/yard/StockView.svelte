<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { bodyOf } from '$core/replant/mixes/bench-test';
	import { mixInWords } from '$core/replant/mixes/reach';
	import { waterAndAir } from '$core/replant/mixes/retention';
	import { isRound, potShapeNames, potVolumeL } from '$core/replant/pots/volume';
	import {
		atHand,
		itemName,
		itemUnit,
		type OwnMix,
		type StockItem,
		type StockPot
	} from '$core/replant/kit/stock';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Plus from '@lucide/svelte/icons/plus';
	import ItemForm from './ItemForm.svelte';
	import PotForm from './PotForm.svelte';

	/** Pots, mix components, supplies and mixes of the yard's own. */
	interface Props {
		pots: StockPot[];
		items: StockItem[];
		mixes: OwnMix[];
		values: Values;
		refused?: Refused | null;
	}
	let { pots, items, mixes, values, refused }: Props = $props();
	const format = useFormat();
	let addingPot = $state(false);
	let addingItem = $state(false);
	let pot = $state.raw<StockPot | null>(null);
	let item = $state.raw<StockItem | null>(null);
	const known = $derived(items.map((entry) => entry.item));
	const mm = (value: number): string => format().measure(value, 'mm');
	const amount = (entry: StockItem, value: number): string => {
		const unit = itemUnit(entry.item);
		return unit === 'pieces' ? format().number(value) : format().measure(value, unit);
	};
	const air = (mix: OwnMix): string =>
		format().percent(
			waterAndAir(bodyOf(mix, values), { depthMm: 150 }, { coarseLayerMm: 0, coarsePoreMm: 1 }, 150).airSpace
		);
</script>

<svelte:head><title>Stock · Bruntle</title></svelte:head>

{#snippet remove(kind: string, id: string, version: number, name: string)}
	<form method="POST" action="?/remove" use:enhance={act()}>
		<input type="hidden" name="kind" value={kind} /><input type="hidden" name="id" value={id} /><input
			type="hidden"
			name="version"
			value={version}
		/>
		<Button size="small" tone="quiet" type="submit" aria-label="Remove {name}">Remove</Button>
	</form>
{/snippet}

<div class="page pt-6 pb-16">
	<div class="flex flex-wrap items-end justify-between gap-4">
		<div>
			<h1 class="text-3xl">Stock</h1>
			<p class="mt-1 text-slate">
				What is here to pot with. Plans draw on it and say when it will not reach. <a
					class="chalk"
					href={resolve('/yard')}>Back to the yard</a
				>
			</p>
		</div>
		<div class="flex flex-wrap gap-2">
			<Button onclick={() => (addingItem = true)}><Plus size={18} /> Material</Button>
			<Button tone="solid" onclick={() => (addingPot = true)}><Plus size={18} /> Pot</Button>
		</div>
	</div>
	<div class="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-2">
		<section aria-labelledby="pots-title">
			<h2 id="pots-title" class="text-xl">Pots</h2>
			{#if pots.length === 0}<p class="mt-1 text-slate">None is written down yet.</p>{/if}
			<ul class="mt-2 divide-y border-y">
				{#each pots as entry (entry.id)}
					<li class="flex flex-wrap items-center gap-x-3 gap-y-1 py-2">
						<span class="min-w-0 flex-1 basis-56">
							<strong>{entry.name}</strong>
							<span class={entry.count === 0 ? 'text-oxide' : 'text-slate'}
								>{entry.count === 0 ? 'none left' : `${entry.count} at hand`}</span
							><br />
							<span class="text-sm text-slate"
								>{potShapeNames[entry.pot.shape]}, {entry.material}, {mm(entry.pot.topLengthMm)}{isRound(
									entry.pot.shape
								)
									? ''
									: ` × ${mm(entry.pot.topWidthMm)}`} × {mm(entry.pot.heightMm)} deep, {format().measure(
									potVolumeL(entry.pot),
									'L'
								)}; {entry.holes}
								{entry.holes === 1 ? 'hole' : 'holes'}{entry.massKg === null
									? ''
									: `, ${format().measure(entry.massKg, 'kg')} empty`}</span
							>
						</span>
						<Button size="small" aria-label="Change {entry.name}" onclick={() => (pot = entry)}>Change</Button
						>
						{@render remove('pot', entry.id, entry.version, entry.name)}
					</li>
				{/each}
			</ul>
		</section>
		<section aria-labelledby="items-title">
			<h2 id="items-title" class="text-xl">Mix components and supplies</h2>
			{#if items.length === 0}<p class="mt-1 text-slate">Nothing is written down yet.</p>{/if}
			<ul class="mt-2 divide-y border-y">
				{#each items as entry (entry.id)}
					{@const name = itemName(entry.item)}
					<li class="flex flex-wrap items-center gap-x-3 gap-y-1 py-2">
						<span class="min-w-0 flex-1 basis-56">
							<strong>{name}</strong>
							<span class={atHand(entry) === 0 ? 'text-oxide' : 'text-slate'}
								>{atHand(entry) === 0 ? 'none left' : amount(entry, atHand(entry))}</span
							><br />
							<span class="text-sm text-slate"
								>{entry.packs} full of {amount(entry, entry.packSize)}, {amount(entry, entry.opened)} open{entry.price ===
								null
									? ''
									: `; ${format().number(entry.price, 2)} a pack`}</span
							>
						</span>
						<Button size="small" aria-label="Change {name}" onclick={() => (item = entry)}>Change</Button>
						{@render remove('item', entry.id, entry.version, name)}
					</li>
				{/each}
			</ul>
			<h2 class="mt-8 text-xl">Mixes of our own</h2>
			{#if mixes.length === 0}
				<p class="mt-1 text-slate">
					None yet. On a tree’s Replant, under Mix, any mix can be changed, tested and kept.
				</p>
			{/if}
			<ul class="mt-2 divide-y border-y">
				{#each mixes as mix (mix.id)}
					<li class="flex flex-wrap items-center gap-x-3 gap-y-1 py-2">
						<span class="min-w-0 flex-1 basis-56">
							<strong>{mix.name}</strong><br />
							<span class="text-sm text-slate"
								>{mixInWords(mix.parts)}; air {air(mix)} at {mm(150)}, {mix.measured
									? `measured ${format().date(mix.measured.measuredOn)}`
									: 'not measured'}{mix.afterRot ? '; also after rot' : ''}</span
							>
						</span>
						{@render remove('mix', mix.id, mix.version, mix.name)}
					</li>
				{/each}
			</ul>
		</section>
	</div>
</div>

<Sheet bind:open={addingPot} title="A pot"><PotForm {refused} done={() => (addingPot = false)} /></Sheet>
<Sheet bind:open={addingItem} title="Material"
	><ItemForm {known} {refused} done={() => (addingItem = false)} /></Sheet
>
<Sheet
	bind:open={
		() => pot !== null,
		(open) => {
			if (!open) pot = null;
		}
	}
	title={pot?.name ?? ''}
>
	{#if pot}{#key pot.version}<PotForm {pot} {refused} done={() => (pot = null)} />{/key}{/if}
</Sheet>
<Sheet
	bind:open={
		() => item !== null,
		(open) => {
			if (!open) item = null;
		}
	}
	title={item ? itemName(item.item) : ''}
>
	{#if item}{#key item.version}<ItemForm
				entry={item}
				{known}
				{refused}
				done={() => (item = null)}
			/>{/key}{/if}
</Sheet>
