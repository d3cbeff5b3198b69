<script lang="ts">
	import WallRootsView from '$views/recovery/WallRootsView.svelte';

	let { data, form } = $props();
</script>

{#key data.picture.id}
	<WallRootsView
		tree={data.records.tree}
		picture={data.picture}
		values={data.values}
		refused={form?.refusal}
	/>
{/key}
