<script lang="ts">
	import RecoveryView from '$views/recovery/RecoveryView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<RecoveryView
		records={data.records}
		place={data.place}
		of={data.of}
		questions={data.questions}
		works={data.works}
		expected={data.care.expected}
		twin={data.twin}
		values={data.values}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
