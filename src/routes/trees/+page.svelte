<script lang="ts">
	import TreesView from '$views/take-in/TreesView.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Trees · Bruntle</title></svelte:head>

<TreesView rows={data.rows} today={data.today} />
