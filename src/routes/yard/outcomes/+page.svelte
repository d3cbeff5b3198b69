<script lang="ts">
	import OutcomesView from '$views/recovery/OutcomesView.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Outcomes · Bruntle</title></svelte:head>
<OutcomesView
	cases={data.cases}
	said={data.said}
	losses={data.losses}
	values={data.values}
	today={data.today}
/>
