<script lang="ts">
	import { soilTools, tools } from '$core/examine/measuring/measurement';
	import MeasureView from '$views/examine/MeasureView.svelte';

	let { data, form } = $props();
	const inGround: readonly string[] = soilTools;
</script>

<MeasureView
	{...data}
	title="Measure"
	choice={tools.filter((tool) => !inGround.includes(tool))}
	refused={form?.refusal}
/>
