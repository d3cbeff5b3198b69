<script lang="ts">
	import { onMount, type Component } from 'svelte';

	/** A text of advice in which a touch on a word of the trade opens what it means; the glossary comes after the page. */
	interface Props {
		text: string;
	}
	let { text }: Props = $props();
	let Marked = $state<Component<Props> | null>(null);
	onMount(async () => {
		Marked = (await import('./MarkedTerms.svelte')).default;
	});
</script>

{#if Marked}<Marked {text} />{:else}{text}{/if}
