<script lang="ts">
	import { counted } from '$core/text/plural';
	import type { StoredUnit } from '$core/text/format';
	import ChartTable from '$ui/ChartTable.svelte';
	import type { FunctionPoint } from '$core/recovery/expected';
	import ChartAxes from '$ui/ChartAxes.svelte';
	import { roundMarks } from '$ui/axis';
	import { useFormat } from '$ui/format';
	import { area, curveMonotoneX, extent, line, scaleLinear, scaleUtc, utcMonth, utcYear } from 'd3';

	/** What was really measured over time, dots joined, beside a reference and with the days of work marked. */
	interface Reading {
		on: string;
		value: number;
	}
	interface Props {
		readings: Reading[];
		reference?: { name: string; readings: Reading[] } | null;
		/** Expected root function, drawn as a band where the measure is a share. */
		expected?: FunctionPoint[];
		/** Curves that were fitted to the readings, each with one standard error to its sides. */
		fits?: readonly (readonly { on: string; mm: number; low: number; high: number }[])[];
		works: { on: string; label: string }[];
		from: string;
		to: string;
		/** Turns a stored number into the shown one, with its unit. */
		show: (value: number) => string;
		share?: boolean;
		/** The unit that its marks are round in, and how many of what is kept make one; none of a share or a count. */
		unit?: { name: StoredUnit; per: number } | null;
		label: string;
	}
	let {
		readings,
		reference = null,
		expected = [],
		fits = [],
		works,
		from,
		to,
		show,
		share = false,
		unit = null,
		label
	}: Props = $props();
	const format = useFormat();

	let width = $state(760);
	const HEIGHT = 270;
	const M = { left: 58, right: 16, top: 14, bottom: 30 };
	const at = (date: string): Date => new Date(`${date}T00:00:00Z`);
	const x = $derived(
		scaleUtc()
			.domain([at(from), at(to)])
			.range([M.left, width - M.right])
	);
	const y = $derived.by(() => {
		if (share)
			return scaleLinear()
				.domain([0, 1])
				.range([HEIGHT - M.bottom, M.top]);
		const all = [...readings, ...(reference?.readings ?? [])].map((reading) => reading.value);
		const [least = 0, most = 1] = extent(all);
		const pad = Math.max((most - least) * 0.12, most * 0.04, 0.5);
		return scaleLinear()
			.domain([Math.max(0, least - pad), most + pad])
			.nice(5)
			.range([HEIGHT - M.bottom, M.top]);
	});
	const marksY = $derived(unit ? roundMarks(y.domain(), unit.name, format(), 5, unit.per) : y.ticks(5));
	const ticksX = $derived.by(() => {
		const days = (+at(to) - +at(from)) / 86_400_000;
		const every = days > 900 ? utcYear.every(1) : days > 320 ? utcMonth.every(3) : utcMonth.every(1);
		return every ? x.ticks(every) : [];
	});
	const joined = (list: Reading[]): string =>
		line<Reading>()
			.x((reading) => x(at(reading.on)))
			.y((reading) => y(reading.value))
			// A new season or a long gap starts a new stretch: what was not measured is not drawn.
			.defined((reading, index) => {
				const before = list[index - 1];
				return !before || +at(reading.on) - +at(before.on) < 110 * 86_400_000;
			})(list) ?? '';
	const band = $derived(
		share
			? (area<FunctionPoint>()
					.x((point) => x(at(point.on)))
					.y0((point) => y(point.low))
					.y1((point) => y(point.high))
					.curve(curveMonotoneX)(expected.filter((point) => point.on >= from && point.on <= to)) ?? '')
			: ''
	);
	type Fitted = (typeof fits)[number][number];
	const within = (list: readonly Fitted[]): Fitted[] =>
		list.filter((point) => point.on >= from && point.on <= to);
	const most = $derived(y.domain()[1] ?? 0);
	const fitBand = (list: readonly Fitted[]): string =>
		area<Fitted>()
			.x((point) => x(at(point.on)))
			.y0((point) => y(point.low))
			.y1((point) => y(Math.min(most, point.high)))(within(list)) ?? '';
	const fitLine = (list: readonly Fitted[]): string =>
		line<Fitted>()
			.x((point) => x(at(point.on)))
			.y((point) => y(Math.min(most, point.mm)))(within(list)) ?? '';
</script>

<div bind:clientWidth={width}>
	<svg
		viewBox="0 0 {width} {HEIGHT}"
		{width}
		height={HEIGHT}
		class="block w-full"
		role="img"
		aria-label="{label}: {counted(readings.length, 'reading')}, last {readings.length > 0
			? show(readings.at(-1)?.value ?? 0)
			: 'none'}"
	>
		<ChartAxes
			left={M.left}
			right={width - M.right}
			foot={HEIGHT - 9}
			marksAt={HEIGHT - M.bottom}
			rows={marksY.map((tick) => ({ at: y(tick), label: show(tick) }))}
			columns={ticksX.map((tick) => ({
				at: x(tick),
				label: format().monthYear(tick.toISOString().slice(0, 10))
			}))}
		/>
		{#if band}<path d={band} class="fill-lichen" opacity="0.2" />{/if}
		{#each fits as fit (fit[0]?.on)}
			<path d={fitBand(fit)} class="fill-lichen" fill-opacity="0.18" />
			<path d={fitLine(fit)} fill="none" class="stroke-lichen" stroke-dasharray="2 4" stroke-width="1.6" />
		{/each}
		{#each works as work (work.on + work.label)}
			{#if work.on >= from && work.on <= to}
				<path
					d="M{x(at(work.on)) - 5} {HEIGHT - M.bottom}L{x(at(work.on)) + 5} {M.top}"
					class="stroke-oxide"
					stroke-width="3"
					stroke-linecap="round"
				/>
				<text
					x={Math.min(width - 70, x(at(work.on)) + 9)}
					y={M.top + 10}
					font-size="12.5"
					class="fill-oxide stroke-paper"
					stroke-width="3"
					paint-order="stroke">{work.label}</text
				>
			{/if}
		{/each}
		{#if reference}
			<path
				d={joined(reference.readings)}
				fill="none"
				class="stroke-rain"
				stroke-width="1.8"
				stroke-dasharray="6 4"
			/>
			{#each reference.readings as reading, index (reading.on + index)}
				<path
					d="M{x(at(reading.on)) - 3.5} {y(reading.value)}l3.5-3.5l3.5 3.5l-3.5 3.5z"
					class="fill-paper stroke-rain"
					stroke-width="1.5"
				/>
			{/each}
		{/if}
		<path d={joined(readings)} fill="none" class="stroke-lichen" stroke-width="2.4" />
		{#each readings as reading, index (reading.on + index)}
			<circle
				cx={x(at(reading.on))}
				cy={y(reading.value)}
				r="4"
				class="fill-lichen stroke-paper"
				stroke-width="1.5"
			>
				<title>{format().day(reading.on)}: {show(reading.value)}</title>
			</circle>
		{/each}
	</svg>
	<ChartTable
		caption={label}
		columns={['day', 'read', ...(reference ? [reference.name] : [])]}
		rows={[
			...readings.map((reading) => [
				format().day(reading.on),
				show(reading.value),
				...(reference ? [''] : [])
			]),
			...(reference?.readings ?? []).map((reading) => [format().day(reading.on), '', show(reading.value)])
		]}
		most={60}
	/>
</div>
