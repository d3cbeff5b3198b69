<script lang="ts">
	import MixView from '$views/replant/MixView.svelte';
	import { replantOf } from '$views/replant/drafts';

	let { data, form } = $props();
	const of = $derived(replantOf(data));
</script>

<MixView {of} refused={form?.refusal} />
