<script lang="ts">
	import RootsView from '$views/roots/RootsView.svelte';

	let { data } = $props();
</script>

{#if data.of}
	{#key data.of.tree.id}<RootsView of={data.of} />{/key}
{/if}
