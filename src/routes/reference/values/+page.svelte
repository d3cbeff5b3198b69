<script lang="ts">
	import ValuesView from '$views/reference/ValuesView.svelte';

	let { data } = $props();
</script>

<ValuesView values={data.values} overridden={data.overridden} />
