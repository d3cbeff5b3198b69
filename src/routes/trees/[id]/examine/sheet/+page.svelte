<script lang="ts">
	import FindingSheet from '$views/examine/FindingSheet.svelte';

	let { data } = $props();
</script>

<FindingSheet
	records={data.records}
	kind={data.kind}
	place={data.place}
	values={data.values}
	today={data.today}
/>
