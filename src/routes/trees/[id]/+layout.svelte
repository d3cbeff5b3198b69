<script lang="ts">
	import { aliveOf } from '$core/tree/lot';
	import TreeFrame from '$views/tree/TreeFrame.svelte';

	let { data, children } = $props();
</script>

<TreeFrame
	tree={data.records.tree}
	alive={aliveOf(data.records)}
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
	<!-- Another tree is another page: nothing typed of one is carried to the other. -->
	{#key data.records.tree.id}{@render children()}{/key}
</TreeFrame>
