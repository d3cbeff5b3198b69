<script lang="ts">
	import ReportView from '$views/recovery/ReportView.svelte';

	let { data } = $props();
</script>

{#if data.place && data.of}
	<ReportView {...data} place={data.place} of={data.of} />
{/if}
