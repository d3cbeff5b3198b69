<script lang="ts">
	import ChartTable from '$ui/ChartTable.svelte';
	import type { CoursePoint } from '$core/recovery/forecast';
	import ChartAxes from '$ui/ChartAxes.svelte';
	import { useFormat } from '$ui/format';
	import { area, curveMonotoneX, line, scaleLinear, scaleUtc, utcMonth, utcYear } from 'd3';

	/** Root function over time: as expected at the work, as it is thought of now, and what was weighed. */
	interface Props {
		expected: readonly CoursePoint[];
		course: readonly CoursePoint[];
		weighed: readonly { on: string; phi: number }[];
		wanted: number;
		today: string;
		/** Today is the day on which the case was closed. */
		closed: boolean;
	}
	let { expected, course, weighed, wanted, today, closed }: Props = $props();
	const format = useFormat();
	let width = $state(760);
	const HEIGHT = 230;
	const M = { left: 46, right: 12, top: 10, bottom: 28 };
	const at = (date: string): Date => new Date(`${date}T00:00:00Z`);
	const x = $derived(
		scaleUtc()
			.domain([at(course[0]?.on ?? today), at(course.at(-1)?.on ?? today)])
			.range([M.left, width - M.right])
	);
	const y = scaleLinear()
		.domain([0, 1])
		.range([HEIGHT - M.bottom, M.top]);
	const band = (points: readonly CoursePoint[]): string =>
		area<CoursePoint>()
			.x((point) => x(at(point.on)))
			.y0((point) => y(point.low))
			.y1((point) => y(Math.min(1, point.high)))
			.curve(curveMonotoneX)(points) ?? '';
	const middle = (points: readonly CoursePoint[]): string =>
		line<CoursePoint>()
			.x((point) => x(at(point.on)))
			.y((point) => y(point.middle))
			.curve(curveMonotoneX)(points) ?? '';
	const ticks = $derived.by(() => {
		const days = (+at(course.at(-1)?.on ?? today) - +at(course[0]?.on ?? today)) / 86_400_000;
		const every = days > 1500 ? utcYear.every(1) : utcMonth.every(width < 520 ? 12 : days > 700 ? 6 : 3);
		return every ? x.ticks(every) : [];
	});
	/** At the right edge its word stands before the line. */
	const atEnd = $derived(x(at(today)) > (x.range()[1] ?? 0) - 50);
	const now = $derived(course.findLast((point) => point.on <= today) ?? course[0]);
</script>

<div bind:clientWidth={width}>
	<svg
		viewBox="0 0 {width} {HEIGHT}"
		{width}
		height={HEIGHT}
		class="block w-full"
		role="img"
		aria-label="Forecast of root function: now about {format().percent(
			now?.middle ?? 0
		)}, between {format().percent(now?.low ?? 0)} and {format().percent(now?.high ?? 0)}"
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
		<path d={band(expected)} fill="none" class="stroke-edge" stroke-dasharray="2 3" />
		<path d={band(course)} class="fill-lichen" fill-opacity="0.2" />
		<path
			d="M{M.left} {y(wanted)}H{width - M.right}"
			class="stroke-ink"
			stroke-dasharray="7 4"
			stroke-width="1.5"
		/>
		<text x={width - M.right} y={y(wanted) - 5} text-anchor="end" font-size="12.5" class="fill-ink"
			>enough</text
		>
		<path d={middle(course)} fill="none" class="stroke-lichen" stroke-width="2.5" />
		<path d="M{x(at(today))} {M.top}V{HEIGHT - M.bottom}" class="stroke-oxide" stroke-width="1.5" />
		<text
			x={x(at(today)) + (atEnd ? -5 : 5)}
			y={HEIGHT - M.bottom - 5}
			text-anchor={atEnd ? 'end' : 'start'}
			font-size="12.5"
			class="fill-oxide">{closed ? 'closed' : 'today'}</text
		>
		{#each weighed as point, i (i)}
			<circle
				cx={x(at(point.on))}
				cy={y(Math.min(1, point.phi))}
				r="4"
				class="fill-paper stroke-ink"
				stroke-width="1.5"
			/>
		{/each}
	</svg>
	<ChartTable
		caption="Forecast of root function"
		columns={['day', 'middle', 'low', 'high']}
		rows={course.map((point) => [
			format().day(point.on),
			format().percent(point.middle),
			format().percent(point.low),
			format().percent(Math.min(1, point.high))
		])}
	/>
</div>
<p class="text-xs text-slate">
	Forecast of root function, failing counted in. Band: 90 % of the courses that fit what was seen; dotted: as
	expected on the day of the work. Rings: by weighings. A tree that fails pulls the lower edge down; what it
	drinks now stands on Aftercare.
</p>
