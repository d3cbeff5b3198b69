<script lang="ts">
	import ExamineView from '$views/examine/ExamineView.svelte';

	let { data, form } = $props();
</script>

<ExamineView {...data} refused={form?.refusal} />
