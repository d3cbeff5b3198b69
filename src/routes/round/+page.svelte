<script lang="ts">
	import RoundView from '$views/today/RoundView.svelte';

	let { data } = $props();
</script>

<RoundView items={data.items} potted={data.potted} today={data.today} />
