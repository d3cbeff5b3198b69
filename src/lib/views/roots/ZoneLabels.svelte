<script lang="ts">
	import { planPoint, type PlanPoint } from '$core/roots/map/geometry';
	import type { RootMapInput } from '$core/roots/map/root-map';
	import type { Values } from '$core/values/values';
	import { onPage, type MapScale } from './draw-root';
	import { zonesOf } from './zones-of';

	/** Names of the zones, over everything that is drawn. */
	interface Props {
		map: RootMapInput;
		scale: MapScale;
		values: Values;
		zoom: number;
		/** A direction with room for labels, degrees. */
		labelDeg: number;
		/** Whether a place on the drawing is in sight. */
		seen: (at: PlanPoint) => boolean;
	}
	let { map, scale, values, zoom, labelDeg, seen }: Props = $props();
	/** Where the name of a zone is whole in sight, near the direction with room for it; nowhere where its circle is out of sight. */
	const label = (radiusMm: number): PlanPoint | undefined =>
		[0, 30, -30, 60, -60, 90, -90, 120, -120, 150, -150, 180]
			.flatMap((turnDeg) =>
				// Inside its circle, or outside where there is no room.
				[-10, 16].map((px) =>
					onPage(
						planPoint({ azimuthDeg: labelDeg + turnDeg, radiusMm: radiusMm + px / scale.px / zoom }),
						scale
					)
				)
			)
			.find(seen);
</script>

{#each zonesOf(map, values) as zone (zone.name)}
	{@const at = label(zone.radiusMm)}
	{#if at}
		<text
			transform="translate({at.x} {at.y}) scale({1 / zoom})"
			text-anchor={Math.abs(at.x) * zoom < 40 ? 'middle' : at.x > 0 ? 'end' : 'start'}
			font-size="12.5"
			class="pointer-events-none fill-ochre stroke-paper"
			stroke-width="3"
			paint-order="stroke">{zone.name}</text
		>
	{/if}
{/each}
