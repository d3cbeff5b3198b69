<script lang="ts">
	import { soilTools } from '$core/examine/measuring/measurement';
	import MeasureView from '$views/examine/MeasureView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<MeasureView
		title="Soil"
		records={data.records}
		values={data.values}
		today={data.today}
		choice={soilTools}
		refused={form?.refusal}
	/>
{/key}
