<script lang="ts">
	import {
		hardnessNames,
		moistureNames,
		moistures,
		penetrometerReading,
		resistanceProfile,
		type PenetrometerReading
	} from '$core/examine/soil/penetrometer';
	import { readPenetrometerCsv, type PenetrometerCsv } from '$core/examine/soil/penetrometer-csv';
	import { simulatedSoils, simulatePenetrometer, type SimulatedSoilName } from '$core/simulate/penetrometer';
	import { atStart } from '$core/text/mid-sentence';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import { z } from 'zod';
	import { partLeft } from './left';
	import type { ToolProps } from './tool';

	let { values, left, onread }: ToolProps = $props();
	const format = useFormat();
	type Source = 'typed' | 'file' | 'simulated';
	let source = $state<Source>('typed');
	const begun = untrack(() => left);
	let moisture = $state<(typeof moistures)[number] | ''>(
		partLeft(begun, 'moisture', z.enum(moistures)) ?? ''
	);
	let readings = $state.raw<PenetrometerReading[]>(
		partLeft(begun, 'readings', z.array(penetrometerReading)) ?? []
	);
	let file = $state.raw<PenetrometerCsv | null>(null);
	let reading = $state(false);
	let position = $state<number | null>(1);
	let depthMm = $state<number | null>(50);
	let resistanceMpa = $state<number | null>(null);
	let soil = $state<SimulatedSoilName>('under a path');
	let seed = 1;
	$effect(() => onread(readings.length > 0 ? { tool: 'penetrometer', source, moisture, readings } : null));
	const profile = $derived(readings.length > 0 ? resistanceProfile(readings, values) : null);

	function choose(next: Source): void {
		source = next;
		readings = [];
		file = null;
	}
	function take(text: string): void {
		file = readPenetrometerCsv(text);
		readings = file.readings;
	}
	async function open(input: HTMLInputElement): Promise<void> {
		const chosen = input.files?.[0];
		if (!chosen) return;
		reading = true;
		try {
			take(await chosen.text());
		} finally {
			reading = false;
			input.value = '';
		}
	}
	const typedFits = $derived(
		position !== null &&
			Number.isInteger(position) &&
			position >= 1 &&
			position <= 200 &&
			depthMm !== null &&
			depthMm >= 0 &&
			depthMm <= 2000 &&
			resistanceMpa !== null &&
			resistanceMpa >= 0 &&
			resistanceMpa <= 15
	);
	function add(): void {
		if (!typedFits || position === null || depthMm === null || resistanceMpa === null) return;
		const last = readings.findLast((entry) => entry.position === position);
		const step = last ? Math.max(10, depthMm - last.depthMm) : 50;
		readings = [...readings, { position, depthMm, resistanceMpa, readings: 1 }];
		depthMm = Math.min(2000, depthMm + step);
		resistanceMpa = null;
		field?.querySelector<HTMLInputElement>('[name="raw.resistance~shown"]')?.focus();
	}
	let field = $state<HTMLElement>();
</script>

<div class="flex flex-col gap-4">
	<Choice
		label="Readings come"
		value={source}
		onchange={choose}
		options={[
			{ value: 'typed', label: 'Typed' },
			{ value: 'file', label: 'From a CSV file' },
			{ value: 'simulated', label: 'From a simulated probe' }
		]}
	/>
	<Choice
		label="The soil is"
		bind:value={moisture}
		options={moistures.map((value) => ({ value, label: moistureNames[value] }))}
	/>
	{#if readings.length > 0 && moisture === ''}
		<p class="text-sm text-ochre">
			Say how wet the soil is: a rod reads dry soil harder than it is to a root.
		</p>
	{:else if moisture === 'dry'}
		<p class="text-sm text-ochre">
			Dry soil reads harder than it is: measure again a day or two after rain or watering.
		</p>
	{/if}
	{#if source === 'typed'}
		<form
			bind:this={field}
			class="flex flex-wrap items-end gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				add();
			}}
		>
			<MeasureField
				name="raw.position"
				label="Position"
				unit=""
				value={position}
				oninput={(value) => (position = value)}
				fieldClass="w-24"
			/>
			<MeasureField
				name="raw.depth"
				label="Depth"
				unit="mm"
				value={depthMm}
				oninput={(value) => (depthMm = value)}
				fieldClass="w-36"
			/>
			<MeasureField
				name="raw.resistance"
				label="Resistance"
				unit="MPa"
				value={resistanceMpa}
				oninput={(value) => (resistanceMpa = value)}
				fieldClass="w-36"
			/>
			<Button type="submit" disabled={!typedFits}>Add</Button>
			<Button tone="quiet" disabled={readings.length === 0} onclick={() => (readings = readings.slice(0, -1))}
				>Last one back</Button
			>
		</form>
		{#if resistanceMpa !== null && resistanceMpa > 15}
			<p class="text-sm font-semibold text-oxide" role="alert">
				At most {format().measure(15, 'MPa')}. Is it in kPa? Then write the unit behind it.
			</p>
		{/if}
	{:else if source === 'file'}
		<label class="flex flex-col gap-1">
			<span class="text-sm font-semibold"
				>CSV with depth and resistance, and position if there are several</span
			>
			<input
				type="file"
				accept=".csv,.txt,.tsv,text/csv,text/plain"
				class="input max-w-md"
				onchange={(event) => void open(event.currentTarget)}
			/>
			<span class="text-xs text-slate"
				>Units in the column names, such as depth_mm or resistance_kpa. Up to 200,000 rows.</span
			>
		</label>
		{#if reading}<p role="status">Reading it …</p>{/if}
	{:else}
		<div class="flex flex-wrap items-end gap-3">
			<Choice
				label="An invented soil"
				bind:value={soil}
				options={(Object.keys(simulatedSoils) as SimulatedSoilName[]).map((value) => ({
					value,
					label: value
				}))}
			/>
			<Button
				onclick={() => {
					// Its soils are simulated as they are at field moisture.
					moisture = 'field';
					take(simulatePenetrometer(simulatedSoils[soil], seed++));
				}}>Probe it</Button
			>
		</div>
	{/if}
	{#if file}
		<div role="status" class="text-sm">
			{#if file.refusal}
				<p class="font-semibold text-oxide">{file.refusal}</p>
			{:else}
				<p class="font-semibold">{format().number(file.rows)} rows read.</p>
			{/if}
			{#each file.notes as note (note)}<p class="text-ochre">{note}</p>{/each}
			{#if file.skippedCount > 0}
				<details>
					<summary class="chalk">{format().number(file.skippedCount)} rows left out</summary>
					<ul>
						{#each file.skipped as { line, why } (line)}<li>Line {line}: {why}.</li>{/each}
						{#if file.skippedCount > file.skipped.length}<li>and more.</li>{/if}
					</ul>
				</details>
			{/if}
		</div>
	{/if}
	{#if profile}
		<p class="text-lg" role="status">
			{#if profile.slowFromMm === null}
				Roots grow freely through all {format().number(profile.bands.length)} depths measured.
			{:else}
				{atStart(hardnessNames[profile.worst?.hardness ?? 'slow'])} from {format().measure(
					profile.stopsFromMm ?? profile.slowFromMm,
					'mm'
				)}; worst
				{format().measure(profile.worst?.meanMpa ?? 0, 'MPa')} at {format().measure(
					profile.worst?.fromMm ?? 0,
					'mm'
				)} to {format().measure(profile.worst?.toMm ?? 0, 'mm')}{profile.openAgainMm !== null
					? `; open again under ${format().measure(profile.openAgainMm, 'mm')}`
					: ''}.
			{/if}
		</p>
		{#if profile.gaps.length > 0}
			<p class="text-sm text-ochre">
				Not measured: {profile.gaps
					.map((gap) => `${format().measure(gap.fromMm, 'mm')}–${format().measure(gap.toMm, 'mm')}`)
					.join(', ')}.
			</p>
		{/if}
	{/if}
</div>
