<script lang="ts">
	import { isLarge } from '$core/roots/map/large';
	import WhenShown from '$ui/WhenShown.svelte';
	import ReportView from '$views/recovery/ReportView.svelte';

	let { data } = $props();
</script>

{#if data.place && data.of}
	{@const { place, of } = data}
	<WhenShown heavy={isLarge(data.records.rootMap)}>
		<ReportView {...data} mayShare={data.who?.role === 'owner' && data.owned} {place} {of} />
	</WhenShown>
{/if}
