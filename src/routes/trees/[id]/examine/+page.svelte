<script lang="ts">
	import ExamineView from '$views/examine/ExamineView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<ExamineView
		tree={data.records.tree}
		examinations={data.records.examinations}
		values={data.values}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
