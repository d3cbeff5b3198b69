<script lang="ts">
	import RootsView from '$views/roots/RootsView.svelte';

	let { data } = $props();
</script>

{#if data.place}
	{#key data.records.tree.id}
		<RootsView
			tree={data.records.tree}
			kind={data.kind}
			place={data.place}
			values={data.values}
			today={data.today}
			rootMap={data.records.rootMap}
			plan={data.records.plan}
		/>
	{/key}
{/if}
