<script lang="ts">
	import { page } from '$app/state';
	import type { Who } from '$core/vocabulary/people';
	import type { Snippet } from 'svelte';

	/** What only an owner of the yard may send: a helper is told so in place of a form that would be refused. */
	interface Props {
		/** Why it is not there, in a sentence; nothing is said where it is left out. */
		told?: string;
		children?: Snippet;
	}
	let { told, children }: Props = $props();
	const who = $derived(page.data.who as Who | null | undefined);
</script>

{#if who?.role !== 'helper'}
	{@render children?.()}
{:else if told}
	<p class="mt-2 text-slate">{told}</p>
{/if}
