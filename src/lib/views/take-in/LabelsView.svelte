<script lang="ts">
	import { resolve } from '$app/paths';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import { useFormat } from '$ui/format';
	import NarrowDown from '$ui/NarrowDown.svelte';
	import { fits } from './narrow';
	import Printer from '@lucide/svelte/icons/printer';

	/** Labels of trees in care, true to size, to print and cut: what has to be read at the pot without a screen. */
	interface Props {
		rows: {
			id: string;
			tag: string;
			name: string;
			kindName: string;
			placeName: string;
			plantCount: number;
			takenInOn: string;
		}[];
	}
	let { rows }: Props = $props();
	const format = useFormat();
	let words = $state('');
	let size = $state<'strip' | 'card'>('card');
	/** Our own choice: a strip to stick in, and a card of which 24 fill a sheet of A4 without margins. */
	const sizes = { strip: { widthMm: 125, heightMm: 20 }, card: { widthMm: 70, heightMm: 37 } };
	const MOST = 240;
	const found = $derived(rows.filter((row) => fits(row, words)));
	const shown = $derived(found.slice(0, MOST));
</script>

<svelte:head><title>Labels · Bruntle</title></svelte:head>

<div class="page pt-6 pb-16">
	<div class="no-print">
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h1 class="text-3xl">Labels</h1>
			<a class="chalk" href={resolve('/trees')}>Back to the trees</a>
		</div>
		<div class="mt-4 flex flex-wrap items-end gap-4">
			<NarrowDown bind:words of="tag, name, kind, place" />
			<Choice
				label="Cut to"
				bind:value={size}
				options={(['card', 'strip'] as const).map((value) => ({
					value,
					label: `${value === 'card' ? 'cards' : 'strips to stick in'}, ${sizes[value].widthMm} × ${sizes[value].heightMm} mm`
				}))}
			/>
			<Button tone="solid" disabled={shown.length === 0} onclick={() => window.print()}
				><Printer size={18} /> Print {shown.length === 1 ? 'one label' : `${shown.length} labels`}</Button
			>
		</div>
		<p class="mt-2 text-sm text-slate" role="status">
			{found.length > MOST
				? `The first ${MOST} of ${found.length}: narrow it down for the others.`
				: 'Print at full size, without “fit to page”. Pencil lasts longer than ink outdoors.'}
		</p>
	</div>
	<ul class="mt-4 flex flex-wrap gap-0" aria-label="Labels">
		{#each shown as row (row.id)}
			<li
				class="flex break-inside-avoid flex-col justify-between overflow-hidden border border-dashed border-edge px-2 py-1 leading-tight"
				style="width: {sizes[size].widthMm}mm; height: {sizes[size].heightMm}mm"
			>
				<span class="flex items-baseline justify-between gap-2"
					><strong class="font-display text-2xl">{row.tag}</strong><span class="truncate text-sm"
						>{row.kindName}{row.plantCount > 1 ? `, lot of ${row.plantCount}` : ''}</span
					></span
				>
				{#if size === 'card'}
					<span class="truncate font-semibold">{row.name}</span>
					<span class="truncate text-sm">{row.placeName}</span>
					<span class="text-sm">Since {format().day(row.takenInOn)}. Planted:</span>
				{:else}
					<span class="truncate text-sm"
						><strong>{row.name}</strong>, in care since {format().date(row.takenInOn)}</span
					>
				{/if}
			</li>
		{:else}
			<li class="text-slate">No tree in care fits that.</li>
		{/each}
	</ul>
</div>
