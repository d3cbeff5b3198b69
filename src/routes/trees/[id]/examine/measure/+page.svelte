<script lang="ts">
	import { soilTools, tools } from '$core/examine/measuring/measurement';
	import MeasureView from '$views/examine/MeasureView.svelte';

	let { data, form } = $props();
	const inGround: readonly string[] = soilTools;
</script>

{#key data.records.tree.id}
	<MeasureView
		title="Measure"
		records={data.records}
		values={data.values}
		today={data.today}
		choice={tools.filter((tool) => !inGround.includes(tool))}
		refused={form?.refusal}
	/>
{/key}
