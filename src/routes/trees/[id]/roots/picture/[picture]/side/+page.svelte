<script lang="ts">
	import SideDepthsView from '$views/roots/SideDepthsView.svelte';

	let { data } = $props();
</script>

{#if data.of}
	{#key data.picture.id}
		<SideDepthsView of={data.of} picture={data.picture} rimMm={data.rimMm} />
	{/key}
{/if}
