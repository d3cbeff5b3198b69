<script lang="ts">
	import SheetActions from '$ui/SheetActions.svelte';
	import type { TodayItem } from '$core/today/item';
	import { useFormat } from '$ui/format';
	import { groups } from 'd3';

	/** The round on paper: place by place what is to do, and blank columns for weights. */
	interface Props {
		items: TodayItem[];
		potted: { id: string; tag: string; name: string; placeName: string; dryness: number | null }[];
		today: string;
	}
	let { items, potted, today }: Props = $props();
	const format = useFormat();
	const stops = $derived(
		[...new Set([...items.map((item) => item.placeName), ...potted.map((tree) => tree.placeName)])].sort()
	);
	const work = $derived(new Map(groups(items, (item) => item.placeName)));
	const pots = $derived(new Map(groups(potted, (tree) => tree.placeName)));
</script>

<svelte:head><title>Round sheet · Bruntle</title></svelte:head>

<div class="page pt-6 pb-16" data-sheet>
	<div class="flex flex-wrap items-baseline justify-between gap-3">
		<h1 class="text-3xl">Round, {format().date(today)}</h1>
		<SheetActions title="Round" print="Print" />
	</div>
	{#each stops as stop (stop)}
		<section class="mt-5 break-inside-avoid" aria-label={stop}>
			<h2 class="text-xl">{stop}</h2>
			<ul class="mt-1 divide-y border-y text-sm">
				{#each work.get(stop) ?? [] as item (item.task?.id ?? item.treeId + item.sentence)}
					<li class="flex items-baseline gap-3 py-1.5">
						<span class="size-4 shrink-0 translate-y-0.5 rounded-sm border border-edge" aria-hidden="true"
						></span>
						<span
							><strong
								>{item.group.length > 0 ? item.group.map((tree) => tree.tag).join(', ') : item.tag}</strong
							>
							{format().inWords(item.sentence)}
							<span class="text-slate">({format().inWords(item.figure)})</span></span
						>
					</li>
				{:else}<li class="py-1.5 text-slate">Nothing is due here.</li>{/each}
			</ul>
			{#if (pots.get(stop) ?? []).length > 0}
				<table class="mt-2 w-full text-sm">
					<thead
						><tr class="border-b text-left text-slate"
							><th class="py-1 font-normal">tree</th><th class="w-20 py-1 font-normal">dry</th><th
								class="w-28 py-1 font-normal">before</th
							><th class="w-28 py-1 font-normal">after</th><th class="w-24 py-1 font-normal">poured</th></tr
						></thead
					>
					<tbody class="divide-y">
						{#each pots.get(stop) ?? [] as tree (tree.id)}
							<tr class="h-9"
								><th class="text-left font-normal"><strong>{tree.tag}</strong> {tree.name}</th><td
									>{tree.dryness === null ? '–' : format().percent(tree.dryness)}</td
								><td class="border-l"></td><td class="border-l"></td><td class="border-l"></td></tr
							>
						{/each}
					</tbody>
				</table>
			{/if}
		</section>
	{/each}
</div>
