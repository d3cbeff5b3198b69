<script lang="ts">
	import BenchView from '$views/roots/BenchView.svelte';

	let { data } = $props();
</script>

{#if data.of}
	<BenchView of={data.of} />
{/if}
