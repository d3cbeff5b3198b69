<script lang="ts">
	import StockView from '$views/yard/StockView.svelte';

	let { data, form } = $props();
</script>

<StockView {...data} refused={form?.refusal} />
