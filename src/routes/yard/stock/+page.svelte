<script lang="ts">
	import StockView from '$views/yard/StockView.svelte';

	let { data, form } = $props();
</script>

<StockView
	pots={data.pots}
	items={data.items}
	mixes={data.mixes}
	values={data.values}
	refused={form?.refusal}
/>
