<script lang="ts">
	import BenchView from '$views/roots/BenchView.svelte';

	let { data } = $props();
</script>

{#if data.place}
	<BenchView
		tree={data.records.tree}
		kind={data.kind}
		place={data.place}
		values={data.values}
		today={data.today}
		rootMap={data.records.rootMap}
		plan={data.records.plan}
	/>
{/if}
