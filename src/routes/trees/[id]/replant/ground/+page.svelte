<script lang="ts">
	import GroundView from '$views/replant/GroundView.svelte';

	let { data, form } = $props();
	const of = $derived({
		records: data.records,
		kind: data.kind,
		places: data.yardPlaces,
		values: data.values,
		today: data.today
	});
	/** A plan that was finished makes room for the next one. */
	const planning = $derived(
		`${data.records.tree.id} ${data.records.groundPlans.filter((plan) => plan.doneOn !== null).length}`
	);
</script>

{#key planning}
	<GroundView {of} refused={form?.refusal} />
{/key}
