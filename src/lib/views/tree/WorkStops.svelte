<script lang="ts">
	import type { WorkStop } from '$core/aftercare/weather/work-stop';
	import { useFormat } from '$ui/format';
	import { resolve } from '$app/paths';

	/** Why no root work is begun today: the weather of the next days against what the tree stands with cut roots. */
	interface Props {
		stops: readonly WorkStop[];
		today: string;
		/** A look says to act at its roots now: then the weather says how, not that it is not to be done. */
		pressing: boolean;
	}
	let { stops, today, pressing }: Props = $props();
	const format = useFormat();
	const units = { cold: '°C', heat: '°C', wind: 'm/s' } as const;
	const names: Record<WorkStop['kind'], string> = {
		cold: 'Cold',
		heat: 'Heat',
		wind: 'Gusts',
		'dry-air': 'Dry air'
	};
	const amount = (stop: WorkStop, value: number): string =>
		stop.kind === 'dry-air' ? `${format().number(value, 1)} kPa` : format().measure(value, units[stop.kind]);
</script>

<div class="border-l-4 border-oxide py-1 pl-3" role="note" aria-label="Weather against the work">
	<p>
		<strong class="text-oxide"
			>{pressing ? 'Act at its roots only with cover ready.' : 'Do not begin root work today.'}</strong
		>
	</p>
	<ul class="text-sm">
		{#each stops as stop (stop.kind)}
			<li>
				{names[stop.kind]}
				{format().day(stop.on, today)}: {amount(stop, stop.figure)} is known or forecast; with freshly cut roots
				it stands
				{stop.kind === 'cold' ? 'no less than' : 'no more than'}
				{amount(stop, stop.limit)}.
			</li>
		{/each}
	</ul>
	<p class="text-sm">
		{pressing
			? 'It is not to wait for better weather; what is cut today stands under cover tonight.'
			: 'Wait, or have cover ready first. An emergency (rot, dying where it stands) may be worth it.'}
		<a class="chalk" href={resolve('/yard/weather')}>Weather</a>
	</p>
</div>
