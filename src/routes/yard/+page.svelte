<script lang="ts">
	import YardView from '$views/yard/YardView.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Yard · Bruntle</title></svelte:head>

<YardView {...data} refused={form?.refusal} />
