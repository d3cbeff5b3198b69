<script lang="ts">
	import { atStart } from '$core/text/mid-sentence';
	import { slideResultNames, slideResults } from '$core/examine/measuring/hand-tests';
	import Choice from '$ui/Choice.svelte';
	import { useFormat } from '$ui/format';
	import { yesOrNo, type ToolProps } from './tool';

	let { values, onread }: ToolProps = $props();
	const format = useFormat();
	let result = $state<(typeof slideResults)[number] | ''>('');
	let seen = $state(false);
	let wallPercent = $state(50);
	let holes = $state<'yes' | 'no' | ''>('');
	const outOfHoles = $derived(holes === '' ? null : holes === 'yes');
	$effect(() =>
		onread(
			result ? { tool: 'slide-test', result, wallShare: seen ? wallPercent / 100 : null, outOfHoles } : null
		)
	);
</script>

<p class="mb-3">
	Lay it on its side, hold the base of the trunk, and draw the pot off; never pull by the stem alone.
</p>
<Choice
	label="The ball"
	bind:value={result}
	options={slideResults.map((value) => ({ value, label: atStart(slideResultNames[value]) }))}
/>
<div class="mt-4 flex flex-col gap-3">
	<Choice label="Roots grow out of the holes" bind:value={holes} options={yesOrNo} />
	<label class="flex min-h-11 items-center gap-2"
		><input type="checkbox" class="size-5" bind:checked={seen} />I saw the wall of the ball</label
	>
	{#if seen}
		<label class="flex max-w-md flex-col gap-1">
			<span class="text-sm font-semibold"
				>Circling roots cover <output>{wallPercent} %</output> of the wall</span
			>
			<input type="range" min="0" max="100" step="5" bind:value={wallPercent} class="h-11 accent-ink" />
			<span class="text-xs text-slate"
				>From {format().percent(values['measuring.mat-some'])} they are many; from {format().percent(
					values['measuring.mat-solid']
				)} a solid mat.</span
			>
		</label>
	{/if}
</div>
