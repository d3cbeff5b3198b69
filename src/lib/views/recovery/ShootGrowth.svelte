<script lang="ts">
	import type { SeasonGrowth } from '$core/recovery/shoot-growth';
	import { useFormat } from '$ui/format';

	/** Shoots of each season against the warmth it had. */
	interface Props {
		seasons: readonly SeasonGrowth[];
		/** Warmth counts above this, °C. */
		baseC: number;
		today: string;
	}
	let { seasons, baseC, today }: Props = $props();
	const format = useFormat();
	const mm = (value: number): string => format().measure(value, 'mm', 0);
</script>

<div class="relative mt-2 overflow-x-auto">
	<table class="w-full text-sm">
		<caption class="text-left text-slate">Growth by warmth: a cold spring is not a tree that fails</caption>
		<thead>
			<tr class="border-b text-left text-slate">
				<th class="py-1 pr-4 font-normal">season</th>
				<th class="pr-4 font-normal">shoots at the last reading</th>
				<th class="pr-4 font-normal">for each 100 °C days over {format().measure(baseC, '°C')}</th>
				<th class="font-normal">grow to</th>
			</tr>
		</thead>
		<tbody class="divide-y">
			{#each seasons as season (season.year)}
				<tr>
					<td class="py-1 pr-4">{season.year}</td>
					<td class="pr-4"
						>{mm(season.lastMm)}, {format().day(season.lastOn, today)}{#if season.shrunk > 0}<span
								class="block text-slate"
								>{season.shrunk} shorter {season.shrunk === 1 ? 'reading' : 'readings'} left out</span
							>{/if}</td
					>
					<td class="pr-4">
						{season.mmPer100 === null
							? 'warmth not measured'
							: `${mm(season.mmPer100)}, of ${format().number(season.warmth ?? 0)} °C days`}
					</td>
					<td>
						{season.growsTo
							? `${mm(season.growsTo.mm)} ± ${mm(season.growsTo.errorMm)} (logistic fit${season.growsTo.over === 'days' ? ' over days' : ''})`
							: `no curve from ${season.readings} reading${season.readings === 1 ? '' : 's'}`}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
</div>
