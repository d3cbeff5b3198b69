<script lang="ts">
	import TreeFrame from '$views/tree/TreeFrame.svelte';

	let { data, children } = $props();
</script>

<TreeFrame
	tree={data.records.tree}
	kindName={data.kind.commonName}
	placeName={data.place?.name ?? ''}
	care={data.care}
	standing={data.standing}
	empty={data.empty}
	kindBefore={data.kindBefore}
	flags={data.flags}
	workStops={data.workStops}
	pressing={data.urgent?.atRoots === true}
	today={data.today}
>
	{@render children()}
</TreeFrame>
