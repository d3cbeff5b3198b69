<script lang="ts">
	import Beginning from '$views/today/Beginning.svelte';
	import TodayView from '$views/today/TodayView.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Today · Bruntle</title></svelte:head>

{#if data.treeCount === 0}
	<Beginning places={data.placeCount} closed={data.closedCount} />
{:else}
	<TodayView {...data} refused={form?.refusal} />
{/if}
