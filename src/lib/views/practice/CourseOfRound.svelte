<script lang="ts">
	import { addDays } from '$core/maths/calendar';
	import ChartTable from '$ui/ChartTable.svelte';
	import { useFormat } from '$ui/format';
	import { area, line, scaleLinear } from 'd3';

	/** How a round went: how dry it stood, its roots and its chance, with the days on which it was watered. */
	interface Props {
		days: { day: number; dryness: number; roots: number; watered: boolean }[];
		/** Chance to be alive by week. */
		alive: number[];
		startOn: string;
	}
	let { days, alive, startOn }: Props = $props();
	const format = useFormat();
	const [W, H, LEFT, FOOT] = [520, 230, 44, 30];
	const last = $derived(Math.max(7, days.at(-1)?.day ?? 7));
	const x = $derived(
		scaleLinear()
			.domain([0, last])
			.range([LEFT, W - 8])
	);
	const y = scaleLinear()
		.domain([0, 1])
		.range([H - FOOT, 18]);
	const wet = $derived(
		area<{ day: number; dryness: number }>()
			.x((one) => x(one.day))
			.y0(y(0))
			.y1((one) => y(1 - one.dryness))(days) ?? ''
	);
	const roots = $derived(
		line<{ day: number; roots: number }>()
			.x((one) => x(one.day))
			.y((one) => y(one.roots))(days) ?? ''
	);
	const weeks = $derived(
		alive.map((chance, week) => ({ chance, day: week * 7 })).filter((one) => one.day <= last)
	);
	const living = $derived(
		line<{ day: number; chance: number }>()
			.x((one) => x(one.day))
			.y((one) => y(one.chance))(weeks) ?? ''
	);
	const ticks = $derived(x.ticks(3));
</script>

<svg
	viewBox="0 0 {W} {H}"
	class="block w-full"
	role="img"
	aria-label="Water, roots and chance to live, by day"
>
	{#each [0, 0.5, 1] as tick (tick)}
		<path d="M{LEFT} {y(tick)}H{W - 8}" class="stroke-line" />
		<text x={LEFT - 6} y={y(tick) + 4} text-anchor="end" font-size="12.5" class="fill-slate"
			>{format().percent(tick)}</text
		>
	{/each}
	<path d={wet} class="fill-rain" fill-opacity="0.22" />
	{#each days.filter((one) => one.watered) as one (one.day)}<path
			d="M{x(one.day)} 8v5"
			class="stroke-rain"
			stroke-width="1.4"
		/>{/each}
	<path d={roots} fill="none" class="stroke-ochre" stroke-width="2" stroke-dasharray="5 3" />
	<path d={living} fill="none" class="stroke-lichen" stroke-width="2.6" />
	{#each ticks as tick (tick)}
		<text x={x(tick)} y={H - 8} text-anchor="middle" font-size="12.5" class="fill-slate"
			>{format()
				.date(addDays(startOn, tick))
				.replace(/ \d{4}$/, '')}</text
		>
	{/each}
</svg>
<p class="mt-1 flex flex-wrap gap-x-5 text-sm">
	<span class="inline-flex items-center gap-1.5"
		><span class="inline-block h-3 w-5 bg-rain/25"></span> water at its roots; strokes above: watered</span
	>
	<span class="inline-flex items-center gap-1.5"
		><svg width="22" height="8" aria-hidden="true"
			><path d="M0 4H22" class="stroke-ochre" stroke-width="2" stroke-dasharray="5 3" /></svg
		> its roots</span
	>
	<span class="inline-flex items-center gap-1.5"
		><svg width="22" height="8" aria-hidden="true"
			><path d="M0 4H22" class="stroke-lichen" stroke-width="2.6" /></svg
		> chance to be alive</span
	>
</p>
<ChartTable
	caption="Water, roots and chance to live, by week"
	columns={['day', 'water at its roots', 'roots', 'chance to be alive']}
	rows={weeks.map(({ day, chance }) => [
		format().date(addDays(startOn, day)),
		format().percent(1 - (days.find((one) => one.day === day)?.dryness ?? days[0]?.dryness ?? 0)),
		format().percent(days.find((one) => one.day === day)?.roots ?? days[0]?.roots ?? 0),
		format().percent(chance)
	])}
/>
