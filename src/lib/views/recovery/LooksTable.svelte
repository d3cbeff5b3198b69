<script lang="ts">
	import { shootsMean, type Observation } from '$core/examine/looks/observation';
	import { firmnessSaid } from '$core/examine/looks/seen-words';
	import { useFormat } from '$ui/format';

	/** All looks, newest first, with only the columns in which something was ever seen. */
	interface Props {
		observations: readonly Observation[];
		/** Those that were written down as looks, by identity; others were found by a tool or under Examine. */
		own: readonly Observation[];
		today: string;
		/** Asks to correct one of them; null where the case is closed. */
		correct: ((look: Observation) => void) | null;
	}
	let { observations, own, today, correct }: Props = $props();
	const format = useFormat();
	const spread = (look: Observation): string => {
		const sd = shootsMean(look.shootsMm)?.sdMm;
		return sd === null || sd === undefined ? '' : ` ± ${format().measure(sd, 'mm', 0)}`;
	};
	const columns: { heading: string; cell: (look: Observation) => string }[] = [
		{ heading: 'buds', cell: (look) => look.buds ?? '' },
		{ heading: 'leaves', cell: (look) => look.leafState ?? '' },
		{ heading: 'cover', cell: (look) => (look.leafCover === null ? '' : format().percent(look.leafCover)) },
		{
			heading: 'shoots',
			cell: (look) =>
				look.shootExtensionMm === null
					? ''
					: `${format().measure(look.shootExtensionMm, 'mm', 0)}${spread(look)}`
		},
		{
			heading: 'healthy one’s',
			cell: (look) => (look.healthyShootMm === null ? '' : format().measure(look.healthyShootMm, 'mm', 0))
		},
		{
			heading: 'alive to',
			cell: (look) => (look.diebackLimitMm === null ? '' : format().measure(look.diebackLimitMm / 1000, 'm'))
		},
		{
			heading: 'weight',
			cell: (look) => (look.weightKg === null ? '' : format().measure(look.weightKg, 'kg'))
		},
		{ heading: 'stands', cell: (look) => (look.firmness ? firmnessSaid[look.firmness].now : '') },
		{ heading: 'smell', cell: (look) => look.smell ?? '' },
		{
			heading: 'white tips',
			cell: (look) => (look.whiteTips === null ? '' : look.whiteTips ? 'yes' : 'no')
		},
		{
			heading: 'at the edge',
			cell: (look) => (look.rootsAtEdge === null ? '' : look.rootsAtEdge ? 'yes' : 'no')
		},
		{
			heading: 'woundwood',
			cell: (look) => (look.woundwoodMm === null ? '' : format().measure(look.woundwoodMm, 'mm', 0))
		},
		{ heading: 'pests', cell: (look) => look.pests ?? '' },
		{ heading: 'suckers', cell: (look) => (look.suckers === null ? '' : String(look.suckers)) },
		{
			heading: 'sample',
			cell: (look) => (look.sample === null ? '' : `${look.sample.alive} of ${look.sample.looked} alive`)
		},
		{ heading: 'lost', cell: (look) => (look.lostCount === null ? '' : String(look.lostCount)) }
	];
	const used = $derived(columns.filter(({ cell }) => observations.some((look) => cell(look) !== '')));
</script>

<details class="mt-6">
	<summary class="font-display text-lg font-semibold"
		>All looks <span class="text-base font-normal text-slate">{observations.length}</span></summary
	>
	<div class="relative overflow-x-auto">
		<table class="mt-2 w-full text-sm whitespace-nowrap">
			<thead>
				<tr class="border-b text-left text-slate">
					<th class="py-1 pr-3 font-normal">day</th>
					{#each used as { heading } (heading)}<th class="py-1 pr-3 font-normal">{heading}</th>{/each}
					<th class="py-1 font-normal">note</th>
				</tr>
			</thead>
			<tbody class="divide-y">
				{#each [...observations].reverse() as look (look.id)}
					<tr>
						<td class="py-1 pr-3">{format().day(look.observedOn, today)}</td>
						{#each used as { heading, cell } (heading)}<td class="py-1 pr-3">{cell(look)}</td>{/each}
						<td class="py-1 whitespace-normal"
							>{look.note}{#each own.filter((one) => one.observedOn === look.observedOn) as one (one.id)}
								{#if one.version > 1}<span class="text-slate"> corrected since</span>{/if}
								{#if correct}<button
										type="button"
										class="chalk ml-2"
										aria-label="Correct the look of {format().day(one.observedOn, today)}"
										onclick={() => correct(one)}>Correct</button
									>{/if}
							{/each}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
</details>
