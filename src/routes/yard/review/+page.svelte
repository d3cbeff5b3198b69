<script lang="ts">
	import ReviewView from '$views/recovery/ReviewView.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Review · Bruntle</title></svelte:head>
<ReviewView review={data.review} values={data.values} today={data.today} />
