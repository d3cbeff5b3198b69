<script lang="ts">
	import HowItStands from '$views/tree/HowItStands.svelte';

	let { data } = $props();
</script>

<HowItStands treeId={data.records.tree.id} groups={data.sheet} today={data.today} />
