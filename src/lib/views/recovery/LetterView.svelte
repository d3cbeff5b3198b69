<script lang="ts">
	import { resolve } from '$app/paths';
	import { ownersLetter } from '$core/recovery/owner-letter';
	import type { TreeRecords } from '$core/tree/case';
	import { letterFacts } from '$core/tree/letter-facts';
	import type { RecoveryOf } from '$core/tree/recovery-of';
	import type { Standing } from '$core/tree/standing';
	import type { Values } from '$core/values/values';
	import type { Place } from '$core/vocabulary/place';
	import { useFormat } from '$ui/format';
	import SheetActions from '$ui/SheetActions.svelte';
	import ShareLink from '$views/people/ShareLink.svelte';

	/** A letter to the owner of a tree in the ground, for print. */
	interface Props {
		records: TreeRecords;
		place: Place;
		stands: Standing;
		of: RecoveryOf;
		values: Values;
		today: string;
		/** Whether somebody reads it from outside, by a link. */
		shared?: boolean;
		/** Whether one may give it to read by a link. */
		mayShare?: boolean;
	}
	let { records, stands, place, of, values, today, shared = false, mayShare = false }: Props = $props();
	const format = useFormat();
	const { tree, kind } = $derived(records);
	const letter = $derived(
		ownersLetter(
			letterFacts({ records, place, stands, case: of.case, deciding: of.facts, say: format() }, today, values)
		)
	);
</script>

<div class="page py-5">
	{#if !shared}
		<div class="no-print mb-4 flex flex-wrap items-end justify-between gap-3">
			<a class="chalk" href={resolve('/trees/[id]/recovery', { id: tree.id })}>Back to Recovery</a>
			<SheetActions title="{tree.tag} letter" print="Print the letter" />
			{#if mayShare}<ShareLink {tree} page="letter" {today} />{/if}
		</div>
	{/if}
	<article
		data-sheet
		class="sheet mx-auto max-w-[46rem] border bg-leaf p-4 sm:p-10"
		aria-label="Letter to the owner"
	>
		<p class="text-sm">{format().date(today)}</p>
		<h2 class="mt-4 text-2xl">{tree.name}</h2>
		<p>{kind.commonName}, {place.name}</p>
		{#each letter.sections as section (section.title)}
			<h3 class="mt-5 text-lg">{section.title}</h3>
			{#each section.paragraphs as paragraph, i (i)}
				<p class={['mt-1.5', section === letter.sections[0] && i === 0 && 'text-lg font-semibold']}>
					{format().inWords(paragraph)}
				</p>
			{/each}
		{/each}
		<p class="mt-8 text-sm text-slate">
			This letter says what was seen and measured up to its date. It is no certificate of stability and does
			not replace the judgement of a qualified arborist on the spot.
		</p>
		<p class="mt-10 border-t pt-1 text-sm">Name, date, signature</p>
	</article>
</div>
