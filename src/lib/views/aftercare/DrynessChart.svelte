<script lang="ts" module>
	/** So many days back it is drawn. */
	export const DRAWN_DAYS = 60;
</script>

<script lang="ts">
	import ChartTable from '$ui/ChartTable.svelte';
	import ChartAxes from '$ui/ChartAxes.svelte';
	import { useFormat } from '$ui/format';
	import { area, line, scaleLinear, scaleUtc } from 'd3';

	/** Dryness by day with how sure it is, what was poured and seen, and how it goes on from today. */
	interface Day {
		on: string;
		dryness: number;
		sd: number;
		poured?: boolean;
		seen?: readonly { how: string; dryness: number }[];
	}
	interface Props {
		days: readonly Day[];
		/** From today on, if nothing is poured. */
		ahead: readonly { on: string; dryness: number }[];
		trigger: number;
		today: string;
		label: string;
		/** Rain comes to it as well as what is poured. */
		rain?: boolean;
	}
	let { days, ahead, trigger, today, label, rain = false }: Props = $props();
	const format = useFormat();
	const [W, H, LEFT, FOOT] = [380, 150, 42, 20];
	const at = (on: string): Date => new Date(`${on}T00:00:00Z`);
	const shown = $derived(days.slice(-DRAWN_DAYS));
	const last = $derived(ahead.at(-1)?.on ?? today);
	const x = $derived(
		scaleUtc()
			.domain([at(shown[0]?.on ?? today), at(last)])
			.range([LEFT, W - 6])
	);
	const y = scaleLinear()
		.domain([0, 1])
		.range([8, H - FOOT]);
	const clip = (value: number): number => Math.min(1, Math.max(0, value));
	const band = $derived(
		area<Day>()
			.x((day) => x(at(day.on)))
			.y0((day) => y(clip(day.dryness - 1.645 * day.sd)))
			.y1((day) => y(clip(day.dryness + 1.645 * day.sd)))(shown) ?? ''
	);
	const course = $derived(
		line<Day>()
			.x((day) => x(at(day.on)))
			.y((day) => y(day.dryness))(shown) ?? ''
	);
	const onward = $derived(
		line<{ on: string; dryness: number }>()
			.x((day) => x(at(day.on)))
			.y((day) => y(day.dryness))([...shown.slice(-1), ...ahead]) ?? ''
	);
</script>

<div>
	<svg viewBox="0 0 {W} {H}" class="block w-full" role="img" aria-label={label}>
		<path d="M{LEFT} {y(trigger)}H{W - 6}" class="stroke-ink" stroke-width="1.5" stroke-dasharray="6 4" />
		<text x={LEFT - 5} y={y(trigger) + 4} text-anchor="end" font-size="12.5" class="fill-ink">water</text>
		<ChartAxes
			left={LEFT}
			right={W - 6}
			foot={H - 4}
			rows={[
				{ at: y(0), label: 'full' },
				{ at: y(1), label: 'dry', dashed: true }
			]}
			columns={x.ticks(4).map((tick) => ({
				at: x(tick),
				label: format().day(tick.toISOString().slice(0, 10), today)
			}))}
		/>
		<path d={band} class="fill-rain" fill-opacity="0.22" />
		<path d={course} fill="none" class="stroke-rain" stroke-width="2.5" />
		<path d={onward} fill="none" class="stroke-rain" stroke-width="2" stroke-dasharray="3 3" />
		<path d="M{x(at(today))} 8V{H - FOOT}" class="stroke-edge" />
		{#each shown as day (day.on)}
			{#if day.poured}
				<path d="M{x(at(day.on))} 2l4 6h-8z" class="fill-rain" transform="rotate(180 {x(at(day.on))} 5)" />
			{/if}
			{#each day.seen ?? [] as seen (seen.how)}
				<circle
					cx={x(at(day.on))}
					cy={y(seen.dryness)}
					r={seen.how === 'scale' ? 2 : 3.5}
					class="fill-paper stroke-ink"
					stroke-width="1.5"><title>{format().day(day.on)}: {seen.how}</title></circle
				>
			{/each}
		{/each}
	</svg>
	<ChartTable
		caption={label}
		columns={['day', 'dry']}
		rows={[...shown, ...ahead].map((day) => [format().day(day.on), format().percent(day.dryness)])}
	/>
	<p class="text-xs text-slate">
		Band: 90 %. Drops: water given{rain ? '; the rest is rain' : ''}. Rings: {rain
			? 'probed or felt'
			: 'weighed, probed or felt'}; each corrects by its own error.
		{ahead.length > 0 ? 'Dashed: from today on, if nothing is poured.' : ''}
	</p>
</div>
