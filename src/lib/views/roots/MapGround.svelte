<script lang="ts">
	import { rootProtectionArea, structuralRootZoneRadiusM } from '$core/roots/plan/zones';
	import { planPoint, type PlanPoint } from '$core/roots/map/geometry';
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
		/** A direction with room for labels, degrees. */
		labelDeg: number;
		/** Ends that a lift left. */
		ends?: readonly LiftEnd[];
	}
	let { map, scale, values, zoom, labelDeg, ends = [] }: Props = $props();
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
	const zones = $derived.by(() => {
		if (map.frame !== 'ground') return [];
		const trunkM = map.trunkDiameterMm / 1000;
		return [
			{
				name: `${values['ground.noCutTrunkDiameters']} trunk diameters`,
				radiusMm: values['ground.noCutTrunkDiameters'] * map.trunkDiameterMm
			},
			{ name: 'structural root zone', radiusMm: structuralRootZoneRadiusM(trunkM, values) * 1000 },
			{ name: 'root protection area', radiusMm: rootProtectionArea(trunkM, values).radiusM * 1000 }
		];
	});
	const label = (radiusMm: number): PlanPoint =>
		onPage(planPoint({ azimuthDeg: labelDeg, radiusMm: radiusMm - 10 / scale.px / zoom }), scale);
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
	{@const at = label(zone.radiusMm)}
	<circle
		r={zone.radiusMm * scale.px}
		fill="none"
		class="stroke-ochre"
		stroke-width={1.5 / zoom}
		stroke-dasharray="{2 / zoom} {5 / zoom}"
	/>
	<text
		transform="translate({at.x} {at.y}) scale({1 / zoom})"
		text-anchor={Math.abs(at.x) * zoom < 40 ? 'middle' : at.x > 0 ? 'end' : 'start'}
		font-size="12.5"
		class="fill-ochre stroke-paper"
		stroke-width="3"
		paint-order="stroke">{zone.name}</text
	>
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
