<script lang="ts">
	import ReportView from '$views/recovery/ReportView.svelte';

	let { data } = $props();
</script>

{#if data.place && data.of}
	<ReportView
		records={data.records}
		place={data.place}
		of={data.of}
		shootMm={data.shootMm}
		twin={data.twin}
		values={data.values}
		today={data.today}
	/>
{/if}
