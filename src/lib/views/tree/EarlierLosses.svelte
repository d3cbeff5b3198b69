<script lang="ts">
	import { resolve } from '$app/paths';
	import { lossCauseNames, type KindBefore } from '$core/take-in/tree';
	import { useFormat } from '$ui/format';

	/** What was lost of this kind here before, with what it taught. */
	interface Props {
		kindName: string;
		before: KindBefore;
	}
	let { kindName, before }: Props = $props();
	const format = useFormat();
</script>

<aside class="rounded-md border-l-4 border-ochre bg-duff px-3 py-2" aria-label="Earlier losses of its kind">
	<p class="font-semibold">
		This is number {before.attempt} of its kind here ({kindName}): {before.lost.length} lost{before.reEstablished >
		0
			? `, ${before.reEstablished} re-established`
			: ''}.
	</p>
	<ul class="mt-1 flex flex-col gap-1">
		{#each before.lost as one (one.id)}
			<li>
				<a class="chalk" href={resolve('/trees/[id]', { id: one.id })}>{one.tag} {one.name}</a>{one.closedOn
					? `, ${format().date(one.closedOn)}`
					: ''}{one.lossCause ? `, ${lossCauseNames[one.lossCause]}` : ''}: {one.closingNote}
				{#if one.shownEarlier}<span class="text-slate">Shown earlier by: {one.shownEarlier}</span>{/if}
			</li>
		{/each}
	</ul>
</aside>
