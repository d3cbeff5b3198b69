<script lang="ts">
	import MixView from '$views/replant/MixView.svelte';

	let { data } = $props();
</script>

{#key data.records.tree.id}
	<MixView
		tree={data.records.tree}
		kind={data.kind}
		values={data.values}
		planting={data.records.plantings.at(-1) ?? null}
	/>
{/key}
