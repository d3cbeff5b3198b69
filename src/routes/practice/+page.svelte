<script lang="ts">
	import PracticeView from '$views/practice/PracticeView.svelte';

	let { data, form } = $props();
</script>

<PracticeView {...data} refused={form?.refusal} />
