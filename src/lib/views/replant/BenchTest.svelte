<script lang="ts">
	import {
		benchTest,
		benchTestInput,
		weighTest,
		weighTestInput,
		type MeasuredMix
	} from '$core/replant/mixes/bench-test';
	import { fieldProblems } from '$core/vocabulary/fields';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureRow from '$ui/MeasureRow.svelte';
	import { useFormat } from '$ui/format';

	/** A test at the bench that knows better than grain sizes: by a measuring jug, or by weighing. */
	interface Props {
		today: string;
		/** Pores as worked out from the parts. */
		modelPorosity: number;
		onmeasured: (measured: MeasuredMix) => void;
	}
	let { today, modelPorosity, onmeasured }: Props = $props();
	const format = useFormat();
	type Measured = 'fillL' | 'depthMm' | 'takenUpL' | 'drainedL' | 'dryKg' | 'drainedKg' | 'fullKg';
	let how = $state<MeasuredMix['how']>('volumes');
	let test = $state<Record<Measured, number | null>>({
		fillL: null,
		depthMm: 150,
		takenUpL: null,
		drainedL: null,
		dryKg: null,
		drainedKg: null,
		fullKg: null
	});
	const outcome = $derived.by(() => {
		const { fillL, takenUpL, drainedL, dryKg, drainedKg, fullKg } = test;
		if (how === 'volumes') {
			if (fillL === null || takenUpL === null || drainedL === null) return null;
			const read = benchTestInput.safeParse({ fillL, takenUpL, drainedL });
			return read.success
				? { result: benchTest(read.data), problem: null }
				: { result: null, problem: fieldProblems(read.error)[0] ?? null };
		}
		if (fillL === null || dryKg === null || drainedKg === null) return null;
		const read = weighTestInput.safeParse({ fillL, dryKg, drainedKg, fullKg });
		return read.success
			? { result: weighTest(read.data, modelPorosity), problem: null }
			: { result: null, problem: fieldProblems(read.error)[0] ?? null };
	});
	const both: { key: Measured; label: string; unit: 'L' | 'mm' | 'kg'; optional?: boolean }[] = [
		{ key: 'fillL', label: 'Volume of the mix', unit: 'L' },
		{ key: 'depthMm', label: 'Its depth in the test pot', unit: 'mm' }
	];
	const measures: Record<MeasuredMix['how'], typeof both> = {
		volumes: [
			...both,
			{ key: 'takenUpL', label: 'Poured in', unit: 'L' },
			{ key: 'drainedL', label: 'Ran out', unit: 'L' }
		],
		weighings: [
			...both,
			{ key: 'drainedKg', label: 'Drained', unit: 'kg' },
			{ key: 'dryKg', label: 'Dried through', unit: 'kg' },
			{ key: 'fullKg', label: 'Full of water', unit: 'kg', optional: true }
		]
	};
	const words: Record<string, string> = {
		fillL: 'The volume of the mix',
		takenUpL: 'What was poured in',
		drainedL: 'What ran out',
		dryKg: 'The dry mix',
		drainedKg: 'The drained mix',
		fullKg: 'The mix full of water'
	};
</script>

<div class="flex flex-col gap-3">
	<Choice
		label="Tested by"
		bind:value={how}
		options={[
			{ value: 'volumes', label: 'a measuring jug' },
			{ value: 'weighings', label: 'weighing it' }
		]}
	/>
	<p class="text-sm text-slate">
		{how === 'volumes'
			? 'Close the holes of a pot, fill it with dry mix and tap it down. Pour water until it stands level with the mix, and note how much. Open the holes and catch what runs out within an hour.'
			: 'Weigh the mix alone: drained after watering through, and dried through in a warm room. A third weighing with the holes closed and water level with the mix tells the pores too.'}
	</p>
	<div class="grid gap-3 sm:grid-cols-3">
		<MeasureRow bind:of={test} prefix="test." measures={measures[how]} />
	</div>
	{#if outcome?.problem}
		<p class="text-oxide" role="alert">
			{words[outcome.problem.field] ?? 'It'}
			{outcome.problem.message}.
		</p>
	{:else if outcome?.result}
		<p aria-live="polite">
			Air <strong>{format().percent(outcome.result.airSpace)}</strong>, water
			<strong>{format().percent(outcome.result.containerCapacity)}</strong>, pores {format().percent(
				outcome.result.porosity
			)} at {format().measure(test.depthMm ?? 0, 'mm')}.
		</p>
	{/if}
	<div>
		<Button
			disabled={!outcome?.result || test.depthMm === null || test.depthMm < 20}
			onclick={() => {
				if (outcome?.result && test.depthMm !== null)
					onmeasured({
						measuredOn: today,
						how,
						depthMm: test.depthMm,
						porosity: outcome.result.porosity,
						containerCapacity: outcome.result.containerCapacity,
						dryKgL: outcome.result.dryKgL
					});
			}}>Use it instead of the grain sizes</Button
		>
	</div>
</div>
