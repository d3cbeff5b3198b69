<script lang="ts">
	import DamagedView from '$views/yard/DamagedView.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Damaged records · Bruntle</title></svelte:head>

<DamagedView damaged={data.damaged} refused={form?.refusal} />
