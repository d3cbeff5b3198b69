<script lang="ts">
	import LiftView from '$views/replant/LiftView.svelte';

	let { data, form } = $props();
</script>

{#if data.place}
	<LiftView
		of={{
			tree: data.records.tree,
			kind: data.kind,
			place: data.place,
			values: data.values,
			today: data.today,
			thickestMm: Math.max(0, ...(data.records.rootMap?.segments ?? []).map((root) => root.diameterStartMm)),
			mapBefore: data.records.rootMap?.frame === 'ground' ? data.records.rootMap : null,
			lifts: data.records.lifts,
			tasks: data.records.tasks,
			known: data.stands,
			helpers: data.records.triages.findLast(({ purpose }) => purpose === 'lift')?.helpers ?? 0,
			stopped: data.workStops.length > 0
		}}
		refused={form?.refusal}
	/>
{/if}
