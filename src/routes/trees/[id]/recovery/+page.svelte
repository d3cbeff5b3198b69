<script lang="ts">
	import RecoveryView from '$views/recovery/RecoveryView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<RecoveryView
		tree={data.records.tree}
		observations={data.records.observations}
		verdict={data.verdict}
		sinceOn={data.sinceOn}
		since={data.since}
		works={data.works}
		expected={data.care.expected}
		reference={data.reference}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
