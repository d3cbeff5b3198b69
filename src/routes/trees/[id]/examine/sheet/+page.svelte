<script lang="ts">
	import FindingSheet from '$views/examine/FindingSheet.svelte';

	let { data } = $props();
</script>

<FindingSheet {...data} />
