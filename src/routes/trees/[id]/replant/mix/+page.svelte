<script lang="ts">
	import MixView from '$views/replant/MixView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<MixView
		tree={data.records.tree}
		kind={data.kind}
		values={data.values}
		planting={data.records.replantPlan?.planting ?? data.records.plantings.at(-1) ?? null}
		stock={data.stock}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
