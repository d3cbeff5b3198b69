<script lang="ts">
	import KitView from '$views/replant/KitView.svelte';

	let { data } = $props();
</script>

<KitView records={data.records} values={data.values} stock={data.stock} goneRoots={data.goneRoots} />
