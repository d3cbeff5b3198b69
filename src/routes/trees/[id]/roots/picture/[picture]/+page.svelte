<script lang="ts">
	import PictureRootsView from '$views/roots/PictureRootsView.svelte';

	let { data } = $props();
</script>

{#if data.of}
	{#key data.picture.id}
		<PictureRootsView of={data.of} picture={data.picture} rimMm={data.rimMm} />
	{/key}
{/if}
