<script lang="ts">
	import FormatsView from '$views/reference/FormatsView.svelte';

	let { data } = $props();
</script>

<FormatsView calculations={data.calculations} />
