<script lang="ts">
	import RootsView from '$views/roots/RootsView.svelte';

	let { data } = $props();
</script>

{#if data.of}
	<RootsView of={data.of} />
{/if}
