<script lang="ts">
	import { atStart } from '$core/text/mid-sentence';
	import { densityNames, judgeCore, soilCore } from '$core/examine/soil/bulk-density';
	import { textureByFeel } from '$core/examine/soil/texture';
	import { textureClasses, textures, type Texture } from '$core/vocabulary/textures';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import MeasureRow from '$ui/MeasureRow.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import { z } from 'zod';
	import { partLeft } from './left';
	import { before, type ToolProps } from './tool';

	let { values, previous, left, onread }: ToolProps = $props();
	const format = useFormat();
	const last = untrack(() => before(previous, 'soil-cores'));
	const felt = untrack(() => before(previous, 'texture'));
	interface Row {
		key: number;
		fromMm: number | null;
		toMm: number | null;
		ringMl: number | null;
		freshG: number | null;
		dryG: number | null;
	}
	let count = 0;
	const row = (fromMm: number): Row => ({
		key: count++,
		fromMm,
		toMm: fromMm + 50,
		ringMl: last?.cores[0]?.ringMl ?? 100,
		freshG: null,
		dryG: null
	});
	let texture = $state<string>(
		untrack(() => partLeft(left, 'texture', z.enum(textures))) ??
			last?.texture ??
			(felt ? textureByFeel(felt) : 'loam')
	);
	const begun = untrack(() => partLeft(left, 'cores', soilCore.array())) ?? [];
	let rows = $state<Row[]>(begun.length > 0 ? begun.map((core) => ({ ...core, key: count++ })) : [row(50)]);
	const cores = $derived(
		rows.map(({ key, ...core }) => {
			const parsed = soilCore.safeParse(core);
			return {
				key,
				core: parsed.success ? parsed.data : null,
				problem: core.dryG !== null && !parsed.success ? (parsed.error.issues[0]?.message ?? null) : null
			};
		})
	);
	const ready = $derived(cores.flatMap(({ core }) => (core ? [core] : [])));
	$effect(() => onread(ready.length > 0 ? { tool: 'soil-cores', texture, cores: ready } : null));
	const kind = $derived(texture as Texture);
</script>

<p class="mb-3">
	Drive a ring of known volume straight in, trim both faces, weigh it fresh without the ring, dry at 105 °C
	for a day, weigh again.
</p>
<SelectField
	name="texture"
	label="Texture"
	bind:value={texture}
	options={textures.map((value) => ({ value, label: atStart(textureClasses[value].label) }))}
	fieldClass="max-w-64"
/>
<ul class="mt-2 divide-y border-b">
	{#each rows as one, index (one.key)}
		{@const read = cores[index]}
		{@const result = read?.core ? judgeCore(read.core, kind, values) : null}
		<li class="py-3">
			<div class="grid grid-cols-2 items-end gap-2 sm:grid-cols-[1fr_1fr_1fr_1fr_1fr_auto]">
				<MeasureRow
					bind:of={rows[index] as Row}
					prefix="c{index}."
					measures={[
						{ key: 'fromMm', label: 'From', unit: 'mm' },
						{ key: 'toMm', label: 'to', unit: 'mm' },
						{ key: 'ringMl', label: 'Ring, ml', unit: '' },
						{ key: 'freshG', label: 'Fresh, g', unit: '' },
						{ key: 'dryG', label: 'Dry, g', unit: '' }
					]}
				/>
				<Button
					tone="quiet"
					disabled={rows.length === 1}
					aria-label="Without core {index + 1}"
					onclick={() => (rows = rows.filter((other) => other.key !== one.key))}>×</Button
				>
			</div>
			{#if read?.problem}
				<p class="mt-1 text-sm font-semibold text-oxide" role="alert">It {format().inWords(read.problem)}.</p>
			{/if}
			{#if result}
				<p class="mt-2">
					<Workings
						label="Bulk density"
						formula="dry mass ÷ ring volume; porosity = 1 − density ÷ {format().number(
							values['soil.particle-density'],
							2
						)}"
						lines={[
							{
								label: 'Ideal under',
								value: format().number(values[`soil.density.ideal.${kind}`], 2),
								mark: markOf(`soil.density.ideal.${kind}`)
							},
							{
								label: 'May affect roots from',
								value: format().number(values[`soil.density.affects.${kind}`], 2),
								mark: markOf(`soil.density.affects.${kind}`)
							},
							{
								label: 'Restricts roots over',
								value: format().number(values[`soil.density.restricts.${kind}`], 2),
								mark: markOf(`soil.density.restricts.${kind}`)
							},
							{ label: 'Porosity', value: format().percent(result.porosity) },
							{
								label: 'Water',
								value: result.water === null ? 'not weighed fresh' : format().percent(result.water)
							},
							{ label: 'Air', value: result.air === null ? 'not known' : format().percent(result.air) },
							{
								label: 'Roots lack air under',
								value: format().percent(values['soil.air-least']),
								mark: markOf('soil.air-least')
							}
						]}
						changes="The texture decides the limits."
						><strong>{format().number(result.bulkDensityMgPerM3, 2)} Mg/m³</strong></Workings
					>: {densityNames[result.judgement]}{result.air === null
						? ''
						: `; air ${format().percent(result.air)}${result.lacksAir ? ', too little' : ''}`}.
				</p>
			{/if}
		</li>
	{/each}
</ul>
<Button
	size="small"
	class="mt-2"
	disabled={rows.length >= 60}
	onclick={() => rows.push(row((rows.at(-1)?.toMm ?? 0) + 100))}>Another core</Button
>
