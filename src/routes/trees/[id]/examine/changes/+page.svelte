<script lang="ts">
	import ChangesView from '$views/examine/ChangesView.svelte';

	let { data, form } = $props();
</script>

<ChangesView {...data} refused={form?.refusal} />
