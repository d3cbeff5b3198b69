<script lang="ts">
	import Beginning from '$views/today/Beginning.svelte';
	import TodayView from '$views/today/TodayView.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Today · Bruntle</title></svelte:head>

{#if data.treeCount === 0}
	<Beginning places={data.placeCount} />
{:else}
	<TodayView
		today={data.today}
		items={data.items}
		round={data.round}
		nights={data.nights}
		treeCount={data.treeCount}
		refused={form?.refusal}
	/>
{/if}
