<script lang="ts">
	import { resolve } from '$app/paths';
	import type { JournalEntry } from '$core/tree/case';
	import { counted } from '$core/text/plural';
	import { stageNames } from '$core/vocabulary/words';
	import { type Tree } from '$core/take-in/tree';
	import Button from '$ui/Button.svelte';
	import { useFormat } from '$ui/format';
	import Download from '@lucide/svelte/icons/download';

	/** What was done when, newest first. */
	interface Props {
		tree: Tree;
		journal: readonly JournalEntry[];
		/** Pictures that do not go with the case. */
		picturesLeft: number;
		today: string;
	}
	let { tree, journal, picturesLeft, today }: Props = $props();
	const format = useFormat();
	let all = $state(false);
	const newest = $derived(
		// Of one instant the last written comes first.
		[...journal].reverse().sort((a, b) => b.on.localeCompare(a.on) || b.at.localeCompare(a.at))
	);
	const shown = $derived(all ? newest : newest.slice(0, 14));
</script>

<aside aria-labelledby="journal-title">
	<div class="flex items-baseline justify-between gap-3">
		<h2 id="journal-title" class="text-lg">Journal</h2>
		<a
			class="chalk inline-flex items-center gap-1.5 text-sm"
			href={resolve('/api/v1/trees/[id]', { id: tree.id })}
			download="{tree.tag}.json"
		>
			<Download size={15} aria-hidden="true" /> whole case as JSON
		</a>
	</div>
	{#if picturesLeft > 0}
		<p class="mt-1 text-sm text-slate">
			{counted(picturesLeft, 'picture')}
			{picturesLeft === 1 ? 'stays' : 'stay'} behind with it: the file carries the newest as far as there is room.
			An archive of the whole yard, under Backups, has all.
		</p>
	{/if}
	<ol class="mt-2 divide-y border-y">
		{#each shown as entry (entry.id)}
			<li class="grid grid-cols-[5.5rem_1fr] gap-3 py-2 text-sm">
				<time datetime={entry.on} class="text-slate">{format().day(entry.on, today)}</time>
				<p>
					{format().inWords(entry.what, today)}<span class="block text-xs text-slate"
						>{stageNames[entry.stage]}{entry.by ? `, ${entry.by}` : ''}</span
					>
				</p>
			</li>
		{/each}
	</ol>
	{#if newest.length > shown.length}
		<Button tone="quiet" size="small" class="mt-2" onclick={() => (all = true)}
			>All {newest.length} entries</Button
		>
	{/if}
</aside>
