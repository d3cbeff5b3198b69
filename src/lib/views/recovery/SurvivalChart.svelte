<script lang="ts">
	import ChartTable from '$ui/ChartTable.svelte';
	import type { Follow, SurvivalStep } from '$core/recovery/outcomes/kaplan-meier';
	import { useFormat } from '$ui/format';
	import { scaleLinear } from 'd3';

	/** Share re-established by time, with its interval and the numbers still watched. */
	interface Props {
		curve: readonly SurvivalStep[];
		follows: readonly Follow[];
		label: string;
	}
	let { curve, follows, label }: Props = $props();
	const format = useFormat();
	const [W, H, LEFT, FOOT] = [520, 210, 44, 44];
	const last = $derived(Math.max(365, ...curve.map((step) => step.days)));
	const x = $derived(
		scaleLinear()
			.domain([0, last * 1.05])
			.range([LEFT, W - 8])
	);
	const y = scaleLinear()
		.domain([0, 1])
		.range([H - FOOT, 8]);
	// Drawn as the share for which it has happened: that is what is hoped for.
	const stairs = (of: (step: SurvivalStep) => number): string => {
		let path = `M${x(0)} ${y(0)}`;
		for (const step of curve) path += `H${x(step.days)}V${y(1 - of(step))}`;
		return `${path}H${x(last * 1.05)}`;
	};
	const band = $derived.by(() => {
		const points = curve.map((step) => [step.days, 1 - step.high, 1 - step.low] as const);
		if (points.length === 0) return '';
		const upper = points.map(
			([d, , high], i) => `${i === 0 ? 'M' : 'L'}${x(d)} ${y(points[i - 1]?.[2] ?? 0)}L${x(d)} ${y(high)}`
		);
		const end = x(last * 1.05);
		const lower = [...points]
			.reverse()
			.map(([d, low], i, all) => `L${x(d)} ${y(low)}L${x(d)} ${y(all[i + 1]?.[1] ?? 0)}`);
		return `${upper.join('')}L${end} ${y(points.at(-1)?.[2] ?? 0)}L${end} ${y(points.at(-1)?.[1] ?? 0)}${lower.join('')}Z`;
	});
	const ticks = $derived(x.ticks(5));
	const atRisk = (day: number): number => follows.filter((one) => one.days >= day).length;
</script>

<svg viewBox="0 0 {W} {H}" class="block w-full" role="img" aria-label={label}>
	{#each [0, 0.5, 1] as tick (tick)}
		<path d="M{LEFT} {y(tick)}H{W - 8}" class="stroke-line" />
		<text x={LEFT - 6} y={y(tick) + 4} text-anchor="end" font-size="12.5" class="fill-slate"
			>{format().percent(tick)}</text
		>
	{/each}
	<path d={band} class="fill-lichen" fill-opacity="0.18" />
	<path d={stairs((step) => step.share)} fill="none" class="stroke-lichen" stroke-width="2.5" />
	{#each ticks as tick (tick)}
		{@const last = x(tick) > W - 22}
		{@const anchor = last ? 'end' : 'middle'}
		{@const at = last ? W - 2 : x(tick)}
		<text x={at} y={H - 26} text-anchor={anchor} font-size="12.5" class="fill-slate">{tick} d</text>
		<text x={at} y={H - 8} text-anchor={anchor} font-size="12.5" class="fill-ink">{atRisk(tick)}</text>
	{/each}
	<text x="2" y={H - 8} font-size="12.5" class="fill-ink">left</text>
</svg>
<ChartTable
	caption={label}
	columns={['days', 'share', 'low', 'high', 'followed so long']}
	rows={curve.map((step) => [
		format().number(step.days),
		format().percent(1 - step.share),
		format().percent(1 - step.high),
		format().percent(1 - step.low),
		format().number(atRisk(step.days))
	])}
/>
