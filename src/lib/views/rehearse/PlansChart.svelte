<script lang="ts">
	import ChartAxes from '$ui/ChartAxes.svelte';
	import ChartTable from '$ui/ChartTable.svelte';
	import { useFormat } from '$ui/format';
	import type { ChancePoint } from '$core/rehearse/rehearse';
	import { area, line, scaleLinear, scaleUtc, utcMonth } from 'd3';
	import { letterOf, strokes } from './plan-marks';

	/** A chance by day under each plan; of the one that is looked at, the band that four of five futures lie in. */
	interface Props {
		/** What the chance is of, for who hears the page. */
		what: string;
		courses: readonly (readonly ChancePoint[])[];
		/** Index of the plan whose band is drawn. */
		looked: number;
	}
	let { what, courses, looked }: Props = $props();
	const format = useFormat();
	let width = $state(760);
	const HEIGHT = 250;
	const M = { left: 46, right: 30, top: 10, bottom: 28 };
	const at = (date: string): Date => new Date(`${date}T00:00:00Z`);
	const first = $derived(courses[0]?.[0]?.on ?? '');
	const last = $derived(courses[0]?.at(-1)?.on ?? '');
	const x = $derived(
		scaleUtc()
			.domain([at(first), at(last)])
			.range([M.left, width - M.right])
	);
	const y = scaleLinear()
		.domain([0, 1])
		.range([HEIGHT - M.bottom, M.top]);
	const band = (points: readonly ChancePoint[]): string =>
		area<ChancePoint>()
			.x((point) => x(at(point.on)))
			.y0((point) => y(point.low))
			.y1((point) => y(point.high))(points) ?? '';
	const mean = (points: readonly ChancePoint[]): string =>
		line<ChancePoint>()
			.x((point) => x(at(point.on)))
			.y((point) => y(point.mean))(points) ?? '';
	const ticks = $derived.by(() => {
		const every = utcMonth.every(width < 520 ? 6 : 3);
		return every ? x.ticks(every) : [];
	});
	/** Letters at the ends of the lines, apart from each other. */
	const ends = $derived.by(() => {
		const GAP = 15;
		const sorted = courses
			.map((points, index) => ({ index, at: y(points.at(-1)?.mean ?? 0) }))
			.sort((a, b) => a.at - b.at);
		let floor = M.top;
		for (const end of sorted) {
			end.at = Math.max(end.at, floor);
			floor = end.at + GAP;
		}
		let ceiling = HEIGHT - M.bottom + 4;
		for (const end of [...sorted].reverse()) {
			end.at = Math.min(end.at, ceiling);
			ceiling = end.at - GAP;
		}
		return sorted;
	});
</script>

<div bind:clientWidth={width}>
	<svg
		viewBox="0 0 {width} {HEIGHT}"
		{width}
		height={HEIGHT}
		class="block w-full"
		role="img"
		aria-label="{what}: {courses
			.map(
				(points, index) => `plan ${letterOf(index)} ${format().percent(points.at(-1)?.mean ?? 0)} at the end`
			)
			.join(', ')}"
	>
		<ChartAxes
			left={M.left}
			right={width - M.right}
			foot={HEIGHT - 8}
			marksAt={HEIGHT - M.bottom}
			rows={[0, 0.25, 0.5, 0.75, 1].map((tick) => ({ at: y(tick), label: format().percent(tick) }))}
			columns={ticks.map((tick) => ({
				at: x(tick),
				label: format().monthYear(tick.toISOString().slice(0, 10))
			}))}
		/>
		{#if courses[looked]}<path d={band(courses[looked])} class="fill-lichen" fill-opacity="0.2" />{/if}
		{#each courses as points, index (index)}
			<path
				d={mean(points)}
				fill="none"
				class={index === looked ? 'stroke-lichen' : 'stroke-ink'}
				stroke-width={index === looked ? 3 : 2}
				stroke-dasharray={strokes[index]}
			/>
		{/each}
		{#each ends as end (end.index)}
			<text
				x={width - M.right + 6}
				y={end.at + 4}
				font-size="14"
				font-weight="700"
				class={end.index === looked ? 'fill-lichen' : 'fill-ink'}>{letterOf(end.index)}</text
			>
		{/each}
	</svg>
	<ChartTable
		caption={what}
		columns={['day', ...courses.map((_, index) => `plan ${letterOf(index)}`)]}
		rows={(courses[0] ?? []).map((point, i) => [
			format().day(point.on),
			...courses.map(
				(points) =>
					`${format().percent(points[i]?.mean ?? 0)}, ${format().percent(points[i]?.low ?? 0)} to ${format().percent(points[i]?.high ?? 0)}`
			)
		])}
	/>
</div>
