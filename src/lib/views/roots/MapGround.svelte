<script lang="ts">
	import { zonesOf } from './zones-of';
	import { planPoint } from '$core/roots/map/geometry';
	import { cutWayNames } from '$core/replant/lifting/lift';
	import type { LiftEnd } from '$core/replant/lifting/ends';
	import { useFormat } from '$ui/format';
	import type { RootMapInput } from '$core/roots/map/root-map';
	import type { Values } from '$core/values/values';
	import { onPage, pathOf, type MapScale } from './draw-root';

	/** What the roots lie in: the ball, or in the ground the zones to scale; and what stands in their way. */
	interface Props {
		map: RootMapInput;
		scale: MapScale;
		values: Values;
		zoom: number;
		/** Ends that a lift left. */
		ends?: readonly LiftEnd[];
	}
	let { map, scale, values, zoom, ends = [] }: Props = $props();
	const uid = $props.id();
	const format = useFormat();
	/** A bar across the end; a torn one is frayed. */
	function endPath({ azimuthDeg, radiusMm: lifted, diameterMm, how }: LiftEnd): string {
		// Shaved since, the ball is smaller than it was lifted: its ends lie on its edge now.
		const radiusMm = Math.min(lifted, map.ballRadiusMm);
		const half = Math.max(diameterMm / 2, 5 / scale.px);
		const turn = (half / Math.max(1, radiusMm)) * (180 / Math.PI);
		const steps = how === 'torn' ? 6 : 1;
		return Array.from({ length: steps + 1 }, (_, i) => {
			const { x, y } = onPage(
				planPoint({
					azimuthDeg: azimuthDeg - turn + (2 * turn * i) / steps,
					radiusMm: radiusMm + (steps > 1 && i % 2 === 1 ? half * 0.6 : 0)
				}),
				scale
			);
			return `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`;
		}).join('');
	}
	const zones = $derived(zonesOf(map, values));
</script>

<defs>
	<pattern id="{uid}-stone" width="7" height="7" patternUnits="userSpaceOnUse">
		<rect width="7" height="7" class="fill-paper" />
		<circle cx="2" cy="2" r="1" class="fill-slate" /><circle cx="5.5" cy="5" r="1" class="fill-slate" />
	</pattern>
</defs>
{#if map.frame === 'container'}
	<circle r={map.ballRadiusMm * scale.px} class="stroke-line" fill="none" stroke-width={2 / zoom} />
{:else}
	<circle
		r={map.ballRadiusMm * scale.px}
		class="stroke-line"
		fill="none"
		stroke-width={1.5 / zoom}
		stroke-dasharray="{6 / zoom} {4 / zoom}"
	/>
{/if}
{#each zones as zone (zone.name)}
	<circle
		r={zone.radiusMm * scale.px}
		fill="none"
		class="stroke-ochre"
		stroke-width={1.5 / zoom}
		stroke-dasharray="{2 / zoom} {5 / zoom}"
	/>
{/each}
{#each map.obstacles as obstacle (obstacle.id)}
	{@const points = obstacle.points.map(planPoint)}
	<g>
		<title>{obstacle.kind}{obstacle.note ? `, ${obstacle.note}` : ''}</title>
		{#if obstacle.kind === 'stone'}
			<path
				d={pathOf(points, scale)}
				fill="url(#{uid}-stone)"
				class="stroke-slate"
				stroke-width={1.8 / zoom}
				stroke-linejoin="round"
			/>
		{:else}
			<path
				d={pathOf(points, scale, false)}
				fill="none"
				class="stroke-slate"
				stroke-width={(obstacle.kind === 'wall' ? 11 : 8) / zoom}
			/>
			<path
				d={pathOf(points, scale, false)}
				fill="none"
				class="stroke-paper"
				stroke-width={(obstacle.kind === 'wall' ? 7 : 4) / zoom}
				stroke-dasharray={obstacle.kind === 'wall' ? `${9 / zoom} ${2 / zoom}` : undefined}
			/>
		{/if}
	</g>
{/each}
{#each ends as end, i (i)}
	<path
		d={endPath(end)}
		fill="none"
		class={end.how === 'torn' ? 'stroke-oxide' : 'stroke-ink'}
		stroke-width={3 / zoom}
		stroke-linecap="round"
		stroke-linejoin="round"
	>
		<title>{format().measure(end.diameterMm, 'mm')}, {cutWayNames[end.how]}, at the lift</title>
	</path>
{/each}
