<script lang="ts">
	import ExamineView from '$views/examine/ExamineView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<ExamineView
		records={data.records}
		kind={data.kind}
		place={data.place}
		values={data.values}
		overridden={data.overridden}
		around={data.around}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
