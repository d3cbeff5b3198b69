<script lang="ts">
	import { glossary } from '$core/text/glossary';
	import Field from '$ui/Field.svelte';
	import ReferenceFrame from './ReferenceFrame.svelte';

	let sought = $state('');
	const found = $derived(
		glossary.filter(({ term, also = [], meaning }) =>
			[term, ...also, meaning].some((text) => text.toLowerCase().includes(sought.trim().toLowerCase()))
		)
	);
</script>

<ReferenceFrame
	title="Glossary"
	lead="Words of the trade as Bruntle uses them. On pages of work a touch on an underlined word opens the same."
>
	<div class="mt-4 max-w-sm print:hidden">
		<Field label="Find a word" name="sought">
			{#snippet control({ id })}
				<input {id} type="search" class="input" bind:value={sought} />
			{/snippet}
		</Field>
	</div>
	<dl class="mt-5 divide-y border-y" aria-live="polite">
		{#each found as { term, also, meaning } (term)}
			<div class="grid gap-x-8 gap-y-1 py-3 sm:grid-cols-[14rem_1fr]">
				<dt class="font-display text-lg font-semibold first-letter:uppercase">
					{term}{#if also}<span class="block font-sans text-sm font-normal text-slate">{also.join(', ')}</span
						>{/if}
				</dt>
				<dd class="max-w-prose text-lg">{meaning}</dd>
			</div>
		{:else}
			<p class="py-4 text-lg">No word here says “{sought.trim()}”.</p>
		{/each}
	</dl>
</ReferenceFrame>
