<script lang="ts">
	import { addDays } from '$core/maths/calendar';
	import { weighingData, weighPot } from '$core/examine/measuring/weighing';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import MeasureRow from '$ui/MeasureRow.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import { before, type ToolProps } from './tool';

	let { values, on, previous, onread }: ToolProps = $props();
	const format = useFormat();
	const last = untrack(() => before(previous, 'weighing'));

	interface Neighbour {
		key: number;
		name: string;
		fullKg: number | null;
		nowKg: number | null;
	}
	let wateredOn = $state(untrack(() => addDays(on, -2)));
	let fullKg = $state<number | null>(last?.fullKg ?? null);
	let nowKg = $state<number | null>(null);
	let dryKg = $state<number | null>(last?.dryKg ?? null);
	let count = 0;
	let neighbours = $state<Neighbour[]>(
		(last?.neighbours ?? []).map(({ name, fullKg }) => ({ key: count++, name, fullKg, nowKg: null }))
	);
	const data = $derived({
		wateredOn,
		fullKg,
		nowKg,
		dryKg,
		neighbours: neighbours
			.filter((pot) => pot.name.trim() !== '' && pot.fullKg !== null && pot.nowKg !== null)
			.map(({ name, fullKg, nowKg }) => ({ name, fullKg, nowKg }))
	});
	const parsed = $derived(weighingData.safeParse(data));
	const result = $derived(parsed.success ? weighPot(parsed.data, on, values) : null);
	$effect(() => onread(fullKg === null || nowKg === null ? null : { tool: 'weighing', ...data }));
</script>

<div class="grid gap-3 sm:grid-cols-4">
	<DateField
		name="raw.wateredOn"
		label="Last watered through"
		value={wateredOn}
		max={on}
		oninput={(day) => (wateredOn = day)}
	/>
	<MeasureField
		name="raw.fullKg"
		label="Full"
		unit="kg"
		value={fullKg}
		hint="An hour after water."
		oninput={(kg) => (fullKg = kg)}
	/>
	<MeasureField name="raw.nowKg" label="Now" unit="kg" value={nowKg} oninput={(kg) => (nowKg = kg)} />
	<MeasureField
		name="raw.dryKg"
		label="Dry"
		unit="kg"
		optional
		value={dryKg}
		hint="As dry as it may get."
		oninput={(kg) => (dryKg = kg)}
	/>
</div>
{#if dryKg !== null && fullKg !== null && dryKg >= fullKg}
	<p class="mt-2 font-semibold text-oxide" role="alert">Dry must weigh less than full.</p>
{/if}
{#if result?.dryness !== null && result?.dryness !== undefined}
	<div class="mt-5 max-w-xl">
		<p class="text-lg">
			<Workings
				label="Dryness"
				formula="(full − now) ÷ (full − dry)"
				lines={[
					{ label: 'Lost since water', value: format().measure(result.lossKg, 'kg') },
					{ label: 'May lose', value: format().measure((fullKg ?? 0) - (dryKg ?? 0), 'kg') },
					{
						label: 'Light from',
						value: format().percent(values['measuring.light-pot']),
						mark: markOf('measuring.light-pot')
					}
				]}><strong>{format().percent(result.dryness)}</strong></Workings
			>
			of the way to dry, {result.days} day{result.days === 1 ? '' : 's'} after water.
		</p>
		<div class="relative mt-2 h-5 rounded-sm bg-duff" aria-hidden="true">
			<span
				class="absolute inset-y-0 right-0 bg-rain"
				style="width: {Math.max(0, 1 - Math.max(0, result.dryness)) * 100}%"
			></span>
			<span
				class="absolute -inset-y-1 w-0.5 bg-ink"
				style="left: {values['measuring.light-pot'] * 100}%"
				title="light"
			></span>
		</div>
	</div>
{/if}
<section class="mt-6" aria-label="Neighbours">
	<h3 class="text-base">Against its neighbours</h3>
	<p class="text-sm text-slate">
		At least two pots watered the same day. One that drinks clearly less has few working roots, or its mix
		holds the water.
	</p>
	<ul>
		{#each neighbours as pot, index (pot.key)}
			<li class="mt-2 grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-2">
				<TextField
					name="neighbour.{index}.name"
					label="Tree"
					value={pot.name}
					maxlength={60}
					oninput={(event) => (pot.name = event.currentTarget.value)}
				/>
				<MeasureRow
					bind:of={neighbours[index] as Neighbour}
					prefix="neighbour.{index}."
					measures={[
						{ key: 'fullKg', label: 'Full', unit: 'kg' },
						{ key: 'nowKg', label: 'Now', unit: 'kg' }
					]}
				/>
				<Button
					tone="quiet"
					aria-label="Without neighbour {index + 1}"
					onclick={() => (neighbours = neighbours.filter((other) => other.key !== pot.key))}>×</Button
				>
			</li>
		{/each}
	</ul>
	<Button
		size="small"
		class="mt-2"
		disabled={neighbours.length >= 20}
		onclick={() => neighbours.push({ key: count++, name: '', fullKg: null, nowKg: null })}
		>Add a neighbour</Button
	>
	{#if result?.againstNeighbours !== null && result?.againstNeighbours !== undefined}
		<p class="mt-3 text-lg">
			<Workings
				label="Drinking against neighbours"
				formula="its loss ÷ its full weight, ÷ the median of theirs"
				lines={[
					{
						label: 'Slow under',
						value: format().percent(values['measuring.slow-drinker']),
						mark: markOf('measuring.slow-drinker')
					},
					{
						label: 'Hardly drinks under',
						value: format().percent(values['measuring.hardly-drinks']),
						mark: markOf('measuring.hardly-drinks')
					}
				]}
				changes="More neighbours, of the same kind and size of pot."
				><strong>{format().percent(result.againstNeighbours)}</strong></Workings
			>
			of what its neighbours drink.
		</p>
	{:else if neighbours.length >= 2 && result}
		<p class="mt-3 text-sm text-slate">The neighbours have lost too little so far to compare.</p>
	{/if}
</section>
