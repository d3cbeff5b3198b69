<script lang="ts">
	import YardView from '$views/yard/YardView.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Yard · Bruntle</title></svelte:head>

<YardView
	rows={data.rows}
	noTrees={data.noTrees}
	heightWithinKm={data.heightWithinKm}
	today={data.today}
	refused={form?.refusal}
/>
