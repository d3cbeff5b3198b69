<script lang="ts">
	import ChartTable from '$ui/ChartTable.svelte';
	import type { WaterAndAir } from '$core/replant/mixes/retention';
	import { useFormat } from '$ui/format';
	import { area } from 'd3';

	/** What fills the pot at each height once it has drained: grains, water, air; the coarse layer under it. */
	interface Props {
		name: string;
		result: WaterAndAir;
		fillMm: number;
		coarseLayerMm: number;
	}
	let { name, result, fillMm, coarseLayerMm }: Props = $props();
	const format = useFormat();
	const uid = $props.id();
	const W = 320;
	const H = 230;
	const LEFT = 46;
	const x = (share: number): number => LEFT + share * (W - LEFT - 8);
	const y = (heightMm: number): number => 12 + (1 - heightMm / fillMm) * (H - 44);
	const grains = $derived(1 - result.porosity);
	const band = (from: (i: number) => number, to: (i: number) => number): string =>
		area<number>()
			.y((i) => y(result.byDepth[i]?.heightMm ?? 0))
			.x0((i) => x(from(i)))
			.x1((i) => x(to(i)))(result.byDepth.map((_, i) => i)) ?? '';
	const water = (i: number): number => result.byDepth[i]?.water ?? 0;
	const ticks = $derived([0, 0.25, 0.5, 0.75, 1].map((share) => share * fillMm));
</script>

<svg
	viewBox="0 0 {W} {H}"
	class="block w-full max-w-md"
	role="img"
	aria-label="{name}: {format().percent(result.airSpace)} air and {format().percent(
		result.containerCapacity
	)} water over the whole, by height above the floor"
>
	<defs>
		<pattern id="{uid}-water" width="6" height="6" patternUnits="userSpaceOnUse">
			<rect width="6" height="6" class="fill-paper" /><path
				d="M0 3h6"
				class="stroke-rain"
				stroke-width="2.4"
			/>
		</pattern>
		<pattern id="{uid}-grain" width="7" height="7" patternUnits="userSpaceOnUse">
			<rect width="7" height="7" class="fill-duff" /><circle cx="2" cy="2" r="1.2" class="fill-bark" /><circle
				cx="5.5"
				cy="5"
				r="1"
				class="fill-bark"
			/>
		</pattern>
		<pattern id="{uid}-coarse" width="14" height="12" patternUnits="userSpaceOnUse">
			<circle cx="4" cy="4" r="3.4" class="fill-slate" /><circle cx="11" cy="9" r="3" class="fill-slate" />
		</pattern>
	</defs>
	<path
		d={band(
			() => 0,
			() => grains
		)}
		fill="url(#{uid}-grain)"
	/>
	<path
		d={band(
			() => grains,
			(i) => grains + water(i)
		)}
		fill="url(#{uid}-water)"
		class="stroke-rain"
		stroke-width="1.5"
	/>
	<path
		d={band(
			(i) => grains + water(i),
			() => 1
		)}
		class="fill-leaf stroke-line"
	/>
	{#if coarseLayerMm > 0}
		<rect
			x={LEFT}
			y={y(coarseLayerMm)}
			width={W - LEFT - 8}
			height={y(0) - y(coarseLayerMm)}
			fill="url(#{uid}-coarse)"
			class="stroke-slate"
		/>
	{/if}
	<g font-size="12.5" class="fill-slate">
		{#each ticks as tick (tick)}
			<path d="M{LEFT - 4} {y(tick)}h4" class="stroke-slate" />
			<text x={LEFT - 6} y={y(tick) + 4} text-anchor="end"
				>{format().number(format().unitOf('mm').toShown(tick))}</text
			>
		{/each}
		<text x={x(grains / 2)} y={H - 16} text-anchor="middle">grains</text>
		<text x={x(grains + water(20) / 2)} y={H - 16} text-anchor="middle">water</text>
		<text x={W - 8} y={H - 16} text-anchor="end">air</text>
		<text x={LEFT} y={H - 2}>height above the floor, {format().unitOf('mm').unit}</text>
	</g>
</svg>
<ChartTable
	caption="{name}: water and air by height above the floor"
	columns={['height', 'water', 'air']}
	rows={result.byDepth.map((point) => [
		format().measure(point.heightMm, 'mm'),
		format().percent(point.water),
		format().percent(point.air)
	])}
	most={12}
/>
