<script lang="ts">
	import { numberTyped } from '$core/text/typed';
	import { atStart } from '$core/text/mid-sentence';
	import { feelNames, feels, moistureData, whereToFeel, type Feel } from '$core/examine/measuring/moisture';
	import { seenByHand } from '$core/aftercare/water/pot-state';
	import Choice from '$ui/Choice.svelte';
	import TextField from '$ui/TextField.svelte';
	import { useFormat } from '$ui/format';
	import { type ToolProps } from './tool';

	let { tree, values, on, onread }: ToolProps = $props();
	const format = useFormat();
	let feel = $state<Feel | ''>('');
	let percent = $state('');
	const data = $derived({
		feel: feel === '' ? null : feel,
		probeShare: percent.trim() === '' ? null : numberTyped(percent.replace('%', '')) / 100
	});
	const parsed = $derived(moistureData.safeParse(data));
	const seen = $derived(parsed.success ? seenByHand([{ on, data: parsed.data }], values) : []);
	$effect(() =>
		onread(data.feel === null && data.probeShare === null ? null : { tool: 'moisture', ...data })
	);
</script>

<p class="mb-3">{whereToFeel(tree.situation === 'in-ground')}</p>
<Choice
	label="It feels"
	bind:value={feel}
	options={feels.map((value) => ({ value, label: atStart(feelNames[value]) }))}
/>
<div class="mt-4 max-w-48">
	<TextField
		name="raw.probeShare"
		label="A probe reads"
		hint="% water by volume"
		optional
		inputmode="decimal"
		value={percent}
		oninput={(event) => (percent = event.currentTarget.value)}
	/>
</div>
{#each seen as one (one.how)}
	<p class="mt-3">
		{one.how === 'felt' ? 'Felt' : 'Probed'}: about <strong>{format().percent(one.dryness)} dry</strong>, give
		or take {format().percent(one.sd)}. It corrects how dry it is reckoned by as much as that is sure.
	</p>
{/each}
