<script lang="ts">
	import type { DrawnRoot, MapScale } from './draw-root';

	/** A root by what is known of it: living, doubtful, dead, assumed. */
	interface Props {
		root: DrawnRoot;
		scale: MapScale;
		zoom: number;
		chosen: boolean;
		/** Id of the hatching for doubtful wood. */
		doubt: string;
	}
	let { root, scale, zoom, chosen, doubt }: Props = $props();
</script>

{#if chosen}
	<path
		d={root.centre}
		fill="none"
		class="stroke-duff"
		stroke-width={root.segment.diameterStartMm * scale.px + 18 / zoom}
		stroke-linecap="round"
	/>
{/if}
{#if root.assumed}
	<path
		d={root.assumed}
		class="fill-paper stroke-bark"
		fill-opacity="0.5"
		stroke-opacity="0.5"
		stroke-width={1.2 / zoom}
		stroke-dasharray="{7 / zoom} {4 / zoom}"
	/>
{/if}
{#each [root.sound, root.doubtful] as body, part (part)}
	{#if body}<path
			d={body}
			class="fill-paper stroke-paper"
			stroke-width={6 / zoom}
			stroke-linejoin="round"
		/>{/if}
{/each}
{#each root.tips as tip (tip)}
	<path d={tip} fill="none" class="stroke-bark" stroke-width={1.1 / zoom} stroke-linecap="round" />
{/each}
{#if root.sound}
	<path
		d={root.sound}
		class="fill-sapwood stroke-bark"
		stroke-width={(chosen ? 2.8 : 1.6) / zoom}
		stroke-linejoin="round"
	/>
{/if}
{#if root.doubtful}
	<path
		d={root.doubtful}
		fill="url(#{doubt})"
		class="stroke-bark"
		stroke-width={(chosen ? 2.8 : 1.6) / zoom}
		stroke-linejoin="round"
	/>
{/if}
{#if root.dead}
	<path
		d={root.dead}
		class="fill-paper stroke-slate"
		fill-opacity="0.4"
		stroke-width={1.7 / zoom}
		stroke-dasharray="{2 / zoom} {4 / zoom}"
		stroke-linecap="round"
	/>
{/if}
