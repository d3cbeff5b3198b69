<script lang="ts">
	import ReplantView from '$views/replant/ReplantView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<ReplantView
		tree={data.records.tree}
		kind={data.kind}
		places={data.yardPlaces}
		values={data.values}
		today={data.today}
		plantings={data.records.plantings}
		rootMap={data.records.rootMap}
		lastWork={data.lastWork}
		goneRoots={data.goneRoots}
		setting={data.records.plan?.setting ?? null}
		refused={form?.refusal}
	/>
{/key}
