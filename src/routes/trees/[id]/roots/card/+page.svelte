<script lang="ts">
	import CutCard from '$views/roots/CutCard.svelte';

	let { data } = $props();
</script>

{#if data.place}
	<CutCard
		tree={data.records.tree}
		kind={data.kind}
		place={data.place}
		values={data.values}
		today={data.today}
		rootMap={data.records.rootMap}
		plan={data.records.plan}
	/>
{/if}
