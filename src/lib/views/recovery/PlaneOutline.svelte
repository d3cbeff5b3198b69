<script lang="ts">
	import type { PictureMeasure } from './picture-measure.svelte';

	/** The outline of what lies beside for its size, over a picture; in pixels of the picture. */
	interface Props {
		measuring: PictureMeasure;
		/** Pixels of the picture to one of the screen. */
		scale: number;
	}
	let { measuring, scale }: Props = $props();
	const corners = $derived(measuring.plane?.corners ?? measuring.corners);
</script>

{#if measuring.rim}
	{@const { middle, halfLong, halfShort, turnDeg } = measuring.rim}
	<ellipse
		rx={halfLong}
		ry={halfShort}
		transform="translate({middle.x} {middle.y}) rotate({turnDeg})"
		class="fill-none stroke-rain"
		stroke-width={2 * scale}
		stroke-dasharray="{6 * scale} {4 * scale}"
	/>
{:else if measuring.rectangle !== 'rim' && corners.length > 1}
	<polygon
		points={corners.map(({ x, y }) => `${x},${y}`).join(' ')}
		class="fill-none stroke-rain"
		stroke-width={2 * scale}
		stroke-dasharray="{6 * scale} {4 * scale}"
	/>
{/if}
