<script lang="ts">
	import { soilTools } from '$core/examine/measuring/measurement';
	import MeasureView from '$views/examine/MeasureView.svelte';

	let { data, form } = $props();
</script>

<MeasureView {...data} title="Soil" choice={soilTools} refused={form?.refusal} />
