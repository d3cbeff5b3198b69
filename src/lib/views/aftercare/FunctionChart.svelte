<script lang="ts">
	import { counted } from '$core/text/plural';
	import ChartTable from '$ui/ChartTable.svelte';
	import type { FunctionEstimate } from '$core/aftercare/water/root-function';
	import ChartAxes from '$ui/ChartAxes.svelte';
	import { useFormat } from '$ui/format';
	import { area, line, scaleLinear, scaleUtc } from 'd3';

	/** Root function by day with its band, what was expected, and what each pair of weighings said. */
	interface Props {
		course: readonly FunctionEstimate[];
		today: string;
	}
	let { course, today }: Props = $props();
	const format = useFormat();
	const [W, H, LEFT, FOOT] = [380, 150, 46, 20];
	const at = (on: string): Date => new Date(`${on}T00:00:00Z`);
	const shown = $derived(course.slice(-180));
	const x = $derived(
		scaleUtc()
			.domain([at(shown[0]?.on ?? today), at(shown.at(-1)?.on ?? today)])
			.range([LEFT, W - 6])
	);
	const y = scaleLinear()
		.domain([0, 1.2])
		.range([H - FOOT, 6]);
	const band = $derived(
		area<FunctionEstimate>()
			.x((point) => x(at(point.on)))
			.y0((point) => y(point.low))
			.y1((point) => y(point.high))(shown) ?? ''
	);
	const middle = $derived(
		line<FunctionEstimate>()
			.x((point) => x(at(point.on)))
			.y((point) => y(point.phi))(shown) ?? ''
	);
	const seen = $derived(shown.filter((point) => point.seen !== null));
	const last = $derived(shown.at(-1));
</script>

<svg
	viewBox="0 0 {W} {H}"
	class="block w-full"
	role="img"
	aria-label="Root function since {format().date(shown[0]?.on ?? today)}: now {format().percent(
		last?.phi ?? 1
	)}, between {format().percent(last?.low ?? 0)} and {format().percent(last?.high ?? 1)}; {counted(
		seen.length,
		'weighing'
	)}"
>
	<ChartAxes
		left={LEFT}
		right={W - 6}
		foot={H - 4}
		rows={[0, 0.5, 1].map((tick) => ({ at: y(tick), label: format().percent(tick), dashed: tick !== 1 }))}
		columns={x.ticks(4).map((tick) => ({
			at: x(tick),
			label: format().day(tick.toISOString().slice(0, 10), today)
		}))}
	/>
	<path d={band} class="fill-lichen" fill-opacity="0.18" />
	<path d={middle} fill="none" class="stroke-lichen" stroke-width="2.5" />
	{#each seen as point, i (i)}
		<path
			d="M{x(at(point.on))} {y(point.expected)}V{y(Math.min(1.2, point.seen ?? 0))}"
			class="stroke-slate"
			stroke-width="1"
		/>
		<circle
			cx={x(at(point.on))}
			cy={y(Math.min(1.2, point.seen ?? 0))}
			r="3.5"
			class="fill-paper stroke-ink"
			stroke-width="1.5"
		/>
	{/each}
</svg>
<ChartTable
	caption="Root function by day"
	columns={['day', 'middle', 'low', 'high', 'weighed']}
	rows={shown.map((point) => [
		format().day(point.on),
		format().percent(point.phi),
		format().percent(point.low),
		format().percent(point.high),
		point.seen === null ? '' : format().percent(point.seen)
	])}
/>
<p class="text-xs text-slate">
	Band: 90 %. Rings: what a pair of weighings said, with a stroke from what was expected.
</p>
