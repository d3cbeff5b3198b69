<script lang="ts">
	import { replantOf } from '$views/replant/drafts';
	import ReplantView from '$views/replant/ReplantView.svelte';

	let { data, form } = $props();
	const of = $derived(replantOf(data));
</script>

<ReplantView {of} refused={form?.refusal} />
