<script lang="ts">
	import ChartTable from '$ui/ChartTable.svelte';
	import type { NightTemperature } from '$core/climate/normals';
	import { roundMarks } from '$ui/axis';
	import { useFormat } from '$ui/format';
	import { scaleLinear } from 'd3';

	/** Tonight by place: from a cold to a usual night of the season, with the limits of the trees that stand there. */
	interface Row {
		placeName: string;
		night: NightTemperature;
		/** Low that is forecast or was read; null where only the climate is known. */
		forecastC: number | null;
		limits: { tag: string; limitC: number }[];
	}
	interface Props {
		rows: Row[];
	}
	let { rows }: Props = $props();
	const format = useFormat();

	const WIDTH = 330;
	const ROW = 54;
	const nearest = $derived(
		rows.map((row) => ({
			...row,
			limits: row.limits.filter((limit) => limit.limitC > row.night.coldC - 8).slice(0, 4)
		}))
	);
	const x = $derived.by(() => {
		const all = nearest.flatMap((row) => [
			row.night.coldC,
			row.night.usualC,
			...(row.forecastC === null ? [] : [row.forecastC]),
			...row.limits.map((l) => l.limitC)
		]);
		return scaleLinear()
			.domain([Math.min(-2, ...all) - 1, Math.max(8, ...all) + 1])
			.range([8, WIDTH - 8]);
	});
	const height = $derived(nearest.length * ROW + 22);
</script>

<svg
	viewBox="0 0 {WIDTH} {height}"
	class="w-full max-w-md"
	role="img"
	aria-label="Tonight’s temperatures by place, with the limits of the trees there"
>
	{#each roundMarks(x.domain(), '°C', format(), 6) as tick (tick)}
		<line
			x1={x(tick)}
			x2={x(tick)}
			y1="0"
			y2={height - 20}
			class="stroke-line"
			stroke-dasharray={Math.abs(tick) < 1e-9 ? undefined : '2 3'}
		/>
		<text x={x(tick)} y={height - 6} text-anchor="middle" class="fill-slate" font-size="12.5"
			>{format().measure(tick, '°C')}</text
		>
	{/each}
	{#each nearest as row, index (row.placeName)}
		{@const y = index * ROW + 31}
		<text x="2" y={y - 16} class="fill-ink" font-size="13" font-weight="600">{row.placeName}</text>
		<line
			x1={x(row.night.coldC)}
			x2={x(row.night.usualC)}
			y1={y}
			y2={y}
			class="stroke-rain"
			stroke-width="5"
			stroke-linecap="round"
		/>
		<circle cx={x(row.night.usualC)} cy={y} r="4.5" class="fill-paper stroke-rain" stroke-width="2" />
		{#if row.forecastC !== null}
			<circle cx={x(row.forecastC)} cy={y} r="5" class="fill-ink" />
			<text
				x={x(row.forecastC) + (x(row.forecastC) > WIDTH - 60 ? -10 : 10)}
				y={y - 6}
				text-anchor={x(row.forecastC) > WIDTH - 60 ? 'end' : 'start'}
				class="fill-ink"
				font-size="12.5">{format().measure(row.forecastC, '°C')}</text
			>
		{/if}
		{#each row.limits as limit (limit.tag)}
			{@const near = limit.limitC >= row.night.coldC}
			<path
				d="M{x(limit.limitC)} {y - 8}v16"
				class={near ? 'stroke-oxide' : 'stroke-slate'}
				stroke-width={near ? 3 : 1.5}
			/>
		{/each}
		{#if row.limits[0]}
			<text
				x={Math.min(WIDTH - 24, Math.max(24, x(row.limits[0].limitC)))}
				y={y + 20}
				font-size="12.5"
				text-anchor="middle"
				class={row.limits[0].limitC >= row.night.coldC ? 'fill-oxide' : 'fill-slate'}
				>{row.limits[0].tag}</text
			>
		{/if}
	{/each}
</svg>
<ChartTable
	caption="Tonight by place"
	columns={['place', 'cold night', 'usual night', 'forecast', 'limits of trees there']}
	rows={nearest.map((row) => [
		row.placeName,
		format().measure(row.night.coldC, '°C'),
		format().measure(row.night.usualC, '°C'),
		row.forecastC === null ? 'not known' : format().measure(row.forecastC, '°C'),
		row.limits.map((limit) => `${limit.tag} ${format().measure(limit.limitC, '°C')}`).join(', ') ||
			'none near'
	])}
/>
