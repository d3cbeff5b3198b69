<script lang="ts">
	import { isLarge } from '$core/roots/map/large';
	import WhenShown from '$ui/WhenShown.svelte';
	import RootsView from '$views/roots/RootsView.svelte';

	let { data } = $props();
</script>

{#if data.of}
	{@const of = data.of}
	<WhenShown heavy={isLarge(of.rootMap)}>
		<RootsView {of} />
	</WhenShown>
{/if}
