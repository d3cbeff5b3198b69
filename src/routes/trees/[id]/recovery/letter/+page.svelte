<script lang="ts">
	import LetterView from '$views/recovery/LetterView.svelte';

	let { data } = $props();
</script>

{#if data.place && data.of}
	<LetterView
		records={data.records}
		stands={data.stands}
		place={data.place}
		of={data.of}
		values={data.values}
		today={data.today}
	/>
{/if}
