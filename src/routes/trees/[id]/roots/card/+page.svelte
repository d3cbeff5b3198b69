<script lang="ts">
	import CutCard from '$views/roots/CutCard.svelte';

	let { data } = $props();
</script>

{#if data.of}
	<CutCard of={data.of} />
{/if}
