<script lang="ts">
	import ChartTable from '$ui/ChartTable.svelte';
	import { infiltrationData, infiltrationRate } from '$core/examine/soil/infiltration';
	import Button from '$ui/Button.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { roundMarks } from '$ui/axis';
	import { useFormat } from '$ui/format';
	import { line, max, scaleLinear } from 'd3';
	import { untrack } from 'svelte';
	import { partLeft } from './left';
	import { before, type ToolProps } from './tool';

	let { values, previous, left, onread }: ToolProps = $props();
	const format = useFormat();
	let ringDiameterMm = $state<number | null>(
		untrack(
			() =>
				partLeft(left, 'ringDiameterMm', infiltrationData.shape.ringDiameterMm) ??
				before(previous, 'infiltration')?.ringDiameterMm ??
				300
		)
	);
	let readings = $state<{ minutes: number; sunkMm: number }[]>(
		untrack(() => partLeft(left, 'readings', infiltrationData.shape.readings)) ?? [{ minutes: 0, sunkMm: 0 }]
	);
	let minutes = $state<number | null>(5);
	let sunkMm = $state<number | null>(null);
	const data = $derived({ ringDiameterMm, readings });
	const parsed = $derived(infiltrationData.safeParse(data));
	const result = $derived(parsed.success ? infiltrationRate(parsed.data, values) : null);
	$effect(() => onread(readings.length > 1 ? { tool: 'infiltration', ...data } : null));
	const last = $derived(readings.at(-1) ?? { minutes: 0, sunkMm: 0 });
	const fits = $derived(
		minutes !== null && sunkMm !== null && minutes > last.minutes && sunkMm >= last.sunkMm && sunkMm <= 5000
	);
	function add(): void {
		if (!fits || minutes === null || sunkMm === null) return;
		const step = minutes - last.minutes;
		readings.push({ minutes, sunkMm });
		minutes += step;
		sunkMm = null;
	}
	const W = 420;
	const H = 180;
	const x = $derived(
		scaleLinear()
			.domain([0, max(readings, (r) => r.minutes) ?? 1])
			.range([46, W - 12])
	);
	const y = $derived(
		scaleLinear()
			.domain([0, max(readings, (r) => r.sunkMm) || 1])
			.nice(4)
			.range([H - 26, 10])
	);
	const fitted = $derived.by(() => {
		const fit = result;
		if (!fit) return '';
		const path = line<number>()
			.x((t) => x(t))
			.y((t) => y(fit.sorptivityMmPerRootH * Math.sqrt(t / 60) + fit.philipSteadyMmPerH * (t / 60)));
		return path(Array.from({ length: 40 }, (_, i) => (i / 39) * last.minutes)) ?? '';
	});
</script>

<p class="mb-3">
	Push a ring a hand’s width in, wet the soil inside once, fill, and note how far the water has sunk in all,
	refills added up.
</p>
<MeasureField
	name="raw.ringDiameterMm"
	label="Ring across"
	unit="mm"
	value={ringDiameterMm}
	oninput={(mm) => (ringDiameterMm = mm)}
	fieldClass="max-w-44"
/>
<form
	class="mt-3 flex flex-wrap items-end gap-2"
	onsubmit={(event) => {
		event.preventDefault();
		add();
	}}
>
	<MeasureField
		name="m"
		label="After, minutes"
		unit=""
		value={minutes}
		oninput={(v) => (minutes = v)}
		fieldClass="w-36"
	/>
	<MeasureField
		name="s"
		label="Sunk in all"
		unit="mm"
		value={sunkMm}
		oninput={(v) => (sunkMm = v)}
		fieldClass="w-36"
	/>
	<Button type="submit" disabled={!fits}>Add</Button>
	<Button tone="quiet" disabled={readings.length < 2} onclick={() => readings.pop()}>Last one back</Button>
</form>
{#if minutes !== null && sunkMm !== null && !fits}
	<p class="mt-1 text-sm text-oxide" role="alert">
		Each reading is later than the one before ({format().number(last.minutes, 1)} min) and no water comes back ({format().measure(
			last.sunkMm,
			'mm'
		)}).
	</p>
{/if}
{#if result}
	<svg viewBox="0 0 {W} {H}" class="mt-4 w-full max-w-md" role="img" aria-label="Water sunk over time">
		{#each roundMarks(y.domain(), 'mm', format(), 4) as tick (tick)}
			<path d="M46 {y(tick)}H{W - 12}" class="stroke-line" />
			<text x="40" y={y(tick) + 4} text-anchor="end" font-size="12.5" class="fill-slate"
				>{format().measure(tick, 'mm')}</text
			>
		{/each}
		{#each x.ticks(5) as tick (tick)}
			<text x={x(tick)} y={H - 8} text-anchor="middle" font-size="12.5" class="fill-slate">{tick} min</text>
		{/each}
		<path d={fitted} fill="none" class="stroke-rain" stroke-width="2" />
		{#each readings as reading (reading.minutes)}
			<circle
				cx={x(reading.minutes)}
				cy={y(reading.sunkMm)}
				r="4.5"
				class="fill-ink stroke-paper"
				stroke-width="1.5"
			/>
		{/each}
	</svg>
	<ChartTable
		caption="Water sunk over time"
		columns={['minutes', 'sunk']}
		rows={readings.map((reading) => [
			format().number(reading.minutes, 1),
			format().measure(reading.sunkMm, 'mm')
		])}
	/>
	<p class="mt-2 text-lg" role="status">
		<Workings
			label="Infiltration"
			formula="slope of the readings in the last half of the time"
			lines={[
				{ label: 'At first', value: `${format().number(result.firstMmPerH)} mm/h` },
				{ label: 'Philip’s steady term', value: `${format().number(result.philipSteadyMmPerH, 1)} mm/h` },
				{ label: 'Philip’s sorptivity', value: `${format().number(result.sorptivityMmPerRootH, 1)} mm/√h` },
				{ label: 'Classes', value: 'USDA NRCS', mark: 'published, from memory' }
			]}
			changes="Under a single ring water also spreads sideways: the true rate is lower, the more the smaller the ring."
			><strong>{format().number(result.steadyMmPerH)} mm/h</strong></Workings
		>, {result.class}.
		{#if !result.steady}<span class="block text-base text-ochre"
				>The rate still falls; go on for a while.</span
			>{/if}
	</p>
{/if}
