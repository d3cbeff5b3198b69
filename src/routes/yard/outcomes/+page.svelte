<script lang="ts">
	import OutcomesView from '$views/recovery/OutcomesView.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Outcomes · Bruntle</title></svelte:head>
<OutcomesView {...data} />
