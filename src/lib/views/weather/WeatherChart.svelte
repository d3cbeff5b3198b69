<script lang="ts">
	import ChartTable from '$ui/ChartTable.svelte';
	import type { SeriesDay } from '$core/climate/series';
	import ChartAxes from '$ui/ChartAxes.svelte';
	import { roundMarks } from '$ui/axis';
	import { useFormat } from '$ui/format';
	import { scaleLinear, scaleUtc } from 'd3';

	/** Low to high of each day, rain at the foot; measured days solid, forecast pale, filled ones hollow. */
	interface Props {
		series: readonly SeriesDay[];
		today: string;
	}
	let { series, today }: Props = $props();
	const format = useFormat();
	const [W, H, LEFT, FOOT] = [900, 210, 44, 22];
	const at = (on: string): Date => new Date(`${on}T12:00:00Z`);
	const x = $derived(
		scaleUtc()
			.domain([at(series[0]?.on ?? today), at(series.at(-1)?.on ?? today)])
			.range([LEFT + 6, W - 8])
	);
	const y = $derived(
		scaleLinear()
			.domain([
				Math.min(-2, ...series.map((day) => day.minC)) - 1,
				Math.max(15, ...series.map((day) => day.maxC)) + 1
			])
			.range([H - FOOT - 34, 8])
	);
	const rain = $derived(
		scaleLinear()
			.domain([0, Math.max(10, ...series.map((day) => day.rainMm))])
			.range([0, 30])
	);
	const wide = $derived(Math.max(2, Math.min(8, (W - LEFT) / Math.max(1, series.length) - 3)));
</script>

<div class="relative overflow-x-auto">
	<svg
		viewBox="0 0 {W} {H}"
		class="block w-full min-w-[54rem]"
		role="img"
		aria-label="Lows and highs of {series.length} days with rain; the lowest {format().measure(
			Math.min(...series.map((day) => day.minC)),
			'°C'
		)}"
	>
		<ChartAxes
			left={LEFT}
			right={W - 6}
			foot={H - 5}
			rows={roundMarks(y.domain(), '°C', format(), 5).map((tick) => ({
				at: y(tick),
				label: format().measure(tick, '°C'),
				dashed: Math.abs(tick) > 1e-9,
				tone: Math.abs(tick) < 1e-9 ? 'stroke-rain' : 'stroke-line'
			}))}
			columns={x.ticks(8).map((tick) => ({
				at: x(tick),
				label: format().day(tick.toISOString().slice(0, 10), today)
			}))}
		/>
		{#each series as day (day.on)}
			{@const plain = day.how === '' && day.source !== 'forecast'}
			<rect
				x={x(at(day.on)) - wide / 2}
				y={y(day.maxC)}
				width={wide}
				height={Math.max(1, y(day.minC) - y(day.maxC))}
				rx="1.5"
				class={plain
					? 'fill-ink'
					: day.source === 'forecast'
						? 'fill-slate stroke-slate'
						: 'fill-transparent stroke-slate'}
				fill-opacity={day.source === 'forecast' ? 0.45 : 1}
				stroke-width="1"
				stroke-dasharray={day.how !== '' ? '2 2' : undefined}
			/>
			{#if day.rainMm > 0.05}
				<rect
					x={x(at(day.on)) - wide / 2}
					y={H - FOOT - rain(day.rainMm)}
					width={wide}
					height={rain(day.rainMm)}
					class="fill-rain"
				/>
			{/if}
		{/each}
		<path d="M{x(at(today))} 4V{H - FOOT}" class="stroke-oxide" stroke-width="1.5" />
	</svg>
	<ChartTable
		caption="Weather by day"
		columns={['day', 'low', 'high', 'rain']}
		rows={series.map((day) => [
			format().day(day.on),
			format().measure(day.minC, '°C'),
			format().measure(day.maxC, '°C'),
			format().measure(day.rainMm, 'mm')
		])}
		most={60}
	/>
</div>
<p class="text-xs text-slate">
	Solid: measured. Pale: forecast. Hollow: nobody measured it. Bars at the foot: rain that reaches the pots.
</p>
