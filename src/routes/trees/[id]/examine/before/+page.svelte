<script lang="ts">
	import BeforeWorkView from '$views/examine/BeforeWorkView.svelte';

	let { data, form } = $props();
</script>

<BeforeWorkView {...data} refused={form?.refusal} />
