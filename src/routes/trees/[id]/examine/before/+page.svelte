<script lang="ts">
	import BeforeWorkView from '$views/examine/BeforeWorkView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<BeforeWorkView
		records={data.records}
		kind={data.kind}
		place={data.place}
		others={data.others}
		values={data.values}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
