<script lang="ts">
	import { componentIds, componentOf } from '$core/replant/mixes/components';
	import { mixBody, waterAndAir } from '$core/replant/mixes/retention';
	import { markSentence } from '$core/values/define';
	import type { Values } from '$core/values/values';
	import { useFormat } from '$ui/format';
	import ReferenceFrame from './ReferenceFrame.svelte';

	/** What mixes are made of, with the properties that are reckoned with and what follows alone in a pot. */
	interface Props {
		values: Values;
	}
	let { values }: Props = $props();
	const format = useFormat();
	const DEPTH_MM = 150;
	const rows = $derived(
		componentIds.map((id) => {
			const component = componentOf(id);
			const body = mixBody([{ componentId: id, parts: 1 }], values);
			const alone = waterAndAir(body, { depthMm: DEPTH_MM }, { coarseLayerMm: 0, coarsePoreMm: 1 }, DEPTH_MM);
			return { id, component, body, alone };
		})
	);
	const percent = (share: number): string => format().percent(share);
</script>

<ReferenceFrame
	title="Mix components"
	lead="What a mix is reckoned from: {markSentence.memory}. Bags differ; a bench test of your own mix takes its place."
>
	<div class="relative mt-4 overflow-x-auto">
		<table class="w-full min-w-[58rem] border-t text-sm">
			<thead>
				<tr class="border-b text-left text-slate">
					{#each ['component', 'grains', 'pores between', 'pores inside', 'pore that rules', 'dry', 'pH', 'lasts', 'alone at 150 mm: air', 'water', 'care'] as head, i (head)}
						<th class={['py-1 pr-4 font-normal', i > 0 && i < 10 && 'text-right']}>{head}</th>
					{/each}
				</tr>
			</thead>
			<tbody class="divide-y">
				{#each rows as { id, component, body, alone } (id)}
					<tr>
						<th class="py-1.5 pr-4 text-left font-semibold">{component.name}</th>
						<td class="py-1.5 pr-4 text-right"
							>{format().number(component.fineMm, 2)}–{format().measure(component.coarseMm, 'mm', 1)}</td
						>
						<td class="py-1.5 pr-4 text-right">{percent(component.between)}</td>
						<td class="py-1.5 pr-4 text-right">{percent(component.inside)}</td>
						<td class="py-1.5 pr-4 text-right">{format().measure(body.poreMm, 'mm', 2)}</td>
						<td class="py-1.5 pr-4 text-right">{format().number(component.dryKgL, 2)} kg/L</td>
						<td class="py-1.5 pr-4 text-right">{format().number(component.ph, 1)}</td>
						<td class="py-1.5 pr-4 text-right"
							>{component.lifeYears === null ? 'on and on' : `${component.lifeYears} years`}</td
						>
						<td class="py-1.5 pr-4 text-right font-semibold">{percent(alone.airSpace)}</td>
						<td class="py-1.5 pr-4 text-right">{percent(alone.containerCapacity)}</td>
						<td class="py-1.5"
							>{[component.dust ? 'dust' : '', component.living ? 'Legionella' : '']
								.filter((word) => word !== '')
								.join(', ')}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
</ReferenceFrame>
