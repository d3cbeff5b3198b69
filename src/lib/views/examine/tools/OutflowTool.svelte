<script lang="ts">
	import { outflow, outflowData } from '$core/examine/measuring/pouring';
	import { markOf } from '$core/values/values';
	import MeasureField from '$ui/MeasureField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import type { ToolProps } from './tool';

	let { values, onread }: ToolProps = $props();
	const format = useFormat();
	let pouredL = $state<number | null>(null);
	let ranOutL = $state<number | null>(null);
	let firstDripS = $state<number | null>(null);
	const data = $derived({ pouredL, ranOutL, firstDripS });
	const parsed = $derived(outflowData.safeParse(data));
	const result = $derived(parsed.success ? outflow(parsed.data, values) : null);
	$effect(() => onread(pouredL === null || ranOutL === null ? null : { tool: 'outflow', ...data }));
</script>

<p class="mb-3">Stand it on a tray, pour evenly over the whole surface, and catch what runs out.</p>
<div class="grid gap-3 sm:grid-cols-3">
	<MeasureField name="raw.pouredL" label="Poured" unit="L" oninput={(litres) => (pouredL = litres)} />
	<MeasureField name="raw.ranOutL" label="Ran out" unit="L" oninput={(litres) => (ranOutL = litres)} />
	<MeasureField
		name="raw.firstDripS"
		label="First drip after, seconds"
		unit=""
		optional
		oninput={(seconds) => (firstDripS = seconds)}
	/>
</div>
{#if pouredL !== null && ranOutL !== null && ranOutL > pouredL}
	<p class="mt-3 font-semibold text-oxide" role="alert">More ran out than was poured. Was it wet already?</p>
{/if}
{#if result}
	<div class="mt-5 max-w-xl">
		<p class="text-lg">
			<Workings
				label="Outflow"
				formula="ran out ÷ poured"
				lines={[
					{
						label: 'Wanted, from',
						value: format().percent(values['measuring.outflow-least']),
						mark: markOf('measuring.outflow-least')
					},
					{
						label: 'Wanted, up to',
						value: format().percent(values['measuring.outflow-most']),
						mark: markOf('measuring.outflow-most')
					},
					{
						label: 'Channels through from',
						value: format().percent(values['measuring.channelling']),
						mark: markOf('measuring.channelling')
					},
					{
						label: 'and a first drip within',
						value: `${format().number(values['measuring.first-drip-s'])} s`,
						mark: markOf('measuring.first-drip-s')
					}
				]}
				changes="Pour more slowly and look again."><strong>{format().percent(result.share)}</strong></Workings
			>
			ran through, {format().measure(result.keptL, 'L')} stayed.
		</p>
		<div class="relative mt-2 h-5 rounded-sm bg-duff" aria-hidden="true">
			<span
				class="absolute inset-y-0 border-x border-lichen bg-lichen/25"
				style="left: {values['measuring.outflow-least'] * 100}%; width: {(values['measuring.outflow-most'] -
					values['measuring.outflow-least']) *
					100}%"
			></span>
			<span class="absolute inset-y-0 left-0 my-1 bg-rain" style="width: {result.share * 100}%"></span>
		</div>
		<p class="mt-2">{result.advice}</p>
	</div>
{/if}
