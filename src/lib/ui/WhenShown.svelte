<script lang="ts">
	import { onMount, type Snippet } from 'svelte';

	/** What is too heavy for the server to draw, others wait meanwhile: then each browser draws its own. */
	interface Props {
		heavy: boolean;
		children: Snippet;
	}
	let { heavy, children }: Props = $props();
	let shown = $state(false);
	onMount(() => {
		shown = true;
	});
</script>

{#if shown || !heavy}
	{@render children()}
{:else}
	<p class="page py-10 text-slate" role="status">A large map: it is drawn in a moment.</p>
{/if}
