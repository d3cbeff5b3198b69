<script lang="ts">
	import ChangesView from '$views/examine/ChangesView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<ChangesView
		records={data.records}
		others={data.others}
		values={data.values}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
