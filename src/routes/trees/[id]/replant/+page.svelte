<script lang="ts">
	import ReplantView from '$views/replant/ReplantView.svelte';

	let { data, form } = $props();
	const of = $derived({
		records: data.records,
		kind: data.kind,
		places: data.yardPlaces,
		values: data.values,
		today: data.today,
		lastWork: data.lastWork,
		goneRoots: data.goneRoots,
		stock: data.stock,
		near: data.near,
		weighedFunction: data.weighedFunction
	});
</script>

{#key data.records.tree.id}
	<ReplantView {of} refused={form?.refusal} />
{/key}
