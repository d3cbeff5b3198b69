<script lang="ts">
	import { feelAnswers, feelings, feelSteps, textureByFeel } from '$core/examine/soil/texture';
	import { textureClasses } from '$core/vocabulary/textures';
	import { waterHeld } from '$core/examine/soil/water-held';
	import { markOf } from '$core/values/values';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import type { ToolProps } from './tool';

	let { values, onread }: ToolProps = $props();
	const format = useFormat();
	let ball = $state<'yes' | 'no' | ''>('');
	let ribbonMm = $state<number | null>(null);
	let feel = $state<(typeof feelings)[number] | ''>('');
	let organicPercent = $state<number | null>(2.5);
	const answers = $derived({
		ball: ball === '' ? undefined : ball === 'yes',
		ribbonMm: ball === 'no' ? 0 : (ribbonMm ?? undefined),
		feel: ball === 'no' ? ('gritty' as const) : feel || undefined
	});
	const parsed = $derived(feelAnswers.safeParse(answers));
	const texture = $derived(parsed.success ? textureByFeel(parsed.data) : null);
	const organic = $derived(Math.min(8, Math.max(0, organicPercent ?? 2.5)));
	const held = $derived(
		texture
			? waterHeld(textureClasses[texture].sandPercent, textureClasses[texture].clayPercent, organic)
			: null
	);
	$effect(() => onread(parsed.success ? { tool: 'texture', ...parsed.data, organicPercent: organic } : null));
	const pc = (share: number): string => format().percent(share);
	const feelNames = { gritty: 'Gritty, like sugar', smooth: 'Smooth, like flour', neither: 'Neither' };
</script>

<ol class="flex flex-col gap-4">
	<li>
		<p class="mb-1">1. {feelSteps[0]}</p>
		<Choice
			label="It stays a ball when let go"
			bind:value={ball}
			options={[
				{ value: 'yes', label: 'Yes' },
				{ value: 'no', label: 'No, it falls apart' }
			]}
		/>
	</li>
	{#if ball === 'yes'}
		<li>
			<p class="mb-1">2. {feelSteps[1]}</p>
			<MeasureField
				name="raw.ribbonMm"
				label="Length of the ribbon"
				hint="0 when no ribbon forms."
				unit="mm"
				value={ribbonMm}
				oninput={(mm) => (ribbonMm = mm)}
				fieldClass="max-w-56"
			/>
		</li>
		<li>
			<p class="mb-1">3. {feelSteps[2]}</p>
			<Choice
				label="It feels"
				bind:value={feel}
				options={feelings.map((value) => ({ value, label: feelNames[value] }))}
			/>
		</li>
	{/if}
</ol>
{#if texture && held}
	<div class="mt-5 max-w-xl border-t pt-4">
		<p class="font-display text-2xl font-semibold first-letter:uppercase" role="status">
			{textureClasses[texture].label}
		</p>
		<MeasureField
			name="raw.organicPercent"
			label="Organic matter, %"
			unit=""
			value={organicPercent}
			optional
			oninput={(percent) => (organicPercent = percent)}
			fieldClass="mt-2 max-w-56"
		/>
		<h3 class="mt-4 text-base">Water in 100 parts of this soil</h3>
		<div class="mt-1 flex h-9 overflow-hidden rounded-sm border border-edge text-sm" aria-hidden="true">
			<span class="grid place-items-center overflow-hidden bg-duff" style="width: {held.wilting * 100}%"
			></span>
			<span
				class="grid place-items-center overflow-hidden bg-rain font-semibold text-paper"
				style="width: {held.available * 100}%">{pc(held.available)}</span
			>
			<span
				class="grid place-items-center overflow-hidden border-l border-dashed border-rain"
				style="width: {(held.saturation - held.fieldCapacity) * 100}%">air</span
			>
			<span class="flex-1 bg-bark"></span>
		</div>
		<p class="mt-1 text-sm">
			<Workings
				label="Water held, by texture"
				formula="Saxton & Rawls 2006, equations 1–5 and 16–18"
				lines={[
					{
						label: 'Sand, typical of the class',
						value: `${textureClasses[texture].sandPercent} %`,
						mark: 'memory, five of them published'
					},
					{
						label: 'Clay, typical of the class',
						value: `${textureClasses[texture].clayPercent} %`,
						mark: 'memory, five of them published'
					},
					{ label: 'Wilting point', value: pc(held.wilting) },
					{ label: 'Field capacity', value: pc(held.fieldCapacity) },
					{ label: 'Saturation', value: pc(held.saturation) },
					{ label: 'Conductivity when full', value: `${format().number(held.conductivityMmPerH, 1)} mm/h` },
					{ label: 'Settles to by itself', value: `${format().number(held.normalDensityMgPerM3, 2)} Mg/m³` }
				]}
				changes="More organic matter; compaction takes the air first."
				>{pc(held.wilting)} roots cannot draw, {pc(held.available)} they can, {pc(
					held.saturation - held.fieldCapacity
				)} drains and holds air.</Workings
			>
		</p>
		<p class="mt-2 text-sm text-slate">
			Dense for roots from {format().number(values[`soil.density.affects.${texture}`], 2)}, closed from {format().number(
				values[`soil.density.restricts.${texture}`],
				2
			)} Mg/m³ ({markOf(`soil.density.restricts.${texture}`)}).
		</p>
	</div>
{/if}
