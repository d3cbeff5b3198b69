<script lang="ts">
	import { resolve } from '$app/paths';
	import Button from '$ui/Button.svelte';
	import TreeForm from '$views/take-in/TreeForm.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Take in · Bruntle</title></svelte:head>

<div class="page max-w-3xl pt-6">
	<h1 class="mb-4 text-3xl">Take in</h1>
	{#if data.places.length === 0}
		<p class="mb-4 text-lg">First say where it will stand: seasons and cold nights follow from the place.</p>
		<Button tone="solid" href={resolve('/yard')}>First place</Button>
	{:else}
		<TreeForm {...data} refused={form?.refusal} action="?" />
	{/if}
</div>
