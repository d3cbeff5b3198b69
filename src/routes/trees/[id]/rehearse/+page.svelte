<script lang="ts">
	import RehearseView from '$views/rehearse/RehearseView.svelte';

	let { data, form } = $props();
</script>

<RehearseView {...data} refused={form?.refusal} />
