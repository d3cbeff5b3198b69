<script lang="ts">
	import AftercareView from '$views/aftercare/AftercareView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<AftercareView
		tree={data.records.tree}
		kind={data.kind}
		tasks={data.records.tasks}
		lastWork={data.lastWork}
		lastPlantedOn={data.lastPlantedOn}
		proposals={data.proposals}
		workOn={data.workOn}
		water={data.water}
		dryDownDays={data.dryDownDays}
		usualSchool={data.usualSchool}
		urgent={data.urgent}
		waterings={data.records.waterings}
		mates={data.records.mates}
		values={data.values}
		facts={data.facts}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
