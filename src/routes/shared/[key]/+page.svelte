<script lang="ts">
	import LetterView from '$views/recovery/LetterView.svelte';
	import ReportView from '$views/recovery/ReportView.svelte';

	let { data } = $props();
</script>

{#if data.page === 'letter'}
	<LetterView {...data} shared />
{:else}
	<ReportView {...data} sharedBy={data.key} />
{/if}
