<script lang="ts">
	import ComponentsView from '$views/reference/ComponentsView.svelte';

	let { data } = $props();
</script>

<ComponentsView values={data.values} />
