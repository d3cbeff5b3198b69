<script lang="ts">
	import Button from '$ui/Button.svelte';
	import Maximize from '@lucide/svelte/icons/maximize';
	import ZoomIn from '@lucide/svelte/icons/zoom-in';
	import ZoomOut from '@lucide/svelte/icons/zoom-out';
	import type { MapZoom } from './map-zoom.svelte';

	/** Closer, further off, and the whole of a drawing again. */
	let { zoom, whole }: { zoom: MapZoom; whole: string } = $props();
</script>

<Button tone="quiet" size="small" aria-label="Closer" onclick={() => zoom.by(1.5)}
	><ZoomIn size={16} /></Button
>
<Button tone="quiet" size="small" aria-label="Further off" onclick={() => zoom.by(1 / 1.5)}
	><ZoomOut size={16} /></Button
>
{#if zoom.k !== 1 || zoom.x !== 0 || zoom.y !== 0}
	<Button tone="quiet" size="small" aria-label={whole} onclick={() => zoom.fit()}
		><Maximize size={16} /></Button
	>
{/if}
