<script lang="ts">
	import { isLarge } from '$core/roots/map/large';
	import WhenShown from '$ui/WhenShown.svelte';
	import CutCard from '$views/roots/CutCard.svelte';

	let { data } = $props();
</script>

{#if data.of}
	{@const of = data.of}
	<WhenShown heavy={isLarge(of.rootMap)}>
		<CutCard {of} />
	</WhenShown>
{/if}
