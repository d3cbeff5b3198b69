<script lang="ts">
	import LetterView from '$views/recovery/LetterView.svelte';

	let { data } = $props();
</script>

{#if data.place && data.of}
	<LetterView {...data} mayShare={data.who?.role === 'owner' && data.owned} place={data.place} of={data.of} />
{/if}
